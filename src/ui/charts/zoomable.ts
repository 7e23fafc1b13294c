'use client';
/** Zoom and pan along a chart, by wheel, pinch and drag: loaded by the charts that have it only. */
import { Chart } from 'chart.js';
import zoom from 'chartjs-plugin-zoom';

Chart.register(zoom);

interface Along {
  min: number;
  max: number;
  /** Least width of what is shown. */
  least: number;
  /** The wheel alone scrolls the page: it zooms with Ctrl held. */
  wheelWithCtrl?: boolean;
  onWindow(from: number, to: number): void;
}

export function zoomAlong({ min, max, least, wheelWithCtrl = false, onWindow }: Along) {
  const tell = ({ chart }: { chart: Chart }) => onWindow(chart.scales['x']!.min, chart.scales['x']!.max);
  return {
    limits: { x: { min, max, minRange: least } },
    pan: { enabled: true, mode: 'x' as const, onPan: tell },
    zoom: {
      wheel: { enabled: true, ...(wheelWithCtrl ? { modifierKey: 'ctrl' as const } : {}) },
      pinch: { enabled: true },
      drag: { enabled: wheelWithCtrl, modifierKey: 'shift' as const },
      mode: 'x' as const,
      onZoom: tell,
    },
  };
}
