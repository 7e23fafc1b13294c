/** Whether an engine would start: what the starter takes in the cold, and the volts it is left with. */
import { describe, expect, it } from 'vitest';
import { motorhomeOf } from '../../../tests/motorhomes';
import { coldOil, NO_START_VOLTS, starterOf } from './starter';

describe('a starter', () => {
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
      starterOf(motorhomeOf())!.check({ crankVolts: () => cranks, blocks } as never, 21, 7, 'now', () => 400);
    expect(check(8.6, 1)).toEqual({ t: 7, when: 'now', volts: 8.6, limit: NO_START_VOLTS, starts: true });
    expect(check(8.4, 1).starts).toBe(false);
    expect(check(16, 2)).toMatchObject({ limit: 17, starts: false });
    // What a straight line makes of a flat battery is no volts.
    expect(check(-22, 1)).toMatchObject({ volts: 0, starts: false });
    let asked = 0;
    starterOf(motorhomeOf())!.check(
      { crankVolts: (a: number) => ((asked = a), 10), blocks: 1 } as never,
      -18,
      0,
      'now',
      () => 400,
    );
    expect(asked).toBeCloseTo(400 * coldOil(-18), 9);
  });
});
