/** A bank gives what is in it and no more: at the end its volts collapse, and what it is asked for stays undelivered. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { smallPart, smallRig } from '../../../tests/smallRigs';
import { compileRig } from '../compile/compile';
import type { Scenario } from './scenarioSchema';
import { simulate } from './simulate';

const standing = (hours: number, amps: number): Scenario => ({
  id: 's',
  name: 'Standing',
  startHour: 0,
  legs: [{ id: 'l', kind: 'stand', name: 'Standing', hours, celsius: 25, sunHours: 0, loads: [], moreAmps: amps }],
});
const rigOf = (chemistry: string, capacity: number, soc: number) =>
  smallRig(
    [
      smallPart('bank', 'battery-bank', 'coach', { capacity, soc, surface: 0, ageing: 1 }, { chemistry }),
      smallPart('loads', 'house-loads', 'coach', { draw: 10 }),
    ],
    [
      ['bank.plus', 'loads.plus', 0.005],
      ['bank.minus', 'frame.bolt', 1e-4],
      ['loads.minus', 'frame.bolt', 1e-4],
    ],
  );

describe('a bank asked for more than is in it', () => {
  it('gives no more than its charge, and stands empty, not below', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('flooded', 'agm', 'gel', 'lfp'),
        fc.constantFrom(40, 60, 200),
        fc.double({ min: 0.05, max: 0.9, noNaN: true }),
        fc.double({ min: 2, max: 40, noNaN: true }),
        (chemistry, capacity, soc, amps) => {
          const hours = Math.min(200, (3 * soc * capacity) / amps + 2);
          const r = simulate(compileRig(rigOf(chemistry, capacity, soc)), standing(hours, amps), { series: false });
          const bank = r.summary.batteries.find((b) => b.part === 'bank')!;
          expect(bank.endSoc).toBeGreaterThanOrEqual(0);
          expect(bank.endSoc).toBeLessThan(0.1);
          expect(bank.ahOut).toBeLessThanOrEqual(soc * capacity + 0.1);
        },
      ),
      { numRuns: 25 },
    );
  });
});
