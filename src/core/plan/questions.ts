/** Questions asked backwards of the simulation: how long, how late, how many days. */
import { bisect } from '../units/stats';
import type { CompiledRig } from '../compile/compile';
import type { Leg, Scenario } from '../simulate/scenarioSchema';
import { simulate, type Followed } from '../simulate/simulate';
import { coldOil, NO_START_VOLTS } from '../simulate/starter';
import { partValue } from '../rig/value';
import { is, isOneOf, nominalOf } from '../parts/kinds';
import type { Situation } from '../operate/rigNetwork';

export interface HoursAnswer {
  /** Hours, or undefined when it is not reached. */
  hours?: number;
  /** What it came to at the longest tried, 0 to 1 or V. */
  at: number;
  says: string;
}

export interface HoursQuestion {
  compiled: CompiledRig;
  /** Battery the question is about. */
  bank: string;
  situation?: Situation;
  celsius: number;
  loads: Leg['loads'];
  /** Newton rounds a run may take, where not the usual. */
  budget?: number;
}

/** The latest hour to begin charging is found to this, h. */
const HOURS_TOLERANCE = 1 / 120;
const LONGEST_CHARGE_HOURS = 72;
const LONGEST_STAND = 24 * 365;

const inHours = (h: number): string =>
  h >= 48 ? `${(h / 24).toFixed(h >= 240 ? 0 : 1)} days` : h >= 1 ? `${h.toFixed(1)} h` : `${Math.ceil(h * 60)} min`;
const percent = (x: number) => `${Math.round(x * 100)} %`;

const leg = (kind: Leg['kind'], hours: number, of: HoursQuestion, more: Partial<Leg> = {}): Leg => ({
  id: kind,
  name: kind,
  kind,
  hours,
  celsius: of.celsius,
  sunHours: 0,
  loads: [...of.loads],
  ...more,
});

function run(of: HoursQuestion, legs: Leg[], startSoc?: number, follow?: (now: Followed) => boolean) {
  const scenario: Scenario = {
    id: 'question',
    name: 'Question',
    startHour: 8,
    ...(startSoc === undefined ? {} : { startSoc: { [of.bank]: startSoc } }),
    legs,
  };
  const { summary } = simulate(of.compiled, scenario, {
    series: false,
    ...(of.budget === undefined ? {} : { budget: of.budget }),
    ...(of.situation ? { situation: of.situation } : {}),
    ...(follow ? { follow } : {}),
  });
  if (summary.ranOutAt !== undefined)
    throw new CutShort(summary.ranOutAt, summary.batteries.find((b) => b.part === of.bank)?.endSoc ?? 0);
  return summary;
}

/** A run that found no end: whatever is asked of it is not answered. */
class CutShort extends Error {
  constructor(
    readonly hours: number,
    readonly at: number,
  ) {
    super('a run cut short');
  }
}

/** The answer, or that there is none: a run cut short must not pass for one in which nothing happened. */
function answered(answer: () => HoursAnswer): HoursAnswer {
  try {
    return answer();
  } catch (e) {
    if (!(e instanceof CutShort)) throw e;
    return {
      at: e.at,
      says: `Not worked out: ${inHours(e.hours)} in something switches on and off without rest. See the events.`,
    };
  }
}

/**
 * The hours of one leg until what is looked at has come to nought, by one run of the longest: where a leg is
 * the same throughout, a shorter one is its beginning. Between two looks it moves evenly.
 * @param left what is left to go: positive until it is reached
 */
function until(of: HoursQuestion, whole: Leg, startSoc: number | undefined, left: (now: Followed) => number) {
  let before = { t: 0, left: Infinity };
  let hours: number | undefined;
  const summary = run(of, [whole], startSoc, (now) => {
    const here = { t: now.t, left: left(now) };
    if (here.left > 0) {
      before = here;
      return false;
    }
    hours =
      (before.left === Infinity ? here.t : before.t + ((here.t - before.t) * before.left) / (before.left - here.left)) /
      3600;
    return true;
  });
  return { hours, summary };
}

/** The least hours in [low, high] at which `reached`, which is false at low and true at high. */
const leastHours = (low: number, high: number, reached: (hours: number) => boolean): number =>
  bisect(low, high, (h) => !reached(h), { tolerance: HOURS_TOLERANCE }).high;

const endOf = (of: HoursQuestion, summary: ReturnType<typeof run>) =>
  summary.batteries.find((b) => b.part === of.bank)!.endSoc;

/** How long to drive, idle, or stay on shore until the bank is at `target`, from `from`; at most `longest` hours. */
export function howLong(
  of: HoursQuestion,
  kind: 'drive' | 'idle' | 'shore',
  from: number,
  target: number,
  longest = LONGEST_CHARGE_HOURS,
): HoursAnswer {
  return answered(() => {
    const words = kind === 'drive' ? 'driving' : kind === 'idle' ? 'idling' : 'on shore power';
    if (from >= target) return { hours: 0, at: from, says: `It is at ${percent(from)} already.` };
    const { hours, summary } = until(of, leg(kind, longest, of), from, (now) => target - now.soc(of.bank));
    const most = endOf(of, summary);
    if (hours === undefined)
      return { at: most, says: `Not reached: after ${longest} h ${words} it is at ${percent(most)}.` };
    return { hours, at: target, says: `${inHours(hours)} ${words} from ${percent(from)} to ${percent(target)}.` };
  });
}

/**
 * How late in a drive of so many hours charging may begin and the bank still arrive at `target`: the last
 * hours before arrival during which the link works, held off by hand before.
 */
export function howLate(of: HoursQuestion, driveHours: number, from: number, target: number): HoursAnswer {
  return answered(() => {
    const arrives = (last: number) => {
      const before = driveHours - last;
      const legs = [
        ...(before > 0.05 ? [leg('drive', before, of, { id: 'held', held: true })] : []),
        ...(last > 0.05 ? [leg('drive', last, of)] : []),
      ];
      return endOf(of, run(of, legs, from));
    };
    const never = arrives(0);
    if (never >= target) return { hours: 0, at: never, says: `It arrives at ${percent(never)} without charging.` };
    const most = arrives(driveHours);
    if (most < target)
      return { at: most, says: `Not reached: charging all ${inHours(driveHours)} it arrives at ${percent(most)}.` };
    const hours = leastHours(0, driveHours, (h) => arrives(h) >= target);
    return {
      hours,
      at: target,
      says: `Switch on at the latest ${inHours(hours)} before arrival to arrive at ${percent(target)}.`,
    };
  });
}

/** How long the rig can stand until the engine would no longer start. */
export function howLongStands(of: HoursQuestion, more: Partial<Leg> = {}): HoursAnswer {
  return answered(() => {
    // A rig that cannot start a few minutes after it is parked cannot start now.
    const settling = 0.1;
    const { hours, summary } = until(of, leg('stand', LONGEST_STAND, of, more), undefined, (now) => {
      const check = now.start()!;
      return check.volts - check.limit;
    });
    const last = summary.starts.at(-1)!;
    if (hours === undefined)
      return { at: last.volts, says: `Longer than a year: still ${last.volts.toFixed(1)} V under the starter.` };
    if (hours <= settling)
      return {
        hours: 0,
        at: last.volts,
        says: `It would not start now: ${last.volts.toFixed(1)} V under the starter.`,
      };
    return { hours, at: last.limit, says: `The engine starts for ${inHours(hours)}.` };
  });
}

/** How long the bank lasts, standing, down to `floor`. */
export function howLongLasts(of: HoursQuestion, from: number, floor: number, more: Partial<Leg> = {}): HoursAnswer {
  return answered(() => {
    if (from <= floor) return { hours: 0, at: from, says: `It is at ${percent(from)} already.` };
    const { hours, summary } = until(
      of,
      leg('stand', LONGEST_STAND, of, more),
      from,
      (now) => now.soc(of.bank) - floor,
    );
    if (hours === undefined)
      return { at: endOf(of, summary), says: `Longer than a year: still at ${percent(endOf(of, summary))}.` };
    return { hours, at: floor, says: `${inHours(hours)} from ${percent(from)} down to ${percent(floor)}.` };
  });
}

/** Hours boost is held before a generator is cranked: ten minutes, as everywhere. Common practice. */
const BOOST_HOURS = 10 / 60;

/**
 * Whether the rig's own generator would crank on its bank: now, and after ten minutes of boost with the engine idling.
 * Its starter takes more in the cold, as the engine's does; undefined where the rig has no such generator.
 */
export function generatorCranks(of: HoursQuestion, from: number): HoursAnswer | undefined {
  const { rig } = of.compiled;
  const generator = rig.parts.find((p) => is(p, 'generator'));
  const bank = rig.parts.find((p) => p.id === of.bank);
  if (!generator || !bank) return undefined;
  const amps = partValue(generator, 'starter') * coldOil(of.celsius);
  const limit =
    (NO_START_VOLTS *
      nominalOf(
        bank,
        rig.vehicles.find((v) => v.id === bank.vehicle)!,
      )) /
    12;
  const cranked = (legs: Leg[]) => {
    let volts = 0;
    run(of, legs, from, (now) => {
      volts = Math.max(0, now.crank(of.bank, amps));
      return legs[0]!.kind === 'stand';
    });
    return volts;
  };
  return answered(() => {
    const would = (v: number) => `${v >= limit ? 'cranks' : 'would not crank'}, ${v.toFixed(1)} V under its starter`;
    const now = cranked([leg('stand', 0.1, of)]);
    const says = `Now it ${would(now)} (${limit.toFixed(1)} V wanted)`;
    // Without a way to lend it the other bank, there is nothing to hold.
    if (!rig.parts.some((p) => isOneOf(p, ['boost', 'bypass']))) return { at: now, says: `${says}.` };
    const boosted = cranked([leg('idle', BOOST_HOURS, of, { boostWedged: true })]);
    return {
      at: now,
      says: `${says}; after ten minutes of boost, engine idling, it ${would(boosted)}.`,
    };
  });
}
