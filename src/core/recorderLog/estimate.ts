/**
 * Lines and levels out of noisy columns, each with an interval. Both columns of a line are noisy, so the line is
 * Deming's (errors in both variables), with the noise taken from second differences; intervals by leaving out
 * one block of time after the other (block jackknife), which stays honest where neighbours are alike.
 */
import { median, studentT95 } from '../units/stats';

export interface Estimated {
  value: number;
  lo: number;
  hi: number;
  /** Samples it rests on. */
  samples: number;
}

const BLOCKS = 20;
/** Standard deviation of white noise on a smooth column: 1.4826 × median |second difference| / √6. */
export function noiseOf(values: Float64Array, picked: Int32Array): number {
  const d: number[] = [];
  const stride = Math.max(1, Math.floor(picked.length / 20_000));
  for (let k = 1; k + 1 < picked.length; k += stride) {
    const [a, b, c] = [picked[k - 1]!, picked[k]!, picked[k + 1]!];
    if (c - a !== 2) continue;
    const x = values[a]! - 2 * values[b]! + values[c]!;
    if (Number.isFinite(x)) d.push(Math.abs(x));
  }
  if (d.length < 8) return 0;
  return (1.4826 * median(d)) / Math.sqrt(6);
}

interface Sums {
  n: number;
  x: number;
  y: number;
  xx: number;
  xy: number;
  yy: number;
}
const none = (): Sums => ({ n: 0, x: 0, y: 0, xx: 0, xy: 0, yy: 0 });
const plus = (a: Sums, b: Sums, sign: 1 | -1): Sums => ({
  n: a.n + sign * b.n,
  x: a.x + sign * b.x,
  y: a.y + sign * b.y,
  xx: a.xx + sign * b.xx,
  xy: a.xy + sign * b.xy,
  yy: a.yy + sign * b.yy,
});

/** Slope and intercept of sums. @param lambda noise variance of y over that of x. */
function deming(s: Sums, lambda: number): { slope: number; intercept: number } {
  const [mx, my] = [s.x / s.n, s.y / s.n];
  const sxx = s.xx / s.n - mx * mx;
  const syy = s.yy / s.n - my * my;
  const sxy = s.xy / s.n - mx * my;
  const d = syy - lambda * sxx;
  const slope = (d + Math.sqrt(d * d + 4 * lambda * sxy * sxy)) / (2 * sxy);
  return { slope, intercept: my - slope * mx };
}

export interface Line {
  slope: Estimated;
  intercept: Estimated;
  /** Standard deviation of x: a line through a point says nothing. */
  spread: number;
}

/** The line y = intercept + slope·x through the picked samples; undefined where there are too few or x does not move. */
export function line(x: Float64Array, y: Float64Array, picked: Int32Array): Line | undefined {
  const good = picked.filter((i) => Number.isFinite(x[i]!) && Number.isFinite(y[i]!));
  if (good.length < 5 * BLOCKS) return undefined;
  const sx = noiseOf(x, good);
  const sy = noiseOf(y, good);
  // Sums about the middle, so that squares keep their digits.
  const [x0, y0] = [x[good[good.length >> 1]!]!, y[good[good.length >> 1]!]!];
  const blocks = Array.from({ length: BLOCKS }, none);
  good.forEach((i, k) => {
    const s = blocks[Math.floor((k * BLOCKS) / good.length)]!;
    const [a, b] = [x[i]! - x0, y[i]! - y0];
    s.n++;
    s.x += a;
    s.y += b;
    s.xx += a * a;
    s.xy += a * b;
    s.yy += b * b;
  });
  const all = blocks.reduce((a, b) => plus(a, b, 1), none());
  const spread = Math.sqrt(Math.max(0, all.xx / all.n - (all.x / all.n) ** 2));
  if (!(spread > 3 * sx) || spread === 0) return undefined;
  // Columns without noise: ordinary least squares is the limit of a large ratio.
  const lambda = sx > 0 ? Math.max(1e-12, sy ** 2 / sx ** 2) : 1e12;
  const fit = (s: Sums) => {
    const f = lambda > 1e9 ? ols(s) : deming(s, lambda);
    return [f.slope, f.intercept + y0 - f.slope * x0] as const;
  };
  const whole = fit(all);
  const without = blocks.map((b) => fit(plus(all, b, -1)));
  return {
    slope: jackknifed(
      whole[0],
      without.map((f) => f[0]),
      good.length,
    ),
    intercept: jackknifed(
      whole[1],
      without.map((f) => f[1]),
      good.length,
    ),
    spread,
  };
}

/** Mean of y over mean of x: what is left where x hardly moves. Offsets of the sensors go into it. */
export function ratio(x: Float64Array, y: Float64Array, picked: Int32Array): Estimated | undefined {
  const good = picked.filter((i) => Number.isFinite(x[i]!) && Number.isFinite(y[i]!));
  if (good.length < 5 * BLOCKS) return undefined;
  const sums = Array.from({ length: BLOCKS }, () => ({ x: 0, y: 0 }));
  good.forEach((i, k) => {
    const s = sums[Math.floor((k * BLOCKS) / good.length)]!;
    s.x += x[i]!;
    s.y += y[i]!;
  });
  const all = sums.reduce((a, b) => ({ x: a.x + b.x, y: a.y + b.y }), { x: 0, y: 0 });
  return jackknifed(
    all.y / all.x,
    sums.map((b) => (all.y - b.y) / (all.x - b.x)),
    good.length,
  );
}

function ols(s: Sums): { slope: number; intercept: number } {
  const slope = (s.xy / s.n - (s.x / s.n) * (s.y / s.n)) / (s.xx / s.n - (s.x / s.n) ** 2);
  return { slope, intercept: s.y / s.n - slope * (s.x / s.n) };
}

function jackknifed(value: number, without: readonly number[], samples: number): Estimated {
  const n = without.length;
  const mean = without.reduce((a, b) => a + b, 0) / n;
  const half = studentT95(n - 1) * Math.sqrt(((n - 1) / n) * without.reduce((a, b) => a + (b - mean) ** 2, 0));
  return { value, lo: value - half, hi: value + half, samples };
}

/** Samples each side of a step that its height is read from, and how many noises of their difference high a step is. */
const SIDE_SAMPLES = 5;
const STEP_NOISES = 8;
const MIN_STEPS = 2;
const LARGE_ENOUGH_SHARE = 0.3;

/**
 * How y answers to sudden steps of x: what drifts slowly in either does not matter. Steps are where the mean of
 * a few samples after differs from that of a few before; intervals by leaving out one step after the other.
 */
export function stepResponse(
  x: Float64Array,
  y: Float64Array,
  picked: Int32Array,
  least: number,
): Estimated | undefined {
  const good = picked.filter((i) => Number.isFinite(x[i]!) && Number.isFinite(y[i]!));
  const high = Math.max(least, STEP_NOISES * noiseOf(x, good) * Math.sqrt(2 / SIDE_SAMPLES));
  const side = (of: Float64Array, from: number) => {
    let sum = 0;
    for (let j = 0; j < SIDE_SAMPLES; j++) sum += of[good[from + j]!]!;
    return sum / SIDE_SAMPLES;
  };
  const steps: { dx: number; dy: number }[] = [];
  // One sample is left out in the middle: it may be half before, half after.
  for (let k = 0; k + 2 * SIDE_SAMPLES < good.length; k++) {
    if (good[k + 2 * SIDE_SAMPLES]! - good[k]! !== 2 * SIDE_SAMPLES) continue;
    const dx = side(x, k + SIDE_SAMPLES + 1) - side(x, k);
    if (Math.abs(dx) < high) continue;
    let [best, bestAt] = [Math.abs(dx), k];
    for (let j = k + 1; j < k + 2 * SIDE_SAMPLES && j + 2 * SIDE_SAMPLES < good.length; j++) {
      const d = Math.abs(side(x, j + SIDE_SAMPLES + 1) - side(x, j));
      if (d > best) [best, bestAt] = [d, j];
    }
    if (good[bestAt + 2 * SIDE_SAMPLES]! - good[bestAt]! === 2 * SIDE_SAMPLES)
      steps.push({
        dx: side(x, bestAt + SIDE_SAMPLES + 1) - side(x, bestAt),
        dy: side(y, bestAt + SIDE_SAMPLES + 1) - side(y, bestAt),
      });
    k = bestAt + 2 * SIDE_SAMPLES;
  }
  // Small ones were found where noise helped them: beside a large one they only bias.
  const largest = Math.max(0, ...steps.map((p) => Math.abs(p.dx)));
  const kept = steps.filter((p) => Math.abs(p.dx) >= LARGE_ENOUGH_SHARE * largest);
  if (kept.length < MIN_STEPS) return undefined;
  const slope = (list: readonly { dx: number; dy: number }[]) =>
    list.reduce((sum, p) => sum + p.dx * p.dy, 0) / list.reduce((sum, p) => sum + p.dx * p.dx, 0);
  const value = slope(kept);
  // What noise alone does to it; with steps enough, what they differ by as well.
  const noise = (noiseOf(y, good) ** 2 + (value * noiseOf(x, good)) ** 2) * (2 / SIDE_SAMPLES);
  const half = 2.5 * Math.sqrt(noise / kept.reduce((sum, p) => sum + p.dx * p.dx, 0));
  const spread =
    kept.length >= 4
      ? jackknifed(
          value,
          kept.map((_, k) => slope(kept.filter((_, j) => j !== k))),
          kept.length,
        )
      : undefined;
  const wide = Math.max(half, spread ? spread.hi - value : 0);
  return { value, lo: value - wide, hi: value + wide, samples: kept.length };
}

/** The mean of the picked samples, outliers held in (a tenth trimmed at each end of every block). */
export function level(y: Float64Array, picked: Int32Array): Estimated | undefined {
  const good = picked.filter((i) => Number.isFinite(y[i]!));
  if (good.length < 5 * BLOCKS) return undefined;
  const means = Array.from({ length: BLOCKS }, (_, b) => {
    const part = good.slice(Math.floor((b * good.length) / BLOCKS), Math.floor(((b + 1) * good.length) / BLOCKS));
    const v = Float64Array.from(part, (i) => y[i]!).sort();
    const cut = Math.floor(v.length / 10);
    let sum = 0;
    for (let k = cut; k < v.length - cut; k++) sum += v[k]!;
    return sum / (v.length - 2 * cut);
  });
  const value = means.reduce((a, b) => a + b, 0) / BLOCKS;
  return jackknifed(
    value,
    means.map((m) => (value * BLOCKS - m) / (BLOCKS - 1)),
    good.length,
  );
}
