'use client';
/** What every chart takes from the sheet it is drawn on: colours, type, and how a value, a clock or a decade is told. */
import type { ScaleOptionsByType } from 'chart.js';

export interface Point {
  x: number;
  y: number;
}

/** Value of one of the theme's colours or fonts, by its name in the style sheet. */
export const sheet = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

const font = () => ({ family: sheet('--font-cond') || 'Barlow Condensed', size: 15, weight: 500 }) as const;

/** An axis of this sheet: its unit at its end, quiet lines. `of` adds what only this axis has. */
export function axis<T extends 'linear' | 'logarithmic'>(
  type: T,
  { unit, lines = true }: { unit?: string; lines?: boolean },
  of: object = {},
): { type: T } & Partial<ScaleOptionsByType<T>> {
  const { ticks, ...rest } = of as { ticks?: object };
  return {
    type,
    title: { display: unit !== undefined, text: unit ?? '', color: sheet('--ink'), font: font() },
    grid: { display: lines, color: sheet('--rule-2') },
    ...rest,
    ticks: { color: sheet('--ink'), font: font(), maxRotation: 0, autoSkipPadding: 14, ...ticks },
  } as { type: T } & Partial<ScaleOptionsByType<T>>;
}

/** Label of a decade axis: 1, 2, 5 and their tens; nothing between. */
export const decade = (v: number | string): string => (/^0?\.?0*[125]0*$/.test(String(v)) ? String(v) : '');
