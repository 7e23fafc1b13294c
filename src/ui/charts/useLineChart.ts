'use client';
/** One Chart.js line chart on a canvas: made anew with its drawing and the theme, gone when the screen is. */
import {
  CategoryScale,
  Chart,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  LogarithmicScale,
  PointElement,
  type ChartConfiguration,
  type Plugin,
} from 'chart.js';
import annotation from 'chartjs-plugin-annotation';
import { useEffect, useRef } from 'react';
import { useTheme } from '../theme';
import { sheet, type Point } from './sheet';

Chart.register(
  CategoryScale,
  LinearScale,
  LogarithmicScale,
  LineController,
  LineElement,
  PointElement,
  Filler,
  annotation,
);

export type LineChart = Chart<'line', Point[]>;
type Drawing = Omit<ChartConfiguration<'line', Point[]>, 'type'>;

interface Ways {
  /** The value along the axis under the finger, or none once it has left. */
  onPoint?(x: number | undefined): void;
  /** Where the cursor stands. */
  at?: number | undefined;
}

/**
 * @param draw what to draw; a new function draws anew, so keep it by useCallback. Colours are read in it.
 * @returns the ref of the canvas, and of the chart once it is made
 */
export function useLineChart(draw: () => Drawing, { onPoint, at }: Ways = {}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<LineChart>(undefined);
  const ways = useRef<Ways>({});
  const [theme] = useTheme();
  useEffect(() => {
    ways.current = { ...(onPoint ? { onPoint } : {}), at };
  });
  useEffect(() => {
    const drawing = draw();
    const made: LineChart = new Chart<'line', Point[]>(canvas.current!, {
      type: 'line',
      ...drawing,
      options: {
        animation: false,
        maintainAspectRatio: false,
        parsing: false,
        events: ['mousemove', 'mouseout', 'click', 'touchstart', 'touchmove'],
        onHover: (e) => {
          const x = made.scales['x'];
          if (!x || e.x === null) return;
          const value = x.getValueForPixel(e.x) ?? x.min;
          ways.current.onPoint?.(Math.max(x.min, Math.min(x.max, value)));
        },
        ...drawing.options,
        plugins: { legend: { display: false }, tooltip: { enabled: false }, ...drawing.options?.plugins },
      },
      plugins: [cursorLine(() => ways.current.at), ...(drawing.plugins ?? [])],
    });
    chart.current = made;
    return () => {
      made.destroy();
      chart.current = undefined;
    };
  }, [draw, theme]);
  useEffect(() => chart.current?.draw(), [at]);
  return { canvas, chart };
}

/** Shows a stretch of the axis along. */
export function showStretch(chart: LineChart | undefined, from: number, to: number): void {
  const x = chart?.options.scales?.['x'];
  if (!chart || !x) return;
  x.min = from;
  x.max = to;
  chart.update('none');
}

function cursorLine(at: () => number | undefined): Plugin<'line'> {
  return {
    id: 'cursorLine',
    afterDatasetsDraw({ ctx, chartArea, scales }) {
      const value = at();
      const px = value === undefined ? NaN : scales['x']!.getPixelForValue(value);
      if (!(px >= chartArea.left && px <= chartArea.right)) return;
      ctx.save();
      ctx.strokeStyle = sheet('--ink');
      ctx.lineWidth = 1.5;
      ctx.beginPath();
      ctx.moveTo(px, chartArea.top);
      ctx.lineTo(px, chartArea.bottom);
      ctx.stroke();
      ctx.restore();
    },
  };
}
