import { describe, expect, it } from 'vitest';
import { SPOT_NOISE_VOLTS, USUAL_METER } from '../probe/meter';
import { ASSUMPTIONS } from './assumptions';
import { blunderDensity, heavyTailed, readingVariance, unknownDensity } from './likelihood';

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
      expect(integral(-0.5, 16.5, 0.0005, (v) => blunderDensity('V', v, -9, neighbours, ASSUMPTIONS))).toBeCloseTo(
        1,
        2,
      );
  });

  it('adds up to one without neighbours', () => {
    expect(integral(-0.5, 16.5, 0.0005, (v) => blunderDensity('V', v, -9, [], ASSUMPTIONS))).toBeCloseTo(1, 2);
  });

  it('adds up to one over the range of a clamp', () => {
    expect(integral(-200, 200, 0.005, (a) => blunderDensity('A', a, 26, [], ASSUMPTIONS))).toBeCloseTo(1, 2);
  });

  it('is greatest where a lead that does not touch reads, and beside a neighbour', () => {
    const at = (v: number) => blunderDensity('V', v, 9, [12.6], ASSUMPTIONS);
    expect(at(0)).toBeGreaterThan(at(12.6));
    expect(at(12.6)).toBeGreaterThan(20 * at(12.2));
    expect(at(12.61)).toBeCloseTo(at(12.59), 9);
  });

  it('has a spike where leads or clamp were the wrong way round', () => {
    const volts = (v: number) => blunderDensity('V', v, 0.4, [12.6], ASSUMPTIONS);
    expect(volts(-0.4)).toBeGreaterThan(20 * volts(-0.8));
    const amps = (a: number) => blunderDensity('A', a, 40, [], ASSUMPTIONS);
    expect(amps(-40)).toBeGreaterThan(5 * amps(-80));
    expect(amps(-40)).toBeGreaterThan(5 * amps(20));
  });

  it('weighs each neighbour alike: two of them halve the spike of one', () => {
    const floor = blunderDensity('V', 6, 9, [12.6], ASSUMPTIONS);
    const one = blunderDensity('V', 12.6, 9, [12.6], ASSUMPTIONS) - floor;
    const two = blunderDensity('V', 12.6, 9, [12.6, 9], ASSUMPTIONS) - floor;
    expect(two / one).toBeCloseTo(0.5, 6);
  });
});

describe('how far a reading may be from the model', () => {
  const silent = { ...USUAL_METER, voltNoise: 0, ampShare: 0, ampFloor: 0 };
  const still = { ...ASSUMPTIONS, loadsStrayAmps: 0, modelFloorVolts: 0 };
  it('is the model’s share of the amps where the clamp is perfect and no load comes or goes', () => {
    const sd = Math.sqrt(readingVariance('A', 80, { ...still, modelShareAmps: 0.05 }, silent));
    expect(sd).toBeCloseTo(4, 9);
  });

  it('adds the clamp’s own error, and what loads do, as squares, not as amps', () => {
    // Its own 0.1 A + 1 % at 100 A is 1.1 A, the zero being one number of the round; with 5 A of model and 0.3 A of loads
    // √(1.1² + 5² + 0.3²).
    const sd = Math.sqrt(readingVariance('A', 100, { ...still, modelShareAmps: 0.05, loadsStrayAmps: 0.3 }));
    expect(sd).toBeCloseTo(Math.hypot(1.1, 5, 0.3), 9);
  });

  it('stops growing with the volts at the cap', () => {
    const at = (v: number) => readingVariance('V', v, { ...still, modelShare: 0.03, modelCapVolts: 0.02 }, silent);
    expect(at(0.2)).toBeLessThan(at(0.6));
    expect(Math.sqrt(at(12))).toBeCloseTo(Math.hypot(0.02, SPOT_NOISE_VOLTS), 9);
    expect(at(14)).toBe(at(12));
  });

  it('has a floor where frame and wire lie between the leads, and none across one piece', () => {
    const far = readingVariance('V', 0, { ...still, modelFloorVolts: 0.01 }, silent, 'far');
    const piece = readingVariance('V', 0, { ...still, modelFloorVolts: 0.01 }, silent, 'piece');
    expect(far - piece).toBeCloseTo(0.0001, 12);
  });
});

describe('a good reading', () => {
  it('has a density that adds up to one, with tails a Gaussian has not', () => {
    const at = (x: number) => heavyTailed(x, 0.04).density;
    expect(integral(-40, 40, 0.001, at)).toBeCloseTo(1, 4);
    const gauss = (x: number) => Math.exp(-(x * x) / 0.08) / Math.sqrt(2 * Math.PI * 0.04);
    expect(at(1.2)).toBeGreaterThan(100 * gauss(1.2));
    expect(at(0.1)).toBeLessThan(gauss(0.1));
  });

  it('keeps all its weight near the prediction and ever less further off', () => {
    const weight = (x: number) => heavyTailed(x, 1).weight;
    expect(weight(0.5)).toBe(1);
    for (const x of [1.5, 2, 4, 8]) expect(weight(2 * x)).toBeLessThan(weight(x));
  });
});

describe('a reading that something unknown has moved', () => {
  it('adds up to one, and thins out away from where a sound rig has it', () => {
    for (const unit of ['V', 'A'] as const) {
      expect(integral(-20_000, 20_000, 0.05, (x) => unknownDensity(unit, x))).toBeCloseTo(1, 2);
      for (const x of [0.1, 1, 5]) expect(unknownDensity(unit, 2 * x)).toBeLessThan(unknownDensity(unit, x));
    }
  });
});
