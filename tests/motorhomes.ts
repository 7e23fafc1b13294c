/** Motorhomes of every kind of link, for tests that must hold for all of them. */
import { LINK_CHOICES } from '../src/core/rig/archetypes/choices';
import type { MotorhomeChoices } from '../src/core/rig/archetypes/choicesSchema';
import { motorhome, USUAL_MOTORHOME } from '../src/core/rig/archetypes/motorhome';

/** Every link, with the other choices walked through so that each comes up with several links. */
export const VARIETY: MotorhomeChoices[] = LINK_CHOICES.flatMap(({ id: link }, n) =>
  ([12, 24] as const).map((nominalVolts, k): MotorhomeChoices => ({
    ...USUAL_MOTORHOME,
    link,
    nominalVolts,
    engineAt: (n + k) % 2 === 0 ? 'rear' : 'front',
    length: 7 + n,
    disconnect: (['switch', 'latching', 'none'] as const)[(n + k) % 3]!,
    senseAt: k === 0 ? 'bank' : 'behind-disconnect',
    charger: (['charger', 'inverter-charger', 'converter'] as const)[n % 3]!,
    solar: (n + k) % 2 === 1,
    generator: (n + k) % 3 === 1,
    boost: n !== 4,
    chassis: { chemistry: n % 2 === 0 ? 'flooded' : 'agm', layout: 'single', capacity: 110 },
    coach: {
      chemistry: (['flooded', 'agm', 'gel', 'lfp'] as const)[(n + k) % 4]!,
      layout: k === 0 ? 'series-parallel' : 'parallel',
      capacity: 200 + 50 * n,
    },
  })),
);
export const motorhomeInWords = (c: MotorhomeChoices) =>
  `${c.link}, ${c.nominalVolts} V, ${c.engineAt} engine, ${c.coach.chemistry} coach`;

/** The usual motorhome with some choices otherwise. */
export const motorhomeOf = (choices: Partial<MotorhomeChoices> = {}) =>
  motorhome('t', 'T', { ...USUAL_MOTORHOME, ...choices });
