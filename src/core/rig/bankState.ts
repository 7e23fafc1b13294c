/** A battery of a rig as the relations of its chemistry take it. */
import { chemistryOf, type BankState } from '../parts/chemistry';
import { nominalOf } from '../parts/kinds';
import type { Part, Rig } from './schema';
import { partOption, partValue } from './value';

/** @param at the charge, °C and age that are asked for; as the part says where left out, at 25 °C. */
export const bankStateOf = (
  rig: Pick<Rig, 'vehicles'>,
  part: Part,
  at: Partial<Pick<BankState, 'soc' | 'celsius' | 'ageing'>> = {},
): BankState => ({
  chemistry: chemistryOf(partOption(part, 'chemistry')),
  capacity: partValue(part, 'capacity'),
  cca: partValue(part, 'cca'),
  blocks:
    nominalOf(
      part,
      rig.vehicles.find((v) => v.id === part.vehicle)!,
    ) / 12,
  soc: partValue(part, 'soc'),
  celsius: 25,
  ageing: partValue(part, 'ageing') || 1,
  ...at,
});
