/** The ruler along the strip: its cells show where it stretches. */
import { METRES_PER_FOOT } from '../../core/units/preferences';
import { type StripLayout } from './geometry';

/** Ticks for a ruler: every two feet, with the labels that fit. */
export function feetTicks(layout: StripLayout): { x0: number; x1: number; dark: boolean }[] {
  const feet = layout.length / METRES_PER_FOOT;
  const ticks: { x0: number; x1: number; dark: boolean }[] = [];
  for (let f = 0; f < feet - 0.01; f += 2) {
    ticks.push({
      x0: layout.x(f * METRES_PER_FOOT),
      x1: layout.x(Math.min(f + 2, feet) * METRES_PER_FOOT),
      dark: (f / 2) % 2 === 0,
    });
  }
  return ticks;
}

/** Labels along the ruler with at least `gap` px between them. */
export function rulerLabels(layout: StripLayout, unit: 'ft' | 'm', gap: number): { x: number; text: string }[] {
  const step = unit === 'ft' ? 2 * METRES_PER_FOOT : 1;
  const labels: { x: number; text: string }[] = [];
  for (let k = 0; k * step <= layout.length + 0.01; k++) {
    const x = layout.x(k * step);
    const last = labels[labels.length - 1];
    if (last && x - last.x < gap) continue;
    labels.push({ x, text: k === 0 ? `0 ${unit}` : String(unit === 'ft' ? k * 2 : k) });
  }
  return labels;
}
