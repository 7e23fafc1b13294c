/**
 * What a sound verdict still owes: each fault that would explain what the owner tells, and that nothing read so far
 * speaks against, gets its own direct test first. A functional proof shows that the rig works where it was looked at; a
 * fault nobody looked for is not disproved by it. Common practice.
 */
import type { Belief } from './belief';
import { NOTHING_WRONG } from './catalogue/nothingWrong';
import type { Fault } from './faults';
import { isComplaint } from './intake';

/** A fault is spoken against where the odds of it to a sound rig have fallen to this share of what they began with. */
const SPOKEN_AGAINST = 0.5;
/** Share of a fault now, from which it is worth a test of its own. */
const WORTH_A_TEST = 0.004;

/** Single faults that explain a complaint and that the evidence has hardly spoken against, likeliest first. */
export function notRuledOut(belief: Belief): Fault[] {
  const at = (id: string) => belief.faults.findIndex((f) => f.id === id);
  const sound = at(NOTHING_WRONG.id);
  const odds = (i: number, of: ArrayLike<number>) => of[i]! / Math.max(of[sound]!, 1e-12);
  const before = belief.faults.map((f) => f.prior);
  return belief.faults
    .map((fault, i) => ({ fault, i }))
    .filter(
      ({ fault, i }) =>
        fault.owner !== undefined &&
        !fault.members &&
        belief.probability[i]! > WORTH_A_TEST &&
        belief.intake.some((c) => isComplaint(c) && fault.explains.includes(c)) &&
        odds(i, belief.probability) > SPOKEN_AGAINST * odds(i, before),
    )
    .sort((a, b) => belief.probability[b.i]! - belief.probability[a.i]!)
    .map(({ fault }) => fault);
}
