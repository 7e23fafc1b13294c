/**
 * One component of the belief: a fault at one severity stratum, with a Gaussian over everything uncertain.
 *
 * The latent vector x is one standard normal per rig parameter, one for the severity inside the stratum,
 * one for the meter's gain. Around a point x0 every output is y ≈ y0 + J·(x − x0). Readings are rank-one
 * updates; the covariance is kept as P = I − Σ s·u·uᵀ with one u a reading, which is cheaper than the full
 * matrix as long as there are fewer readings than parameters.
 */
import type { CompiledRig } from '../compile/compile';
import type { Effect } from '../operate/effects';
import { hasSeverity } from '../operate/effects';
import { RigModel } from '../operate/settle';
import { OPERATING_STATES } from '../operate/states';
import { METER } from '../probe/meter';
import { Lineariser, type Output } from '../probe/outputs';

/** Shared working set: one model and one lineariser serve all components in turn. */
export class Bench {
  readonly model: RigModel;
  readonly lineariser: Lineariser;
  /** Rows per operating state. */
  readonly outputsPerState: number;
  readonly rows: number;
  /** Length of the latent vector. */
  readonly width: number;
  readonly severityColumn: number;
  readonly gainColumn: number;

  constructor(
    readonly compiled: CompiledRig,
    readonly outputs: readonly Output[],
  ) {
    this.model = new RigModel(compiled);
    this.lineariser = new Lineariser(this.model, outputs);
    this.outputsPerState = outputs.length;
    this.rows = outputs.length * OPERATING_STATES.length;
    this.width = this.lineariser.width;
    this.severityColumn = compiled.params.length;
    this.gainColumn = compiled.params.length + 1;
  }
}

/** Severity strata of a fault that has a range. */
export const STRATA = 3;
export const strataOf = (effects: readonly Effect[]): number => (hasSeverity(effects) ? STRATA : 1);

export class Component {
  /** Where the linearisation stands. */
  readonly x0: Float64Array;
  readonly y: Float64Array;
  readonly J: Float64Array;
  /** Posterior mean and the update vectors. */
  readonly mean: Float64Array;
  private readonly vectors: Float64Array[] = [];
  private readonly signs: number[] = [];
  private count = 0;
  /** Log of prior weight times evidence. */
  logWeight = 0;

  constructor(
    private readonly bench: Bench,
    readonly faultIndex: number,
    readonly effects: readonly Effect[],
    readonly stratum: number,
    readonly strata: number,
    readonly logPrior: number,
  ) {
    this.x0 = new Float64Array(bench.width);
    this.mean = new Float64Array(bench.width);
    this.y = new Float64Array(bench.rows);
    this.J = new Float64Array(bench.rows * bench.width);
    this.linearise();
  }

  /** Severity share at a latent value: the stratum's middle, spread as a uniform of its width would be. */
  private severity(x: number): number {
    return (this.stratum + 0.5) / this.strata + (x / this.strata) * Math.sqrt(1 / 12);
  }

  /** Settles every operating state at x0 and takes values and slopes there. */
  private linearise(): void {
    const { bench, x0, y, J } = this;
    const situation = { z: x0, effects: this.effects, severity: this.severity(x0[bench.severityColumn]!) };
    const severityScale = Math.sqrt(1 / 12) / this.strata;
    OPERATING_STATES.forEach((state, s) => {
      const first = s * bench.outputsPerState;
      bench.model.settle(state.id, situation);
      bench.lineariser.write(y, J, first);
      for (let o = 0; o < bench.outputsPerState; o++) {
        const at = (first + o) * bench.width;
        J[at + bench.severityColumn] = J[at + bench.severityColumn]! * severityScale;
        J[at + bench.gainColumn] = bench.outputs[o]!.kind === 'volts' ? y[first + o]! * METER.gainSpread : 0;
      }
    });
  }

  /** Moves the linearisation to the posterior mean. False when it already stands close enough. */
  relinearise(closeEnough = 0.2): boolean {
    let far = 0;
    for (let k = 0; k < this.x0.length; k++) far = Math.max(far, Math.abs(this.mean[k]! - this.x0[k]!));
    if (far < closeEnough) return false;
    this.x0.set(this.mean);
    // The gain is a factor on the reading, not a part of the rig: it stays linear about zero.
    this.x0[this.bench.gainColumn] = 0;
    this.linearise();
    return true;
  }

  /** Back to the prior, keeping the linearisation. */
  reset(): void {
    this.mean.fill(0);
    this.count = 0;
    this.logWeight = this.logPrior;
  }

  /** Row of slopes of red minus black, written to `row`. */
  private slopes(red: number, black: number, row: Float64Array): void {
    const { J } = this;
    const n = this.bench.width;
    for (let k = 0; k < n; k++) row[k] = J[red * n + k]! - (black < 0 ? 0 : J[black * n + k]!);
  }

  /** Mean and variance (without the meter's noise) of a reading; leaves its slopes and P·slopes in the rows. */
  predict(red: number, black: number, row: Float64Array, pRow?: Float64Array): { mean: number; variance: number } {
    this.slopes(red, black, row);
    const { mean, x0 } = this;
    let mu = this.y[red]! - (black < 0 ? 0 : this.y[black]!);
    let variance = 0;
    for (let k = 0; k < row.length; k++) {
      const j = row[k]!;
      mu += j * (mean[k]! - x0[k]!);
      variance += j * j;
    }
    if (pRow) pRow.set(row);
    for (let i = 0; i < this.count; i++) {
      const u = this.vectors[i]!;
      let dot = 0;
      for (let k = 0; k < row.length; k++) dot += u[k]! * row[k]!;
      const s = this.signs[i]!;
      variance -= s * dot * dot;
      if (pRow) {
        const f = s * dot;
        for (let k = 0; k < row.length; k++) pRow[k] = pRow[k]! - f * u[k]!;
      }
    }
    return { mean: mu, variance: Math.max(0, variance) };
  }

  /**
   * Takes in a reading: `error` above the prediction, total variance `S`, of which a share `trust` believes
   * it is no blunder. `pRow` as `predict` left it.
   */
  absorb(pRow: Float64Array, error: number, S: number, trust: number): void {
    const gain = (trust * error) / S;
    const shrink = trust / S - (trust * (1 - trust) * error * error) / (S * S);
    const { mean } = this;
    for (let k = 0; k < mean.length; k++) mean[k] = mean[k]! + gain * pRow[k]!;
    const size = Math.sqrt(Math.abs(shrink));
    let u = this.vectors[this.count];
    if (!u) {
      u = new Float64Array(mean.length);
      this.vectors[this.count] = u;
    }
    for (let k = 0; k < mean.length; k++) u[k] = size * pRow[k]!;
    this.signs[this.count] = Math.sign(shrink);
    this.count++;
  }
}
