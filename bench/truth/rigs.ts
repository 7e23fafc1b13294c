/** The drawings the independent truths hide something in: every family, and the ways of linking that differ. */
import { coupledRig, USUAL_COUPLED } from '../../src/core/rig/archetypes/coupled';
import { motorhome, USUAL_MOTORHOME } from '../../src/core/rig/archetypes/motorhome';
import type { Rig } from '../../src/core/rig/schema';

const coach = (choices: Partial<Parameters<typeof motorhome>[2]>): Rig =>
  motorhome('truth', 'Truth', { ...USUAL_MOTORHOME, ...choices });
const towing = (family: keyof typeof USUAL_COUPLED, choices: object): Rig =>
  coupledRig('truth', 'Truth', { ...USUAL_COUPLED[family], ...choices } as Parameters<typeof coupledRig>[2]);

export const TRUTH_RIGS: Readonly<Record<string, () => Rig>> = {
  'rear coach, delay module': () => coach({}),
  'front coach, two-way module': () =>
    coach({
      link: 'bidirectional',
      engineAt: 'front',
      length: 8,
      coach: { chemistry: 'agm', layout: 'parallel', capacity: 200 },
    }),
  'rear coach, one-way module': () =>
    coach({ link: 'one-way', length: 11, coach: { chemistry: 'flooded', layout: 'series', capacity: 220 } }),
  'van, delay module, lithium': () =>
    coach({
      engineAt: 'front',
      length: 6.4,
      disconnect: 'none',
      chassis: { chemistry: 'agm', layout: 'single', capacity: 95 },
      coach: { chemistry: 'lfp', layout: 'parallel', capacity: 300 },
    }),
  'trailer on the factory line': () => towing('trailer', { link: 'thin-line' }),
  'camper on a heavy line': () => towing('camper', { link: 'heavy-line' }),
  'trailer, charger on its own cable': () => towing('trailer', { link: 'dcdc' }),
  'towed car, diode and lamp': () => towing('towed-car', { link: 'diode-lamp' }),
  '48 V trailer': () => towing('trailer-48', { link: 'dcdc' }),
};
