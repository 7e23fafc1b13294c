/**
 * One component of the belief: a fault at one severity stratum, with a Gaussian over everything uncertain.
 *
 * The latent vector x is one standard normal per rig parameter that moves a reading (of its spread, widened), one for
 * the severity inside the stratum, one for the meter's gain and one for its clamp's zero. Around a point x0 every output
 * is y ≈ y0 + J·(x − x0). What readings leave of it is kept twice (posterior.ts): as they came one after the other, and
 * as they stand together.
 */
import type { CompiledRig } from '../compile/compile';
import type { Effect } from '../operate/effects';
import { hasSeverity } from '../operate/effects';
import { RigModel } from '../operate/settle';
import { statesOf, type OperatingState } from '../operate/states';
import { ghostVariance } from './ghostVolts';
import { eitherWay } from './eitherWay';
import { otherPhase, type OtherPhase } from './hunts';
import { METER } from '../probe/meter';
import { Lineariser, type Output } from '../probe/outputs';
import type { AllAtOnce } from './allAtOnce';
import { Posterior } from './posterior';
import type { Taken } from './evidence';

/** Shared working set: one model and one lineariser serve all components in turn. */
export class LinearisationWorkspace {
  readonly model: RigModel;
  readonly lineariser: Lineariser;
  readonly states: OperatingState[];
  /** Rows per operating state. */
  readonly outputsPerState: number;
  readonly rows: number;
  /** Length of the latent vector. */
  readonly width: number;
  readonly severityColumn: number;
  readonly gainColumn: number;
  readonly zeroColumn: number;
  /** By row: what a charger on its lockout makes of it. */
  private readonly differs: Float64Array;

  constructor(
    readonly compiled: CompiledRig,
    readonly outputs: readonly Output[],
    /** Rig parameters vary this many times their stated spread. */
    readonly spreadFactor = 1,
  ) {
    this.model = new RigModel(compiled);
    this.lineariser = new Lineariser(this.model, outputs);
    this.outputsPerState = outputs.length;
    this.states = statesOf(compiled.rig);
    this.rows = outputs.length * this.states.length;
    this.width = this.lineariser.width;
    this.severityColumn = this.lineariser.severityColumn;
    this.gainColumn = this.severityColumn + 1;
    this.zeroColumn = this.severityColumn + 2;
    this.differs = eitherWay(compiled, this.model, this.states, outputs);
  }

  /** Variance of a reading between two rows by whether a charger runs that may or may not. */
  between(red: number, black: number): number {
    const apart = this.differs[red]! - (black < 0 ? 0 : this.differs[black]!);
    return (apart / 2) ** 2;
  }

  /** The z of every rig parameter at a latent point: those no reading depends on stay as stated. */
  z(x: Float64Array): Float64Array {
    const z = new Float64Array(this.compiled.params.length);
    this.lineariser.columns.forEach((k, column) => (z[k] = x[column]! * this.spreadFactor));
    return z;
  }
}

/** Severity strata of a fault that has a range. */
export const STRATA = 3;
export const strataOf = (effects: readonly Effect[]): number => (hasSeverity(effects) ? STRATA : 1);

export class Component {
  /** Where the linearisation of each operating state stands: a state nobody measured in keeps its first one. */
  readonly x0: readonly Float64Array[];
  private readonly y: Float64Array;
  private readonly J: Float64Array;
  /** States that were linearised: one nobody asks about never is. */
  private readonly ready: Uint8Array;
  /** How often a state was linearised, and as which time it stands: what was learnt from an older one is void. */
  private readonly versions: Int32Array;
  private linearised = 0;
  /** What the readings taught one after the other, those taken in so, and what all of them teach together. */
  private readonly inTurn: Posterior;
  taken: Taken[] = [];
  private readonly together: Posterior;
  private learned: Posterior;
  /** Variance each reading was taken in with: what is not trusted has much. */
  readonly noises: number[] = [];
  /** By state: what is read while a charger that hunts there does the other thing. */
  private readonly others: (OtherPhase | undefined)[] = [];
  /** Contacts that end closed, as `part/state`. */
  private readonly closed = new Set<string>();
  /** By row: V² of ghost volts. */
  private readonly ghosts: Float64Array;
  /** It stands for what no row describes: any of its readings may be anywhere. */
  unknown = false;
  /** Log probability of what was seen and heard. */
  logSeen = 0;
  /** Log of prior weight times evidence. */
  logWeight = 0;
  /** What had been seen and heard when the readings were last run through it. */
  ranSeen = NaN;
  /** `logWeight` as the readings one after the other gave it; whether it was looked at more closely since. */
  ranWeight = 0;
  refined = false;
  /** Trust in each reading. */
  trusts: Float64Array = new Float64Array(0);

  constructor(
    private readonly workspace: LinearisationWorkspace,
    /** Place of its fault in the belief's list; a pair's changes from round to round. */
    public faultIndex: number,
    readonly effects: readonly Effect[],
    readonly stratum: number,
    readonly strata: number,
    readonly logPrior: number,
  ) {
    this.ghosts = new Float64Array(workspace.rows);
    this.x0 = workspace.states.map(() => new Float64Array(workspace.width));
    this.versions = new Int32Array(workspace.states.length);
    this.inTurn = new Posterior(workspace.width);
    this.together = new Posterior(workspace.width);
    this.learned = this.inTurn;
    this.y = new Float64Array(workspace.rows);
    this.J = new Float64Array(workspace.rows * workspace.width);
    this.ready = new Uint8Array(workspace.states.length);
  }

  /** The state of a row, linearised now if it was not yet. */
  private stateOf(row: number): number {
    const s = Math.floor(row / this.workspace.outputsPerState);
    if (this.ready[s] === 0) this.linearise(s);
    return s;
  }

  /** Posterior mean. */
  get mean(): Float64Array {
    return this.learned.mean;
  }

  /** Which linearisation the state of a row stands at: another number, another one. */
  versionAt(row: number): number {
    return this.versions[this.stateOf(row)]!;
  }

  /** V or A of an output's row, where its state is linearised about. */
  value(row: number): number {
    this.stateOf(row);
    return this.y[row]!;
  }

  /**
   * What ghost volts may make of a reading between two rows: V² they add, and how far off it is where there are none and
   * a point that nothing holds reads nothing. Two such points float together, as what is between them is whole.
   */
  ghost(red: number, black: number): { variance: number; moved: number } | undefined {
    this.stateOf(red);
    const [ofRed, ofBlack] = [this.ghosts[red]!, black < 0 ? 0 : this.ghosts[black]!];
    if (ofRed === 0 && ofBlack === 0) return undefined;
    const variance = Math.abs(ofRed - ofBlack);
    const nothing = (row: number, own: number) => (own > 0 ? -this.y[row]! : 0);
    return variance === 0
      ? undefined
      : { variance, moved: nothing(red, ofRed) - (black < 0 ? 0 : nothing(black, ofBlack)) };
  }

  /** How far a reading between two rows is moved where a charger that hunts does the other thing, and how often. */
  other(red: number, black: number): { moved: number; share: number } | undefined {
    const per = this.workspace.outputsPerState;
    const phase = this.others[this.stateOf(red)];
    if (!phase) return undefined;
    const by = (row: number) => (row < 0 ? 0 : phase.values[row % per]! - this.value(row));
    return { moved: by(red) - by(black), share: phase.share };
  }

  /** Severity share at a latent value: the stratum's middle, spread as a uniform of its width would be. */
  private severity(x: number): number {
    return (this.stratum + 0.5) / this.strata + (x / this.strata) * Math.sqrt(1 / 12);
  }

  /** Settles an operating state at its x0 and takes values and slopes there. */
  private linearise(s: number): void {
    const { workspace, y, J } = this;
    this.ready[s] = 1;
    this.versions[s] = ++this.linearised;
    const x0 = this.x0[s]!;
    const { spreadFactor, severityColumn } = workspace;
    const situation = { z: workspace.z(x0), effects: this.effects, severity: this.severity(x0[severityColumn]!) };
    const severityScale = Math.sqrt(1 / 12) / this.strata;
    const first = s * workspace.outputsPerState;
    const settled = workspace.model.settle(workspace.states[s]!.id, situation);
    for (const [part, { mode }] of Object.entries(settled.modes)) {
      const key = `${part}/${workspace.states[s]!.id}`;
      if (mode === 'closed') this.closed.add(key);
      else this.closed.delete(key);
    }
    workspace.lineariser.write(y, J, first);
    for (let o = 0; o < workspace.outputsPerState; o++)
      this.ghosts[first + o] = ghostVariance(workspace.lineariser.ohmsBehind(o), y[first + o]!);
    this.others[s] = otherPhase(
      workspace.compiled,
      workspace.model,
      workspace.outputs,
      workspace.states[s]!.id,
      situation,
      settled,
    );
    for (let o = 0; o < workspace.outputsPerState; o++) {
      const at = (first + o) * workspace.width;
      for (let k = 0; k < severityColumn; k++) J[at + k] = J[at + k]! * spreadFactor;
      J[at + severityColumn] = J[at + severityColumn]! * severityScale;
      const isVolts = workspace.outputs[o]!.kind === 'volts';
      J[at + workspace.gainColumn] = isVolts ? y[first + o]! * METER.gainSpread : 0;
      J[at + workspace.zeroColumn] = isVolts ? 0 : METER.clampZero;
    }
  }

  /** How far the posterior mean is from where a state is linearised, in standard deviations of its worst number. */
  strayed(s: number): number {
    const x0 = this.x0[s]!;
    let far = 0;
    // What is off with the meter is no part of the rig: it stays linear about zero.
    for (let k = 0; k < this.workspace.gainColumn; k++) far = Math.max(far, Math.abs(this.mean[k]! - x0[k]!));
    return far;
  }

  /** Linearises some states anew at a latent point. */
  moveTo(target: Float64Array, states: readonly number[]): void {
    for (const s of states) {
      this.x0[s]!.set(target);
      this.x0[s]!.fill(0, this.workspace.gainColumn);
      this.linearise(s);
    }
  }

  /** What a linearisation of some states is, to go back to. */
  remember(states: readonly number[]): () => void {
    const per = this.workspace.outputsPerState;
    const { width } = this.workspace;
    const kept = states.map((s) => ({
      s,
      ready: this.ready[s]!,
      version: this.versions[s]!,
      x0: this.x0[s]!.slice(),
      y: this.y.slice(s * per, (s + 1) * per),
      J: this.J.slice(s * per * width, (s + 1) * per * width),
      other: this.others[s],
      ghosts: this.ghosts.slice(s * per, (s + 1) * per),
    }));
    return () => {
      for (const { s, ready, version, x0, y, J, other, ghosts } of kept) {
        this.ghosts.set(ghosts, s * per);
        this.versions[s] = version;
        this.others[s] = other;
        this.ready[s] = ready;
        this.x0[s]!.set(x0);
        this.y.set(y, s * per);
        this.J.set(J, s * per * width);
      }
    };
  }

  /** Back to the first linearisation, for when readings it was moved by are taken back. */
  restore(): void {
    this.x0.forEach((x0, s) => {
      if (x0.every((x) => x === 0)) return;
      x0.fill(0);
      this.ready[s] = 0;
    });
  }

  closes(part: string, state: string): boolean {
    const s = this.workspace.states.findIndex((x) => x.id === state);
    if (s < 0) return false;
    this.stateOf(s * this.workspace.outputsPerState);
    return this.closed.has(`${part}/${state}`);
  }

  /** Latent point it learnt, for a model of another kind: parameters in stated spreads, and the severity share. */
  learnt(): { z: Float64Array; severity: number } {
    return { z: this.workspace.z(this.mean), severity: this.severity(this.mean[this.workspace.severityColumn]!) };
  }

  /** Back to the prior and what was seen, keeping the linearisation. */
  reset(): void {
    this.taken = [];
    this.inTurn.clear();
    this.resume();
  }

  /** Back to what the readings taken in one after the other taught. */
  resume(): void {
    this.learned = this.inTurn;
    this.noises.length = 0;
    this.logWeight = this.logPrior + this.logSeen;
    for (const { noise, logDensity } of this.taken) {
      this.noises.push(noise);
      this.logWeight += logDensity;
    }
  }

  /** Learns from all readings at once instead. */
  learnTogether(all: AllAtOnce): void {
    all.learn(this.together);
    this.learned = this.together;
  }

  /** Row of slopes of red minus black, written to `row`. */
  private slopes(red: number, black: number, row: Float64Array, gain: number): void {
    const { J } = this;
    const n = this.workspace.width;
    for (let k = 0; k < n; k++) row[k] = J[red * n + k]! - (black < 0 ? 0 : J[black * n + k]!);
    row[this.workspace.gainColumn] = row[this.workspace.gainColumn]! * gain;
  }

  /**
   * Mean and variance (without the meter's noise) of a reading; leaves its slopes and P·slopes in the rows.
   * `gain` is the meter's gain spread against the usual one's.
   */
  predict(
    red: number,
    black: number,
    row: Float64Array,
    pRow?: Float64Array,
    gain = 1,
  ): { mean: number; variance: number } {
    const x0 = this.x0[this.stateOf(red)]!;
    this.slopes(red, black, row, gain);
    const { mean } = this;
    let mu = this.y[red]! - (black < 0 ? 0 : this.y[black]!);
    for (let k = 0; k < row.length; k++) mu += row[k]! * (mean[k]! - x0[k]!);
    return { mean: mu, variance: this.learned.variance(row, pRow) };
  }

  /** Mean of a reading as learnt so far. */
  expected(red: number, black: number, gain = 1): number {
    const x0 = this.x0[this.stateOf(red)]!;
    const { J, mean } = this;
    const n = this.workspace.width;
    let mu = this.y[red]! - (black < 0 ? 0 : this.y[black]!);
    for (let k = 0; k < n; k++) {
      const slope = J[red * n + k]! - (black < 0 ? 0 : J[black * n + k]!);
      mu += (k === this.workspace.gainColumn ? gain * slope : slope) * (mean[k]! - x0[k]!);
    }
    return mu;
  }

  /** Mean and variance of a reading before any was taken, where it is linearised about now; its slopes in the row. */
  unlearnt(red: number, black: number, row: Float64Array, gain = 1): { mean: number; variance: number } {
    const x0 = this.x0[this.stateOf(red)]!;
    this.slopes(red, black, row, gain);
    let mean = this.y[red]! - (black < 0 ? 0 : this.y[black]!);
    let variance = 0;
    for (let k = 0; k < row.length; k++) {
      mean -= row[k]! * x0[k]!;
      variance += row[k]! * row[k]!;
    }
    return { mean, variance };
  }

  /**
   * Takes in a reading: `error` above the prediction, total variance `S`, of which a share `trust` believes
   * it is no blunder. `pRow` as `predict` left it.
   */
  absorb(pRow: Float64Array, error: number, S: number, trust: number): void {
    this.learned.absorb(pRow, error, S, trust);
  }
}
