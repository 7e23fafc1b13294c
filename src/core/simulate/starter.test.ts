/** The limit a start is judged by, against the figures of the BCI load test as they are commonly printed (from memory). */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { motorhomeOf } from '../../../tests/motorhomes';
import { coldOil, starterOf, startLimit } from './starter';

describe('the start limit', () => {
  it.each([
    [21, 9.6],
    [16, 9.5],
    [4, 9.3],
    [-1, 9.1],
    [-18, 8.5],
  ])('at %i °C is %f V', (celsius, volts) => expect(startLimit(celsius)).toBeCloseTo(volts, 9));

  it('rises with warmth and never leaves its ends', () => {
    fc.assert(
      fc.property(fc.double({ min: -50, max: 60, noNaN: true }), (c) => {
        expect(startLimit(c)).toBeGreaterThanOrEqual(8.5);
        expect(startLimit(c)).toBeLessThanOrEqual(9.6);
        expect(startLimit(c + 0.5)).toBeGreaterThanOrEqual(startLimit(c));
      }),
    );
    expect(startLimit(-30)).toBe(8.5);
    expect(startLimit(40)).toBe(9.6);
  });

  it('asks half again of the starter at −18 °C, and nothing more above 20 °C', () => {
    expect(coldOil(-18)).toBeGreaterThan(1.5);
    expect(coldOil(-18)).toBeLessThan(1.65);
    expect(coldOil(20)).toBe(1);
    expect(coldOil(35)).toBe(1);
  });
});

describe('the starter of a rig', () => {
  it('is fed by the engine-side battery of the vehicle that has the alternator', () => {
    const rig = motorhomeOf();
    expect(starterOf(rig)!.battery).toBe('chassis-bank');
    expect(starterOf({ ...rig, parts: rig.parts.filter((p) => p.kind !== 'chassis-loads') })).toBeUndefined();
    expect(starterOf({ ...rig, parts: rig.parts.filter((p) => p.side !== 'engine') })).toBeUndefined();
  });

  it('starts above the limit of its blocks, and not below', () => {
    const check = (cranks: number, blocks: number) =>
      starterOf(motorhomeOf())!.check({ crankVolts: () => cranks, blocks } as never, 21, 7, () => 400);
    expect(check(9.7, 1)).toEqual({ t: 7, volts: 9.7, limit: 9.6, starts: true });
    expect(check(9.5, 1).starts).toBe(false);
    expect(check(18, 2)).toMatchObject({ limit: 19.2, starts: false });
    let asked = 0;
    starterOf(motorhomeOf())!.check(
      { crankVolts: (a: number) => ((asked = a), 10), blocks: 1 } as never,
      -18,
      0,
      () => 400,
    );
    expect(asked).toBeCloseTo(400 * coldOil(-18), 9);
  });
});
