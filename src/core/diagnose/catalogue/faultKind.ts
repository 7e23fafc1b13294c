/** Faults of what no part owns, and what of a rig a question is about. */
import type { FaultWords } from '../../parts/fault';
import type { TraitName } from '../../parts/traits';

/** A strap between two grounds, or a joint of the metal itself. */
export type MetalPlace = { strap: 'ground-to-ground' } | { bond: 'frame-to-frame' | 'part-to-ground' };

export interface MetalFault extends FaultWords {
  at: MetalPlace;
}

/** Parts by a trait (or one of several), with another trait or a choice where that matters. */
export interface OwnerParts {
  part: TraitName | readonly TraitName[];
  also?: TraitName;
  option?: { name: string; is: readonly string[] };
}
