/**
 * Which candidate to recommend. Points by criterion, each with its working: how the trade weighs a link, put
 * into numbers so that one can argue with them. The weights are assumed.
 */
import type { Band as Range } from '../parts/price';
import type { Candidate } from './candidates';
import type { Outcome } from './outcome';

export interface Point {
  criterion: string;
  /** Points got, of so many. */
  got: number;
  of: number;
  because: string;
}

export interface Scored {
  candidate: string;
  points: Point[];
  total: number;
  /** It must not be built as it is. */
  ruledOut: string[];
}

export const WEIGHTS = {
  arrives: 30,
  lasts: 15,
  starts: 25,
  alternator: 15,
  profile: 14,
  boost: 8,
  shore: 8,
  handsOff: 6,
  rules: 20,
} as const;

/** Dollars that weigh as much as one point. */
const DOLLARS_PER_POINT = 100;
/** A lead this small is a matter of taste. */
export const CLOSE_POINTS = 5;
/** Arriving at this is as good as full. */
const WANTED = 0.9;
/** A bank that never falls under this lasts, whatever its chemistry (assumed). */
const SPARED = 0.2;
/** Arriving under this is arriving flat: nothing to recommend. */
const FLAT = 0.15;
/** V in hand under the starter that count as safe. */
const SAFE_VOLTS = 0.4;
/** °C at which an alternator is taken to be harmed, where its maker says nothing (from memory). */
export const HOT_LIMIT = 105;
/** Share of its limit at idle from which an alternator has no margin. */
const NO_MARGIN = 0.95;
/** Share from which it is at its limit, but for rounding. */
const AT_ITS_LIMIT = 0.999;

/** Points for each of 100 rigs on which a charger starves, and how many are too many (assumed). */
const POINTS_PER_STARVED = 0.2;
const MOST_STARVED = 50;

const share = (x: number) => Math.max(0, Math.min(1, x));
const percent = (x: number) => `${Math.round(x * 100)} %`;

/** Points of one candidate. @param total estimated price, lower and upper. @param hadBoost the rig has it now. */
export function scoreOf(candidate: Candidate, o: Outcome, total: Range, hadBoost: boolean): Scored {
  const points: Point[] = [];
  const add = (criterion: string, of: number, part: number, because: string) =>
    points.push({ criterion, got: of * share(part), of, because });
  add(
    'Arrives charged',
    WEIGHTS.arrives,
    o.arrives / WANTED,
    `the bank arrives at ${percent(o.arrives)}, ${percent(WANTED)} is as good as full`,
  );
  add(
    'Lasts between drives',
    WEIGHTS.lasts,
    o.lowest / SPARED,
    `the bank falls to ${percent(o.lowest)}, ${percent(SPARED)} is in hand enough`,
  );
  if (o.start) {
    const inHand = o.start.volts - o.start.limit;
    add(
      'Starts the engine',
      WEIGHTS.starts,
      (inHand + 0.2) / (SAFE_VOLTS + 0.2),
      `${inHand >= 0 ? `${inHand.toFixed(1)} V in hand` : `${(-inHand).toFixed(1)} V short`} under the starter at its worst`,
    );
  }
  if (o.alternator) {
    const hot = o.alternator.hottest > HOT_LIMIT;
    add(
      'Spares the alternator',
      WEIGHTS.alternator,
      hot ? 0 : (1.25 - o.alternator.idleShare) / 0.5,
      `${percent(o.alternator.idleShare)} of its limit at idle, ${o.alternator.hottest.toFixed(0)} °C at most`,
    );
  }
  const wrong = o.profiles.filter((p) => !p.ok);
  add(
    'Right volts for each bank',
    WEIGHTS.profile,
    o.profiles.length === 0 ? 1 : 1 - wrong.length / o.profiles.length,
    wrong.length === 0 ? 'every bank gets what it wants' : wrong.map((p) => `${p.name} ${p.says}`).join('; '),
  );
  if (hadBoost)
    add(
      'Keeps boost',
      WEIGHTS.boost,
      o.boost === 'keeps' ? 1 : 0,
      o.boost === 'keeps' ? 'either bank can still be lent to the other' : 'no boost from the other bank',
    );
  if (o.startOnShore !== undefined)
    add(
      'Start battery on shore power',
      WEIGHTS.shore,
      o.startOnShore ? 1 : 0,
      o.startOnShore ? 'gains while plugged in' : 'gets nothing while plugged in',
    );
  add(
    'What the rules say of it',
    WEIGHTS.rules,
    o.cautions.length === 0 ? 1 : 0,
    o.cautions.length === 0 ? 'no danger in this kind of link' : o.cautions.join(' '),
  );
  add(
    'Hands off',
    WEIGHTS.handsOff,
    o.handsOff ? 1 : 0,
    o.handsOff ? 'nothing for the driver to remember' : 'the driver must switch it',
  );
  for (const s of o.starves)
    points.push({
      criterion: `${s.name} may starve at idle`,
      got: -s.of100 * POINTS_PER_STARVED,
      of: 0,
      because: s.says,
    });
  const price = (total[0] + total[1]) / 2;
  points.push({
    criterion: 'Price',
    got: -price / DOLLARS_PER_POINT,
    of: 0,
    because: `${Math.round(total[0])} to ${Math.round(total[1])}, a point per ${DOLLARS_PER_POINT}`,
  });
  const huntsFor =
    (o.alternator?.idleShare ?? 0) >= AT_ITS_LIMIT
      ? 'the alternator has no more to give at idle'
      : 'its feed sags when it starts';
  const ruledOut = [
    ...o.dangers,
    ...o.hunting.map((name) => `${name} hunts on this use: ${huntsFor}.`),
    ...o.collapsed.map((name) => `${name}: its feed cannot carry the power it asks for.`),
  ];
  for (const s of o.starves) if (s.of100 > MOST_STARVED) ruledOut.push(s.says);
  if (candidate.effects?.length) ruledOut.push('The fault stays in.');
  if (o.arrives < FLAT) ruledOut.push('The bank arrives flat.');
  return { candidate: candidate.id, points, total: points.reduce((sum, p) => sum + p.got, 0), ruledOut };
}

export interface Recommendation {
  pick: string;
  runnerUp?: { candidate: string; behind: number; close: boolean };
  /** For the customer: what speaks for it and what against it, in whole sentences. */
  reasons: { good: boolean; says: string }[];
}

/** The best of those that may be built. Undefined when none may. */
export function recommend(
  outcomes: ReadonlyMap<string, Outcome>,
  scored: readonly Scored[],
): Recommendation | undefined {
  const fit = scored.filter((s) => s.ruledOut.length === 0).sort((a, b) => b.total - a.total);
  const best = fit[0];
  if (!best) return undefined;
  const second = fit[1];
  const o = outcomes.get(best.candidate)!;
  const leave = outcomes.get('leave');
  const reasons: Recommendation['reasons'] = [];
  const say = (good: boolean, says: string) => reasons.push({ good, says });
  if (leave && best.candidate !== 'leave') {
    const gain = Math.round((o.arrives - leave.arrives) * 100);
    say(
      gain >= 0,
      gain > 1
        ? `The bank arrives at ${percent(o.arrives)} instead of ${percent(leave.arrives)}.`
        : `The bank arrives at ${percent(o.arrives)}, about as it does now.`,
    );
  } else say(o.arrives >= 0.7, `The bank arrives at ${percent(o.arrives)}.`);
  if (leave && best.candidate !== 'leave' && o.lowest > leave.lowest + 0.05)
    say(true, `At its lowest the bank is at ${percent(o.lowest)} instead of ${percent(leave.lowest)}.`);
  else if (o.lowest < SPARED / 2)
    say(false, `The bank falls to ${percent(o.lowest)} on the way: less load, or a larger bank.`);
  if (o.alternator) {
    const warm = o.alternator.hottest > HOT_LIMIT;
    say(
      !warm && o.alternator.idleShare < NO_MARGIN,
      `The alternator gives up to ${percent(o.alternator.idleShare)} of what it can at idle and reaches about ${o.alternator.hottest.toFixed(0)} °C${warm ? `, above ${HOT_LIMIT} °C` : ''}.`,
    );
  }
  if (o.start)
    say(
      o.start.starts,
      o.start.starts
        ? 'The engine starts every time on this use.'
        : `The engine would not start once: ${o.start.volts.toFixed(1)} V under the starter.`,
    );
  for (const s of o.starves) say(false, `${s.says} Size it before it is built.`);
  if (o.startOnShore !== undefined)
    say(
      o.startOnShore,
      o.startOnShore
        ? 'On shore power the start battery is kept up as well.'
        : 'On shore power the start battery gets nothing: drive it or give it a maintainer.',
    );
  if (o.boost === 'none' && leave?.boost === 'keeps')
    say(false, 'Boost is lost: the engine can no longer be started from the other bank.');
  for (const p of o.profiles.filter((x) => !x.ok)) say(false, `${p.name} ${p.says}.`);
  for (const caution of o.cautions) say(false, caution);
  if (!o.handsOff) say(false, 'The driver has to switch it on and off.');
  return {
    pick: best.candidate,
    ...(second
      ? {
          runnerUp: {
            candidate: second.candidate,
            behind: best.total - second.total,
            close: best.total - second.total < CLOSE_POINTS,
          },
        }
      : {}),
    reasons,
  };
}
