/** The part of a chart's axis along that is shown, and how keys and buttons move it. */
export type Stretch = readonly [from: number, to: number];

export interface Limits {
  min: number;
  max: number;
  /** Least width. */
  least: number;
}

/** A stretch `times` as wide about a place in it, never beyond the limits. */
export function widened([from, to]: Stretch, times: number, limits: Limits, about = (from + to) / 2): Stretch {
  const most = limits.max - limits.min;
  const width = Math.min(most, Math.max(Math.min(limits.least, most), (to - from) * times));
  const share = to > from ? (about - from) / (to - from) : 0.5;
  return placed(about - share * width, width, limits);
}

/** The same width, moved by a share of it. */
export const moved = ([from, to]: Stretch, by: number, limits: Limits): Stretch =>
  placed(from + by * (to - from), to - from, limits);

function placed(from: number, width: number, { min, max }: Limits): Stretch {
  const a = Math.max(min, Math.min(max - width, from));
  return [a, a + width];
}

/** What a key asks of a chart; none of another's keys. */
export const CHART_KEYS: Readonly<Record<string, 'left' | 'right' | 'closer' | 'wider' | 'all'>> = {
  ArrowLeft: 'left',
  ArrowRight: 'right',
  '+': 'closer',
  '=': 'closer',
  '-': 'wider',
  '0': 'all',
};
