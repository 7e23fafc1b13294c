/**
 * Thinning a series for drawing without losing an extreme: each bucket keeps its lowest and highest value and
 * when they were. Blocks are worked out once, so that a window is drawn as it is panned.
 */
const BLOCK_SAMPLES = 64;

export interface Thinned {
  t: Float64Array;
  values: Float64Array;
}

export class Extremes {
  private readonly low: Int32Array;
  private readonly high: Int32Array;

  constructor(
    readonly t: Float64Array,
    readonly values: Float64Array,
  ) {
    const blocks = Math.floor(values.length / BLOCK_SAMPLES);
    this.low = new Int32Array(blocks);
    this.high = new Int32Array(blocks);
    for (let b = 0; b < blocks; b++) {
      const [lo, hi] = this.scan(b * BLOCK_SAMPLES, (b + 1) * BLOCK_SAMPLES);
      this.low[b] = lo;
      this.high[b] = hi;
    }
  }

  /** Indices of the lowest and highest value in [from, to); −1 where there is none. */
  private scan(from: number, to: number): [number, number] {
    let lo = -1;
    let hi = -1;
    for (let i = from; i < to; i++) {
      const v = this.values[i]!;
      if (v !== v) continue;
      if (lo < 0 || v < this.values[lo]!) lo = i;
      if (hi < 0 || v > this.values[hi]!) hi = i;
    }
    return [lo, hi];
  }

  private range(from: number, to: number): [number, number] {
    const first = Math.ceil(from / BLOCK_SAMPLES);
    const last = Math.floor(to / BLOCK_SAMPLES);
    if (first >= last) return this.scan(from, to);
    let [lo, hi] = this.scan(from, first * BLOCK_SAMPLES);
    const take = (l: number, h: number) => {
      if (l >= 0 && (lo < 0 || this.values[l]! < this.values[lo]!)) lo = l;
      if (h >= 0 && (hi < 0 || this.values[h]! > this.values[hi]!)) hi = h;
    };
    for (let b = first; b < last; b++) take(this.low[b]!, this.high[b]!);
    take(...this.scan(last * BLOCK_SAMPLES, to));
    return [lo, hi];
  }

  /** First index at or after a time. */
  indexOf(time: number): number {
    let lo = 0;
    let hi = this.t.length;
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if (this.t[mid]! < time) lo = mid + 1;
      else hi = mid;
    }
    return lo;
  }

  /** The window in at most 2 × `buckets` points, extremes kept, in the order of time. */
  window(from: number, to: number, buckets: number): Thinned {
    const a = Math.max(0, this.indexOf(from) - 1);
    const b = Math.min(this.t.length, this.indexOf(to) + 1);
    if (b - a <= 2 * buckets) return { t: this.t.slice(a, b), values: this.values.slice(a, b) };
    const t = new Float64Array(2 * buckets);
    const values = new Float64Array(2 * buckets);
    let n = 0;
    for (let k = 0; k < buckets; k++) {
      const from = a + Math.floor((k * (b - a)) / buckets);
      const to = a + Math.floor(((k + 1) * (b - a)) / buckets);
      const [lo, hi] = this.range(from, to);
      if (lo < 0) {
        // Nothing was written in it: a break in the line.
        t[n] = this.t[from]!;
        values[n++] = NaN;
        continue;
      }
      const [p, q] = lo <= hi ? [lo, hi] : [hi, lo];
      t[n] = this.t[p]!;
      values[n++] = this.values[p]!;
      if (q !== p) {
        t[n] = this.t[q]!;
        values[n++] = this.values[q]!;
      }
    }
    return { t: t.slice(0, n), values: values.slice(0, n) };
  }
}
