/** Writes a simulation down: series, sums, extremes. Sums live in one array, so that a leap over repeats can add to all. */
import { SOURCE } from '../circuit/devices';
import { resistorAmps } from '../circuit/readings';
import { is, partKind, traitsOf } from '../parts/kinds';
import { follow } from '../rig/follow';
import type { Part, Rig } from '../rig/schema';
import { partWith } from '../rig/value';
import type { RigNetwork } from '../operate/rigNetwork';
import type { AlternatorDynamic } from './alternator';
import type { BatteryDynamic } from './battery';
import { CHARGER_DERATES_FROM_CELSIUS, type ChargerHeat } from './chargerHeat';
import type { Heating } from './heating';
import type { Phase } from './phases';
import type { LinkSummary, SimEvent, SimResult, SimSeries, StartCheck } from './result';
import type { Scenario } from './scenarioSchema';

/** Amps that count as a link carrying something. */
const CARRIES_AMPS = 0.2;

/** How much more a fall may have become since it was last worked out. */
const DIP_MARGIN_FACTOR = 1.5;
/** A worth of looking at what they do to the volts. */
const MIN_DIP_AMPS = 0.3;

interface Tap {
  part: string;
  name: string;
  /** Amps from the engine side toward the coach. */
  amps(net: RigNetwork): number;
  /** Whether it is made or running. */
  on(net: RigNetwork): boolean;
}

/** A maintainer whose far end leads to a battery on the engine's side: what it gives is no amp toward the coach. */
const helpsTheEngine = (rig: Rig, part: Part): boolean =>
  is(part, 'maintainer') &&
  partKind(part.kind).terminals.some((t) => t.id === 'to') &&
  follow(rig, { part: part.id, terminal: 'to' }).some(
    (s) => s.part && is(s.part, 'battery') && s.part.side === 'engine',
  );

/** Where current passes between the sides. */
function tapsOf(net: RigNetwork): Tap[] {
  const { rig, resistor, port } = net.compiled;
  return rig.parts.flatMap((part): Tap[] => {
    const tap = traitsOf(part).passes;
    if (!tap) return [];
    const id = `${part.id}.${tap.element}`;
    const toward = helpsTheEngine(rig, part) ? -1 : tap.toward;
    const named = { part: part.id, name: part.name };
    if (tap.is === 'contact' || tap.is === 'wire') {
      const index = resistor.get(id)!;
      const made = (n: RigNetwork) => Number.isFinite(n.values.resistorOhms[index]!);
      const amps = (n: RigNetwork) => (made(n) ? toward * resistorAmps(n.solver, n.values, index) : 0);
      return [{ ...named, amps, on: tap.is === 'contact' ? made : (n) => Math.abs(amps(n)) > CARRIES_AMPS }];
    }
    const index = port.get(id)!;
    const amps = (n: RigNetwork) => toward * n.solver.pushed(index);
    return [
      {
        ...named,
        amps,
        on:
          tap.is === 'converter'
            ? (n) => SOURCE.limit.get(n.values, index) > 0
            : (n) => Math.abs(amps(n)) > CARRIES_AMPS,
      },
    ];
  });
}

export class Recorder {
  readonly starts: StartCheck[] = [];
  private readonly legEnds: { soc: number[]; lowestVolts: number[] }[] = [];
  /** Sums: per tap hours on, Ah to coach, Ah back, closings; then copper Wh, converter Wh; per alternator Ah. */
  readonly sums: Float64Array;
  private readonly taps: Tap[];
  private readonly wasOn: boolean[];
  private readonly tapPeak: number[];
  private readonly lastTap: Float64Array;
  private readonly lastAlternator: Float64Array;
  private lastCopper = 0;
  private lastConverter = 0;
  private readonly extremes: {
    lowestSoc: number;
    lowestVolts: number;
    lowestAllOn: number;
    highestVolts: number;
    startSoc: number;
  }[];
  private readonly peaks: { amps: number; idle: number; road: number }[];
  private readonly time: number[] = [];
  private readonly columns: number[][] = [];
  /** Of a part with two converters, the first stands for it. */
  private readonly fins: readonly ChargerHeat[];
  /** Posts of each battery, the house panel's two poles, and what a full house does to each, V. */
  private readonly posts: readonly (readonly [number, number])[];
  private readonly bus: readonly [number, number] | undefined;
  private readonly dips: Float64Array;
  /** Amps more the falls were worked out for. */
  private dippedFor = 0;
  private readonly lambda: Float64Array;
  private readonly heads: Omit<SimSeries, 'values'>[] = [];

  constructor(
    net: RigNetwork,
    private readonly batteries: readonly BatteryDynamic[],
    private readonly alternators: readonly AlternatorDynamic[],
    private readonly heatings: readonly Heating[],
    chargers: readonly ChargerHeat[],
    private readonly keepSeries: boolean,
  ) {
    this.taps = tapsOf(net);
    this.dips = new Float64Array(batteries.length);
    this.posts = batteries.map((b) => [
      net.compiled.node.get(`${b.part}.plus`)!,
      net.compiled.node.get(`${b.part}.minus`)!,
    ]);
    const house = partWith(net.compiled.rig, 'houseLoads');
    this.bus = house && [net.compiled.node.get(`${house.id}.plus`)!, net.compiled.node.get(`${house.id}.minus`)!];
    this.lambda = new Float64Array(net.compiled.topology.nodeNames.length);
    this.sums = new Float64Array(this.taps.length * 4 + 2 + alternators.length);
    this.wasOn = this.taps.map(() => false);
    this.tapPeak = this.taps.map(() => 0);
    this.lastTap = new Float64Array(this.taps.length);
    this.lastAlternator = new Float64Array(alternators.length);
    this.extremes = batteries.map((b) => ({
      lowestSoc: b.soc,
      lowestVolts: Infinity,
      lowestAllOn: Infinity,
      highestVolts: -Infinity,
      startSoc: b.soc,
    }));
    this.peaks = alternators.map(() => ({ amps: 0, idle: 0, road: 0 }));
    const head = (id: string, part: string, label: string, unit: SimSeries['unit']) => {
      this.heads.push({ id, part, label, unit });
      this.columns.push([]);
    };
    for (const b of batteries) {
      head(`${b.part}.soc`, b.part, `${b.name} charge`, '%');
      head(`${b.part}.volts`, b.part, `${b.name} volts`, 'V');
      head(`${b.part}.amps`, b.part, `${b.name} amps`, 'A');
    }
    for (const a of alternators) {
      head(`${a.part}.amps`, a.part, `${a.name} amps`, 'A');
      head(`${a.part}.limit`, a.part, `${a.name}, most it could give`, 'A');
      head(`${a.part}.celsius`, a.part, `${a.name} temperature`, '°C');
    }
    for (const tap of this.taps) head(`${tap.part}.amps`, tap.part, `${tap.name} amps toward coach`, 'A');
    for (const h of heatings) head(`${h.part}.${h.body.id}`, h.part, `${h.body.label} temperature`, '°C');
    this.fins = chargers.filter((c, k) => chargers.findIndex((x) => x.part === c.part) === k);
    for (const c of this.fins) head(`${c.part}.fins`, c.part, `${c.name} fins`, '°C');
  }

  /** Opens the sums of a leg. */
  enterLeg(): void {
    this.legEnds.push({ soc: this.batteries.map((b) => b.soc), lowestVolts: this.batteries.map(() => Infinity) });
  }

  /** A point of the series, and the ends of what is integrated, after something jumped. */
  record(t: number, net: RigNetwork): void {
    this.ends(net);
    this.look(net);
    this.point(t, net);
  }

  /**
   * A leap over repeats of a cycle: its two ends with the mean amps of what was leapt over, so that a curve
   * integrates to the sums. `moved` are the growths of the recorder's sums, then of each battery's.
   */
  leap(from: number, to: number, moved: readonly ArrayLike<number>[]): void {
    if (!this.keepSeries) return;
    const hours = (to - from) / 3600;
    const [sums, ...banks] = moved;
    const last = this.columns.map((c) => c[c.length - 1] ?? 0);
    const mean = this.heads.map(({ id, part, unit }, i) => {
      if (unit !== 'A' || id.endsWith('.limit')) return last[i]!;
      const bank = this.batteries.findIndex((b) => b.part === part);
      if (bank >= 0) return (banks[bank]![0]! - banks[bank]![1]!) / hours;
      const alternator = this.alternators.findIndex((a) => a.part === part);
      if (alternator >= 0) return sums![this.taps.length * 4 + 2 + alternator]! / hours;
      const tap = this.taps.findIndex((x) => x.part === part);
      return tap >= 0 ? (sums![tap * 4 + 1]! - sums![tap * 4 + 2]!) / hours : last[i]!;
    });
    const socs = this.batteries.map((b) => b.soc * 100);
    for (const t of [from, to]) {
      this.time.push(t);
      this.heads.forEach(({ id, part }, i) => {
        const bank = this.batteries.findIndex((b) => b.part === part);
        this.columns[i]!.push(t === to && bank >= 0 && id.endsWith('.soc') ? socs[bank]! : mean[i]!);
      });
    }
  }

  /** One accepted step that ended at t. */
  step(h: number, t: number, net: RigNetwork): void {
    const { sums, taps, lastTap, alternators, lastAlternator } = this;
    const hours = h / 3600;
    const copper = this.lastCopper;
    const converter = this.lastConverter;
    const tapBefore = Float64Array.from(lastTap);
    const altBefore = Float64Array.from(lastAlternator);
    this.ends(net);
    taps.forEach((_, k) => {
      const mean = (tapBefore[k]! + lastTap[k]!) / 2;
      if (this.wasOn[k]) sums[k * 4] = sums[k * 4]! + hours;
      if (mean >= 0) sums[k * 4 + 1] = sums[k * 4 + 1]! + mean * hours;
      else sums[k * 4 + 2] = sums[k * 4 + 2]! - mean * hours;
    });
    const at = taps.length * 4;
    sums[at] = sums[at]! + ((copper + this.lastCopper) / 2) * hours;
    sums[at + 1] = sums[at + 1]! + ((converter + this.lastConverter) / 2) * hours;
    alternators.forEach(
      (_, k) => (sums[at + 2 + k] = sums[at + 2 + k]! + ((altBefore[k]! + lastAlternator[k]!) / 2) * hours),
    );
    this.look(net);
    this.point(t, net);
  }

  private ends(net: RigNetwork): void {
    this.taps.forEach((tap, k) => (this.lastTap[k] = tap.amps(net)));
    this.alternators.forEach((a, k) => (this.lastAlternator[k] = a.amps));
    this.lastCopper = copperWatts(net);
    this.lastConverter = converterWatts(net);
  }

  private look(net: RigNetwork): void {
    this.allOn(net);
    this.taps.forEach((tap, k) => {
      const on = tap.on(net);
      if (on && !this.wasOn[k]) this.sums[k * 4 + 3] = this.sums[k * 4 + 3]! + 1;
      this.wasOn[k] = on;
      if (Math.abs(this.lastTap[k]!) > Math.abs(this.tapPeak[k]!)) this.tapPeak[k] = this.lastTap[k]!;
    });
    this.batteries.forEach((b, i) => {
      const x = this.extremes[i]!;
      const leg = this.legEnds[this.legEnds.length - 1]!;
      leg.soc[i] = b.soc;
      leg.lowestVolts[i] = Math.min(leg.lowestVolts[i]!, b.volts);
      x.lowestSoc = Math.min(x.lowestSoc, b.soc);
      x.lowestVolts = Math.min(x.lowestVolts, b.volts);
      x.lowestAllOn = Math.min(x.lowestAllOn, b.volts - this.dips[i]!);
      x.highestVolts = Math.max(x.highestVolts, b.volts);
    });
    this.alternators.forEach((a, i) => {
      const x = this.peaks[i]!;
      x.amps = Math.max(x.amps, a.amps);
      if (!(a.limit > 0)) return;
      const share = a.amps / a.limit;
      if (net.inputs.engine === 'road') x.road = Math.max(x.road, share);
      else if (net.inputs.engine !== 'off') x.idle = Math.max(x.idle, share);
    });
  }

  /**
   * V each battery falls when everything with a cycle is on at once: the network's own response to that
   * many more amps at the house panel, to first order.
   */
  private allOn(net: RigNetwork): void {
    const { leg } = net.inputs;
    const more = leg ? leg.housePeakAmps - leg.houseAmps : 0;
    if (!this.bus || more < MIN_DIP_AMPS) {
      this.dips.fill(0);
      this.dippedFor = 0;
      return;
    }
    const [plus, minus] = this.bus;
    const same = more === this.dippedFor;
    this.dippedFor = more;
    this.posts.forEach((posts, i) => {
      // Far above its lowest, a battery's fall need not be known again: it changes little from step to step.
      if (same && this.batteries[i]!.volts - DIP_MARGIN_FACTOR * this.dips[i]! > this.extremes[i]!.lowestAllOn) return;
      net.solver.adjoints([{ nodes: posts, weights: [1, -1] }], this.lambda);
      this.dips[i] = Math.max(0, more * (this.lambda[plus]! - this.lambda[minus]!));
    });
  }

  private point(t: number, net: RigNetwork): void {
    if (!this.keepSeries) return;
    this.time.push(t);
    let c = 0;
    const put = (x: number) => this.columns[c++]!.push(x);
    for (const b of this.batteries) {
      put(b.soc * 100);
      put(b.volts);
      put(b.amps);
    }
    for (const a of this.alternators) {
      put(a.amps);
      put(net.inputs.engine === 'off' ? 0 : a.limit);
      put(a.celsius);
    }
    this.taps.forEach((_, k) => put(this.lastTap[k]!));
    for (const h of this.heatings) put(h.celsius);
    for (const c of this.fins) put(c.celsius);
  }

  private linkSummaries(): LinkSummary[] {
    const { sums } = this;
    return this.taps.map(({ part, name }, k): LinkSummary => {
      const hottest = this.heatings
        .filter((h) => h.part === part)
        .sort((a, b) => b.hottest / b.body.limit - a.hottest / a.body.limit)[0];
      const charger = this.fins.find((c) => c.part === part);
      return {
        part,
        name,
        hoursOn: sums[k * 4]!,
        ahToCoach: sums[k * 4 + 1]!,
        ahBack: sums[k * 4 + 2]!,
        cycles: Math.round(sums[k * 4 + 3]!),
        peakAmps: this.tapPeak[k]!,
        ...(hottest
          ? { hottest: { body: hottest.body.label, celsius: hottest.hottest, limit: hottest.body.limit } }
          : {}),
        ...(charger
          ? { hottest: { body: 'fins', celsius: charger.hottest, limit: CHARGER_DERATES_FROM_CELSIUS } }
          : {}),
      };
    });
  }

  /** Shares of what went through the batteries that the books do not account for: charge, and energy. */
  private balance(): SimResult['summary']['balance'] {
    const throughAh = this.batteries.reduce((sum, b) => sum + b.totals[0]! + b.totals[1]!, 0);
    const charge = this.batteries.reduce(
      (sum, b, i) =>
        sum +
        Math.abs(
          b.totals[0]! - b.totals[1]! - b.totals[2]! - b.totals[3]! - (b.soc - this.extremes[i]!.startSoc) * b.capacity,
        ),
      0,
    );
    const moved = this.batteries.reduce((sum, b) => sum + b.totals[6]!, 0);
    const energy = this.batteries.reduce((sum, b) => sum + Math.abs(b.totals[4]! - b.totals[5]!), 0);
    return { charge: throughAh > 0 ? charge / throughAh : 0, energy: moved > 0 ? energy / moved : 0 };
  }

  result(
    scenario: Scenario,
    phases: readonly Phase[],
    events: SimEvent[],
    hunting: string[],
    collapsed: string[],
    steps: number,
    solves: number,
    ranOutAt: number | undefined,
  ): SimResult {
    const { sums } = this;
    const at = this.taps.length * 4;
    const legs = scenario.legs.map((leg, i) => {
      const of = phases.filter((p) => p.leg === i);
      return { name: leg.name, kind: leg.kind, from: of[0]!.from, to: of[of.length - 1]!.to };
    });
    return {
      t: Float64Array.from(this.time),
      series: this.heads.map((h, i) => ({ ...h, values: Float64Array.from(this.columns[i]!) })),
      events,
      legs,
      steps,
      solves,
      summary: {
        hours: phases[phases.length - 1]!.to / 3600,
        batteries: this.batteries.map((b, i) => ({
          part: b.part,
          name: b.name,
          ...this.extremes[i]!,
          endSoc: b.soc,
          ahIn: b.totals[0]!,
          ahOut: b.totals[1]!,
          ahLost: b.totals[2]!,
          ahStood: b.totals[3]!,
        })),
        alternators: this.alternators.map((a, k) => ({
          part: a.part,
          name: a.name,
          peakAmps: this.peaks[k]!.amps,
          peakShareIdle: this.peaks[k]!.idle,
          peakShareRoad: this.peaks[k]!.road,
          hottest: a.hottest,
          ah: sums[at + 2 + k]!,
        })),
        links: this.linkSummaries(),
        // A leg it never came to stands as the one before it ended.
        legEnds: scenario.legs.map((_, i) => this.legEnds[i] ?? this.legEnds[this.legEnds.length - 1]!),
        starts: this.starts,
        lossWh: { copper: sums[at]!, converters: sums[at + 1]! },
        hunting,
        collapsed,
        balance: this.balance(),
        ...(ranOutAt === undefined ? {} : { ranOutAt: ranOutAt / 3600 }),
      },
    };
  }
}

/** Heat in conductors, bonds and closed contacts, W. Loads are resistors too: only what is named as metal counts. */
function copperWatts(net: RigNetwork): number {
  const { compiled, solver, values } = net;
  let watts = 0;
  for (const i of compiled.ohmicLosses) {
    const ohms = values.resistorOhms[i]!;
    if (!Number.isFinite(ohms)) continue;
    const amps = resistorAmps(solver, values, i);
    watts += amps * amps * ohms;
  }
  return watts;
}

function converterWatts(net: RigNetwork): number {
  return net.compiled.converters.reduce((sum, c, k) => {
    const taken = net.converterStates[k]!.amps * net.solver.portVolts[c.inPort]!;
    const given = Math.max(0, net.solver.pushed(c.outPort)) * net.solver.portVolts[c.outPort]!;
    return sum + Math.max(0, taken - given);
  }, 0);
}
