/**
 * Where something turns between two ends: halves the interval `rounds` times and returns its last ends.
 * `below(x)` is true on the side of `low`, false on that of `high`.
 */
export function bisect(
  low: number,
  high: number,
  below: (x: number) => boolean,
  rounds = 50,
): { low: number; high: number } {
  for (let k = 0; k < rounds; k++) {
    const middle = (low + high) / 2;
    if (below(middle)) low = middle;
    else high = middle;
  }
  return { low, high };
}
