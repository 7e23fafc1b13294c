/**
 * What readings leave of a standard normal prior: a mean, and a covariance kept as P = I − Σ s·u·uᵀ with one u a reading,
 * which is cheaper than the full matrix as long as there are fewer readings than parameters.
 */
export class Posterior {
  readonly mean: Float64Array;
  private readonly vectors: Float64Array[] = [];
  private readonly signs: number[] = [];
  private count = 0;

  constructor(width: number) {
    this.mean = new Float64Array(width);
  }

  /** Back to the prior. */
  clear(): void {
    this.mean.fill(0);
    this.count = 0;
  }

  /** Variance along a row of slopes; leaves P·row in `pRow`. */
  variance(row: Float64Array, pRow?: Float64Array): number {
    let variance = 0;
    for (let k = 0; k < row.length; k++) variance += row[k]! * row[k]!;
    pRow?.set(row);
    for (let i = 0; i < this.count; i++) {
      const u = this.vectors[i]!;
      let dot = 0;
      for (let k = 0; k < row.length; k++) dot += u[k]! * row[k]!;
      const f = this.signs[i]! * dot;
      variance -= f * dot;
      if (pRow) for (let k = 0; k < row.length; k++) pRow[k] = pRow[k]! - f * u[k]!;
    }
    return Math.max(0, variance);
  }

  /**
   * Takes in a reading: `error` above the prediction, total variance `S`, of which a share `trust` believes
   * it is no blunder. `pRow` as `variance` left it.
   */
  absorb(pRow: Float64Array, error: number, S: number, trust: number): void {
    const gain = (trust * error) / S;
    const shrink = trust / S - (trust * (1 - trust) * error * error) / (S * S);
    const { mean } = this;
    for (let k = 0; k < mean.length; k++) mean[k] = mean[k]! + gain * pRow[k]!;
    const size = Math.sqrt(Math.abs(shrink));
    const u = this.next(Math.sign(shrink));
    for (let k = 0; k < mean.length; k++) u[k] = size * pRow[k]!;
  }

  /** Room for one more vector of a sign. */
  next(sign: number): Float64Array {
    const u = (this.vectors[this.count] ??= new Float64Array(this.mean.length));
    this.signs[this.count++] = sign;
    return u;
  }
}
