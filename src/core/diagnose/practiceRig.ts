/**
 * A job to learn on: a made-up coach that hides a common fault, its meter and its looks answered by the program. Marked in
 * the rig document, so that no figure of it teaches the shop anything and no paper takes it for a vehicle.
 */
import { compileRig } from '../compile/compile';
import { rigFaults } from './faults';
import { HiddenRig } from './hiddenRig';
import { NOTHING_WRONG } from './catalogue/nothingWrong';
import type { ObservationKind } from './observations/observationKind';
import type { Rig } from '../rig/schema';
import { seedFrom } from '../units/rng';

/** Faults one meets early and finds with few readings. */
const PRACTICE_FAULTS = ['link.contact-open', 'link-fuse.open', 'link.coil-open', 'coil-ground.ground-lost'] as const;

/** A rig with one of them hidden in it, by an id of the job: asked again, the same. */
export function toPractice(rig: Rig, id: string): Rig {
  const seed = seedFrom(id);
  const known = new Set(rigFaults(rig).map((f) => f.id));
  const list = PRACTICE_FAULTS.filter((f) => known.has(f));
  return {
    ...rig,
    kind: `Practice, no vehicle: ${rig.kind}`,
    practice: { fault: list[seed % list.length] ?? NOTHING_WRONG.id, seed },
  };
}

/** Rigs at hand: one that is sick and one that is mended, of the last jobs. */
const KEEP = 4;
const meters = new Map<string, HiddenRig>();
function hiddenRig(rig: Rig, mended: boolean): HiddenRig {
  const { fault, seed } = rig.practice!;
  const key = `${rig.id} ${fault} ${seed} ${mended}`;
  let hidden = meters.get(key);
  if (!hidden) {
    hidden = new HiddenRig(compileRig(rig), mended ? NOTHING_WRONG.id : fault, seed);
    meters.set(key, hidden);
    if (meters.size > KEEP) meters.delete(meters.keys().next().value!);
  }
  return hidden;
}

/** What the meter shows at a point of a practice rig. @param take how often it was read before. */
export const practiceReading = (
  rig: Rig,
  mended: boolean,
  at: { state: string; probe: string; ref?: string; take: number },
): { value: number; unit: 'V' | 'A' } => hiddenRig(rig, mended).read(at.state, at.probe, at.ref, at.take);

/** What one sees, hears or finds on trying: the label of the answer. */
export function practiceAnswer(rig: Rig, mended: boolean, question: ObservationKind): string {
  const id = hiddenRig(rig, mended).answer(question);
  return question.answers.find((a) => a.id === id)!.label;
}
