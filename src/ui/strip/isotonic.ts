/**
 * Places things along a line as near as possible to where they want to be, in order and with at least their
 * own room: least squares with minimum gaps, by pooling neighbours that push each other (isotonic regression).
 * @param gaps least distance of each from the next, where it is not half the room of either.
 */
export function spread(
  wanted: readonly number[],
  room: readonly number[],
  min: number,
  max: number,
  gaps?: readonly number[],
): number[] {
  const n = wanted.length;
  if (n === 0) return [];
  // With y_i = x_i − offset_i the gaps become y_i ≤ y_{i+1}.
  const offset: number[] = [0];
  for (let i = 1; i < n; i++) offset.push(offset[i - 1]! + (gaps?.[i - 1] ?? (room[i - 1]! + room[i]!) / 2));
  const pools: { sum: number; count: number }[] = [];
  for (let i = 0; i < n; i++) {
    pools.push({ sum: wanted[i]! - offset[i]!, count: 1 });
    while (pools.length > 1) {
      const last = pools[pools.length - 1]!;
      const before = pools[pools.length - 2]!;
      if (before.sum / before.count <= last.sum / last.count) break;
      before.sum += last.sum;
      before.count += last.count;
      pools.pop();
    }
  }
  const low = min + room[0]! / 2;
  const high = Math.max(low, max - room[n - 1]! / 2 - offset[n - 1]!);
  const x: number[] = [];
  for (const pool of pools) {
    const y = Math.min(high, Math.max(low, pool.sum / pool.count));
    for (let k = 0; k < pool.count; k++) x.push(y + offset[x.length]!);
  }
  return x;
}
