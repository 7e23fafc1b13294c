/**
 * No band promises what nothing in the rig can give: no point above the highest set-point of what charges it, or below
 * ground, but for what a meter and a lead add; a bank near full or near empty like any other.
 */
import { describe, expect, it } from 'vitest';
import { EVERY_RIG } from '../../../tests/everyRig';
import { motorhomeOf } from '../../../tests/motorhomes';
import { compileRig } from '../compile/compile';
import { statesOf } from '../operate/states';
import { withPart } from '../rig/applyEdit';
import type { Rig } from '../rig/schema';
import { BandTable } from './bands';

/** V over any set-point that a drawn spread, a meter and a lead may add, per 12 V: three of the widest deviations. */
const ABOVE_VOLTS = 1;
/** V a ground point may lie under the reference: current through a strap and a bolt. */
const BELOW_VOLTS = 1.5;

const SET_POINTS = ['setPoint', 'absorb', 'panelVolts'] as const;
const mostVolts = (rig: Rig): number =>
  Math.max(...rig.parts.flatMap((p) => SET_POINTS.flatMap((name) => p.params[name]?.value ?? [])), 15);

const nearFull = (chemistry: 'flooded' | 'lfp', soc: number): Rig =>
  withPart(
    motorhomeOf({ link: 'dcdc', coach: { chemistry, layout: 'parallel', capacity: 300 }, solar: true }),
    'coach-bank',
    { params: { soc: { value: soc, spread: 0.12, provenance: 'assumed' } } },
  );

describe('a band', () => {
  it.each([
    ...EVERY_RIG.filter((_, i) => i % 3 === 2),
    ['lithium at 97 %', nearFull('lfp', 0.97)] as const,
    ['lithium at 3 %', nearFull('lfp', 0.03)] as const,
    ['lead at 99 %', nearFull('flooded', 0.99)] as const,
  ])('of %s leaves nothing that its sources can give', (_, rig) => {
    const table = new BandTable(compileRig(rig));
    const blocks = Math.max(...rig.vehicles.map((v) => v.nominalVolts)) / 12;
    const most = mostVolts(rig) + ABOVE_VOLTS * blocks;
    for (const state of statesOf(rig))
      for (const { key } of rig.probes) {
        if (key.endsWith('.clamp')) continue;
        const band = table.band(state.id, key, `${rig.reference.part}.${rig.reference.terminal}`)!;
        expect(band.hi, `${state.id} ${key}`).toBeLessThan(most);
        expect(band.lo, `${state.id} ${key}`).toBeGreaterThan(-BELOW_VOLTS);
      }
  });
});
