/** Questions asked backwards, by root finding on the simulation: how long, how late, how many days. */
import type { CompiledRig } from '../compile/compile';
import type { Leg, Scenario } from '../simulate/scenarioSchema';
import { simulate } from '../simulate/simulate';
import type { Situation } from '../operate/rigNetwork';

export interface Answer {
  /** Hours, or undefined when it is not reached. */
  hours?: number;
  /** What it came to at the longest tried, 0 to 1 or V. */
  at: number;
  says: string;
}

export interface AskedOf {
  compiled: CompiledRig;
  /** Battery the question is about. */
  bank: string;
  situation?: Situation;
  celsius: number;
  loads: Leg['loads'];
}

/** Root found to this, h. */
const HOURS_TOLERANCE = 1 / 120;
const LONGEST_CHARGE = 72;
const LONGEST_STAND = 24 * 365;

const inHours = (h: number): string => (h >= 48 ? `${(h / 24).toFixed(h >= 240 ? 0 : 1)} days` : h >= 1 ? `${h.toFixed(1)} h` : `${Math.ceil(h * 60)} min`);
const percent = (x: number) => `${Math.round(x * 100)} %`;

const leg = (kind: Leg['kind'], hours: number, of: AskedOf, more: Partial<Leg> = {}): Leg => ({ id: kind, name: kind, kind, hours, celsius: of.celsius, sunHours: 0, loads: [...of.loads], ...more });

function run(of: AskedOf, legs: Leg[], startSoc?: number) {
  const scenario: Scenario = { id: 'question', name: 'Question', startHour: 8, ...(startSoc === undefined ? {} : { startSoc: { [of.bank]: startSoc } }), legs };
  return simulate(of.compiled, scenario, { series: false, ...(of.situation ? { situation: of.situation } : {}) }).summary;
}

/** The least x in [low, high] at which `reached`, which is false at low and true at high; by bisection. */
function bisect(low: number, high: number, reached: (x: number) => boolean, tolerance = HOURS_TOLERANCE): number {
  while (high - low > tolerance) {
    const middle = (low + high) / 2;
    if (reached(middle)) high = middle;
    else low = middle;
  }
  return high;
}

const endOf = (of: AskedOf, summary: ReturnType<typeof run>) => summary.batteries.find((b) => b.part === of.bank)!.endSoc;

/** How long to drive, idle, or stay on shore until the bank is at `target`, from `from`; at most `longest` hours, to `tolerance` hours. */
export function howLong(of: AskedOf, kind: 'drive' | 'idle' | 'shore', from: number, target: number, longest = LONGEST_CHARGE, tolerance = HOURS_TOLERANCE): Answer {
  const reachedAfter = (hours: number) => endOf(of, run(of, [leg(kind, hours, of)], from));
  const words = kind === 'drive' ? 'driving' : kind === 'idle' ? 'idling' : 'on shore power';
  if (from >= target) return { hours: 0, at: from, says: `It is at ${percent(from)} already.` };
  const most = reachedAfter(longest);
  if (most < target) return { at: most, says: `Not reached: after ${longest} h ${words} it is at ${percent(most)}.` };
  const hours = bisect(0.05, longest, (h) => reachedAfter(h) >= target, tolerance);
  return { hours, at: target, says: `${inHours(hours)} ${words} from ${percent(from)} to ${percent(target)}.` };
}

/**
 * How late in a drive of so many hours charging may begin and the bank still arrive at `target`: the last
 * hours before arrival during which the link works, held off by hand before.
 */
export function howLate(of: AskedOf, driveHours: number, from: number, target: number): Answer {
  const arrives = (last: number) => {
    const before = driveHours - last;
    const legs = [...(before > 0.05 ? [leg('drive', before, of, { id: 'held', held: true })] : []), ...(last > 0.05 ? [leg('drive', last, of)] : [])];
    return endOf(of, run(of, legs, from));
  };
  const never = arrives(0);
  if (never >= target) return { hours: 0, at: never, says: `It arrives at ${percent(never)} without charging.` };
  const most = arrives(driveHours);
  if (most < target) return { at: most, says: `Not reached: charging all ${inHours(driveHours)} it arrives at ${percent(most)}.` };
  const hours = bisect(0, driveHours, (h) => arrives(h) >= target);
  return { hours, at: target, says: `Switch on at the latest ${inHours(hours)} before arrival to arrive at ${percent(target)}.` };
}

/** How long the rig can stand until the engine would no longer start. */
export function howLongStands(of: AskedOf, more: Partial<Leg> = {}): Answer {
  const check = (hours: number) => run(of, [leg('stand', hours, of, more)]).starts.at(-1)!;
  const now = check(0.1);
  if (!now.starts) return { hours: 0, at: now.volts, says: `It would not start now: ${now.volts.toFixed(1)} V under the starter.` };
  const most = check(LONGEST_STAND);
  if (most.starts) return { at: most.volts, says: `Longer than a year: still ${most.volts.toFixed(1)} V under the starter.` };
  const hours = bisect(0.1, LONGEST_STAND, (h) => !check(h).starts, 0.5);
  return { hours, at: most.limit, says: `The engine starts for ${inHours(hours)}.` };
}

/** How long the bank lasts, standing, down to `floor`. */
export function howLongLasts(of: AskedOf, from: number, floor: number, more: Partial<Leg> = {}): Answer {
  const after = (hours: number) => endOf(of, run(of, [leg('stand', hours, of, more)], from));
  if (from <= floor) return { hours: 0, at: from, says: `It is at ${percent(from)} already.` };
  const most = after(LONGEST_STAND);
  if (most > floor) return { at: most, says: `Longer than a year: still at ${percent(most)}.` };
  const hours = bisect(0.1, LONGEST_STAND, (h) => after(h) <= floor, 0.1);
  return { hours, at: floor, says: `${inHours(hours)} from ${percent(from)} down to ${percent(floor)}.` };
}
