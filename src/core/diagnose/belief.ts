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
import { priors } from './priors';
import { answerProbability, observationsOf, type Observed } from './observations';
import type { ObservationKind } from './observations/observationKind';
import { blunderDensity, readingVariance } from './likelihood';
import { USUAL_METER, type MeterAccuracy } from '../probe/meter';

/** A reading as evidence: points by key, SI. */
export interface Evidence {
  /** The stored reading's id, or any name. */
  id: string;
  state: string;
  probe: string;
  /** Black lead's point; absent on a clamp. */
  ref?: string;
  value: number;
  /** It stands for a reading taken twice: a slip on it has been ruled out. */
  confirmed?: boolean;
  /** Of the instrument it was taken with; the usual one's where absent. */
  meter?: MeterAccuracy;
  /** How long the rig had been in the state. */
  secondsInState?: number;
}

interface Row {
  evidence: Evidence;
  red: number;
  black: number;
  unit: 'V' | 'A';
}

/** Linearisations of one component in one state, in one update. */
const MAX_LINEARISATIONS = 90;
/** Share from which a component is kept linear about the truth it claims in every state. */
const LEADER_SHARE = 0.15;
/** A component that fell this low for want of a better linearisation still gets one. */
const WORTH_RELINEARISING = 1e-5;
const LEFT_OUT_CANNOT_MATTER = 1e-7;

export class Belief {
  readonly faults: Fault[];
  readonly workspace: LinearisationWorkspace;
  readonly components: Component[] = [];
  readonly outputs: Output[];
  /** Probability per fault, in the order of `faults`. */
  readonly probability: Float64Array;
  readonly prior: Float64Array;
  private rows: Row[] = [];
  /** Probability of each component. */
  readonly weight: Float64Array;
  /** Probability per reading that it is a blunder, in the order given. */
  blunder: number[] = [];
  private readonly outputIndex: Map<string, number>;
  private readonly nominal: number;
  private readonly row: Float64Array;
  private readonly pRow: Float64Array;

  /** What can be looked at, listened to and tried on this rig. */
  readonly questions: readonly ObservationKind[];

  constructor(
    readonly compiled: CompiledRig,
    intake: readonly IntakeClue[],
    readonly assumptions: Assumptions = ASSUMPTIONS,
  ) {
    this.outputs = rigOutputs(compiled);
    this.outputIndex = new Map(this.outputs.map((o, i) => [o.key, i]));
    this.workspace = new LinearisationWorkspace(compiled, this.outputs, assumptions.spreadFactor);
    this.faults = rigFaults(compiled.rig);
    this.questions = observationsOf(compiled.rig, this.faults);
    this.prior = priors(this.faults, intake, assumptions);
    this.faults.forEach((fault, f) => {
      const strata = strataOf(fault.effects);
      for (let s = 0; s < strata; s++) {
        const logPrior = Math.log(this.prior[f]! / strata);
        this.components.push(new Component(this.workspace, f, fault.effects, s, strata, logPrior));
      }
    });
    this.nominal = compiled.rig.vehicles[0]!.nominalVolts;
    this.probability = Float64Array.from(this.prior);
    this.weight = new Float64Array(this.components.length);
    this.row = new Float64Array(this.workspace.width);
    this.pRow = new Float64Array(this.workspace.width);
    this.replay();
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
    const kinds = new Map(this.questions.map((o) => [o.id, o]));
    this.observed = observed.filter((o) => kinds.has(o.what));
    this.seenLog = this.observed.map((o) =>
      Float64Array.from(this.components, (_, i) => Math.log(this.answerChance(kinds.get(o.what)!, o.answer, i))),
    );
    this.components.forEach((c, i) => (c.logSeen = this.seenLog.reduce((sum, row) => sum + row[i]!, 0)));

    // What was learnt from a reading that no longer stands must not linger in where things are linearised.
    const stands = new Map(evidence.map((e) => [e.id, e.value]));
    if (this.rows.some((r) => stands.get(r.evidence.id) !== r.evidence.value))
      for (const c of this.components) c.restore();
    this.rows = evidence.flatMap((e): Row[] => {
      const red = this.rowOf(e.state, e.probe);
      const black = e.ref === undefined ? -1 : this.rowOf(e.state, e.ref);
      if (red === undefined || black === undefined) return [];
      const unit = this.outputs[red % this.workspace.outputsPerState]!.kind === 'amps' ? 'A' : 'V';
      return [{ evidence: e, red, black, unit }];
    });
    this.replay();
    this.relinearise();
  }

  /** How likely an answer is under a component. */
  answerChance(kind: ObservationKind, answer: string, component: number): number {
    const c = this.components[component]!;
    return answerProbability(kind, answer, {
      faults: membersOf(this.faults[c.faultIndex]!),
      closes: (part, state) => c.closes(part, state),
      volts: (state, probe) => {
        const row = this.rowOf(state, probe);
        return row === undefined ? undefined : c.value(row);
      },
      nominal: this.nominal,
    });
  }

  get evidence(): Evidence[] {
    return this.rows.map((r) => r.evidence);
  }

  /**
   * Moves the heaviest components' linearisation to what they learnt, in the states somebody measured in, a
   * few rounds, and replays. Leaders are moved in every state: the next test is chosen by what they predict.
   */
  private relinearise(): void {
    const measured = new Set(this.rows.map((r) => Math.floor(r.red / this.workspace.outputsPerState)));
    let left = MAX_LINEARISATIONS;
    for (let round = 0; round < 3 && left > 0; round++) {
      let moved = false;
      for (const c of this.live(WORTH_RELINEARISING)) {
        const component = this.components[c]!;
        for (let s = 0; s < this.workspace.states.length && left > 0; s++) {
          if (!measured.has(s) && this.weight[c]! < LEADER_SHARE) continue;
          if (component.relinearise(s)) {
            moved = true;
            left--;
          }
        }
      }
      if (!moved) return;
      this.replay();
    }
  }

  /** Runs all evidence through all components from the prior. */
  private replay(): void {
    const trust: Float64Array[] = [];
    for (const component of this.components) trust.push(this.run(component, -1));
    this.normalise(this.weight);
    this.probability.fill(0);
    this.components.forEach((c, i) => {
      this.probability[c.faultIndex] = this.probability[c.faultIndex]! + this.weight[i]!;
    });
    this.blunder = this.rows.map((_, r) => {
      let share = 0;
      for (let c = 0; c < this.components.length; c++) share += this.weight[c]! * (1 - trust[c]![r]!);
      return share;
    });
  }

  /** Runs the evidence, all but `skip`, through one component; returns the trust in each reading. */
  private run(component: Component, skip: number): Float64Array {
    const { assumptions: a, row, pRow } = this;
    const trusts = new Float64Array(this.rows.length);
    component.reset();
    for (let r = 0; r < this.rows.length; r++) {
      if (r === skip) continue;
      const { red, black, unit, evidence } = this.rows[r]!;
      const { mean, variance } = component.predict(
        red,
        black,
        row,
        pRow,
        evidence.meter ? evidence.meter.voltShare / USUAL_METER.voltShare : 1,
      );
      const S = variance + readingVariance(unit, mean, a, evidence.meter);
      const error = evidence.value - mean;
      const good = ((1 - a.blunderShare) * Math.exp((-0.5 * error * error) / S)) / Math.sqrt(2 * Math.PI * S);
      const bad =
        a.blunderShare *
        blunderDensity(unit, evidence.value, unit === 'V' ? this.neighbours(component, red, black) : [], a);
      const trust = good / (good + bad);
      trusts[r] = trust;
      component.logWeight += Math.log(good + bad);
      if (trust > 1e-3) component.absorb(pRow, error, S, trust);
    }
    return trusts;
  }

  /** What the other points would read under the component, black lead where it is. */
  private neighbours(component: Component, red: number, black: number): number[] {
    const per = this.workspace.outputsPerState;
    const first = Math.floor(red / per) * per;
    const list: number[] = [];
    const base = black < 0 ? 0 : component.value(black);
    for (let o = 0; o < per; o++) {
      if (first + o !== red && this.outputs[o]!.kind === 'volts') list.push(component.value(first + o) - base);
    }
    return list;
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
    const kept = this.components.map((c) => c.logWeight);
    const weight = new Float64Array(this.components.length);
    // One reading, good or blunder, moves a component by a factor of some ten thousand at the most: what is
    // below that cannot come back by leaving one out.
    const able = this.components.filter((_, i) => this.weight[i]! > LEFT_OUT_CANNOT_MATTER);
    const result = this.rows.map((_, skip) => {
      for (const component of able) this.run(component, skip);
      this.normalise(weight);
      const p = new Float64Array(this.faults.length);
      this.components.forEach((c, i) => {
        p[c.faultIndex] = p[c.faultIndex]! + weight[i]!;
      });
      return p;
    });
    // Leave the components as all the evidence has them.
    for (const component of able) this.run(component, -1);
    this.components.forEach((component, i) => {
      component.logWeight = kept[i]!;
    });
    return result;
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
    const unit = this.outputs[red % this.workspace.outputsPerState]!.kind === 'amps' ? 'A' : 'V';
    const { mean, variance } = this.components[component]!.predict(red, black, this.row);
    return { mean, sd: Math.sqrt(variance + readingVariance(unit, mean, this.assumptions)) };
  }

  /** Components that still matter, heaviest first, so many at the most. */
  live(share = 1e-3, most = Infinity): number[] {
    const list: number[] = [];
    for (let c = 0; c < this.weight.length; c++) if (this.weight[c]! > share) list.push(c);
    return list.sort((a, b) => this.weight[b]! - this.weight[a]!).slice(0, most);
  }
}
