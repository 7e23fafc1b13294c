/**
 * The rig through time: quasi-static network, batteries and temperatures with memory, controllers with
 * timers. Steps are as long as the error allows and land on events: timers exactly, thresholds by bisection
 * to half a second.
 */
import type { TraitName } from '../parts/traits';
import { has, partsWith, partWith } from '../rig/value';
import type { CompiledRig } from '../compile/compile';
import type { ControllerStep, Mode } from '../control/controller';
import { RigNetwork, type Situation } from '../operate/rigNetwork';
import { AlternatorDynamic } from './alternator';
import { BatteryDynamic } from './battery';
import { Chatter } from './chatter';
import { ChargerHeat } from './chargerHeat';
import type { Dynamic } from './dynamic';
import { heatingsOf, type Heating } from './heating';
import { HuntingWatch, type Cycle } from './hunting';
import { phasesOf, sunShare, type Phase } from './phases';
import { Recorder } from './recorder';
import type { SimEvent, SimResult, StartCheck } from './result';
import type { Scenario } from './scenarioSchema';
import { starterOf } from './starter';

export interface SimOptions {
  situation?: Situation;
  /** Ah of error a step may make; smaller is slower. */
  tolerance?: number;
  /** s a step may last at most where nothing warms and no sun shines; a quarter of a day where not said. */
  longest?: number;
  /** s a step may last at most with the sun on the panels or an alternator warming; a quarter of an hour where not said. */
  daylight?: number;
  /** Called now and then with the share done; throw to cancel. */
  progress?: (share: number) => void;
  /** Looks at the solved network at the end of each accepted step of h seconds. */
  watch?: (net: RigNetwork, h: number, t: number) => void;
  /** Looks at the batteries at the start and after each accepted step and leap; true ends the run there. */
  follow?: (now: Followed) => boolean;
  /** Off where only the summary is wanted. */
  series?: boolean;
  /** Newton rounds it may take before it answers with what it has; a million where not said. */
  budget?: number;
}

/** Where a run stands. */
export interface Followed {
  /** s */
  t: number;
  /** State of charge of a battery, 0 to 1. */
  soc(part: string): number;
  /** Whether the engine would start now; undefined on a rig without a starter. */
  start(): StartCheck | undefined;
  /** V at a battery’s posts while a starter draws so many amps of it. */
  crank(part: string, amps: number): number;
}

/** Thrown where the network has no operating point: the rig's document, not the customer's trip, is at fault. */
export class NoOperatingPoint extends Error {}

const TOLERANCE_AH = 2e-3;
/** Where an event is located to, s. */
const EVENT_SECONDS = 0.5;
const FIRST_STEP_SECONDS = 2;
/**
 * A step this short is taken whatever its end disagrees by, and none is planned shorter: halved on and on, no time
 * would pass. Where step after step does not settle (a charger on a flat battery finds no rest), it grows to the longer.
 */
const SHORTEST_STEP_SECONDS = 0.25;
const LONGEST_UNSETTLED_SECONDS = 60;
const UNSETTLED_GROWTH = 1.1;
const LONGEST_STEP = 6 * 3600;
/** With the sun on the panels, or an alternator warming, a step of a quarter of an hour is long enough. */
const DAYLIGHT_STEP_SECONDS = 900;
/** A by which the end of a step may still disagree with itself. */
const UNSETTLED_AMPS = 0.01;
/** Newton rounds a run may take: a hundred times what a long usual one takes, then it answers with what it has. */
const MAX_ROUNDS = 1_000_000;
const MAX_CASCADE = 32;
/** A leap over repeats with the engine on is at most this long, s: temperatures and timers of others go on in between. */
const LONGEST_LEAP_SECONDS = 1800;

/** Where charge and sums stood at one point of a cycle. */
interface Round {
  t: number;
  sums: Float64Array[];
  socs: number[];
}

export class Simulation {
  private readonly net: RigNetwork;
  private readonly batteries: BatteryDynamic[];
  private readonly alternators: AlternatorDynamic[];
  private readonly dynamics: Dynamic[];
  private readonly heatings: Heating[];
  private readonly recorder: Recorder;
  private readonly hunting: HuntingWatch;
  private readonly chatter: Chatter;
  private readonly chattered = new Set<number>();
  private readonly events: SimEvent[] = [];
  private readonly phases: Phase[];
  private readonly tolerance: number;
  private modes: Mode[];
  private timer = Infinity;
  private shortest = SHORTEST_STEP_SECONDS;
  private t = 0;
  private steps = 0;
  private solves = 0;
  /** The round of hunting just noticed, and by controller and mode the state at the same point of the round before. */
  private cycle: Cycle | undefined;
  private readonly lastRound = new Map<string, Round>();
  private readonly collapsed = new Set<string>();
  private readonly hasSun: boolean;
  /** Ended by who follows it, or out of its budget, and then when, s. */
  private over = false;
  private ranOutAt: number | undefined;
  private readonly starter: ReturnType<typeof starterOf>;

  constructor(
    private readonly compiled: CompiledRig,
    private readonly scenario: Scenario,
    private readonly options: SimOptions = {},
  ) {
    const net = (this.net = new RigNetwork(compiled));
    const house = partWith(compiled.rig, 'houseLoads');
    const nominal = compiled.rig.vehicles.find(
      (v) => v.id === (house?.vehicle ?? compiled.rig.vehicles[0]!.id),
    )!.nominalVolts;
    this.phases = phasesOf(scenario, nominal);
    this.modes = net.begin(this.phases[0]!.inputs, options.situation ?? {});
    this.tolerance = options.tolerance ?? TOLERANCE_AH;
    const celsius = scenario.legs[0]!.celsius;
    const idsWith = (trait: TraitName) => partsWith(compiled.rig, trait).map((p) => p.id);
    this.batteries = idsWith('battery').map((id) => new BatteryDynamic(net, id, scenario.startSoc?.[id]));
    this.alternators = idsWith('alternator').map((id) => new AlternatorDynamic(net, id, celsius));
    // Every converter: its limit is offered anew each step, whatever its input allowed in the last.
    const chargers = compiled.converters.map((_, k) => new ChargerHeat(net, k, celsius));
    this.dynamics = [...this.batteries, ...this.alternators, ...chargers];
    this.heatings = heatingsOf(net, celsius);
    this.hasSun = has(compiled.rig, 'panels');
    this.starter = starterOf(compiled.rig);
    this.recorder = new Recorder(
      net,
      this.batteries,
      this.alternators,
      this.heatings,
      chargers,
      options.series !== false,
    );
    this.hunting = new HuntingWatch(compiled.controllers.length);
    this.chatter = new Chatter(compiled.controllers.length);
  }

  run(): SimResult {
    const total = this.phases[this.phases.length - 1]!.to;
    for (const phase of this.phases) {
      if (this.over) break;
      try {
        if (phase.first) this.enterLeg(phase);
        this.runPhase(phase, total);
      } catch (e) {
        // Some way in, what went before stands; from the start there is nothing to tell.
        if (!(e instanceof NoOperatingPoint) || this.t === 0) throw e;
        this.endHere('the network finds no operating point');
      }
    }
    this.checkStart(this.ranOutAt === undefined ? 'at the end' : 'where the simulation ends');
    const hunters = this.hunting.hunters.map((k) => this.compiled.controllers[k]!.part);
    return this.recorder.result(
      this.scenario,
      this.phases,
      this.events,
      hunters,
      [...this.collapsed],
      this.steps,
      this.solves,
      this.ranOutAt,
    );
  }

  private enterLeg(phase: Phase): void {
    const leg = this.scenario.legs[phase.leg]!;
    if (this.t > 0 && phase.inputs.engine !== 'off') this.checkStart(`before “${leg.name}”`);
    this.recorder.enterLeg();
    this.events.push({ t: this.t, kind: 'leg', what: leg.name, why: `leg ${phase.leg + 1} begins` });
  }

  private checkStart(when: string): void {
    const check = this.startNow(when);
    if (!check) return;
    this.recorder.starts.push(check);
    const bank = this.starter!.battery;
    if (!check.starts)
      this.events.push({
        t: this.t,
        kind: 'start',
        part: bank,
        what: `The engine would not start ${when}`,
        why: `${this.nameOf(bank)} would fall to ${check.volts.toFixed(1)} V under the starter, limit ${check.limit.toFixed(1)} V`,
      });
  }

  private startNow(when = 'now'): StartCheck | undefined {
    const bank = this.batteries.find((b) => b.part === this.starter?.battery);
    return (
      bank &&
      this.starter!.check(bank, this.net.inputs.leg?.celsius ?? 25, this.t, when, (key) => this.net.parameterNow(key))
    );
  }

  private followed(): void {
    this.over ||=
      this.options.follow?.({
        t: this.t,
        soc: (part) => this.batteries.find((b) => b.part === part)!.soc,
        start: () => this.startNow(),
        crank: (part, amps) => this.batteries.find((b) => b.part === part)!.crankVolts(amps),
      }) ?? false;
  }

  /** Sets the sun for a step and works all values out anew. */
  private refresh(phase: Phase, at: number): void {
    this.net.inputs = phase.inputs;
    const leg = this.scenario.legs[phase.leg]!;
    if (this.hasSun && phase.inputs.leg)
      phase.inputs.leg.sun = sunShare(this.scenario.startHour + at / 3600, leg.sunHours);
    this.net.writeValues();
    for (const d of this.dynamics) d.refresh(this.net);
  }

  /** One network solve for the end of a step of h seconds. */
  private solveStep(h: number): void {
    for (const d of this.dynamics) d.stamp(this.net, h);
    this.solves++;
    if (!this.net.solve().converged)
      throw new NoOperatingPoint(`the network has no operating point ${(this.t / 3600).toFixed(2)} h in`);
  }

  /** Solves a step until its end agrees with itself; returns by how much it still does not, A. */
  private attempt(h: number, rounds = 6): number {
    let off = Infinity;
    for (let k = 0; k < rounds; k++) {
      this.solveStep(h);
      off = 0;
      for (const d of this.dynamics) off = Math.max(off, d.observe(this.net));
      if (off < 2e-3) break;
    }
    return off;
  }

  /** The instant after something switched: no time passes, currents jump, controllers look until all is quiet. */
  private settleInstant(phase: Phase, dt = 0): void {
    let elapsed = dt;
    this.chatter.instant();
    for (let round = 0; round < MAX_CASCADE; round++) {
      this.refresh(phase, this.t);
      for (const d of this.dynamics) d.discontinuity();
      this.attempt(0, 8);
      for (const d of this.dynamics) d.accept(0);
      if (!this.look(elapsed, true)) return;
      elapsed = 0;
    }
    // A controller without a dwell of its own on a weak source: it goes on at the next step.
  }

  /**
   * Lets every controller look at the network. With `apply`, the first that changes an output is put into
   * effect and the rest wait for the new network; without, only tells whether any would change its mode.
   */
  private look(dt: number, apply: boolean): boolean {
    const { controllers } = this.compiled;
    let changed = false;
    let timer = Infinity;
    const next: Mode[] = [];
    for (let k = 0; k < controllers.length; k++) {
      const mode = this.modes[k]!;
      const held = this.chatter.left(k, apply ? this.t : this.t + dt);
      if (changed || held > 0) {
        next.push({ name: mode.name, seconds: mode.seconds + dt });
        if (held > 0) timer = Math.min(timer, held);
        continue;
      }
      const step = this.net.stepController(k, mode, dt);
      if (!step) {
        next.push(mode);
        continue;
      }
      if (!apply) {
        if (step.mode.name !== mode.name) return true;
        continue;
      }
      if (step.mode.name !== mode.name) {
        this.tell(k, mode, step);
        if (this.chatter.flipped(k, Object.values(step.closed).some(Boolean), this.t)) {
          this.tellChatter(k, step);
          timer = Math.min(timer, this.chatter.left(k, this.t));
        }
      }
      next.push(step.mode);
      if (step.timer !== undefined) timer = Math.min(timer, step.timer);
      changed = this.net.applyStep(k, step);
    }
    if (apply) {
      this.modes = next;
      this.timer = timer;
    }
    return changed;
  }

  private tell(k: number, from: Mode, step: ControllerStep): void {
    const controller = this.compiled.controllers[k]!;
    this.cycle = this.hunting.changed(k, step.mode.name, this.t) ?? this.cycle;
    const words = controller.kind.words[step.mode.name];
    if (
      words === undefined ||
      this.hunting.silent(k) ||
      this.chatter.goesOn(k, this.t) ||
      words === controller.kind.words[from.name]
    )
      return;
    this.events.push({
      t: this.t,
      kind: 'controller',
      part: controller.part,
      what: `${this.nameOf(controller.part)} ${words}`,
      why: step.why,
    });
  }

  /** Said once of each. */
  private tellChatter(k: number, step: ControllerStep): void {
    if (this.chattered.has(k)) return;
    this.chattered.add(k);
    const { part, kind } = this.compiled.controllers[k]!;
    this.events.push({
      t: this.t,
      kind: 'hunting',
      part,
      what: `${this.nameOf(part)} chatters`,
      why: `${step.why}; the other way at once: it counts as “${kind.words[step.mode.name] ?? step.mode.name}” meanwhile`,
    });
  }

  private nameOf(part: string): string {
    return this.compiled.rig.parts.find((p) => p.id === part)!.name;
  }

  private runPhase(phase: Phase, total: number): void {
    this.settleInstant(phase);
    this.recorder.record(this.t, this.net);
    this.followed();
    let h = FIRST_STEP_SECONDS;
    while (this.t < phase.to - 1e-6 && !this.over) {
      this.steps++;
      if (this.net.solver.rounds > (this.options.budget ?? MAX_ROUNDS)) {
        this.runOut();
        break;
      }
      if (this.options.progress && this.steps % 64 === 0) this.options.progress(this.t / total);
      const longest = this.longestStep(phase);
      let step = Math.min(h, phase.to - this.t, this.timer, longest);
      const saved = this.dynamics.map((d) => d.save());
      if (this.hasSun) this.refresh(phase, this.t + step / 2);
      const tried = this.tryStep(step);
      if (tried > this.tolerance && step > this.shortest) {
        this.undo(saved);
        h = Math.max(this.shortest, step * Math.max(0.2, 0.8 * Math.sqrt(this.tolerance / Math.min(tried, 1e3))));
        continue;
      }
      const changes = this.look(step, false);
      if (changes && step > EVENT_SECONDS && !(step === this.timer && !this.changesBy(step - EVENT_SECONDS, saved)))
        step = this.locate(step, saved);
      else if (changes) this.redo(step, saved);
      this.accept(step);
      this.shortest =
        tried === Infinity
          ? Math.min(LONGEST_UNSETTLED_SECONDS, this.shortest * UNSETTLED_GROWTH)
          : SHORTEST_STEP_SECONDS;
      h = Math.max(
        this.shortest,
        step * Math.min(2.5, Math.max(0.5, 0.9 * Math.sqrt(this.tolerance / Math.max(tried, 1e-12)))),
      );
      if (changes) {
        this.look(step, true);
        const cycle = this.cycle;
        this.cycle = undefined;
        if (cycle) this.jumpCycles(cycle, phase);
        this.settleInstant(phase);
        this.recorder.record(this.t, this.net);
        h = FIRST_STEP_SECONDS;
      } else this.look(step, true);
      this.followed();
    }
  }

  /** Out of its budget: what was simulated stands, and the rest is said to be missing. */
  private runOut(): void {
    const busiest = this.hunting.busiest;
    this.endHere(
      busiest === undefined
        ? 'it takes too many steps'
        : `${this.nameOf(this.compiled.controllers[busiest]!.part)} switches on and off without rest`,
    );
  }

  /** Ends the run where it is, and says so. */
  private endHere(why: string): void {
    this.over = true;
    this.ranOutAt = this.t;
    this.events.push({
      t: this.t,
      kind: 'limit',
      what: `The simulation ends here, ${(this.t / 3600).toFixed(1)} h in`,
      why: `${why}; what comes after it was not worked out`,
    });
  }

  private longestStep(phase: Phase): number {
    const { daylight = DAYLIGHT_STEP_SECONDS, longest = LONGEST_STEP } = this.options;
    const sunny = this.hasSun && this.scenario.legs[phase.leg]!.sunHours > 0;
    return this.warming(phase) || sunny ? daylight : longest;
  }

  private warming(phase: Phase): boolean {
    return phase.inputs.engine !== 'off';
  }

  /** Solves a step from here; returns its error in Ah. */
  private tryStep(h: number): number {
    for (const d of this.dynamics) d.predict(h);
    // An end that does not settle, at the knee of a lithium bank say, wants a shorter step.
    let error = this.settlesIn(h) ? 0 : Infinity;
    for (const d of this.dynamics) error = Math.max(error, d.error(h));
    return error;
  }

  /** Whether the end of a step agrees with itself. A network that finds none on a long step may find one on a shorter. */
  private settlesIn(h: number): boolean {
    try {
      return this.attempt(h) <= UNSETTLED_AMPS;
    } catch (e) {
      if (e instanceof NoOperatingPoint && h > this.shortest) return false;
      throw e;
    }
  }

  private undo(saved: readonly (readonly number[])[]): void {
    this.dynamics.forEach((d, i) => d.restore(saved[i]!));
  }

  private redo(h: number, saved: readonly (readonly number[])[]): void {
    this.undo(saved);
    this.tryStep(h);
  }

  private changesBy(h: number, saved: readonly (readonly number[])[]): boolean {
    this.redo(h, saved);
    return this.look(h, false);
  }

  /** The shortest step, to half a second, after which some controller changes its mode. Leaves it solved. */
  private locate(step: number, saved: readonly (readonly number[])[]): number {
    let low = 0;
    let high = step;
    while (high - low > EVENT_SECONDS) {
      const middle = (low + high) / 2;
      if (this.changesBy(middle, saved)) high = middle;
      else low = middle;
    }
    this.redo(high, saved);
    return high;
  }

  private accept(h: number): void {
    for (const d of this.dynamics) d.accept(h);
    for (const b of this.heatings) b.commit(this.net, h);
    this.t += h;
    if (this.timer !== Infinity) this.timer -= h;
    this.net.converterStates.forEach((c, k) => c.collapsed && this.collapsed.add(this.compiled.converters[k]!.part));
    for (const d of this.dynamics) {
      const news = d.takeNews?.();
      if (news) this.events.push({ t: this.t, kind: 'limit', part: d.part, ...news });
    }
    this.recorder.step(h, this.t, this.net);
    this.options.watch?.(this.net, h, this.t);
  }

  /**
   * Where something has gone through the same cycle again and again, goes on by many of them at once: charge
   * and sums by as many times the last cycle's change, as long as no battery's charge moves by a hundredth.
   */
  private jumpCycles(cycle: Cycle, phase: Phase): void {
    const sums = [this.recorder.sums, ...this.batteries.map((b) => b.totals)];
    const key = `${cycle.controller}/${cycle.mode}`;
    const now: Round = {
      t: this.t,
      sums: sums.map((s) => Float64Array.from(s)),
      socs: this.batteries.map((b) => b.soc),
    };
    const before = this.lastRound.get(key);
    this.lastRound.set(key, now);
    if (cycle.first) {
      const { part, kind } = this.compiled.controllers[cycle.controller]!;
      this.events.push({
        t: this.t,
        kind: 'hunting',
        part,
        what: `${this.nameOf(part)} hunts`,
        why:
          `${kind.words[cycle.mode] ?? cycle.mode} again and again, every ` +
          `${cycle.period < 120 ? `${cycle.period.toFixed(0)} s` : `${(cycle.period / 60).toFixed(1)} min`}`,
      });
    }
    if (!before || this.t - before.t > 1.5 * cycle.period) return;
    const moved = Math.max(1e-9, ...now.socs.map((s, i) => Math.abs(s - before.socs[i]!)));
    const many = Math.floor(
      Math.min(0.01 / moved, (phase.to - this.t) / cycle.period - 1, LONGEST_LEAP_SECONDS / cycle.period),
    );
    if (many < 2) return;
    sums.forEach((list, i) => list.forEach((x, j) => (list[j] = x + many * (now.sums[i]![j]! - before.sums[i]![j]!))));
    this.batteries.forEach((b, i) => b.leapTo(b.soc + many * (now.socs[i]! - before.socs[i]!)));
    this.t += many * (this.t - before.t);
    this.recorder.leap(
      now.t,
      this.t,
      sums.map((list, i) => list.map((x, j) => x - now.sums[i]![j]!)),
    );
    this.hunting.shift(this.t - now.t);
    this.chatter.shift(this.t - now.t);
    this.lastRound.clear();
  }
}

/** Simulates a compiled rig through a scenario. */
export const simulate = (compiled: CompiledRig, scenario: Scenario, options?: SimOptions): SimResult =>
  new Simulation(compiled, scenario, options).run();
