/** What a part of a rig is set to: its own figure or choice, else its kind's usual one. */
import { is, partKind, partOptions } from '../parts/kinds';
import type { TraitName } from '../parts/traits';
import type { Part, Rig } from './schema';

/** A parameter, in the kind's unit; 0 where the kind has no such parameter. */
export const partValue = (part: Part, name: string): number =>
  part.params[name]?.value ?? partKind(part.kind).params[name]?.default.value ?? 0;
/** An option's id; empty where the kind has no such option. */
export const partOption = (part: Part, name: string): string => partOptions(partKind(part.kind), part)[name] ?? '';

/** The parts of a rig with a trait. */
export const partsWith = (rig: Pick<Rig, 'parts'>, trait: TraitName): Part[] => rig.parts.filter((p) => is(p, trait));

/** The first part of a rig with a trait. */
export const partWith = (rig: Pick<Rig, 'parts'>, trait: TraitName): Part | undefined =>
  rig.parts.find((p) => is(p, trait));

/** Whether a rig has a part with a trait. */
export const has = (rig: Pick<Rig, 'parts'>, trait: TraitName): boolean => partWith(rig, trait) !== undefined;

/** The batteries on a side of the rig. */
export const batteriesOn = (rig: Pick<Rig, 'parts'>, side: Part['side']): Part[] =>
  partsWith(rig, 'battery').filter((p) => p.side === side);

/**
 * The bank that is lived from: on the coach side, where the house loads are; the largest where there are several.
 * Undefined where nothing on the coach side stores charge.
 */
export function houseBankOf(rig: Pick<Rig, 'parts'>): Part | undefined {
  const home = partWith(rig, 'houseLoads')?.vehicle;
  return batteriesOn(rig, 'coach').sort(
    (a, b) =>
      Number(b.vehicle === home) - Number(a.vehicle === home) || partValue(b, 'capacity') - partValue(a, 'capacity'),
  )[0];
}
