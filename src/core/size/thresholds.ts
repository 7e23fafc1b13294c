/**
 * Thresholds of whatever decides by volts, against what it will feel: the band of its sense with the engine
 * off and rested, and with the engine on and the link closed under load. Between the two there is room for
 * both thresholds, or it hunts or never lets go. Bands are the middle 95 % of what the assumptions allow.
 */
import type { CompiledRig } from '../compile/compile';
import { chemistryOf } from '../parts/chemistry';
import { nominalOf, traitsOf } from '../parts/kinds';
import { partsWith } from '../rig/value';
import { STATED_AT_CELSIUS, VOLTS_PER_KELVIN } from '../simulate/alternator';
import { RigModel } from '../operate/settle';
import { statesOf, type OperatingState } from '../operate/states';
import type { Rig } from '../rig/schema';
import { seededRng } from '../units/rng';
import { middle95, type Interval } from '../units/stats';

const SAMPLES = 96;

export type ThresholdStatus = 'holds' | 'may hunt' | 'may not let go' | 'may not close' | 'no room';

/** V at a sense: engine off and rested; engine on before it closes; engine on, closed, under load. */
interface Felt {
  off: Interval;
  before: Interval;
  loaded: Interval;
}

export interface Threshold extends Felt {
  part: string;
  name: string;
  /** Its parameters that hold the two. */
  params: { closes: string; opens: string };
  closeAt: number;
  openAt: number;
  verdict: ThresholdStatus;
  says: string;
  /** The same just started in the cold, and hot after hours. */
  extremes: (Felt & { label: string; verdict: ThresholdStatus })[];
  /** Where to open and close it; undefined where volts leave no room. */
  wants?: { closeAt: number; openAt: number };
}

/** °C of battery and of regulator where thresholds are tried hardest: a start in deep cold, hours on a hot day (assumed). */
const EXTREMES = [
  { label: 'just started at –20 °C', battery: -20, regulator: -20 },
  { label: 'hot, after hours at 45 °C', battery: 45, regulator: 105 },
] as const;
const STATED_BATTERY_CELSIUS = 25;

const verdictOf = (
  closeAt: number,
  openAt: number,
  off: Interval,
  before: Interval,
  loaded: Interval,
): ThresholdStatus =>
  loaded.lo - off.hi <= 0
    ? 'no room'
    : openAt > loaded.lo
      ? 'may hunt'
      : openAt < off.hi
        ? 'may not let go'
        : closeAt > before.lo
          ? 'may not close'
          : 'holds';

/** States in which something charges: an engine, else, as on a bench, a charger. */
function chargingStates(rig: Rig): OperatingState[] {
  const states = statesOf(rig).filter((s) => !s.inputs.boost);
  const running = states.filter((s) => s.inputs.engine !== 'off');
  return running.length > 0 ? running : states.filter((s) => s.inputs.shore || s.inputs.generator);
}

/** What a controller's sense feels over many rigs like this one. */
function feltBy(
  model: RigModel,
  running: readonly OperatingState[],
  draws: readonly Float64Array[],
  part: string,
  sense: { red: number; black: number },
): Felt {
  const volts = () => model.solver.volts[sense.red]! - model.solver.volts[sense.black]!;
  const off: number[] = [];
  const before: number[] = [];
  const loaded: number[] = [];
  for (const z of draws) {
    model.settle('rested', { z });
    off.push(volts());
    for (const s of running) {
      // A dead controller leaves its contact open: what it feels before it acts.
      model.settle(s.id, { z, effects: [{ do: 'dead-controller', part }] });
      before.push(volts());
      const mode = model.settle(s.id, { z }).modes[part]?.mode;
      if (mode && mode !== 'open' && mode !== 'off' && mode !== 'waiting') loaded.push(volts());
    }
  }
  return {
    off: middle95(off),
    before: middle95(before),
    loaded: loaded.length > 0 ? middle95(loaded) : middle95(before),
  };
}

/** The bands in the cold and in the heat. @param blocks nominal volts over 12. @param lead a battery of it is lead. */
const extremesOf = (
  felt: Felt,
  blocks: number,
  lead: boolean,
  closeAt: number,
  openAt: number,
): Threshold['extremes'] =>
  EXTREMES.map(({ label, battery, regulator }) => {
    const moved = (r: Interval, by: number): Interval => ({ lo: r.lo + by, hi: r.hi + by });
    const rest = lead ? blocks * chemistryOf('flooded').voltsPerKelvin * (battery - STATED_BATTERY_CELSIUS) : 0;
    const setPoint = blocks * VOLTS_PER_KELVIN * (regulator - STATED_AT_CELSIUS);
    const off = moved(felt.off, rest);
    const loaded = moved(felt.loaded, setPoint);
    const before = moved(felt.before, setPoint);
    return { label, off, before, loaded, verdict: verdictOf(closeAt, openAt, off, before, loaded) };
  });

/** V per 12 V of room that are used at most: on a line that is dead at rest the middle would be no threshold at all. */
const MOST_ROOM_VOLTS = 1.2;

/**
 * Share of a room kept clear at either end, and V of it at least; V that opening and closing are apart at least, under
 * which load and cable make it hunt. Per 12 V; common practice.
 */
const CLEAR_SHARE = 0.15;
const LEAST_CLEAR_VOLTS = 0.05;
const LEAST_GAP_VOLTS = 0.3;

/**
 * Where to open and close: it opens in the room between rest and load, and closes that much above it which keeps it
 * from hunting, under what it sees before it closes. At every temperature where there is room; else in the bay's; none
 * where that is too tight too.
 */
function roomFor(all: readonly Felt[], bay: Felt, blocks: number): Threshold['wants'] {
  const within = (felt: readonly Felt[]): Threshold['wants'] => {
    const to = Math.min(...felt.map((e) => e.loaded.lo));
    const from = Math.max(...felt.map((e) => e.off.hi), to - MOST_ROOM_VOLTS * blocks);
    if (to - from < 2 * LEAST_CLEAR_VOLTS * blocks) return undefined;
    const openAt = (from + to) / 2;
    const lowest = openAt + LEAST_GAP_VOLTS * blocks;
    const highest = Math.min(...felt.map((e) => e.before.lo)) - CLEAR_SHARE * (to - from);
    if (highest < lowest) return undefined;
    return { openAt: Number(openAt.toFixed(2)), closeAt: Number(((lowest + highest) / 2).toFixed(2)) };
  };
  return within(all) ?? within([bay]);
}

function inWords(verdict: ThresholdStatus, { off, before, loaded }: Felt, closeAt: number, openAt: number): string {
  const V = (x: number) => `${x.toFixed(2)} V`;
  return {
    holds: `Opens at ${V(openAt)}: above the ${V(off.hi)} it rests at, below the ${V(loaded.lo)} it sees under load.`,
    'may hunt':
      `Under load it may see ${V(loaded.lo)}, less than the ${V(openAt)} ` +
      `it opens at: it lets go, the volts come back, it closes again.`,
    'may not let go': `Rested it may see ${V(off.hi)}, more than the ${V(openAt)} it opens at: it stays closed with the engine off.`,
    'may not close': `With the engine on it may see only ${V(before.lo)}, less than the ${V(closeAt)} it closes at.`,
    'no room': `Rested up to ${V(off.hi)}, under load down to ${V(loaded.lo)}: volts cannot tell the two apart. An ignition lead can.`,
  }[verdict];
}

/** The thresholds of a rig, each with its bands and a verdict. */
export function thresholdsOf(compiled: CompiledRig): Threshold[] {
  const { rig } = compiled;
  const watchers = rig.parts.flatMap((part) => {
    const w = traitsOf(part).byVolts;
    const controller = compiled.controllers.find((c) => c.part === part.id);
    if (!w || !controller || (w.when && part.options?.[w.when.option] !== w.when.is)) return [];
    const sense = controller.senses.find((s) => s.name === w.sense);
    return sense ? [{ part, w, sense }] : [];
  });
  const running = chargingStates(rig);
  if (watchers.length === 0 || running.length === 0) return [];
  const model = new RigModel(compiled);
  const rng = seededRng(7);
  const draws = Array.from({ length: SAMPLES }, () => Float64Array.from(compiled.params, () => rng.normal()));
  return watchers.map(({ part, w, sense }): Threshold => {
    const bands = feltBy(model, running, draws, part.id, sense);
    const value = (name: string) => compiled.params[compiled.param.get(`${part.id}.${name}`)!]!.parameter.value;
    const [closeAt, openAt] = [value(w.closes), value(w.opens)];
    const verdict = verdictOf(closeAt, openAt, bands.off, bands.before, bands.loaded);
    const blocks =
      nominalOf(
        part,
        rig.vehicles.find((v) => v.id === part.vehicle)!,
      ) / 12;
    const lead = partsWith(rig, 'battery').some((p) => p.options?.['chemistry'] !== 'lfp');
    const extremes = extremesOf(bands, blocks, lead, closeAt, openAt);
    const wants = roomFor([bands, ...extremes], bands, blocks);
    return {
      part: part.id,
      name: part.name,
      params: { closes: w.closes, opens: w.opens },
      closeAt,
      openAt,
      ...bands,
      verdict,
      says: inWords(verdict, bands, closeAt, openAt),
      extremes,
      ...(wants ? { wants } : {}),
    };
  });
}
