/**
 * Which candidate to recommend: points by criterion, of 100 in all, and what no points can make good. A link that leaves
 * the owner stranded never wins over one that does not, and nothing is left as it is that does not do the job.
 */
import type { PriceRange } from '../parts/price';
import type { Candidate } from './candidates';
import { answersComplaint, CRITERIA, MAX_STARVED_PERCENT, share, type Asked } from './criteria';
import type { CandidateOutcome } from './outcome';
import { reasonsFor, type Reason } from './reasons';

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
  /** Of 100. */
  total: number;
  /** What it must not be built with as it is. */
  ruledOut: string[];
  /** It keeps the link there is: left, or repaired. */
  keeps: boolean;
  /** It leaves the engine without a start on this use. */
  strands: boolean;
  /** Left as it is it does not do the job, and why: something has to be done, if anything does better. */
  falls?: string;
}

/** A lead this small is a matter of taste. */
export const CLOSE_POINTS = 3;
/** Arriving under this is arriving flat: nothing to recommend. */
const FLAT_CHARGE = 0.15;
/** Share from which an alternator is at its limit, but for rounding. */
const AT_ITS_LIMIT_SHARE = 0.999;
/** Charge a bank left as it is has to arrive with, and how far it has to answer what was complained of (assumed). */
const DOES_THE_JOB = { arrives: 0.7, answers: 0.7 } as const;

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
    ...(o.ranOut === undefined
      ? []
      : [`Its simulation ended ${o.ranOut.toFixed(1)} h in: something switches on and off without rest.`]),
    ...(candidate.effects?.length ? ['The fault stays in.'] : []),
    ...(o.arrives < FLAT_CHARGE ? ['The bank arrives flat.'] : []),
  ];
}

/** Why the rig left alone does not do the job; undefined where it does. */
function fallsShort(o: CandidateOutcome, answered: ReturnType<typeof answersComplaint>): string | undefined {
  if (o.start && !o.start.starts) return `the engine would not start ${o.start.when}`;
  if (o.arrives < DOES_THE_JOB.arrives) return `the bank arrives at ${Math.round(o.arrives * 100)} %`;
  if (answered && share(answered.part) < DOES_THE_JOB.answers)
    return `what was complained of stays: ${answered.because}`;
  return undefined;
}

/** Points of one candidate, of 100. @param price estimated, lower and upper. */
export function scoreOf(candidate: Candidate, o: CandidateOutcome, price: PriceRange, asked: Asked): Scored {
  const judged = { o, asked, price, faulty: (candidate.effects?.length ?? 0) > 0 };
  const rows = CRITERIA.flatMap(({ criterion, of, judge }) => {
    const j = judge(judged);
    return j ? [{ criterion, of, part: share(j.part), because: j.because }] : [];
  });
  // What there is nothing to say of on this rig takes no points with it.
  const scale = 100 / rows.reduce((sum, r) => sum + r.of, 0);
  const points = rows.map(({ criterion, of, part, because }): Point => ({
    criterion,
    got: scale * of * part,
    of: scale * of,
    because,
  }));
  const falls = candidate.school === 'leave' ? fallsShort(o, answersComplaint(judged)) : undefined;
  return {
    candidate: candidate.id,
    points,
    total: points.reduce((sum, p) => sum + p.got, 0),
    ruledOut: ruledOutBy(candidate, o),
    keeps: candidate.school === 'leave' || candidate.school === 'repair',
    strands: o.start !== undefined && !o.start.starts,
    ...(falls === undefined ? {} : { falls }),
  };
}

export interface Recommendation {
  pick: string;
  runnerUp?: { candidate: string; behind: number; close: boolean };
  /** For the customer: what speaks for it and what against it, in whole sentences. */
  reasons: Reason[];
}

/**
 * In the order in which they would be signed: one that starts before one that does not, doing something before leaving
 * what fails, then points.
 */
const inOrder = (list: readonly Scored[]): Scored[] =>
  [...list].sort(
    (a, b) =>
      Number(a.strands) - Number(b.strands) ||
      Number(a.falls !== undefined) - Number(b.falls !== undefined) ||
      b.total - a.total,
  );

/** Whether two candidates stand alike in what no points make good. */
const level = (a: Scored, b: Scored) => a.strands === b.strands && (a.falls === undefined) === (b.falls === undefined);

/** The best of those that may be built. Undefined when none may. */
export function recommend(
  outcomes: ReadonlyMap<string, CandidateOutcome>,
  scored: readonly Scored[],
  asked: Asked,
): Recommendation | undefined {
  const order = inOrder(scored.filter((s) => s.ruledOut.length === 0));
  const first = order[0];
  if (!first) return undefined;
  // Nothing is rebuilt for a matter of taste.
  const best = order.find((s) => s.keeps && level(first, s) && first.total - s.total < CLOSE_POINTS) ?? first;
  const second = order.find((s) => s !== best);
  const leave = scored.find((s) => s.candidate === 'leave');
  const behind = Math.abs(best.total - (second?.total ?? 0));
  return {
    pick: best.candidate,
    ...(second
      ? { runnerUp: { candidate: second.candidate, behind, close: level(best, second) && behind < CLOSE_POINTS } }
      : {}),
    reasons: [
      ...(leave?.falls !== undefined
        ? [
            best.candidate === 'leave'
              ? { good: false, says: `As it is ${leave.falls}; nothing compared here does better.` }
              : { good: true, says: `Something has to be done: left as it is ${leave.falls}.` },
          ]
        : []),
      ...reasonsFor(
        outcomes.get(best.candidate)!,
        best.candidate === 'leave' ? undefined : outcomes.get('leave'),
        asked.hadBoost,
      ),
    ],
  };
}
