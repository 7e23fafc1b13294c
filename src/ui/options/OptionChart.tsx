'use client';
/**
 * One quantity of all compared candidates over a scenario. Lines are told apart by dash and by a letter at
 * their end, the picked one is heavy; legs under way are washed; the cursor is shared by all charts.
 */
import {
  CategoryScale,
  Chart,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  type ChartDataset,
  type Plugin,
} from 'chart.js';
import annotation, { type AnnotationOptions } from 'chartjs-plugin-annotation';
import zoom from 'chartjs-plugin-zoom';
import { useEffect, useRef } from 'react';
import { DASHES } from '../../core/plan/letters';
import { useTheme } from '../theme';
import { isLong, tickOf } from './time';

Chart.register(CategoryScale, LinearScale, LineController, LineElement, PointElement, Filler, annotation, zoom);

export interface ChartLine {
  letter: string;
  /** Which dash pattern. */
  index: number;
  picked: boolean;
  t: Float64Array;
  values: Float64Array;
}

export interface ChartLeg {
  kind: string;
  name: string;
  from: number;
  to: number;
}

interface Props {
  title: string;
  unit: string;
  lines: readonly ChartLine[];
  legs: readonly ChartLeg[];
  startHour: number;
  /** Hours shown; shared by the charts. */
  from: number;
  to: number;
  onWindow(window: readonly [number, number]): void;
  cursor: number | undefined;
  onCursor(hours: number | undefined): void;
  /** Times of the picked candidate's events, h. */
  marks: readonly number[];
  /** A line across, with its words. */
  limit?: { value: number; words: string };
  floorAt?: number;
  topAt?: number;
}

const css = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

const BOX = 19;

/** Letters at the ends of the lines: lines that end together share a place, the picked one stands first. */
function endLetters(lines: () => readonly ChartLine[]): Plugin<'line'> {
  return {
    id: 'endLetters',
    afterDatasetsDraw(chart) {
      const { ctx, chartArea } = chart;
      const ends = chart.data.datasets
        .map((_, i) => {
          const shown = chart
            .getDatasetMeta(i)
            .data.filter((p) => p.x <= chartArea.right + 1 && p.x >= chartArea.left - 1);
          const last = shown[shown.length - 1];
          return last
            ? {
                y: Math.max(chartArea.top + BOX / 2, Math.min(chartArea.bottom - BOX / 2, last.y)),
                lines: [lines()[i]!],
              }
            : undefined;
        })
        .filter((e) => e !== undefined)
        .sort((x, y) => x.y - y.y);
      const groups: typeof ends = [];
      for (const e of ends) {
        const last = groups[groups.length - 1];
        if (last && e.y - last.y < BOX) last.lines.push(...e.lines);
        else groups.push(e);
      }
      const put = (x: number, y: number, width: number, text: string, picked: boolean) => {
        ctx.fillStyle = css(picked ? '--ink' : '--card');
        ctx.strokeStyle = css('--ink');
        ctx.lineWidth = 1.5;
        ctx.beginPath();
        ctx.roundRect(x, y - BOX / 2, width, BOX, 3);
        ctx.fill();
        ctx.stroke();
        ctx.fillStyle = css(picked ? '--paper' : '--ink');
        ctx.fillText(text, x + width / 2, y + 1);
      };
      ctx.save();
      ctx.font = `700 15px ${css('--font-cond')}`;
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

/** The shared cursor, and the picked candidate's events as ticks on the foot. */
function cursorAndMarks(cursor: () => number | undefined, marks: () => readonly number[]): Plugin<'line'> {
  return {
    id: 'cursorAndMarks',
    afterDatasetsDraw(chart) {
      const { ctx, chartArea, scales } = chart;
      const x = scales['x']!;
      ctx.save();
      ctx.fillStyle = css('--ink');
      for (const h of marks()) {
        const px = x.getPixelForValue(h);
        if (px < chartArea.left || px > chartArea.right) continue;
        ctx.beginPath();
        ctx.moveTo(px - 3.5, chartArea.bottom);
        ctx.lineTo(px + 3.5, chartArea.bottom);
        ctx.lineTo(px, chartArea.bottom - 7);
        ctx.fill();
      }
      const at = cursor();
      if (at !== undefined) {
        const px = x.getPixelForValue(at);
        if (px >= chartArea.left && px <= chartArea.right) {
          ctx.strokeStyle = css('--ink');
          ctx.lineWidth = 1.5;
          ctx.beginPath();
          ctx.moveTo(px, chartArea.top);
          ctx.lineTo(px, chartArea.bottom);
          ctx.stroke();
        }
      }
      ctx.restore();
    },
  };
}

/** Fewer points than pixels can show, keeping the ends of every stretch and its extremes. */
function thinned(
  t: Float64Array,
  values: Float64Array,
  from: number,
  to: number,
  most = 500,
): { x: number; y: number }[] {
  const points: { x: number; y: number }[] = [];
  const width = (to - from) / most;
  let bucket = -1;
  let low = 0;
  let high = 0;
  const put = (i: number) => points.push({ x: t[i]! / 3600, y: values[i]! });
  for (let i = 0; i < t.length; i++) {
    const hours = t[i]! / 3600;
    const b = Math.floor((hours - from) / width);
    // A step has two points at one time: both are kept.
    const step = i > 0 && t[i] === t[i - 1];
    if (b !== bucket || step) {
      if (bucket !== -1) for (const j of low === high ? [low] : [Math.min(low, high), Math.max(low, high)]) put(j);
      bucket = b;
      low = high = i;
    } else {
      if (values[i]! < values[low]!) low = i;
      if (values[i]! > values[high]!) high = i;
    }
  }
  for (const j of low === high ? [low] : [Math.min(low, high), Math.max(low, high)]) if (t.length > 0) put(j);
  return points;
}

/** Hours between two ticks, so that some six of them fit. */
const clockStep = (hours: number): number =>
  [0.25, 0.5, 1, 2, 3, 6, 12, 24, 48, 24 * 7, 24 * 14, 24 * 28].find((s) => hours / s <= 8) ?? 24 * 56;

function showHours(chart: Chart<'line', { x: number; y: number }[]> | undefined, from: number, to: number): void {
  const x = chart?.options.scales?.['x'];
  if (!chart || !x) return;
  x.min = from;
  x.max = to;
  chart.update('none');
}

export function OptionChart(props: Props) {
  const { title, unit, lines, legs, startHour, from, to, onWindow, cursor, onCursor, marks, limit } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart<'line', { x: number; y: number }[]>>(undefined);
  const newest = useRef(props);
  const [theme] = useTheme();
  useEffect(() => {
    newest.current = props;
  });
  const total = legs.length === 0 ? 1 : legs[legs.length - 1]!.to / 3600;

  // Made once a theme and a set of lines: Chart.js reads colours when it is made.
  useEffect(() => {
    const el = canvas.current!;
    const washes = Object.fromEntries(
      legs.flatMap((leg, i): [string, AnnotationOptions<'box'>][] =>
        leg.kind === 'stand'
          ? []
          : [
              [
                `leg${i}`,
                {
                  type: 'box',
                  xMin: leg.from / 3600,
                  xMax: leg.to / 3600,
                  backgroundColor: css(
                    leg.kind === 'shore' || leg.kind === 'generator' ? '--coach-wash' : '--engine-tint',
                  ),
                  borderWidth: 0,
                  drawTime: 'beforeDatasetsDraw',
                },
              ],
            ],
      ),
    );
    const across: Record<string, AnnotationOptions<'line'>> = limit
      ? {
          limit: {
            type: 'line',
            yMin: limit.value,
            yMax: limit.value,
            borderColor: css('--fail'),
            borderWidth: 2,
            borderDash: [8, 5],
          },
        }
      : {};
    const datasets: ChartDataset<'line', { x: number; y: number }[]>[] = lines.map((line) => ({
      data: thinned(line.t, line.values, 0, total),
      parsing: false,
      borderColor: line.picked ? css('--coach') : css('--ink'),
      borderWidth: line.picked ? 4 : 2,
      borderDash: line.picked ? [] : [...DASHES[line.index]!],
      pointRadius: 0,
      tension: 0,
      order: line.picked ? 0 : 1,
    }));
    const long = isLong(total);
    const font = { family: css('--font-cond'), size: 15, weight: 500 } as const;
    const made = new Chart<'line', { x: number; y: number }[]>(el, {
      type: 'line',
      data: { datasets },
      options: {
        animation: false,
        maintainAspectRatio: false,
        layout: { padding: { right: 30 + 8.5 * lines.length, top: 4 } },
        events: ['mousemove', 'mouseout', 'click', 'touchstart', 'touchmove'],
        onHover: (e) => {
          const x = made.scales['x'];
          if (x && e.x !== null) newest.current.onCursor(Math.max(0, Math.min(total, x.getValueForPixel(e.x) ?? 0)));
        },
        scales: {
          x: {
            type: 'linear',
            min: newest.current.from,
            max: newest.current.to,
            grid: { display: false },
            border: { color: css('--ink'), width: 2 },
            // On the clock's own hours, whatever hour it began at.
            afterBuildTicks: (axis) => {
              const step = clockStep(axis.max - axis.min);
              const first = Math.ceil((axis.min + startHour) / step) * step - startHour;
              axis.ticks = Array.from({ length: Math.max(0, Math.floor((axis.max - first) / step) + 1) }, (_, i) => ({
                value: first + i * step,
              }));
            },
            ticks: {
              color: css('--ink-2'),
              font,
              maxRotation: 0,
              autoSkipPadding: 14,
              callback: (v) => tickOf(Number(v), startHour, long),
            },
          },
          y: {
            ...(props.floorAt === undefined ? {} : { suggestedMin: props.floorAt }),
            ...(props.topAt === undefined ? {} : { suggestedMax: props.topAt }),
            grid: { color: css('--rule-2') },
            border: { display: false },
            ticks: { color: css('--ink-2'), font, maxTicksLimit: 5 },
          },
        },
        plugins: {
          legend: { display: false },
          tooltip: { enabled: false },
          annotation: { annotations: { ...washes, ...across } },
          zoom: {
            limits: { x: { min: 0, max: total, minRange: 0.25 } },
            zoom: {
              wheel: { enabled: true, modifierKey: 'ctrl' },
              pinch: { enabled: true },
              drag: { enabled: true, modifierKey: 'shift' },
              mode: 'x',
              onZoom: ({ chart: c }) => newest.current.onWindow([c.scales['x']!.min, c.scales['x']!.max]),
            },
            pan: {
              enabled: true,
              mode: 'x',
              onPan: ({ chart: c }) => newest.current.onWindow([c.scales['x']!.min, c.scales['x']!.max]),
            },
          },
        },
      },
      plugins: [
        endLetters(() => newest.current.lines),
        cursorAndMarks(
          () => newest.current.cursor,
          () => newest.current.marks,
        ),
      ],
    });
    chart.current = made;
    return () => {
      made.destroy();
      chart.current = undefined;
    };
  }, [lines, legs, theme, startHour, total, limit, props.floorAt, props.topAt]);

  useEffect(() => showHours(chart.current, from, to), [from, to, lines]);
  useEffect(() => chart.current?.draw(), [cursor, marks]);

  const move = (by: number) => onCursor(Math.max(0, Math.min(total, (cursor ?? 0) + by)));
  const step = (to - from) / 50;
  return (
    <figure className="ochart">
      <figcaption>
        <b>
          {title}, {unit}
        </b>
        {limit && <span>{limit.words}</span>}
      </figcaption>
      <div
        className="ochart-box"
        tabIndex={0}
        role="img"
        aria-label={
          `${title}: ${lines.map((l) => `${l.letter} ends at ${l.values[l.values.length - 1]?.toFixed(0) ?? ''} ${unit}`).join(', ')}. ` +
          `Arrow keys move the cursor, plus and minus zoom, 0 shows all.`
        }
        onMouseLeave={() => onCursor(undefined)}
        onKeyDown={(e) => {
          if (e.key === 'ArrowRight') move(step);
          else if (e.key === 'ArrowLeft') move(-step);
          else if (e.key === '+' || e.key === '-') {
            const middle = cursor ?? (from + to) / 2;
            const half = ((to - from) / 2) * (e.key === '+' ? 0.6 : 1 / 0.6);
            onWindow([Math.max(0, middle - half), Math.min(total, middle + half)]);
          } else if (e.key === '0') onWindow([0, total]);
          else return;
          e.preventDefault();
          e.stopPropagation();
        }}
      >
        <canvas ref={canvas} />
      </div>
    </figure>
  );
}
