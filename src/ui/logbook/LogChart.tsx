'use client';
/** A log drawn: volts and amps by turns of the wheel and drags, thinned aside so that a million rows move smoothly. */
import { format } from 'date-fns';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Thinned } from '../../core/recorderLog/extremes';
import type { LogRole } from '../../core/recorderLog/series';
import { ChartFrame, type ChartKey } from '../charts/ChartFrame';
import { axis, sheet, type Point } from '../charts/sheet';
import { moved, widened, type Stretch } from '../charts/stretch';
import { showStretch, useLineChart } from '../charts/useLineChart';
import { zoomAlong } from '../charts/zoomable';
import { valueAt } from '../charts/valueAt';
import { useJobFile } from '../shell/jobPage';
import { clockTicks, tickPattern } from './clockTicks';
import type { ReadLog } from './source';

const DASH: Readonly<Partial<Record<LogRole, number[]>>> = {
  'coach-volts': [6, 3],
  'coach-amps': [6, 3],
  'chassis-amps': [2, 3],
  'alternator-amps': [10, 3, 2, 3],
};
const BUCKETS = 900;
const MOST_MARKS = 60;
/** Rows of the table beside it. */
const TABLE_ROWS = 13;
/** Least that is shown: so many of the log's own steps, or so many seconds. */
const LEAST = { samples: 10, seconds: 20 };

const hue = (role: LogRole): string =>
  role.startsWith('coach')
    ? '--coach'
    : role.startsWith('chassis') || role.startsWith('alternator')
      ? '--engine'
      : '--ink';

/** s this device's clock is ahead of UTC. */
const aheadAt = (t: number): number => -60 * new Date(t * 1000).getTimezoneOffset();
const when = (t: number, pattern: string) => format(new Date(t * 1000), pattern);

const AXIS = (unit: string): 'y' | 'y1' => (unit === 'V' ? 'y' : 'y1');
const DIGITS = (unit: string): number => (unit === 'V' ? 2 : 1);

/** As a meter shows it: no minus before nought. */
const figure = (value: number, unit: string): string => {
  const text = value.toFixed(DIGITS(unit));
  return `${(Number(text) === 0 ? text.replace('-', '') : text).replace('-', '\u2212')} ${unit}`;
};

type Line = { role: LogRole; points: Thinned };
interface Props {
  log: ReadLog;
  window(from: number, to: number, buckets: number): Promise<Line[]>;
}

export function LogChart({ log, window: ask }: Props) {
  const { job, words } = useJobFile();
  const { from, to, interval, events } = log.reading;
  const limits = useMemo(
    () => ({ min: from, max: to, least: Math.max(LEAST.seconds, LEAST.samples * interval) }),
    [from, to, interval],
  );
  const [shown, setShown] = useState<Stretch>([from, to]);
  const [cursor, setCursor] = useState<number>();
  const lines = useWindow(ask, shown);
  const start = useRef(shown);
  const draw = useCallback(() => {
    const has = (which: 'y' | 'y1') => log.channels.some((c) => AXIS(c.unit) === which);
    const marks = events.filter((e) => e.kind !== 'stage').slice(0, MOST_MARKS);
    return {
      data: {
        datasets: log.channels.map((c) => ({
          label: c.name,
          data: [] as Point[],
          yAxisID: AXIS(c.unit),
          borderWidth: 1.6,
          pointRadius: 0,
          spanGaps: false,
          normalized: true,
          borderColor: sheet(hue(c.role)),
          borderDash: DASH[c.role] ?? [],
        })),
      },
      options: {
        plugins: {
          annotation: {
            annotations: Object.fromEntries(
              marks.map((e, i) => [
                `e${i}`,
                {
                  type: 'line' as const,
                  xMin: e.t,
                  xMax: e.t,
                  borderColor: sheet('--ink-3'),
                  borderWidth: 1,
                  borderDash: [2, 3],
                },
              ]),
            ),
          },
          zoom: zoomAlong({ ...limits, onWindow: (a, b) => setShown([a, b]) }),
        },
        scales: {
          x: clock(start.current),
          y: { ...axis('linear', { unit: 'V' }), display: has('y') },
          y1: { ...axis('linear', { unit: 'A', lines: false }), display: has('y1'), position: 'right' as const },
        },
      },
    };
  }, [log, events, limits]);
  const { canvas, chart } = useLineChart(draw, { onPoint: setCursor, at: cursor });
  useEffect(() => {
    showStretch(chart.current, ...shown);
    start.current = shown;
  }, [chart, shown]);
  useEffect(() => {
    const c = chart.current;
    if (!c || !lines) return;
    lines.forEach(({ points }, k) => {
      const data = new Array<Point>(points.t.length);
      for (let i = 0; i < points.t.length; i++) data[i] = { x: points.t[i]!, y: points.values[i]! };
      const set = c.data.datasets[k];
      if (set) set.data = data;
    });
    c.update('none');
  }, [chart, lines, draw]);
  const onKey = (key: ChartKey) => {
    if (key === 'all') setShown([from, to]);
    else if (key === 'left' || key === 'right') setShown(moved(shown, key === 'left' ? -0.3 : 0.3, limits));
    else setShown(widened(shown, key === 'closer' ? 0.6 : 1.7, limits, cursor));
  };
  const read = (t: number): string[] =>
    log.channels.map((c, k) => {
      const points = lines?.[k]?.points;
      const value = points && points.t.length > 0 ? valueAt(points.t, points.values, t) : NaN;
      return Number.isFinite(value) ? figure(value, c.unit) : '–';
    });
  const [a, b] = shown;
  return (
    <ChartFrame
      title="The log"
      note={`from ${when(a, 'd MMM HH:mm')} to ${when(b, 'd MMM HH:mm')}`}
      says="The log drawn."
      legend={log.channels.map((c) => ({
        name: `${words(c.name)}, ${AXIS(c.unit) === 'y' ? 'left' : 'right'}`,
        colour: hue(c.role),
        dash: DASH[c.role] ?? [],
      }))}
      reads={
        cursor === undefined
          ? 'Point at it to read it; wheel, drag or the buttons to look closer'
          : `${when(cursor, 'd MMM HH:mm:ss')}: ` +
            read(cursor)
              .map((value, k) => `${words(log.channels[k]!.name)} ${value}`)
              .join(', ')
      }
      table={{
        head: ['When', ...log.channels.map((c) => c.name)],
        rows: Array.from({ length: TABLE_ROWS }, (_, i) => {
          const t = a + ((b - a) * i) / (TABLE_ROWS - 1);
          return [when(t, 'd MMM HH:mm:ss'), ...read(t)];
        }),
      }}
      file={`${job.number}-log`}
      canvas={canvas}
      className="logchart"
      boxClassName="h-80 flex-none rounded-field border-2 border-ink bg-card p-1.5"
      onKey={onKey}
      onLeave={() => setCursor(undefined)}
      foot={
        <div className="flex gap-2">
          {(
            [
              ['←', 'Earlier', () => moved(shown, -0.5, limits)],
              ['Closer', undefined, () => widened(shown, 0.5, limits, cursor)],
              ['Wider', undefined, () => widened(shown, 2, limits, cursor)],
              ['→', 'Later', () => moved(shown, 0.5, limits)],
              ['All', undefined, (): Stretch => [from, to]],
            ] as const
          ).map(([text, label, next]) => (
            <button key={text} type="button" className="btn btn-sm" aria-label={label} onClick={() => setShown(next())}>
              {text}
            </button>
          ))}
        </div>
      }
    />
  );
}

/** What a window of the log holds: one question under way at a time, and of those that wait only the newest. */
function useWindow(ask: Props['window'], [from, to]: Stretch): Line[] | undefined {
  const [lines, setLines] = useState<Line[]>();
  const state = useRef<{ busy: boolean; wanted?: Stretch | undefined; alive: boolean }>({ busy: false, alive: true });
  useEffect(() => {
    const s = state.current;
    s.alive = true;
    return () => {
      s.alive = false;
    };
  }, []);
  useEffect(() => {
    const s = state.current;
    const next = async () => {
      if (s.busy || !s.wanted || !s.alive) return;
      const [a, b] = s.wanted;
      s.wanted = undefined;
      s.busy = true;
      const slack = (b - a) / 4;
      const got = await ask(a - slack, b + slack, BUCKETS).catch(() => undefined);
      s.busy = false;
      if (s.alive && got) setLines(got);
      void next();
    };
    s.wanted = [from, to];
    void next();
  }, [ask, from, to]);
  return lines;
}

/** A time axis whose ticks a clock would have. */
const clock = ([min, max]: Stretch) =>
  axis(
    'linear',
    {},
    {
      min,
      max,
      afterBuildTicks: (scale: { min: number; max: number; ticks: { value: number; label?: string }[] }) => {
        const { step, at } = clockTicks(scale.min, scale.max, 8, aheadAt(scale.min));
        scale.ticks = at.map((value) => ({ value, label: when(value, tickPattern(value, step, aheadAt(value))) }));
      },
      ticks: {
        callback: (_: unknown, i: number, ticks: { label?: string }[]) => ticks[i]!.label ?? '',
      },
    },
  );
