/** A charging law that is off shows on the bank that takes a charge, and on no other. */
import { describe, expect, it } from 'vitest';
import { CHEMISTRIES } from './chemistry';
import { motorhomeOf } from '../../../tests/motorhomes';
import { compileRig } from '../compile/compile';
import { BandTable } from '../probe/bands';
import { withPart } from '../rig/applyEdit';

const REFERENCE = 'frame.bay-2';

/** Middle of a point's band on shore, V, with a bank's charging law off by so many volts. */
function onShore(chemistry: string, bank: string, off: number, point: string): number {
  const rig = motorhomeOf({ coach: { chemistry: chemistry as never, layout: 'parallel', capacity: 200 } });
  const law = { whileCharged: { value: off, spread: 0.1, provenance: 'assumed' as const } };
  const { lo, hi } = new BandTable(compileRig(withPart(rig, bank, { params: law }))).band('shore', point, REFERENCE)!;
  return (lo + hi) / 2;
}

describe('a charging law that is off', () => {
  it.each(CHEMISTRIES.filter((c) => !c.bms).map((c) => c.id))(
    'moves a %s bank that takes a charge by about as much, of the sign it has',
    (chemistry) => {
      const at = (off: number) => onShore(chemistry, 'coach-bank', off, 'coach-bank.plus');
      for (const off of [0.1, 0.2]) {
        expect(at(off) - at(0)).toBeGreaterThan(0.2 * off);
        expect(at(off) - at(0)).toBeLessThan(1.7 * off);
        expect(at(-off)).toBeLessThan(at(0));
      }
    },
  );

  it('leaves the battery that nothing charges where it stands', () => {
    const parked = (off: number) => onShore('flooded', 'chassis-bank', off, 'chassis-bank.plus');
    // What is left is the drawing of 192 rigs.
    for (const off of [-0.3, 0.1, 0.3]) expect(Math.abs(parked(off) - parked(0))).toBeLessThan(0.03);
  });
});
