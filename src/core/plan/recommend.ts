/**
 * Which candidate to recommend. Points by criterion, each with its working: how the trade weighs a link, put
 * into numbers so that one can argue with them. The weights are assumed.
 */
import type { PriceRange } from '../parts/price';
import type { Candidate } from './candidates';
import type { CandidateOutcome } from './outcome';

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
const WANTED_CHARGE = 0.9;
/** A bank that never falls under this lasts, whatever its chemistry (assumed). */
const SPARED_CHARGE = 0.2;
/** Arriving under this is arriving flat: nothing to recommend. */
const FLAT_CHARGE = 0.15;
/** V in hand under the starter that count as safe. */
const SAFE_START_VOLTS = 0.4;
/** °C at which an alternator is taken to be harmed, where its maker says nothing (from memory). */
export const HOT_LIMIT_CELSIUS = 105;
/** Share of its limit at idle from which an alternator has no margin. */
const NO_MARGIN_SHARE = 0.95;
/** Share from which it is at its limit, but for rounding. */
const AT_ITS_LIMIT_SHARE = 0.999;

/** Points for each of 100 rigs on which a charger starves, and how many are too many (assumed). */
const POINTS_PER_STARVED_PERCENT = 0.2;
const MAX_STARVED_PERCENT = 50;

const share = (x: number) => Math.max(0, Math.min(1, x));
const percent = (x: number) => `${Math.round(x * 100)} %`;

/** A criterion speaks of one candidate, or not at all: a further one is a row. */
interface Criterion {
  criterion: string;
  of: number;
  /** Share of the points got, held to 0 … 1, and why. @param hadBoost the rig has it now. */
  judge(o: CandidateOutcome, hadBoost: boolean): { part: number; because: string } | undefined;
}

const CRITERIA: readonly Criterion[] = [
  {
    criterion: 'Arrives charged',
    of: WEIGHTS.arrives,
    judge: ({ arrives }) => ({
      part: arrives / WANTED_CHARGE,
      because: `the bank arrives at ${percent(arrives)}, ${percent(WANTED_CHARGE)} is as good as full`,
    }),
  },
  {
    criterion: 'Lasts between drives',
    of: WEIGHTS.lasts,
    judge: ({ lowest }) => ({
      part: lowest / SPARED_CHARGE,
      because: `the bank falls to ${percent(lowest)}, ${percent(SPARED_CHARGE)} is in hand enough`,
    }),
  },
  {
    criterion: 'Starts the engine',
    of: WEIGHTS.starts,
    judge: ({ start }) => {
      if (!start) return undefined;
      const inHand = start.volts - start.limit;
      const says = inHand >= 0 ? `${inHand.toFixed(1)} V in hand` : `${(-inHand).toFixed(1)} V short`;
      return { part: (inHand + 0.2) / (SAFE_START_VOLTS + 0.2), because: `${says} under the starter at its worst` };
    },
  },
  {
    criterion: 'Spares the alternator',
    of: WEIGHTS.alternator,
    judge: ({ alternator: a }) =>
      a && {
        part: a.hottest > HOT_LIMIT_CELSIUS ? 0 : (1.25 - a.idleShare) / 0.5,
        because: `${percent(a.idleShare)} of its limit at idle, ${a.hottest.toFixed(0)} °C at most`,
      },
  },
  {
    criterion: 'Right volts for each bank',
    of: WEIGHTS.profile,
    judge: ({ profiles }) => {
      const wrong = profiles.filter((p) => !p.ok);
      return {
        part: profiles.length === 0 ? 1 : 1 - wrong.length / profiles.length,
        because:
          wrong.length === 0 ? 'every bank gets what it wants' : wrong.map((p) => `${p.name} ${p.says}`).join('; '),
      };
    },
  },
  {
    criterion: 'Keeps boost',
    of: WEIGHTS.boost,
    judge: ({ boost }, hadBoost) =>
      hadBoost
        ? boost === 'keeps'
          ? { part: 1, because: 'either bank can still be lent to the other' }
          : { part: 0, because: 'no boost from the other bank' }
        : undefined,
  },
  {
    criterion: 'Start battery on shore power',
    of: WEIGHTS.shore,
    judge: ({ startOnShore: gains }) =>
      gains === undefined
        ? undefined
        : { part: gains ? 1 : 0, because: gains ? 'gains while plugged in' : 'gets nothing while plugged in' },
  },
  {
    criterion: 'What the rules say of it',
    of: WEIGHTS.rules,
    judge: ({ cautions }) =>
      cautions.length === 0
        ? { part: 1, because: 'no danger in this kind of link' }
        : { part: 0, because: cautions.join(' ') },
  },
  {
    criterion: 'Hands off',
    of: WEIGHTS.handsOff,
    judge: ({ handsOff }) =>
      handsOff
        ? { part: 1, because: 'nothing for the driver to remember' }
        : { part: 0, because: 'the driver must switch it' },
  },
];

/** Why a candidate must not be built as it is, in whole sentences. */
function ruledOutBy(candidate: Candidate, o: CandidateOutcome): string[] {
  const huntsFor =
    (o.alternator?.idleShare ?? 0) >= AT_ITS_LIMIT_SHARE
      ? 'the alternator has no more to give at idle'
      : 'its feed sags when it starts';
  return [
    ...o.dangers,
    ...o.hunting.map((name) => `${name} hunts on this use: ${huntsFor}.`),
    ...o.collapsed.map((name) => `${name}: its feed cannot carry the power it asks for.`),
    ...o.starves.filter((s) => s.of100 > MAX_STARVED_PERCENT).map((s) => s.says),
    ...(candidate.effects?.length ? ['The fault stays in.'] : []),
    ...(o.arrives < FLAT_CHARGE ? ['The bank arrives flat.'] : []),
  ];
}

/** Points of one candidate. @param total estimated price, lower and upper. @param hadBoost the rig has it now. */
export function scoreOf(candidate: Candidate, o: CandidateOutcome, total: PriceRange, hadBoost: boolean): Scored {
  const price = (total[0] + total[1]) / 2;
  const points: Point[] = [
    ...CRITERIA.flatMap(({ criterion, of, judge }): Point[] => {
      const judged = judge(o, hadBoost);
      return judged ? [{ criterion, got: of * share(judged.part), of, because: judged.because }] : [];
    }),
    ...o.starves.map((s): Point => ({
      criterion: `${s.name} may starve at idle`,
      got: -s.of100 * POINTS_PER_STARVED_PERCENT,
      of: 0,
      because: s.says,
    })),
    {
      criterion: 'Price',
      got: -price / DOLLARS_PER_POINT,
      of: 0,
      because: `${Math.round(total[0])} to ${Math.round(total[1])}, a point per ${DOLLARS_PER_POINT}`,
    },
  ];
  return {
    candidate: candidate.id,
    points,
    total: points.reduce((sum, p) => sum + p.got, 0),
    ruledOut: ruledOutBy(candidate, o),
  };
}

export interface Recommendation {
  pick: string;
  runnerUp?: { candidate: string; behind: number; close: boolean };
  /** For the customer: what speaks for it and what against it, in whole sentences. */
  reasons: { good: boolean; says: string }[];
}

type Reason = Recommendation['reasons'][number];

/** How full the bank is, against the rig as it is. @param leave the rig left alone; absent where it is what is picked. */
function chargeReasons(o: CandidateOutcome, leave: CandidateOutcome | undefined): Reason[] {
  const reasons: Reason[] = [];
  if (leave) {
    const gain = Math.round((o.arrives - leave.arrives) * 100);
    reasons.push({
      good: gain >= 0,
      says:
        gain > 1
          ? `The bank arrives at ${percent(o.arrives)} instead of ${percent(leave.arrives)}.`
          : `The bank arrives at ${percent(o.arrives)}, about as it does now.`,
    });
  } else reasons.push({ good: o.arrives >= 0.7, says: `The bank arrives at ${percent(o.arrives)}.` });
  if (leave && o.lowest > leave.lowest + 0.05)
    reasons.push({
      good: true,
      says: `At its lowest the bank is at ${percent(o.lowest)} instead of ${percent(leave.lowest)}.`,
    });
  else if (o.lowest < SPARED_CHARGE / 2)
    reasons.push({
      good: false,
      says: `The bank falls to ${percent(o.lowest)} on the way: less load, or a larger bank.`,
    });
  return reasons;
}

/** What the engine's side has of it: the alternator's margin and the start. */
function engineReasons({ alternator, start }: CandidateOutcome): Reason[] {
  const reasons: Reason[] = [];
  if (alternator) {
    const warm = alternator.hottest > HOT_LIMIT_CELSIUS;
    reasons.push({
      good: !warm && alternator.idleShare < NO_MARGIN_SHARE,
      says:
        `The alternator gives up to ${percent(alternator.idleShare)} of what it can at idle and ` +
        `reaches about ${alternator.hottest.toFixed(0)} °C${warm ? `, above ${HOT_LIMIT_CELSIUS} °C` : ''}.`,
    });
  }
  if (start)
    reasons.push({
      good: start.starts,
      says: start.starts
        ? 'The engine starts every time on this use.'
        : `The engine would not start once: ${start.volts.toFixed(1)} V under the starter.`,
    });
  return reasons;
}

/** What the owner has to know beside: what is won on shore power, what is lost, what is asked of the driver. */
function ownerReasons(o: CandidateOutcome, hadBoost: boolean): Reason[] {
  const against = (list: readonly string[]): Reason[] => list.map((says) => ({ good: false, says }));
  const shore: Reason[] =
    o.startOnShore === undefined
      ? []
      : [
          o.startOnShore
            ? { good: true, says: 'On shore power the start battery is kept up as well.' }
            : {
                good: false,
                says: 'On shore power the start battery gets nothing: drive it or give it a maintainer.',
              },
        ];
  return [
    ...against(o.starves.map((s) => `${s.says} Size it before it is built.`)),
    ...shore,
    ...against([
      ...(o.boost === 'none' && hadBoost
        ? ['Boost is lost: the engine can no longer be started from the other bank.']
        : []),
      ...o.profiles.filter((x) => !x.ok).map((p) => `${p.name} ${p.says}.`),
      ...o.cautions,
      ...(o.handsOff ? [] : ['The driver has to switch it on and off.']),
    ]),
  ];
}

/** The best of those that may be built. Undefined when none may. */
export function recommend(
  outcomes: ReadonlyMap<string, CandidateOutcome>,
  scored: readonly Scored[],
): Recommendation | undefined {
  const [best, second] = scored.filter((s) => s.ruledOut.length === 0).sort((a, b) => b.total - a.total);
  if (!best) return undefined;
  const o = outcomes.get(best.candidate)!;
  const leave = outcomes.get('leave');
  const behind = best.total - (second?.total ?? 0);
  return {
    pick: best.candidate,
    ...(second ? { runnerUp: { candidate: second.candidate, behind, close: behind < CLOSE_POINTS } } : {}),
    reasons: [
      ...chargeReasons(o, best.candidate === 'leave' ? undefined : leave),
      ...engineReasons(o),
      ...ownerReasons(o, leave?.boost === 'keeps'),
    ],
  };
}
