/**
 * Whether a suspect's own test came out against it. A likelihood can be overruled by many readings that each say a little;
 * what was asked of the very piece, and answered, cannot: nothing is replaced that has just passed its own test. Common
 * practice.
 */
import type { Belief } from './belief';
import { membersOf, type Fault } from './faults';

/** An answer the fault makes at most so many times as likely as anything else does speaks against it. From memory. */
const SPEAKS_AGAINST = 0.2;

/**
 * The question about a suspect, or about either half of a pair, that was answered against it.
 * @returns what was asked, in words; undefined where nothing was, or nothing speaks against it
 */
export function refutedBy(belief: Belief, suspect: Fault): string | undefined {
  const members = membersOf(suspect);
  const answered = belief.observed.find(({ what, answer }) => {
    const kind = belief.questions.find((q) => q.id === what)!;
    return members.some((id) => {
      const [own, other] = [kind.faults[id]?.[answer], kind.otherwise[answer]];
      return own !== undefined && other !== undefined && own <= SPEAKS_AGAINST * other;
    });
  });
  return answered && belief.questions.find((q) => q.id === answered.what)!.ask;
}
