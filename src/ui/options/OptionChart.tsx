'use client';
/**
 * One quantity of all compared candidates over a scenario. Lines are told apart by dash and by a letter at
 * their end, the picked one is heavy; legs under way are washed; the cursor is shared by all charts.
 */
import type { ChartDataset, Plugin } from 'chart.js';
import type { AnnotationOptions } from 'chartjs-plugin-annotation';
import { useCallback, useEffect, useMemo, useRef, type ReactNode } from 'react';
import { DASHES } from '../../core/plan/letters';
import { Extremes } from '../../core/recorderLog/extremes';
import { ChartFrame, type ChartKey } from '../charts/ChartFrame';
import { axis, sheet, type Point } from '../charts/sheet';
import { widened, type Stretch } from '../charts/stretch';
import { valueAt } from '../charts/valueAt';
import { showStretch, useLineChart } from '../charts/useLineChart';
import { zoomAlong } from '../charts/zoomable';
import { clockOf, isLong, tickOf } from './time';

export interface ChartLine {
  letter: string;
  /** Name of its candidate. */
  name: string;
  /** Which dash pattern. */
  index: number;
  picked: boolean;
  /** s */
  t: Float64Array;
  values: Float64Array;
}

export interface ChartLeg {
  kind: string;
  name: string;
  /** s */
  from: number;
  to: number;
}

interface Props {
  title: string;
  unit: string;
  digits: number;
  lines: readonly ChartLine[];
  legs: readonly ChartLeg[];
  startHour: number;
  /** Hours shown; shared by the charts. */
  shown: Stretch;
  onShown(shown: Stretch): void;
  cursor: number | undefined;
  onCursor(hours: number | undefined): void;
  /** Times of the picked candidate's events, h. */
  marks: readonly number[];
  /** A line across, with its words. */
  limit?: { value: number; words: string };
  floorAt?: number;
  topAt?: number;
  /** Name of its picture. */
  file: string;
  /** Beside its title. */
  children?: ReactNode;
}

/** Points drawn a line: more than there are pixels tell nothing. */
const BUCKETS = 250;
/** Rows of the table beside it. */
const TABLE_ROWS = 13;
const LEAST_HOURS = 0.25;

export function OptionChart(props: Props) {
  const { title, unit, digits, lines, legs, startHour, shown, onShown, cursor, onCursor, marks, limit } = props;
  const { floorAt, topAt } = props;
  const [from, to] = shown;
  const total = legs.length === 0 ? 1 : legs[legs.length - 1]!.to / 3600;
  const newest = useRef({ marks, onShown, shown });
  useEffect(() => {
    newest.current = { marks, onShown, shown };
  });
  const draw = useCallback(() => {
    const washes = Object.fromEntries(legs.flatMap((leg, i) => (leg.kind === 'stand' ? [] : [[`leg${i}`, wash(leg)]])));
    const across = limit && {
      limit: {
        type: 'line' as const,
        yMin: limit.value,
        yMax: limit.value,
        borderColor: sheet('--fail'),
        borderWidth: 2,
        borderDash: [8, 5],
      },
    };
    return {
      data: { datasets: lines.map(asDataset) },
      options: {
        layout: { padding: { right: 30 + 8.5 * lines.length, top: 4 } },
        scales: { x: hours(newest.current.shown, startHour, isLong(total)), y: values(floorAt, topAt) },
        plugins: {
          annotation: { annotations: { ...washes, ...across } },
          zoom: zoomAlong({
            min: 0,
            max: total,
            least: LEAST_HOURS,
            wheelWithCtrl: true,
            onWindow: (a, b) => newest.current.onShown([a, b]),
          }),
        },
      },
      plugins: [endLetters(lines), eventMarks(() => newest.current.marks)],
    };
  }, [lines, legs, startHour, total, limit, floorAt, topAt]);
  const { canvas, chart } = useLineChart(draw, { onPoint: onCursor, at: cursor });
  useEffect(() => showStretch(chart.current, from, to), [chart, from, to, lines]);
  useEffect(() => chart.current?.draw(), [chart, marks]);

  const limits = { min: 0, max: total, least: LEAST_HOURS };
  const onKey = (key: ChartKey) => {
    if (key === 'all') onShown([0, total]);
    else if (key === 'left' || key === 'right') {
      const step = ((to - from) / 50) * (key === 'left' ? -1 : 1);
      onCursor(Math.max(0, Math.min(total, (cursor ?? 0) + step)));
    } else onShown(widened(shown, key === 'closer' ? 0.6 : 1 / 0.6, limits, cursor));
  };
  const table = useMemo(
    () => ({
      head: ['When', ...lines.map((l) => `${l.letter} ${l.name}, ${unit}`)],
      rows: Array.from({ length: TABLE_ROWS }, (_, i) => {
        const h = (total * i) / (TABLE_ROWS - 1);
        return [
          clockOf(h, startHour, isLong(total)),
          ...lines.map((l) => valueAt(l.t, l.values, h * 3600).toFixed(digits)),
        ];
      }),
    }),
    [lines, unit, digits, total, startHour],
  );
  const ends = lines.map((l) => `${l.letter} ends at ${l.values[l.values.length - 1]?.toFixed(0) ?? ''} ${unit}`);
  return (
    <ChartFrame
      title={`${title}, ${unit}`}
      note={limit?.words}
      says={`${title}: ${ends.join(', ')}.`}
      table={table}
      pictureLegend={lines.map((l) => ({
        name: `${l.letter} ${l.name}`,
        colour: l.picked ? '--coach' : '--ink',
        dash: l.picked ? [] : DASHES[l.index]!,
        heavy: l.picked,
      }))}
      file={props.file}
      canvas={canvas}
      className="h-full bg-card py-1 pr-1 pl-2"
      onKey={onKey}
      onLeave={() => onCursor(undefined)}
    >
      {props.children}
    </ChartFrame>
  );
}

const asDataset = (line: ChartLine): ChartDataset<'line', Point[]> => ({
  data: thinned(line),
  borderColor: line.picked ? sheet('--coach') : sheet('--ink'),
  borderWidth: line.picked ? 4 : 2,
  borderDash: line.picked ? [] : [...DASHES[line.index]!],
  pointRadius: 0,
  tension: 0,
  order: line.picked ? 0 : 1,
});

function thinned({ t, values }: ChartLine): Point[] {
  const kept = new Extremes(t, values).window(-Infinity, Infinity, BUCKETS);
  return Array.from(kept.t, (s, i) => ({ x: s / 3600, y: kept.values[i]! }));
}

const wash = (leg: ChartLeg): AnnotationOptions<'box'> => ({
  type: 'box',
  xMin: leg.from / 3600,
  xMax: leg.to / 3600,
  backgroundColor: sheet(leg.kind === 'shore' || leg.kind === 'generator' ? '--coach-wash' : '--engine-tint'),
  borderWidth: 0,
  drawTime: 'beforeDatasetsDraw',
});

/** Hours between two ticks, so that some eight of them fit. */
const clockStep = (width: number): number =>
  [0.25, 0.5, 1, 2, 3, 6, 12, 24, 48, 24 * 7, 24 * 14, 24 * 28].find((s) => width / s <= 8) ?? 24 * 56;

const hours = ([min, max]: Stretch, startHour: number, long: boolean) =>
  axis(
    'linear',
    { lines: false },
    {
      min,
      max,
      border: { color: sheet('--ink'), width: 2 },
      // On the clock's own hours, whatever hour it began at.
      afterBuildTicks: (scale: { min: number; max: number; ticks: { value: number }[] }) => {
        const step = clockStep(scale.max - scale.min);
        const first = Math.ceil((scale.min + startHour) / step) * step - startHour;
        const count = Math.max(0, Math.floor((scale.max - first) / step) + 1);
        scale.ticks = Array.from({ length: count }, (_, i) => ({ value: first + i * step }));
      },
      ticks: { callback: (v: number | string) => tickOf(Number(v), startHour, long) },
    },
  );

const values = (floorAt: number | undefined, topAt: number | undefined) =>
  axis(
    'linear',
    {},
    {
      ...(floorAt === undefined ? {} : { suggestedMin: floorAt }),
      ...(topAt === undefined ? {} : { suggestedMax: topAt }),
      border: { display: false },
      ticks: { maxTicksLimit: 5 },
    },
  );

const BOX = 19;

/** Letters at the ends of the lines: lines that end together share a place, the picked one stands first. */
function endLetters(lines: readonly ChartLine[]): Plugin<'line'> {
  return {
    id: 'endLetters',
    afterDatasetsDraw(chart) {
      const { ctx, chartArea } = chart;
      const ends = chart.data.datasets
        .flatMap((_, i) => {
          const seen = chart
            .getDatasetMeta(i)
            .data.filter((p) => p.x <= chartArea.right + 1 && p.x >= chartArea.left - 1);
          const last = seen[seen.length - 1];
          if (!last) return [];
          const y = Math.max(chartArea.top + BOX / 2, Math.min(chartArea.bottom - BOX / 2, last.y));
          return [{ y, lines: [lines[i]!] }];
        })
        .sort((x, y) => x.y - y.y);
      const groups: typeof ends = [];
      for (const e of ends) {
        const last = groups[groups.length - 1];
        if (last && e.y - last.y < BOX) last.lines.push(...e.lines);
        else groups.push(e);
      }
      const put = (x: number, y: number, width: number, text: string, picked: boolean) => {
        ctx.fillStyle = sheet(picked ? '--ink' : '--card');
        ctx.strokeStyle = sheet('--ink');
        ctx.lineWidth = 1.5;
        ctx.beginPath();
        ctx.roundRect(x, y - BOX / 2, width, BOX, 3);
        ctx.fill();
        ctx.stroke();
        ctx.fillStyle = sheet(picked ? '--paper' : '--ink');
        ctx.fillText(text, x + width / 2, y + 1);
      };
      ctx.save();
      ctx.font = `700 15px ${sheet('--font-cond')}`;
      ctx.textAlign = 'center';
      ctx.textBaseline = 'middle';
      for (const g of groups) {
        let x = chartArea.right + 4;
        const picked = g.lines.find((l) => l.picked);
        if (picked) {
          put(x, g.y, BOX, picked.letter, true);
          x += BOX + 2;
        }
        const rest = g.lines
          .filter((l) => !l.picked)
          .map((l) => l.letter)
          .sort()
          .join('');
        if (rest) put(x, g.y, Math.max(BOX, rest.length * 8.5 + 5), rest, false);
      }
      ctx.restore();
    },
  };
}

/** The picked candidate's events as ticks on the foot. */
function eventMarks(marks: () => readonly number[]): Plugin<'line'> {
  return {
    id: 'eventMarks',
    afterDatasetsDraw({ ctx, chartArea, scales }) {
      ctx.save();
      ctx.fillStyle = sheet('--ink');
      for (const h of marks()) {
        const px = scales['x']!.getPixelForValue(h);
        if (px < chartArea.left || px > chartArea.right) continue;
        ctx.beginPath();
        ctx.moveTo(px - 3.5, chartArea.bottom);
        ctx.lineTo(px + 3.5, chartArea.bottom);
        ctx.lineTo(px, chartArea.bottom - 7);
        ctx.fill();
      }
      ctx.restore();
    },
  };
}
