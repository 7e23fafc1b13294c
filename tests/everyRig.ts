/** Every rig the archetypes draw, by name: motorhomes of every link, coupled vehicles of every family and link. */
import { coupledRig, USUAL_COUPLED } from '../src/core/rig/archetypes/coupled';
import { COUPLED_FAMILIES, linksFor } from '../src/core/rig/archetypes/coupledChoices';
import { motorhome } from '../src/core/rig/archetypes/motorhome';
import type { Rig } from '../src/core/rig/schema';
import { motorhomeInWords, VARIETY } from './motorhomes';

export const EVERY_RIG: readonly (readonly [name: string, rig: Rig])[] = [
  ...VARIETY.map((c) => [motorhomeInWords(c), motorhome('t', 'T', c)] as const),
  ...COUPLED_FAMILIES.flatMap(({ id }) =>
    linksFor(id).map(
      ({ id: link }) => [`${id}, ${link}`, coupledRig('t', 'T', { ...USUAL_COUPLED[id], link })] as const,
    ),
  ),
];
