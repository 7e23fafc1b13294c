/**
 * One run in every gauge: what it would carry, lose and heat. Amps are solved on the whole rig, since a direct
 * link's current is set by its loop; the rig stands in the operating state in which this run carries most.
 */
import { is } from '../parts/kinds';
import type { Effect } from '../operate/effects';
import type { RigModel } from '../operate/settle';
import { statesOf } from '../operate/states';
import { resistorAmps } from '../circuit/readings';
import type { Conductor, Rig } from '../rig/schema';
import { conductorCelsius, type Insulation, type WirePlace } from '../units/ampacity';
import { GAUGES, gaugesOf, wireResistance, type Gauge } from '../units/wire';
import type { RuleSet } from '../codes/ruleSet';
import { ampacityOf, fuseLimit, insulationOf } from './fuseLimit';
import { fitsTerminal } from './hardware';
import { returnOf, returnsOf, type Run } from './runs';

export interface GaugeRow {
  gauge: Gauge;
  /** A in the worst state. */
  amps: number;
  /** V lost along the feed, and in feed and return together; and the A it is lost at. */
  feedDrop: number;
  loopDrop: number;
  lostAt: number;
  /** W lost in the run's own feed and returns. */
  watts: number;
  /** °C at the continuous amps; A it carries for as long as one likes, and most a fuse before it may be rated. */
  celsius: number;
  ampacity: number;
  fuseLimit: number;
  verdict: 'good' | 'drops too much' | 'too thin' | 'under its fuse' | 'locks out';
  /** What it does not fit, if anything. */
  fit?: string;
}

export interface GaugeTable {
  state: string;
  stateLabel: string;
  /** Share of the nominal volts the loop may lose. */
  share: number;
  /** V the loop may lose; undefined on a direct link, where the loop itself sets the current. */
  allowed?: number;
  /** m of feed, and of its own returns. */
  out: number;
  back: number;
  continuous: number;
  /** A that can flow in it for hours, whatever one use asks. */
  flows: number;
  rows: GaugeRow[];
  now: Gauge;
  /** Thinnest that is good; undefined where none is. */
  pick?: Gauge;
}

/** Returns that serve this run alone: a battery's negative carries others too. */
function ownReturns(rig: Rig, run: Run): Conductor[] {
  const isBattery = (id: string) =>
    is(
      rig.parts.find((p) => p.id === id),
      'battery',
    );
  return returnsOf(rig, run).filter((c) => !isBattery(c.from.part));
}

/** The run's conductors, and the returns that serve it alone, in another gauge. */
export function withGauge(rig: Rig, run: Run, gauge: Gauge): Rig {
  const ids = new Set([...run.conductors, ...ownReturns(rig, run)].map((c) => c.id));
  return { ...rig, conductors: rig.conductors.map((c) => (ids.has(c.id) ? { ...c, gauge } : c)) };
}

interface Solved {
  amps: number;
  feedDrop: number;
  loopDrop: number;
  watts: number;
  volts: number;
  /** A charger at its end has no power to run on, or hunts for it. */
  starved: boolean;
}

/** What another gauge makes of a run and its own returns: their ohms put in place of the drawn ones. */
const inGauge = (wires: readonly Conductor[], gauge: Gauge): Effect[] =>
  wires.map((c) => {
    const ohms = wireResistance(gauge, c.length) + c.joints.value;
    return { do: 'replace-ohms', element: c.id, from: ohms, to: ohms };
  });

function solveRun(
  model: RigModel,
  run: Run,
  state: string,
  returns: readonly Conductor[],
  effects: readonly Effect[],
): Solved {
  const { compiled } = model;
  const { rig } = compiled;
  const settled = model.settle(state, { effects });
  const volts = (e: { part: string; terminal: string } | undefined) =>
    e ? model.solver.volts[compiled.node.get(`${e.part}.${e.terminal}`)!]! : 0;
  const amps = (id: string) => resistorAmps(model.solver, model.values, compiled.resistor.get(id)!);
  const main = amps(run.id);
  const feedDrop = Math.abs(volts(run.from) - volts(run.to));
  const [fromBack, toBack] = [returnOf(rig, run.from), returnOf(rig, run.to)];
  const loopDrop =
    fromBack && toBack ? Math.abs(volts(run.from) - volts(fromBack) - (volts(run.to) - volts(toBack))) : feedDrop;
  const watts = [...run.conductors, ...returns].reduce(
    (sum, c) => sum + amps(c.id) ** 2 * model.values.resistorOhms[compiled.resistor.get(c.id)!]!,
    0,
  );
  const ends = [run.from.part, run.to.part];
  const off = (p: string) =>
    settled.modes[p]?.mode === 'locked-out' ||
    settled.modes[p]?.mode === 'recovering' ||
    settled.modes[p]?.mode === 'input-low';
  return {
    amps: Math.abs(main),
    feedDrop,
    loopDrop,
    watts,
    volts: volts(run.from),
    starved:
      ends.some((p) => settled.collapsed.includes(p) || off(p)) ||
      (settled.hunting !== undefined && ends.some((p) => settled.modes[p] !== undefined)),
  };
}

/** Each asked once. */
function keptBy<K, T>(of: (key: K) => T): (key: K) => T {
  const kept = new Map<K, T>();
  return (key) => {
    if (!kept.has(key)) kept.set(key, of(key));
    return kept.get(key)!;
  };
}

/** Amps that differ by less than this share in the thinnest and in the thickest copper hardly hang on the copper. */
const ALIKE_SHARE = 0.03;

/**
 * A run in any gauge. Where its thinnest and its thickest copper carry the same to three hundredths, what lies between
 * is told from the two, straight over the ohms: it bends by a thousandth at most.
 */
function inAnyGauge(
  wires: readonly Conductor[],
  thinnest: Gauge,
  solve: (gauge: Gauge) => Solved,
): (gauge: Gauge) => Solved {
  const solved = keptBy(solve);
  const [thin, thick] = [thinnest, GAUGES[GAUGES.length - 1]!].map((gauge) => ({ gauge, at: solved(gauge) })) as [
    { gauge: Gauge; at: Solved },
    { gauge: Gauge; at: Solved },
  ];
  const alike =
    Math.abs(thin.at.amps - thick.at.amps) < ALIKE_SHARE * thick.at.amps && !thin.at.starved && !thick.at.starved;
  if (!alike) return solved;
  const ohms = (gauge: Gauge) => wires.reduce((sum, c) => sum + wireResistance(gauge, c.length), 0);
  const [most, least] = [ohms(thin.gauge), ohms(thick.gauge)];
  return keptBy((gauge) => {
    const share = (ohms(gauge) - least) / (most - least);
    const between = (of: 'amps' | 'feedDrop' | 'loopDrop' | 'watts' | 'volts') =>
      thick.at[of] + share * (thin.at[of] - thick.at[of]);
    return {
      amps: between('amps'),
      feedDrop: between('feedDrop'),
      loopDrop: between('loopDrop'),
      watts: between('watts'),
      volts: between('volts'),
      starved: false,
    };
  });
}

/** A run that carries this share of its most with the engine on is judged there: off it, a charger stops by its own rules. */
const NEARLY_SHARE = 0.8;

/** An operating state a run is judged in. */
export interface JudgedIn {
  id: string;
  label: string;
}

/**
 * For each run the operating state in which it would carry most were no copper of any run in the way: a starved
 * charger must not be taken for a small load. With the engine on where it carries about as much there. Every
 * state is settled once for all runs.
 */
export function judgedStates(model: RigModel, runs: readonly Run[]): Map<string, JudgedIn> {
  const { rig, resistor } = model.compiled;
  const thickest = inGauge(
    [...new Set(runs.flatMap((run) => [...run.conductors, ...ownReturns(rig, run)]))],
    GAUGES[GAUGES.length - 1]!,
  );
  const most = new Map(
    runs.map((run) => [
      run.id,
      { any: { id: 'idle', label: 'Engine idle', amps: -1 }, running: { id: 'idle', label: 'Engine idle', amps: -1 } },
    ]),
  );
  for (const s of statesOf(rig)) {
    model.settle(s.id, { effects: thickest });
    for (const run of runs) {
      const best = most.get(run.id)!;
      const amps = Math.abs(resistorAmps(model.solver, model.values, resistor.get(run.id)!));
      if (amps > best.any.amps + 0.01) best.any = { id: s.id, label: s.label, amps };
      if (s.inputs.engine !== 'off' && amps > best.running.amps + 0.01)
        best.running = { id: s.id, label: s.label, amps };
    }
  }
  return new Map(
    [...most].map(([id, { any, running }]) => [id, running.amps >= NEARLY_SHARE * any.amps ? running : any]),
  );
}

/** What one run is asked of. */
export interface RunAsks {
  /** A it carries for ten minutes or more on the customer's use, in its present gauge. */
  continuous: number;
  /** A that can flow in it for hours, whatever one use asks. */
  flows: number;
  /** Share of the nominal volts the loop may lose. */
  share: number;
  /** A of the largest fuse that must protect it, 0 for none. */
  fuseAmps: number;
  /** Sizes to try, beside the one that is drawn. */
  family?: 'awg' | 'mm2';
  rules?: RuleSet;
}

const metres = (list: readonly Conductor[]) => list.reduce((sum, c) => sum + c.length, 0);

/** @param model of the whole rig, shared by its runs. @param state it is judged in. */
export function gaugeTable(
  model: RigModel,
  run: Run,
  { continuous, flows, share, fuseAmps, family = 'awg', rules }: RunAsks,
  state: JudgedIn = judgedStates(model, [run]).get(run.id)!,
): GaugeTable {
  // What it would carry were copper no matter: a starved charger must not be taken for a small load.
  const { rig } = model.compiled;
  const returns = ownReturns(rig, run);
  const wires = [...run.conductors, ...returns];
  const now = run.conductors.reduce((a, b) => (b.length > a.length ? b : a)).gauge;
  const gauges = gaugesOf(family, now);
  const solved = inAnyGauge(wires, gauges[0]!, (gauge) =>
    solveRun(model, run, state.id, returns, inGauge(wires, gauge)),
  );
  const wants = solved(GAUGES[GAUGES.length - 1]!).amps;
  // The weakest of its pieces decides: hottest place, poorest insulation.
  const insulation = Math.min(...run.conductors.map(insulationOf)) as Insulation;
  const place: WirePlace = run.conductors.some((c) => c.inEngineSpace) ? 'engine-space' : 'open';
  const bundled = Math.max(1, ...run.conductors.map((c) => c.bundled ?? 1));
  const present = wires.every((c) => c.gauge === now) ? solved(now) : solveRun(model, run, state.id, returns, []);
  // A feed may end on a frame.
  const ends = [run.from, run.to].map((e) => rig.parts.find((p) => p.id === e.part));
  // A 48 V trailer is fed at 12 V: the volts of the run itself say what it is.
  const nominal = present.volts > 36 ? 48 : present.volts > 18 ? 24 : 12;
  const charger = [...ends, ...run.inline].some((p) => is(p, 'charger') || is(p, 'towConnector'));
  const direct = ends.every((p) => is(p, 'battery'));
  const allowed = direct ? undefined : share * nominal;
  const rows = gauges.map((gauge): GaugeRow => {
    const s = solved(gauge);
    // A direct link's loop sets its current: other copper, other amps. What hangs on a charger or a load asks its own.
    const asked = direct && present.amps > 0.01 ? continuous * (s.amps / present.amps) : continuous;
    const steady = Math.max(s.amps, asked, flows);
    // Where the state it is judged in asks less than the use does (a charger that waits), the use says what is lost.
    const more = !direct && s.amps < asked ? asked - s.amps : 0;
    const ohms = (list: readonly Conductor[]) =>
      list.reduce((sum, c) => sum + wireResistance(gauge, c.length) + c.joints.value, 0);
    const feedDrop = s.feedDrop + more * ohms(run.conductors);
    const loopDrop = s.loopDrop + more * (ohms(run.conductors) + ohms(returns));
    const spec = { gauge, insulation, place, bundled };
    const carries = ampacityOf(spec);
    const fusedAt = fuseLimit(spec, rules).amps;
    const misfit = ends
      .flatMap((p) => (p ? [{ p, fit: fitsTerminal(p.kind, gauge) }] : []))
      .find(({ fit }) => fit && !fit.fits);
    return {
      gauge,
      amps: s.amps,
      feedDrop,
      loopDrop,
      lostAt: s.amps + more,
      watts: s.watts,
      celsius: conductorCelsius(gauge, insulation, place, steady, undefined, bundled),
      ampacity: carries,
      fuseLimit: fusedAt,
      verdict:
        s.starved || (charger && s.amps < 0.5 * wants)
          ? 'locks out'
          : steady > carries
            ? 'too thin'
            : fuseAmps > fusedAt
              ? 'under its fuse'
              : allowed !== undefined && loopDrop > allowed
                ? 'drops too much'
                : 'good',
      ...(misfit ? { fit: `${misfit.p.name} ${misfit.fit!.how}` } : {}),
    };
  });
  // From the thick end: what is good must stay good with more copper.
  const firstBad = rows.findLastIndex((r) => r.verdict !== 'good');
  const pick = direct ? undefined : rows[firstBad + 1]?.gauge;
  return {
    state: state.id,
    stateLabel: state.label,
    share,
    ...(allowed === undefined ? {} : { allowed }),
    out: metres(run.conductors),
    back: metres(returns),
    continuous,
    flows,
    rows,
    now,
    ...(pick ? { pick } : {}),
  };
}
