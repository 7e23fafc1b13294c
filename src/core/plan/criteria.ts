/**
 * What a link is judged by, as data: a further criterion is a row. The weights are assumed: how the trade weighs a
 * link, put into numbers so that one can argue with them.
 */
import type { Complaint } from '../parts/complaints';
import type { PriceRange } from '../parts/price';
import type { CandidateOutcome } from './outcome';

/** Before they are brought to a sum of 100. */
export const WEIGHTS = {
  complaint: 30,
  arrives: 30,
  lasts: 15,
  starts: 25,
  alternator: 15,
  profile: 14,
  boost: 8,
  shore: 8,
  handsOff: 6,
  rules: 20,
  feed: 15,
  price: 20,
} as const;

/** Dollars from which a link gets no point for its price (assumed). */
const NO_POINT_DOLLARS = 3000;
/** Arriving at this is as good as full. */
const WANTED_CHARGE = 0.9;
/** A bank that never falls under this lasts, whatever its chemistry (assumed). */
export const SPARED_CHARGE = 0.2;
/** V in hand under the starter that count as safe. */
const SAFE_START_VOLTS = 0.4;
/** °C at which an alternator is taken to be harmed, where its maker says nothing (from memory). */
export const HOT_LIMIT_CELSIUS = 105;
/** Share of its limit at idle from which an alternator has no margin. */
export const NO_MARGIN_SHARE = 0.95;
/** Of 100 rigs: so many on which a charger starves are too many (assumed). */
export const MAX_STARVED_PERCENT = 50;

export const share = (x: number) => Math.max(0, Math.min(1, x));
export const percent = (x: number) => `${Math.round(x * 100)} %`;

/** What the rig and its owner bring to the judgement, the same for every candidate. */
export interface Asked {
  /** The rig has boost now. */
  hadBoost: boolean;
  /** What the owner complained of. */
  complaints: readonly Complaint[];
}

/** One candidate before a criterion. */
export interface Judged {
  o: CandidateOutcome;
  asked: Asked;
  price: PriceRange;
  /** What was found wrong stays in it. */
  faulty: boolean;
}

interface Criterion {
  criterion: string;
  of: number;
  /** Share of the points got, held to 0 … 1, and why; undefined where there is nothing to judge on this rig. */
  judge(judged: Judged): { part: number; because: string } | undefined;
}

type Answer = (o: CandidateOutcome) => { part: number; because: string };
const charged: Answer = ({ arrives }) => ({
  part: arrives / WANTED_CHARGE,
  because: `it arrives at ${percent(arrives)}`,
});
const lasts: Answer = (o) => ({
  part: Math.min(o.arrives / WANTED_CHARGE, o.lowest / SPARED_CHARGE),
  because: `it arrives at ${percent(o.arrives)} and falls to ${percent(o.lowest)}`,
});
const starts: Answer = ({ start }) =>
  start
    ? {
        part: (start.volts - start.limit + 0.2) / (SAFE_START_VOLTS + 0.2),
        because: `${start.volts.toFixed(1)} V under the starter ${start.when}, ${start.limit.toFixed(1)} V wanted`,
      }
    : { part: 1, because: 'no starter in the model' };
const onShore: Answer = ({ startOnShore: gains }) =>
  gains === undefined
    ? { part: 1, because: 'no shore power on its side' }
    : {
        part: gains ? 1 : 0,
        because: gains ? 'the start battery gains on it' : 'the start battery gets nothing from it',
      };
const parts: Answer = ({ dangers, hunting }) =>
  dangers.length + hunting.length === 0
    ? { part: 1, because: 'it closes and lets go as it should' }
    : { part: 0, because: [...dangers, ...hunting.map((name) => `${name} hunts`)].join(' ') };
const repaired: Answer = () => ({ part: 1, because: 'what was found wrong is put right' });

/** How far a link answers what the owner complained of. */
const ANSWERS: Readonly<Record<Complaint, Answer>> = {
  'coach-not-charging': charged,
  'slow-charging': charged,
  'coach-short-life': lasts,
  'house-dead': lasts,
  'chassis-flat': starts,
  'both-flat': starts,
  'boost-dead': ({ boost }) => ({
    part: boost === 'keeps' ? 1 : 0,
    because: boost === 'keeps' ? 'boost works' : 'there is no boost',
  }),
  'link-always-on': parts,
  'link-cycles': parts,
  'hot-link': repaired,
  'chassis-not-charging': repaired,
  'shore-not-charging': repaired,
  'chassis-not-on-shore': onShore,
  'fridge-stays-on': repaired,
  'fridge-warm': repaired,
};

/** How far the worst answered of the complaints is answered; undefined where nobody complained. */
export function answersComplaint({ o, asked, faulty }: Judged): { part: number; because: string } | undefined {
  if (asked.complaints.length === 0) return undefined;
  if (faulty) return { part: 0, because: 'what was found wrong stays in' };
  return asked.complaints.map((c) => ANSWERS[c](o)).reduce((a, b) => (share(b.part) < share(a.part) ? b : a));
}

export const CRITERIA: readonly Criterion[] = [
  { criterion: 'Answers the complaint', of: WEIGHTS.complaint, judge: answersComplaint },
  {
    criterion: 'Arrives charged',
    of: WEIGHTS.arrives,
    judge: ({ o: { arrives } }) => ({
      part: arrives / WANTED_CHARGE,
      because: `the bank arrives at ${percent(arrives)}, ${percent(WANTED_CHARGE)} is as good as full`,
    }),
  },
  {
    criterion: 'Lasts between drives',
    of: WEIGHTS.lasts,
    judge: ({ o: { lowest } }) => ({
      part: lowest / SPARED_CHARGE,
      because: `the bank falls to ${percent(lowest)}, ${percent(SPARED_CHARGE)} is in hand enough`,
    }),
  },
  {
    criterion: 'Starts the engine',
    of: WEIGHTS.starts,
    judge: ({ o: { start } }) => {
      if (!start) return undefined;
      const inHand = start.volts - start.limit;
      const says = inHand >= 0 ? `${inHand.toFixed(1)} V in hand` : `${(-inHand).toFixed(1)} V short`;
      return { part: (inHand + 0.2) / (SAFE_START_VOLTS + 0.2), because: `${says} under the starter at its worst` };
    },
  },
  {
    criterion: 'Spares the alternator',
    of: WEIGHTS.alternator,
    judge: ({ o: { alternator: a } }) =>
      a && {
        part: a.hottest > HOT_LIMIT_CELSIUS ? 0 : (1.25 - a.idleShare) / 0.5,
        because: `${percent(a.idleShare)} of its limit at idle, ${a.hottest.toFixed(0)} °C at most`,
      },
  },
  {
    criterion: 'Right volts for each bank',
    of: WEIGHTS.profile,
    judge: ({ o: { profiles } }) => {
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
    judge: ({ o: { boost }, asked }) =>
      asked.hadBoost
        ? boost === 'keeps'
          ? { part: 1, because: 'either bank can still be lent to the other' }
          : { part: 0, because: 'no boost from the other bank' }
        : undefined,
  },
  {
    criterion: 'Start battery on shore power',
    of: WEIGHTS.shore,
    judge: ({ o: { startOnShore: gains } }) =>
      gains === undefined
        ? undefined
        : { part: gains ? 1 : 0, because: gains ? 'gains while plugged in' : 'gets nothing while plugged in' },
  },
  {
    criterion: 'What the rules say of it',
    of: WEIGHTS.rules,
    judge: ({ o: { cautions } }) =>
      cautions.length === 0
        ? { part: 1, because: 'no danger in this kind of link' }
        : { part: 0, because: cautions.join(' ') },
  },
  {
    criterion: 'Hands off',
    of: WEIGHTS.handsOff,
    judge: ({ o: { handsOff } }) =>
      handsOff
        ? { part: 1, because: 'nothing for the driver to remember' }
        : { part: 0, because: 'the driver must switch it' },
  },
  {
    criterion: 'Its feed carries it',
    of: WEIGHTS.feed,
    judge: ({ o: { starves } }) => {
      const worst = starves.reduce((most, s) => Math.max(most, s.of100), 0);
      return {
        part: 1 - worst / MAX_STARVED_PERCENT,
        because: worst === 0 ? 'nothing in it asks more than its feed gives' : starves.map((s) => s.says).join(' '),
      };
    },
  },
  {
    criterion: 'Price',
    of: WEIGHTS.price,
    judge: ({ price }) => ({
      part: 1 - (price[0] + price[1]) / 2 / NO_POINT_DOLLARS,
      because:
        price[1] === 0
          ? 'nothing to spend'
          : `$${Math.round(price[0])} to $${Math.round(price[1])}; nothing to spend gets all, $${NO_POINT_DOLLARS} none`,
    }),
  },
];
