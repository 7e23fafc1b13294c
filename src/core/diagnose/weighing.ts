/**
 * How one component of the belief stands against the readings: each reading is a good one (about what the component
 * expects, heavy-tailed) or a slip, and is trusted by how likely it is to be the first.
 */
import type { CompiledRig } from '../compile/compile';
import { METER, USUAL_METER } from '../probe/meter';
import { pointPlace } from '../probe/measurement';
import { reachOf, type Reach } from '../probe/modelError';
import type { Output } from '../probe/outputs';
import type { Assumptions } from './assumptions';
import { AllAtOnce } from './allAtOnce';
import type { Component, LinearisationWorkspace } from './component';
import { sameRow, type Row, type Taken } from './evidence';
import { NO_GHOST_SHARE } from './ghostVolts';
import { blunderDensity, heavyTailed, readingVariance, unknownDensity } from './likelihood';

/** How far a reading may pull what is expected of it to itself, at most: beyond, nothing else speaks of it. */
const MOST_PULL = 0.98;
/** Rounds of judging what each reading is trusted; least trust a reading keeps, so that arithmetic stays sound. */
const PASSES = 3;
const LEAST_TRUST = 1e-4;
/** Density of a slip, roughly: a move is judged by what fits. */
const ANYTHING = { V: 0.03, A: 0.003 } as const;

/** Share of the way to what it reads while a hunting charger does the other thing, by which that is unsure. From memory. */
const OTHER_PHASE_SPREAD = 0.5;
/** Share of having found one of the two things a charger does, from which a reading tells which it was. */
const SURE_OF_PHASE = 0.9;
/** How often one that hunts is read running and resting in one state, and nobody notes that it comes and goes. From memory. */
const READ_BOTH_WAYS = 0.3;

export class Weighing {
  rows: readonly Row[] = [];
  private readonly row: Float64Array;
  private readonly pRow: Float64Array;
  /** Reach between two outputs, once asked for. */
  private readonly reaches = new Map<number, Reach>();
  /** Where each output is got at. */
  private readonly places: readonly string[];
  private readonly reachBetween: ReturnType<typeof reachOf>;

  constructor(
    compiled: CompiledRig,
    private readonly outputs: readonly Output[],
    private readonly workspace: LinearisationWorkspace,
    private readonly assumptions: Assumptions,
  ) {
    this.reachBetween = reachOf(compiled.rig);
    this.places = outputs.map((o) => pointPlace(compiled.rig, o.key).place);
    this.row = new Float64Array(workspace.width);
    this.pRow = new Float64Array(workspace.width);
  }

  /** Whether the readings, as they are now, have all been run through a component as it is linearised now. */
  stands(component: Component): boolean {
    return component.taken.length === this.rows.length && this.begins(component);
  }

  /** Whether what a component has taken in is how the readings begin. */
  private begins(component: Component): boolean {
    const { taken } = component;
    return (
      taken.length <= this.rows.length &&
      taken.every((t, r) => sameRow(t.row, this.rows[r]!) && t.version === component.versionAt(t.row.red))
    );
  }

  /** Runs the readings through one component, one after the other, from the first it has not yet taken in. */
  run(component: Component): Float64Array {
    const { row, pRow } = this;
    if (this.begins(component)) component.resume();
    else component.reset();
    for (let r = component.taken.length; r < this.rows.length; r++) {
      const { red, black, evidence } = this.rows[r]!;
      const { mean, variance } = component.predict(red, black, row, pRow, this.gainOf(r));
      const noise = this.noise(component, r, mean);
      const error = evidence.value - mean;
      const { good, bad, weight } = this.mixture(component, r, error, variance + noise);
      const trust = good / (good + bad);
      const taken: Taken = {
        row: this.rows[r]!,
        version: component.versionAt(red),
        trust,
        noise: noise / Math.max(trust * weight, LEAST_TRUST),
        logDensity: Math.log(good + bad),
      };
      component.taken.push(taken);
      component.noises[r] = taken.noise;
      component.logWeight += taken.logDensity;
      if (trust * weight > 1e-3) component.absorb(pRow, error, variance + noise, trust * weight);
    }
    return Float64Array.from(component.taken, (t) => t.trust);
  }

  /**
   * The same with all readings seen at once: what each is trusted is judged by what all of them together say, and then
   * taken in with that trust, until it settles. What came first no longer carries more weight than what came last. The
   * evidence is Laplace's approximation about where it settles.
   */
  refine(component: Component): Float64Array {
    const { rows } = this;
    const trusts = new Float64Array(rows.length);
    const { noises } = component;
    const slopes = rows.map(() => new Float64Array(this.workspace.width));
    const prior = Float64Array.from(
      rows,
      ({ red, black }, r) => component.unlearnt(red, black, slopes[r]!, this.gainOf(r)).mean,
    );
    const all = new AllAtOnce(
      slopes,
      prior,
      Float64Array.from(rows, (r) => r.evidence.value),
    );
    const expected = Float64Array.from(rows, ({ red, black }, r) => component.expected(red, black, this.gainOf(r)));
    let volume = 0;
    for (let pass = 0; pass < PASSES; pass++) {
      rows.forEach(({ evidence }, r) => {
        const R = this.noise(component, r, expected[r]!);
        const { good, bad, weight } = this.mixture(component, r, evidence.value - expected[r]!, R);
        trusts[r] = good / (good + bad);
        noises[r] = R / Math.max(trusts[r]! * weight, LEAST_TRUST);
      });
      volume = all.weigh(noises, expected);
    }
    component.learnTogether(all);
    let fit = 0.5 * volume;
    for (const x of component.mean) fit -= 0.5 * x * x;
    rows.forEach(({ evidence }, r) => {
      const mean = expected[r]!;
      const { good, bad } = this.mixture(component, r, evidence.value - mean, this.noise(component, r, mean));
      fit += Math.log(good + bad);
    });
    fit += this.comesAndGoes(component) * Math.log(READ_BOTH_WAYS);
    component.logWeight = component.logPrior + component.logSeen + fit;
    return trusts;
  }

  /** Log density of the readings and of the latent point together, the rig solved at the point itself. */
  fit(component: Component, state: number): number {
    const { assumptions: a } = this;
    let sum = 0;
    const x0 = component.x0[state]!;
    for (let k = 0; k < this.workspace.gainColumn; k++) sum -= 0.5 * x0[k]! * x0[k]!;
    for (const { red, black, unit, evidence } of this.rows) {
      const value = component.value(red) - (black < 0 ? 0 : component.value(black));
      const ofMeter = unit === 'V' ? METER.gainSpread * value : METER.clampZero;
      const noise = readingVariance(unit, value, a, evidence.meter, this.reach(red, black));
      const S = noise + this.astray(component, red, black) + ofMeter * ofMeter;
      const off = component.unknown ? a.unknownShare : a.blunderShare;
      const { density } = this.good(component, red, black, evidence.value - value, S);
      sum += Math.log((1 - off) * density + off * ANYTHING[unit]);
    }
    return sum;
  }

  /**
   * A component's log weight without one reading: what it would have expected of it follows from what it learnt with
   * it, in closed form for a Gaussian; its evidence is then less by how likely that reading was.
   */
  without(component: Component, r: number): number {
    const { red, black, evidence } = this.rows[r]!;
    const { mean, variance } = component.predict(red, black, this.row, this.pRow, this.gainOf(r));
    const pull = Math.min(MOST_PULL, variance / component.noises[r]!);
    const without = evidence.value - (evidence.value - mean) / (1 - pull);
    const S = variance / (1 - pull) + this.noise(component, r, without);
    const { good, bad } = this.mixture(component, r, evidence.value - without, S);
    return component.logWeight - Math.log(good + bad);
  }

  /** Mean and standard deviation of a reading of a component, from its mean and its variance without the meter. */
  spread(
    component: Component,
    red: number,
    black: number,
    { mean, variance }: { mean: number; variance: number },
  ): { mean: number; sd: number } {
    const unit = this.outputs[red % this.workspace.outputsPerState]!.kind === 'amps' ? 'A' : 'V';
    const noise = readingVariance(unit, mean, this.assumptions, undefined, this.reach(red, black));
    const other = component.other(red, black);
    const twoWays = other ? other.share * (1 - other.share) * other.moved ** 2 : 0;
    return { mean, sd: Math.sqrt(variance + noise + this.astray(component, red, black) + twoWays) };
  }

  /** Whether a component has nothing hold what a reading was taken between. */
  floats(component: Component, reading: number): boolean {
    const { red, black } = this.rows[reading]!;
    return component.ghost(red, black) !== undefined;
  }

  /** A reading less what a component has learnt to expect, V or A. */
  residual(component: Component, reading: number): number {
    const { red, black, evidence } = this.rows[reading]!;
    return evidence.value - component.expected(red, black, this.gainOf(reading));
  }

  /**
   * The same without its sign, in standard deviations of meter and model; of a charger that hunts, off the nearer of the
   * two things it may have been doing, and of a point that nothing holds off nothing where that is nearer.
   */
  deviation(component: Component, reading: number): number {
    const off = this.residual(component, reading);
    const { red, black, evidence } = this.rows[reading]!;
    const sd = Math.sqrt(this.noise(component, reading, evidence.value - off));
    const other = component.other(red, black);
    const there = other ? Math.abs(off - other.moved) / Math.hypot(sd, other.moved * OTHER_PHASE_SPREAD) : Infinity;
    const ghost = component.ghost(red, black);
    const none = ghost ? Math.abs(off - ghost.moved) / Math.sqrt(sd ** 2 - ghost.variance) : Infinity;
    return Math.min(Math.abs(off) / sd, there, none);
  }

  /**
   * Of a charger that hunts: whether a reading found it as it mostly is, or doing the other thing. Undefined where the two
   * would read alike, or nothing hunts.
   */
  foundAs(component: Component, reading: number): 'usual' | 'other' | undefined {
    const { red, black, evidence } = this.rows[reading]!;
    const other = component.other(red, black);
    if (!other) return undefined;
    const off = this.residual(component, reading);
    const variance = this.noise(component, reading, evidence.value - off);
    const here = (1 - other.share) * this.haunted(component, red, black, off, variance).density;
    const there = other.share * thereDensity(off, variance, other.moved);
    const share = there / (here + there);
    if (share > SURE_OF_PHASE) return 'other';
    return share < 1 - SURE_OF_PHASE ? 'usual' : undefined;
  }

  /** States in which some readings found a charger running and some resting: who holds a meter sees it come and go. */
  private comesAndGoes(component: Component): number {
    const per = this.workspace.outputsPerState;
    const found = new Map<number, Set<string>>();
    this.rows.forEach(({ red }, r) => {
      const as = this.foundAs(component, r);
      const state = Math.floor(red / per);
      if (as) found.set(state, (found.get(state) ?? new Set()).add(as));
    });
    return [...found.values()].filter((as) => as.size > 1).length;
  }

  private gainOf(r: number): number {
    const { meter } = this.rows[r]!.evidence;
    return meter ? meter.voltShare / USUAL_METER.voltShare : 1;
  }

  /** Variance of a reading about what the points carry: meter and model. */
  private noise(component: Component, r: number, predicted: number): number {
    const { red, black, unit, evidence } = this.rows[r]!;
    const usual = readingVariance(unit, predicted, this.assumptions, evidence.meter, this.reach(red, black));
    return usual + this.astray(component, red, black);
  }

  /** V² or A² that ghost volts, and a charger that may or may not run, add to a reading between two rows. */
  private astray(component: Component, red: number, black: number): number {
    return this.workspace.between(red, black) + (component.ghost(red, black)?.variance ?? 0);
  }

  /** Density of a good reading, and the weight it keeps: of a charger that hunts it is one of two things. */
  private good(
    component: Component,
    red: number,
    black: number,
    error: number,
    variance: number,
  ): { density: number; weight: number } {
    const usual = this.haunted(component, red, black, error, variance);
    const other = component.other(red, black);
    if (!other) return usual;
    const there = thereDensity(error, variance, other.moved);
    const here = (1 - other.share) * usual.density;
    const density = here + other.share * there;
    return { density, weight: usual.weight * (here / density) };
  }

  /** The same where no charger hunts: a point that nothing holds reads nothing, of which nothing is learnt, or a ghost. */
  private haunted(
    component: Component,
    red: number,
    black: number,
    error: number,
    variance: number,
  ): { density: number; weight: number } {
    const wide = heavyTailed(error, variance);
    const ghost = component.ghost(red, black);
    if (!ghost) return wide;
    const nothing = NO_GHOST_SHARE * heavyTailed(error - ghost.moved, variance - ghost.variance).density;
    const density = nothing + (1 - NO_GHOST_SHARE) * wide.density;
    return { density, weight: wide.weight * (1 - nothing / density) };
  }

  /** Densities of a reading as a good one and as a slip (or as what something unknown made of it). */
  private mixture(
    component: Component,
    r: number,
    error: number,
    variance: number,
  ): { good: number; bad: number; weight: number } {
    const { assumptions: a } = this;
    const { red, black, unit, evidence } = this.rows[r]!;
    const { density, weight } = this.good(component, red, black, error, variance);
    const off = component.unknown ? a.unknownShare : a.blunderShare * (evidence.confirmed ? a.slipsTwice : 1);
    const bad = component.unknown
      ? unknownDensity(unit, error)
      : blunderDensity(
          unit,
          evidence.value,
          evidence.value - error,
          unit === 'V' ? this.neighbours(component, red, black, evidence.confirmed === true) : [],
          a,
        );
    return { good: (1 - off) * density, bad: off * bad, weight };
  }

  /** Whether nothing unknown lies between two rows' points. */
  private reach(red: number, black: number): Reach {
    const per = this.workspace.outputsPerState;
    const state = Math.floor(red / per);
    const at = red * (per + 1) + (black < 0 ? per : black % per);
    let reach = this.reaches.get(at);
    if (reach === undefined) {
      const key = (row: number) => this.outputs[row % per]!.key;
      reach = this.reachBetween(this.workspace.states[state]!.id, key(red), black < 0 ? undefined : key(black));
      this.reaches.set(at, reach);
    }
    return reach;
  }

  /**
   * What the other points would read under the component, black lead where it is. A slip of the hand may land on any of
   * them; the same slip twice is a terminal taken for another, which lies beside it.
   */
  private neighbours(component: Component, red: number, black: number, twice: boolean): number[] {
    const per = this.workspace.outputsPerState;
    const first = Math.floor(red / per) * per;
    const list: number[] = [];
    const base = black < 0 ? 0 : component.value(black);
    for (let o = 0; o < per; o++) {
      if (first + o === red || this.outputs[o]!.kind !== 'volts') continue;
      if (!twice || this.places[o] === this.places[red - first]) list.push(component.value(first + o) - base);
    }
    return list;
  }
}

/** Density of a reading while a charger does the other thing: how far it is drawn down no slope follows. */
const thereDensity = (error: number, variance: number, moved: number): number =>
  heavyTailed(error - moved, variance + (moved * OTHER_PHASE_SPREAD) ** 2).density;
