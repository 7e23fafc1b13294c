/** Statistics the core uses, each once: quantiles of distributions and of lists, and where something turns. */

/** Inverse of the standard normal distribution: Acklam's rational approximation, 1.15e-9 relative, from memory. */
export function normalQuantile(p: number): number {
  const a = [
    -39.69683028665376, 220.9460984245205, -275.9285104469687, 138.357751867269, -30.66479806614716, 2.506628277459239,
  ] as const;
  const b = [-54.47609879822406, 161.5858368580409, -155.6989798598866, 66.80131188771972, -13.28068155288572] as const;
  const c = [
    -0.007784894002430293, -0.3223964580411365, -2.400758277161838, -2.549732539343734, 4.374664141464968,
    2.938163982698783,
  ] as const;
  const d = [0.007784695709041462, 0.3224671290700398, 2.445134137142996, 3.754408661907416] as const;
  if (p < 0.02425) {
    const q = Math.sqrt(-2 * Math.log(p));
    return (
      (((((c[0] * q + c[1]) * q + c[2]) * q + c[3]) * q + c[4]) * q + c[5]) /
      ((((d[0] * q + d[1]) * q + d[2]) * q + d[3]) * q + 1)
    );
  }
  if (p > 1 - 0.02425) return -normalQuantile(1 - p);
  const q = p - 0.5;
  const r = q * q;
  return (
    ((((((a[0] * r + a[1]) * r + a[2]) * r + a[3]) * r + a[4]) * r + a[5]) * q) /
    (((((b[0] * r + b[1]) * r + b[2]) * r + b[3]) * r + b[4]) * r + 1)
  );
}

/** Quantile of the normal that leaves 2.5 % above it: two-sided 95 %. */
export const Z_95 = 1.96;

/**
 * Student's t, two-sided 95 %, by degrees of freedom: t ≈ z + (z³ + z)/4ν + (5z⁵ + 16z³ + 3z)/96ν².
 * Source: Abramowitz and Stegun, 26.7.5.
 */
export const studentT95 = (nu: number): number =>
  Z_95 + (Z_95 ** 3 + Z_95) / (4 * nu) + (5 * Z_95 ** 5 + 16 * Z_95 ** 3 + 3 * Z_95) / (96 * nu * nu);

const ascending = (values: Iterable<number>): number[] => [...values].sort((a, b) => a - b);

/** The middle value; the upper one of two. NaN of an empty list. */
export function median(values: Iterable<number>): number {
  const sorted = ascending(values);
  return sorted[sorted.length >> 1] ?? NaN;
}

/**
 * The value that a share of a list lies at or under, by nearest rank downward.
 * @param share from 0 (the least) to 1 (the greatest)
 */
export function quantile(values: Iterable<number>, share: number): number {
  const sorted = ascending(values);
  return sorted[Math.floor((sorted.length - 1) * share)] ?? NaN;
}

/** A closed interval. */
export interface Interval {
  lo: number;
  hi: number;
}

/** The interval that holds the middle 95 % of a list of samples. */
export function middle95(values: Iterable<number>): Interval {
  const sorted = ascending(values);
  return { lo: sorted[Math.floor(sorted.length * 0.025)]!, hi: sorted[Math.ceil(sorted.length * 0.975) - 1]! };
}

/**
 * Where something turns between two ends: halves the interval until it is no wider than `tolerance`, or `rounds`
 * times, and returns its last ends.
 * @param below true on the side of `low`, false on that of `high`
 */
export function bisect(
  low: number,
  high: number,
  below: (x: number) => boolean,
  { rounds = 50, tolerance = 0 }: { rounds?: number; tolerance?: number } = {},
): { low: number; high: number } {
  for (let k = 0; k < rounds && high - low > tolerance; k++) {
    const middle = (low + high) / 2;
    if (below(middle)) low = middle;
    else high = middle;
  }
  return { low, high };
}
