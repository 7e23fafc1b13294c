'use client';
/** A log drawn: volts and amps by turns of the wheel and drags, thinned aside so that a million rows move smoothly. */
import { CategoryScale, Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
import annotation from 'chartjs-plugin-annotation';
import zoom from 'chartjs-plugin-zoom';
import { format } from 'date-fns';
import { useEffect, useRef, useState } from 'react';
import type { Thinned } from '../../core/recorderLog/extremes';
import type { LogRole } from '../../core/recorderLog/series';
import { useTheme } from '../theme';
import { clockTicks, tickPattern } from './clockTicks';
import type { ReadLog } from './source';

Chart.register(CategoryScale, LinearScale, LineController, LineElement, PointElement, annotation, zoom);

const DASH: Readonly<Partial<Record<LogRole, number[]>>> = {
  'coach-volts': [6, 3],
  'coach-amps': [6, 3],
  'chassis-amps': [2, 3],
  'alternator-amps': [10, 3, 2, 3],
};
const BUCKETS = 900;
const MOST_MARKS = 60;

const hue = (role: LogRole): string =>
  role.startsWith('coach')
    ? '--coach'
    : role.startsWith('chassis') || role.startsWith('alternator')
      ? '--engine'
      : '--ink';

/** s this device's clock is ahead of UTC. */
const aheadAt = (t: number): number => -60 * new Date(t * 1000).getTimezoneOffset();

const AXIS = (unit: string): 'y' | 'y1' => (unit === 'V' ? 'y' : 'y1');

export function LogChart({
  log,
  window: ask,
}: {
  log: ReadLog;
  window(from: number, to: number, buckets: number): Promise<{ role: LogRole; points: Thinned }[]>;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart<'line', { x: number; y: number }[]>>(undefined);
  const load = useRef<(from: number, to: number) => void>(() => undefined);
  const [theme] = useTheme();
  const [spoken, setSpoken] = useState('');
  const { from, to } = log.reading;
  useEffect(() => {
    const css = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
    const font = { family: css('--font-cond') || 'Barlow Condensed', size: 15 };
    let alive = true;
    let busy = false;
    let wanted: readonly [number, number] | undefined;
    const marks = log.reading.events.filter((e) => e.kind !== 'stage').slice(0, MOST_MARKS);
    const c = new Chart<'line', { x: number; y: number }[]>(canvas.current!, {
      type: 'line',
      data: {
        datasets: log.channels.map((ch) => ({
          label: ch.name,
          data: [],
          yAxisID: AXIS(ch.unit),
          borderWidth: 1.6,
          pointRadius: 0,
          spanGaps: false,
          parsing: false as const,
          normalized: true,
          borderColor: css(hue(ch.role)),
          borderDash: DASH[ch.role] ?? [],
        })),
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        interaction: { mode: 'nearest', axis: 'x', intersect: false },
        plugins: {
          legend: { display: false },
          tooltip: { enabled: false },
          annotation: {
            annotations: Object.fromEntries(
              marks.map((e, i) => [
                `e${i}`,
                { type: 'line', xMin: e.t, xMax: e.t, borderColor: css('--ink-3'), borderWidth: 1, borderDash: [2, 3] },
              ]),
            ),
          },
          zoom: {
            pan: { enabled: true, mode: 'x', onPan: ({ chart: x }) => fetchFor(x) },
            zoom: {
              wheel: { enabled: true },
              pinch: { enabled: true },
              mode: 'x',
              onZoom: ({ chart: x }) => fetchFor(x),
            },
            limits: { x: { min: from, max: to, minRange: Math.max(20, 10 * log.reading.interval) } },
          },
        },
        scales: {
          x: {
            type: 'linear',
            min: from,
            max: to,
            grid: { color: css('--rule-2') },
            afterBuildTicks: (axis) => {
              const { step, at } = clockTicks(axis.min, axis.max, 8, aheadAt(axis.min));
              axis.ticks = at.map((value) => ({
                value,
                label: format(new Date(value * 1000), tickPattern(value, step, aheadAt(value))),
              }));
            },
            ticks: { color: css('--ink'), font, callback: (_, i, ticks) => ticks[i]!.label as string },
          },
          y: {
            display: log.channels.some((x) => AXIS(x.unit) === 'y'),
            title: { display: true, text: 'V', color: css('--ink'), font },
            ticks: { color: css('--ink'), font },
            grid: { color: css('--rule-2') },
          },
          y1: {
            display: log.channels.some((x) => AXIS(x.unit) === 'y1'),
            position: 'right',
            title: { display: true, text: 'A', color: css('--ink'), font },
            ticks: { color: css('--ink'), font },
            grid: { display: false },
          },
        },
      },
    });
    chart.current = c;
    // One question under way at a time; while it is, only the newest wish is kept.
    const next = async () => {
      if (busy || !wanted || !alive) return;
      const [a, b] = wanted;
      wanted = undefined;
      busy = true;
      const slack = (b - a) / 4;
      const lines = await ask(a - slack, b + slack, BUCKETS).catch(() => undefined);
      busy = false;
      if (!alive || !lines) return;
      lines.forEach(({ points }, k) => {
        const data = new Array<{ x: number; y: number }>(points.t.length);
        for (let i = 0; i < points.t.length; i++) data[i] = { x: points.t[i]!, y: points.values[i]! };
        c.data.datasets[k]!.data = data;
      });
      c.update('none');
      setSpoken(`From ${format(new Date(a * 1000), 'd MMM HH:mm')} to ${format(new Date(b * 1000), 'd MMM HH:mm')}`);
      void next();
    };
    const fetchFor = (x: Chart) => {
      wanted = [x.scales['x']!.min, x.scales['x']!.max];
      void next();
    };
    load.current = (a, b) => {
      c.options.scales!['x']!.min = a;
      c.options.scales!['x']!.max = b;
      c.update('none');
      wanted = [a, b];
      void next();
    };
    load.current(from, to);
    return () => {
      alive = false;
      c.destroy();
    };
  }, [log, ask, theme, from, to]);
  const move = (by: number, times: number) => {
    const x = chart.current?.scales['x'];
    if (!x) return;
    const width = Math.min(to - from, Math.max(20, (x.max - x.min) * times));
    const middle = (x.min + x.max) / 2 + by * (x.max - x.min);
    const a = Math.max(from, Math.min(to - width, middle - width / 2));
    load.current(a, a + width);
  };
  return (
    <figure className="logchart">
      <div
        className="logcanvas"
        tabIndex={0}
        role="application"
        aria-label="The log drawn. Arrow keys move along it, plus and minus come closer and go back, 0 shows all."
        onKeyDown={(e) => {
          const how: Record<string, readonly [number, number]> = {
            ArrowLeft: [-0.3, 1],
            ArrowRight: [0.3, 1],
            '+': [0, 0.6],
            '=': [0, 0.6],
            '-': [0, 1.7],
            '0': [0, 1e9],
          };
          const step = how[e.key];
          if (!step) return;
          e.preventDefault();
          e.stopPropagation();
          move(...step);
        }}
      >
        <canvas ref={canvas} />
      </div>
      <div className="loglegend">
        {log.channels.map((c) => (
          <span key={c.role}>
            <svg width={34} height={10} aria-hidden="true">
              <path
                d="M0 5H34"
                stroke={`var(${hue(c.role)})`}
                strokeWidth={3}
                strokeDasharray={(DASH[c.role] ?? []).join(' ')}
              />
            </svg>
            {c.name}, {AXIS(c.unit) === 'y' ? 'left' : 'right'}
          </span>
        ))}
      </div>
      <figcaption>
        <span aria-live="polite">{spoken}</span>
        <span className="row">
          <button type="button" className="bx small" onClick={() => move(-0.5, 1)} aria-label="Earlier">
            ←
          </button>
          <button type="button" className="bx small" onClick={() => move(0, 0.5)}>
            Closer
          </button>
          <button type="button" className="bx small" onClick={() => move(0, 2)}>
            Wider
          </button>
          <button type="button" className="bx small" onClick={() => move(0.5, 1)} aria-label="Later">
            →
          </button>
          <button type="button" className="bx small" onClick={() => load.current(from, to)}>
            All
          </button>
        </span>
      </figcaption>
    </figure>
  );
}
