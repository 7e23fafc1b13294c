/** Every rig the archetypes draw, by name: motorhomes of every link, coupled vehicles of every family and link. */
import { benchRig, USUAL_BENCH } from '../src/core/rig/archetypes/bench';
import { BENCH_UNITS } from '../src/core/rig/archetypes/benchChoices';
import { coupledRig, USUAL_COUPLED } from '../src/core/rig/archetypes/coupled';
import { COUPLED_FAMILIES, linksFor } from '../src/core/rig/archetypes/coupledChoices';
import { motorhome, USUAL_MOTORHOME } from '../src/core/rig/archetypes/motorhome';
import type { CoupledChoices } from '../src/core/rig/archetypes/coupledSchema';
import type { Rig } from '../src/core/rig/schema';
import { motorhomeInWords, VARIETY } from './motorhomes';

/** Ways of drawing a family that its links do not tell. */
const OF_ITS_OWN = (
  [
    ['camper, fridge by a looped trigger', { ...USUAL_COUPLED.camper, fridgeSelects: 'itself' }],
    [
      'trailer, constant charger line, fridge by a wire from the ignition',
      { ...USUAL_COUPLED.trailer, link: 'dcdc', feed: 'constant', fridge: true, fridgeSelects: 'itself' },
    ],
    ['towed car, fed from the house bank', { ...USUAL_COUPLED['towed-car'], source: 'house' }],
    [
      'towed car, 12 A charger from the house bank, breaker at the car',
      { ...USUAL_COUPLED['towed-car'], link: 'dcdc-pin', dcdcAmps: 12, source: 'house', behindBreaker: true },
    ],
  ] as const satisfies readonly (readonly [string, CoupledChoices])[]
).map(([name, choices]) => [name, coupledRig('t', 'T', choices)] as const);

export const EVERY_RIG: readonly (readonly [name: string, rig: Rig])[] = [
  ...VARIETY.map((c) => [motorhomeInWords(c), motorhome('t', 'T', c)] as const),
  ...COUPLED_FAMILIES.flatMap(({ id }) =>
    linksFor(id).map(
      ({ id: link }) => [`${id}, ${link}`, coupledRig('t', 'T', { ...USUAL_COUPLED[id], link })] as const,
    ),
  ),
  ...OF_ITS_OWN,
  ...BENCH_UNITS.map(({ id }) => [`bench, ${id}`, benchRig('t', 'T', { ...USUAL_BENCH, unit: id })] as const),
  [
    'bench at 24 V, charger on the second',
    benchRig('t', 'T', { ...USUAL_BENCH, unit: 'two-way', nominalVolts: 24, chargerAt: 'second' }),
  ],
  [
    'motorhome, monitor, aluminum body, switch panel',
    motorhome('t', 'T', { ...USUAL_MOTORHOME, monitor: true, body: 'aluminum', switchPanel: true }),
  ],
  [
    'motorhome, dual-input charger, keyed bypass',
    motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'dcdc-dual', solar: true, bypass: true, bypassBy: 'keyed' }),
  ],
];
