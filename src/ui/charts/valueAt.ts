/** Value of a series at a time, straight between its points. @param t seconds. */
export function valueAt(t: Float64Array, values: Float64Array, at: number): number {
  let low = 0;
  let high = t.length - 1;
  if (high < 0) return NaN;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (t[middle]! <= at) low = middle;
    else high = middle;
  }
  const [t0, t1] = [t[low]!, t[high]!];
  if (at >= t1) return values[high]!;
  if (t1 === t0) return values[low]!;
  return values[low]! + ((values[high]! - values[low]!) * (at - t0)) / (t1 - t0);
}
