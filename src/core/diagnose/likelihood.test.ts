import { describe, expect, it } from 'vitest';
import { USUAL_METER } from '../probe/meter';
import { ASSUMPTIONS } from './assumptions';
import { blunderDensity, readingVariance } from './likelihood';

/** Integral over a range by the midpoint rule, at a step far under the narrowest spike. */
function integral(from: number, to: number, step: number, f: (x: number) => number): number {
  const n = Math.round((to - from) / step);
  let sum = 0;
  for (let i = 0; i < n; i++) sum += f(from + (i + 0.5) * step);
  return sum * step;
}

describe('the chance of a blundered reading', () => {
  // A density that does not add up to one would make every reading look more or less trustworthy than it is.
  it('adds up to one over the volts a meter on a 12 V rig shows, wherever the neighbours stand', () => {
    for (const neighbours of [[12.6], [12.4, 13.9, 0.4], [3, 3, 3, 14]])
      expect(integral(-0.5, 16.5, 0.0005, (v) => blunderDensity('V', v, neighbours, ASSUMPTIONS))).toBeCloseTo(1, 2);
  });

  it('adds up to one without neighbours', () => {
    expect(integral(-0.5, 16.5, 0.0005, (v) => blunderDensity('V', v, [], ASSUMPTIONS))).toBeCloseTo(1, 2);
  });

  it('adds up to one over the range of a clamp', () => {
    expect(integral(-200, 200, 0.005, (a) => blunderDensity('A', a, [], ASSUMPTIONS))).toBeCloseTo(1, 2);
  });

  it('is greatest where a lead that does not touch reads, and beside a neighbour', () => {
    const at = (v: number) => blunderDensity('V', v, [12.6], ASSUMPTIONS);
    expect(at(0)).toBeGreaterThan(at(12.6));
    expect(at(12.6)).toBeGreaterThan(20 * at(12.2));
    expect(at(12.61)).toBeCloseTo(at(12.59), 9);
  });

  it('weighs each neighbour alike: two of them halve the spike of one', () => {
    const floor = blunderDensity('V', 6, [12.6], ASSUMPTIONS);
    const one = blunderDensity('V', 12.6, [12.6], ASSUMPTIONS) - floor;
    const two = blunderDensity('V', 12.6, [12.6, 9], ASSUMPTIONS) - floor;
    expect(two / one).toBeCloseTo(0.5, 6);
  });
});

describe('how far a reading may be from the model', () => {
  const silent = { ...USUAL_METER, voltNoise: 0, ampShare: 0, ampFloor: 0 };
  it('is the model’s share of the amps where the clamp is perfect', () => {
    const sd = Math.sqrt(readingVariance('A', 80, { ...ASSUMPTIONS, modelShareAmps: 0.05 }, silent));
    expect(sd).toBeCloseTo(4, 9);
  });

  it('adds the clamp’s own error as squares, not as amps', () => {
    // ±(floor 0.2 A + 1 %) at 100 A is 1.2 A; with 5 A of model √(1.2² + 5²).
    const sd = Math.sqrt(readingVariance('A', 100, { ...ASSUMPTIONS, modelShareAmps: 0.05 }));
    expect(sd).toBeCloseTo(Math.hypot(1.2, 5), 9);
  });

  it('stops growing with the volts at the cap', () => {
    const at = (v: number) =>
      readingVariance('V', v, { ...ASSUMPTIONS, modelShare: 0.03, modelCapVolts: 0.02 }, silent);
    expect(at(0.2)).toBeLessThan(at(0.6));
    expect(at(5)).toBeCloseTo(at(14), 12);
    // Spot noise 2.5 mV and the cap of 20 mV.
    expect(Math.sqrt(at(14))).toBeCloseTo(Math.hypot(0.0025, 0.02), 9);
  });

  it('is the same for a drop whichever way round the leads are', () => {
    for (const unit of ['V', 'A'] as const)
      expect(readingVariance(unit, -3, ASSUMPTIONS)).toBe(readingVariance(unit, 3, ASSUMPTIONS));
  });
});
