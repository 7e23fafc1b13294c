/**
 * Belief over faults given readings: a Gaussian mixture with one component per fault and severity stratum,
 * updated reading by reading, relinearised at what was learnt, and replayed.
 */
import { rigOutputs, type Output } from '../probe/outputs';
import type { CompiledRig } from '../compile/compile';
import { ASSUMPTIONS, type Assumptions } from './assumptions';
import { LinearisationWorkspace, Component, strataOf } from './component';
import { membersOf, rigFaults, type Fault } from './faults';
import type { IntakeClue } from './intake';
import { priors, priorWeight } from './priors';
import { inBand, twoFaults } from './twoFaults';
import type { Effect } from '../operate/effects';
import { answerProbability, observationsOf, type Observed } from './observations';
import type { ObservationKind } from './observations/observationKind';
import { NOTHING_WRONG } from './catalogue/nothingWrong';
import { NOT_ON_LIST } from './catalogue/notOnList';
import type { Evidence, Row } from './evidence';
import { Weighing } from './weighing';

export type { Evidence } from './evidence';

/** Linearisations of one component in one state, in one update. */
const MAX_LINEARISATIONS = 160;
/** Share from which a component is kept linear about the truth it claims in every state. */
const LEADER_SHARE = 0.04;
/** A component that fell this low for want of a better linearisation still gets one. */
const WORTH_RELINEARISING = 1e-5;
const LEFT_OUT_CANNOT_MATTER = 1e-7;
/** Nats below the best from which a component is not looked at more closely, and what keeps it out. */
const WORTH_REFINING = 16;
const BEYOND = 4;
/** Rounds of moving and replaying; standard deviations that are not worth a move. */
const ROUNDS = 4;
const CLOSE_ENOUGH = 0.2;
export class Belief {
  readonly faults: Fault[];
  readonly workspace: LinearisationWorkspace;
  readonly components: Component[] = [];
  readonly outputs: Output[];
  /** Probability per fault, in the order of `faults`. */
  probability: Float64Array;
  prior: Float64Array;
  /** How many suspects and components every round begins with; pairs of this round come after. */
  private readonly listed: { faults: number; components: number };
  /** Pairs worked out in the round before, by id: where they were linearised is not lost. */
  private worked = new Map<string, Component[]>();
  /** Probability of each component. */
  weight: Float64Array;
  /** Probability per reading that it is a blunder, in the order given. */
  blunder: number[] = [];
  private readonly outputIndex: Map<string, number>;
  private readonly weighing: Weighing;
  private readonly nominal: number;
  private readonly row: Float64Array;

  /** What can be looked at, listened to and tried on this rig. */
  readonly questions: readonly ObservationKind[];

  constructor(
    readonly compiled: CompiledRig,
    readonly intake: readonly IntakeClue[],
    readonly assumptions: Assumptions = ASSUMPTIONS,
  ) {
    this.outputs = rigOutputs(compiled);
    this.outputIndex = new Map(this.outputs.map((o, i) => [o.key, i]));
    this.workspace = new LinearisationWorkspace(compiled, this.outputs, assumptions.spreadFactor);
    this.faults = rigFaults(compiled.rig);
    this.questions = observationsOf(compiled.rig, this.faults);
    this.weighing = new Weighing(compiled, this.outputs, this.workspace, assumptions);
    this.prior = priors(this.faults, intake, assumptions);
    this.faults.forEach((fault, f) => {
      for (const { effects, share } of fault.variants ?? [{ effects: fault.effects, share: 1 }])
        this.add(f, effects, share * this.prior[f]!);
    });
    this.listed = { faults: this.faults.length, components: this.components.length };
    this.nominal = compiled.rig.vehicles[0]!.nominalVolts;
    this.probability = Float64Array.from(this.prior);
    this.weight = new Float64Array(this.components.length);
    this.row = new Float64Array(this.workspace.width);
    this.replay();
  }

  /** Components of a fault, one a stratum of its severity. */
  private add(f: number, effects: readonly Effect[], prior: number): void {
    const strata = strataOf(effects);
    for (let k = 0; k < strata; k++) {
      const component = new Component(this.workspace, f, effects, k, strata, Math.log(prior / strata));
      component.unknown = this.faults[f]!.id === NOT_ON_LIST.id;
      this.components.push(component);
    }
  }

  /** Back to the suspects every round begins with. */
  private forgetPairs(): void {
    if (this.faults.length === this.listed.faults) return;
    this.faults.length = this.listed.faults;
    this.components.length = this.listed.components;
    this.resize();
  }

  /** Works out pairs where no single suspect explains everything. */
  private proposePairs(): void {
    const pairs = twoFaults(this);
    if (pairs.length === 0) return;
    const before = this.worked;
    this.worked = new Map();
    const scale = this.prior[0]! / priorWeight(this.faults[0]!, this.intake, this.assumptions);
    for (const pair of pairs) {
      const f = this.faults.push(pair) - 1;
      const known = before.get(pair.id);
      for (const component of known ?? []) component.faultIndex = f;
      if (known) this.components.push(...known);
      this.worked.set(pair.id, known ?? this.work(pair, f, scale));
    }
    this.resize();
    this.see();
    this.replay();
    this.relinearise();
  }

  /** Components of a pair: its two halves each in their own bands of severity. */
  private work(pair: Fault, f: number, scale: number): Component[] {
    const from = this.components.length;
    const prior = scale * priorWeight(pair, this.intake, this.assumptions);
    const [first, second] = pair.members!.map((id) => this.faults.find((x) => x.id === id)!.effects);
    const bands = strataOf(second!);
    for (let k = 0; k < bands; k++) this.add(f, inBand(first!, second!, k, bands), prior / bands);
    return this.components.slice(from);
  }

  private resize(): void {
    const prior = new Float64Array(this.faults.length);
    prior.set(this.prior.subarray(0, Math.min(prior.length, this.prior.length)));
    this.prior = prior;
    this.probability = new Float64Array(this.faults.length);
    this.weight = new Float64Array(this.components.length);
  }

  /** Row of an output in an operating state; undefined for a key the rig does not have. */
  rowOf(stateId: string, key: string): number | undefined {
    const s = this.workspace.states.findIndex((state) => state.id === stateId);
    const o = this.outputIndex.get(key);
    return s < 0 || o === undefined ? undefined : s * this.workspace.outputsPerState + o;
  }

  /** Log probability of each observation under each component. */
  private seenLog: Float64Array[] = [];
  observed: readonly Observed[] = [];

  /** Replaces all evidence. Readings of points, and answers to questions, this rig does not have are left out. */
  setEvidence(evidence: readonly Evidence[], observed: readonly Observed[] = []): void {
    const kinds = new Set(this.questions.map((o) => o.id));
    this.forgetPairs();
    this.observed = observed.filter((o) => kinds.has(o.what));
    this.see();

    const all = [...this.components, ...[...this.worked.values()].flat()];
    // What was learnt from a reading that no longer stands must not linger in where things are linearised.
    const stands = new Map(evidence.map((e) => [e.id, e.value]));
    if (this.rows.some((r) => stands.get(r.evidence.id) !== r.evidence.value)) for (const c of all) c.restore();
    this.weighing.rows = evidence.flatMap((e): Row[] => {
      const red = this.rowOf(e.state, e.probe);
      const black = e.ref === undefined ? -1 : this.rowOf(e.state, e.ref);
      if (red === undefined || black === undefined) return [];
      const unit = this.outputs[red % this.workspace.outputsPerState]!.kind === 'amps' ? 'A' : 'V';
      return [{ evidence: e, red, black, unit }];
    });
    this.replay();
    this.relinearise();
    this.proposePairs();
  }

  /** Works out what was seen and heard for every component. */
  private see(): void {
    const kinds = new Map(this.questions.map((o) => [o.id, o]));
    this.seenLog = this.observed.map((o) =>
      Float64Array.from(this.components, (_, i) => Math.log(this.answerChance(kinds.get(o.what)!, o.answer, i))),
    );
    this.components.forEach((c, i) => (c.logSeen = this.seenLog.reduce((sum, row) => sum + row[i]!, 0)));
  }

  /** How likely an answer is under a component. */
  answerChance(kind: ObservationKind, answer: string, component: number): number {
    const c = this.components[component]!;
    const sound = this.soundChance(kind, answer, c);
    // Something unknown may make any answer.
    const { unknownShare } = this.assumptions;
    return c.unknown ? (1 - unknownShare) * sound + unknownShare / kind.answers.length : sound;
  }

  private soundChance(kind: ObservationKind, answer: string, c: Component): number {
    return answerProbability(kind, answer, {
      faults: membersOf(this.faults[c.faultIndex]!),
      closes: (part, state) => c.closes(part, state),
      volts: (state, probe) => {
        const row = this.rowOf(state, probe);
        // What only a leak holds up is gone with a lamp on it.
        return row === undefined ? undefined : c.ghost(row, -1) ? 0 : c.value(row);
      },
      nominal: this.nominal,
    });
  }

  private get rows(): readonly Row[] {
    return this.weighing.rows;
  }

  get evidence(): Evidence[] {
    return this.rows.map((r) => r.evidence);
  }

  /**
   * Moves the heaviest components' linearisation to what they learnt, a few rounds, and replays. A move is kept only
   * where the rig itself, solved there, fits the readings better than before: a step along a slope may land beyond a
   * threshold, where a contact does something else. Leaders are moved in every state: the next test is chosen by what
   * they predict.
   */
  private relinearise(): void {
    const per = this.workspace.outputsPerState;
    const measured = [...new Set(this.rows.map((r) => Math.floor(r.red / per)))];
    const others = this.workspace.states.map((_, s) => s).filter((s) => !measured.includes(s));
    let left = MAX_LINEARISATIONS;
    const settled = new Set<number>();
    for (let round = 0; round < ROUNDS && left > 0; round++) {
      let moved = false;
      // A sound rig always gets its chance, however badly the first slopes fit it.
      const sound = this.heaviest(NOTHING_WRONG.id);
      for (const c of new Set([...this.live(WORTH_RELINEARISING), sound])) {
        if (left <= 0) break;
        const component = this.components[c]!;
        if (!settled.has(c) && Math.max(...measured.map((s) => component.strayed(s))) > CLOSE_ENOUGH) {
          const { kept, cost } = this.move(component, measured);
          left -= cost;
          if (kept) moved = true;
          else settled.add(c);
        }
        if (this.weight[c]! < LEADER_SHARE) continue;
        const far = others.filter((s) => component.strayed(s) > CLOSE_ENOUGH);
        component.moveTo(component.mean.slice(), far);
        left -= far.length;
      }
      if (!moved) return;
      this.replay();
    }
  }

  /** Moves one component in the states somebody measured in, all the way or half, or not at all. */
  private move(component: Component, measured: readonly number[]): { kept: boolean; cost: number } {
    // A state measured in for the first time starts where the others stand.
    const start = component.x0[measured[0]!]!;
    const apart = measured.filter((s) => component.x0[s]!.some((x, k) => x !== start[k]));
    component.moveTo(start.slice(), apart);
    const back = component.remember(measured);
    const before = this.weighing.fit(component, measured[0]!);
    const from = component.x0[measured[0]!]!.slice();
    const to = component.mean.slice();
    let cost = apart.length;
    for (const share of [1, 0.4]) {
      component.moveTo(
        to.map((x, k) => from[k]! + share * (x - from[k]!)),
        measured,
      );
      cost += measured.length;
      if (this.weighing.fit(component, measured[0]!) > before + 1e-6) return { kept: true, cost };
    }
    back();
    return { kept: false, cost };
  }

  /** Runs all evidence through all components from the prior; through those only that were moved since. */
  private replay(): void {
    const { components } = this;
    for (const c of components) {
      if (c.ranSeen === c.logSeen && this.weighing.stands(c)) continue;
      c.trusts = this.weighing.run(c);
      c.ranWeight = c.logWeight;
      c.refined = false;
      c.ranSeen = c.logSeen;
    }
    if (this.rows.length > 1) {
      const most = components.reduce((m, c) => Math.max(m, c.ranWeight), -Infinity);
      for (const c of components) {
        const worth = c.ranWeight > most - WORTH_REFINING;
        if (worth && !c.refined) c.trusts = this.weighing.refine(c);
        if (!worth) c.logWeight = c.ranWeight - BEYOND;
        c.refined = worth;
      }
    }
    this.normalise(this.weight);
    this.probability.fill(0);
    components.forEach((c, i) => {
      this.probability[c.faultIndex] = this.probability[c.faultIndex]! + this.weight[i]!;
    });
    this.blunder = this.rows.map((_, r) =>
      components.reduce((sum, c, i) => sum + this.weight[i]! * (1 - c.trusts[r]!), 0),
    );
  }

  private normalise(into: Float64Array): void {
    let most = -Infinity;
    for (const c of this.components) most = Math.max(most, c.logWeight);
    let total = 0;
    this.components.forEach((c, i) => {
      into[i] = Math.exp(c.logWeight - most);
      total += into[i]!;
    });
    for (let i = 0; i < into.length; i++) into[i] = into[i]! / total;
  }

  /** Probability per fault with each reading left out in turn: one array a reading. */
  leaveOneOut(): Float64Array[] {
    const logWeight = new Float64Array(this.components.length);
    return this.rows.map((_, r) => {
      this.components.forEach((component, c) => {
        // Below this nothing can come back by leaving one reading out: a factor of some ten thousand at the most.
        const matters = this.weight[c]! >= LEFT_OUT_CANNOT_MATTER;
        logWeight[c] = matters ? this.weighing.without(component, r) : component.logWeight;
      });
      const p = new Float64Array(this.faults.length);
      const most = logWeight.reduce((m, w) => Math.max(m, w), -Infinity);
      let total = 0;
      this.components.forEach((c, i) => {
        const w = Math.exp(logWeight[i]! - most);
        p[c.faultIndex] = p[c.faultIndex]! + w;
        total += w;
      });
      return p.map((x) => x / total);
    });
  }

  /** Probability per fault with each observation left out in turn. */
  withoutObservation(): Float64Array[] {
    return this.seenLog.map((row) => {
      const p = new Float64Array(this.faults.length);
      let total = 0;
      this.components.forEach((c, i) => {
        const w = this.weight[i]! * Math.exp(-row[i]!);
        p[c.faultIndex] = p[c.faultIndex]! + w;
        total += w;
      });
      return p.map((x) => x / total);
    });
  }

  /** Probability per repair class. */
  classes(probability: Float64Array = this.probability): Map<string, number> {
    const map = new Map<string, number>();
    this.faults.forEach((f, i) => map.set(f.class, (map.get(f.class) ?? 0) + probability[i]!));
    return map;
  }

  /** What a reading would be under a component, its meter included. */
  predictive(component: number, red: number, black: number): { mean: number; sd: number } {
    const of = this.components[component]!;
    return this.weighing.spread(of, red, black, of.predict(red, black, this.row));
  }

  /** What a reading would be under a component before any reading was taken. */
  prior0(component: number, red: number, black: number): { mean: number; sd: number } {
    const of = this.components[component]!;
    return this.weighing.spread(of, red, black, of.unlearnt(red, black, this.row));
  }

  /** The heaviest component of a fault, by id. */
  heaviest(fault: string): number {
    let top = -1;
    this.components.forEach((c, i) => {
      if (this.faults[c.faultIndex]!.id === fault && (top < 0 || this.weight[i]! > this.weight[top]!)) top = i;
    });
    return top;
  }

  /** A reading less what a component has learnt to expect, V or A. */
  residual(component: number, reading: number): number {
    return this.weighing.residual(this.components[component]!, reading);
  }

  /** Whether nothing but leaks holds what a reading was taken between, so that it may be anything near nothing. */
  floats(component: number, reading: number): boolean {
    return this.weighing.floats(this.components[component]!, reading);
  }

  /** Of a charger that hunts: whether a reading found it as it mostly is, or doing the other thing. */
  foundAs(component: number, reading: number): 'usual' | 'other' | undefined {
    return this.weighing.foundAs(this.components[component]!, reading);
  }

  /** The same without its sign, in standard deviations of meter and model. */
  deviation(component: number, reading: number): number {
    return this.weighing.deviation(this.components[component]!, reading);
  }

  /** How far the number of a component that lies farthest off what is stated of the rig does, in spreads. */
  outOfTolerance(component: number): number {
    const { mean } = this.components[component]!;
    return mean.subarray(0, this.workspace.severityColumn).reduce((far, x) => Math.max(far, Math.abs(x)), 0);
  }

  /** Components that still matter, heaviest first, so many at the most. */
  live(share = 1e-3, most = Infinity): number[] {
    const list: number[] = [];
    for (let c = 0; c < this.weight.length; c++) if (this.weight[c]! > share) list.push(c);
    return list.sort((a, b) => this.weight[b]! - this.weight[a]!).slice(0, most);
  }
}
