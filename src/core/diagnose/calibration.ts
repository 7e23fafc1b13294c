/**
 * How far a share may be believed. Inside the model a verdict is as sure as its likelihoods make it; on rigs the model was
 * not made from, some of what it was sure of was something else: a fault of no row, or a second one beside it. How often
 * that was differs by what joins the banks.
 */
import type { Rig } from '../rig/schema';
import { has } from '../rig/value';
import { NOT_ON_LIST } from './catalogue/notOnList';
import { NOTHING_WRONG } from './catalogue/nothingWrong';
import type { Stop } from './standing';

export interface Calibration {
  /** Share kept for what is not on the list, whatever the readings say. */
  reserve: number;
  /** Verdicts on rigs of this sort that it was found on, and how many of them were right. */
  verdicts: number;
  right: number;
  /** The same of the diagnosis as it was before; what is kept back counts these half. */
  earlier: { verdicts: number; right: number };
  /** Which sort, in words. */
  of: string;
  date: string;
}

const DATE = '2026-12-01';

/**
 * Found on independent truths the diagnosis was not tuned on (bench/truth): 152 verdicts of the diagnosis as it is now on
 * `shells`, and 159 of the one before it on `shells` and `kinetic`, which count half: what has got better is not yet claimed
 * whole. See docs/benchmarks.md. What is kept back brings the 0.93 of a usual stop to the share by Laplace's rule, and is 0.05 at
 * least. The first row that fits a rig holds.
 */
const ROWS: readonly (Omit<Calibration, 'date'> & { fits(rig: Rig): boolean })[] = [
  {
    of: 'rigs with a lamp or maintainer between the batteries (found on towed cars)',
    fits: (rig) => has(rig, 'maintainer'),
    reserve: 0.05,
    verdicts: 7,
    right: 7,
    earlier: { verdicts: 7, right: 7 },
  },
  {
    of: 'rigs of more than 24 V',
    fits: (rig) => rig.vehicles.some((v) => v.nominalVolts > 24),
    reserve: 0.06,
    verdicts: 11,
    right: 10,
    earlier: { verdicts: 7, right: 7 },
  },
  {
    of: 'links that close by volts',
    fits: (rig) => has(rig, 'byVolts'),
    reserve: 0.05,
    verdicts: 46,
    right: 42,
    earlier: { verdicts: 42, right: 37 },
  },
  {
    of: 'coaches and vans whose link a timer or a switch closes',
    fits: (rig) => rig.vehicles.length === 1 && !has(rig, 'charger'),
    reserve: 0.05,
    verdicts: 57,
    right: 51,
    earlier: { verdicts: 65, right: 60 },
  },
  {
    of: 'rigs of the usual sort',
    fits: () => true,
    reserve: 0.05,
    verdicts: 31,
    right: 28,
    earlier: { verdicts: 38, right: 35 },
  },
];

/** Verdicts of one sort as they were found on a truth nothing was tuned on. */
export interface VerdictSort {
  of: string;
  verdicts: number;
  right: number;
  /** Share that may be claimed for it, by Laplace's rule: of few, nothing is claimed whole. */
  share: number;
  date: string;
}

const found = (of: string, verdicts: number, right: number): VerdictSort => ({
  of,
  verdicts,
  right,
  share: (right + 1) / (verdicts + 2),
  date: DATE,
});

/**
 * A sound verdict comes with its proof, which no share of likelihood knows of, and is right more often than its share
 * says; a pair of faults less often. Counted on `shells` and `kinetic` (523 rigs of all groups and three sessions, of which
 * more than in life hide what is on no list or two faults at once: so the counts err low). See docs/benchmarks.md.
 */
const SORTS = {
  sound: found('verdicts that nothing is wrong, with the proof in', 146, 125),
  pair: found('verdicts that name two faults at once', 46, 41),
} as const;

/**
 * The sort a verdict is of, where that is counted by itself. Half of those that were called sound wrongly had what no
 * reading shows: where that may be so, a sound verdict has its own share and no more.
 * @param stop of a round; one that is not over has no verdict
 */
export function sortOf({ reached, class: verdict, unseen }: Stop): VerdictSort | undefined {
  if (!reached || verdict === undefined) return undefined;
  if (verdict === NOTHING_WRONG.id) return unseen === undefined ? SORTS.sound : undefined;
  return verdict.includes(' + ') ? SORTS.pair : undefined;
}

/**
 * What a share of the leading verdict becomes once the round is over: of a sound rig at least what was found, of a pair at
 * most. All other shares are taken or given in proportion.
 * @returns factors on the share of the verdict, and on every other
 */
export function atTheStop(stop: Stop, share: number): { own: number; others: number } {
  const sort = sortOf(stop);
  if (!sort || share <= 0 || share >= 1) return { own: 1, others: 1 };
  const to = sort === SORTS.sound ? Math.max(share, sort.share) : Math.min(share, sort.share);
  return { own: to / share, others: (1 - to) / (1 - share) };
}

/** What is kept back on such a rig. */
export function calibrationOf(rig: Rig): Calibration {
  const { fits: _, ...row } = ROWS.find((r) => r.fits(rig))!;
  return { ...row, date: DATE };
}

/** A share as it may be claimed: all give the reserve to what is not on the list. @param id fault or class */
export const claimed = (id: string, share: number, { reserve }: Pick<Calibration, 'reserve'>): number =>
  (1 - reserve) * share + (id === NOT_ON_LIST.id ? reserve : 0);
