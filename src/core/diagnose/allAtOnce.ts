/**
 * Readings seen all at once, each with a noise of its own: the same posterior as one after the other, worked out between
 * the readings, of which there are fewer than parameters. With slopes J, prior I and noises N it is the linear
 * Gaussian's: mean Jᵀ·(J·Jᵀ + N)⁻¹·(y − b), covariance I − Jᵀ·(J·Jᵀ + N)⁻¹·J.
 */
import type { Posterior } from './posterior';

export class AllAtOnce {
  /** J·Jᵀ, what the readings have in common before any was taken. */
  private readonly gram: Float64Array;
  /** Cholesky factor of J·Jᵀ + N, and (J·Jᵀ + N)⁻¹·(y − b), as last weighed. */
  private readonly factor: Float64Array;
  private readonly pull: Float64Array;

  /**
   * @param slopes one row of parameters a reading
   * @param prior what each reading would be before any was taken, and `values` what was read
   */
  constructor(
    private readonly slopes: readonly Float64Array[],
    private readonly prior: Float64Array,
    private readonly values: Float64Array,
  ) {
    const n = slopes.length;
    this.gram = new Float64Array(n * n);
    this.factor = new Float64Array(n * n);
    this.pull = new Float64Array(n);
    for (let r = 0; r < n; r++)
      for (let s = 0; s <= r; s++) {
        const [a, b] = [slopes[r]!, slopes[s]!];
        let dot = 0;
        for (let k = 0; k < a.length; k++) dot += a[k]! * b[k]!;
        this.gram[r * n + s] = this.gram[s * n + r] = dot;
      }
  }

  /**
   * Weighs all readings by their noises (variances, all above zero).
   * @param expected what each reading is expected to be with all of them known, written here
   * @returns log of the volume the readings leave of what was possible before: log det N − log det (J·Jᵀ + N)
   */
  weigh(noises: readonly number[], expected: Float64Array): number {
    const { gram, factor, pull, prior, values } = this;
    const n = prior.length;
    let volume = 0;
    for (let r = 0; r < n; r++) {
      for (let s = 0; s <= r; s++) {
        let sum = gram[r * n + s]! + (r === s ? noises[r]! : 0);
        for (let k = 0; k < s; k++) sum -= factor[r * n + k]! * factor[s * n + k]!;
        factor[r * n + s] = r === s ? Math.sqrt(sum) : sum / factor[s * n + s]!;
      }
      volume += Math.log(noises[r]!) - 2 * Math.log(factor[r * n + r]!);
    }
    for (let r = 0; r < n; r++) {
      let sum = values[r]! - prior[r]!;
      for (let k = 0; k < r; k++) sum -= factor[r * n + k]! * pull[k]!;
      pull[r] = sum / factor[r * n + r]!;
    }
    for (let r = n - 1; r >= 0; r--) {
      let sum = pull[r]!;
      for (let k = r + 1; k < n; k++) sum -= factor[k * n + r]! * pull[k]!;
      pull[r] = sum / factor[r * n + r]!;
    }
    for (let r = 0; r < n; r++) {
      let sum = prior[r]!;
      for (let s = 0; s < n; s++) sum += gram[r * n + s]! * pull[s]!;
      expected[r] = sum;
    }
    return volume;
  }

  /** Writes what was learnt, as last weighed. */
  learn(into: Posterior): void {
    const { slopes, factor, pull } = this;
    const n = slopes.length;
    into.clear();
    const vectors: Float64Array[] = [];
    for (let r = 0; r < n; r++) {
      const row = slopes[r]!;
      const u = into.next(1);
      u.set(row);
      for (let s = 0; s < r; s++) {
        const f = factor[r * n + s]!;
        const earlier = vectors[s]!;
        for (let k = 0; k < u.length; k++) u[k] = u[k]! - f * earlier[k]!;
      }
      const scale = 1 / factor[r * n + r]!;
      for (let k = 0; k < u.length; k++) {
        u[k] = u[k]! * scale;
        into.mean[k] = into.mean[k]! + pull[r]! * row[k]!;
      }
      vectors.push(u);
    }
  }
}
