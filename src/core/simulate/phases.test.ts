/** Legs to phases, loads to amps, the sun over a day. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LOADS, loadAmps } from './loadTable';
import { phasesOf, sunShare } from './phases';
import type { Leg, Scenario } from './scenarioSchema';

const leg = (more: Partial<Leg> = {}): Leg => ({
  id: 'leg',
  name: 'Leg',
  kind: 'drive',
  hours: 3,
  celsius: 15,
  sunHours: 4,
  loads: [],
  ...more,
});
const use = (...legs: Leg[]): Scenario => ({ id: 's', name: 'S', startHour: 8, legs });

describe('phases', () => {
  it('fill the whole use without a gap, in order, whatever the legs', () => {
    const anyLeg = fc.record({
      id: fc.constant('l'),
      name: fc.constant('L'),
      kind: fc.constantFrom('drive', 'idle', 'stand', 'shore', 'generator'),
      hours: fc.double({ min: 0.05, max: 30, noNaN: true }),
      idleShare: fc.double({ min: 0, max: 1, noNaN: true }),
      celsius: fc.integer({ min: -30, max: 45 }),
      sunHours: fc.constant(3),
      loads: fc.constant([]),
    });
    fc.assert(
      fc.property(fc.array(anyLeg, { minLength: 1, maxLength: 8 }), (legs) => {
        const phases = phasesOf(use(...(legs as unknown as Leg[])), 12);
        let t = 0;
        phases.forEach((p) => {
          expect(p.from).toBeCloseTo(t, 6);
          expect(p.to).toBeGreaterThan(p.from);
          t = p.to;
        });
        expect(t).toBeCloseTo(legs.reduce((s, l) => s + l.hours, 0) * 3600, 4);
        legs.forEach((l, i) => {
          const own = phases.filter((p) => p.leg === i);
          expect(own.filter((p) => p.first)).toHaveLength(1);
          const idle = own.filter((p) => p.inputs.engine === 'idle').reduce((s, p) => s + p.to - p.from, 0);
          const wanted = l.kind === 'drive' ? l.idleShare : l.kind === 'idle' ? 1 : 0;
          expect(idle / (l.hours * 3600)).toBeCloseTo(wanted, 3);
        });
      }),
      { numRuns: 60 },
    );
  });

  it('alternate road and idle within the hour, so that a long drive has no long stop', () => {
    const phases = phasesOf(use(leg({ hours: 4, idleShare: 0.25 })), 12);
    expect(phases).toHaveLength(8);
    expect(Math.max(...phases.filter((p) => p.inputs.engine === 'idle').map((p) => p.to - p.from))).toBeCloseTo(900, 6);
  });

  it('carry what the leg says of the rig', () => {
    const [p] = phasesOf(
      use(leg({ kind: 'shore', disconnectOpen: true, uncoupled: true, boostWedged: true, lampsOn: true, moreAmps: 2 })),
      24,
    );
    expect(p!.inputs).toMatchObject({
      engine: 'off',
      key: false,
      shore: true,
      generator: false,
      disconnect: false,
      coupled: false,
      boost: true,
      lamps: true,
      leg: { celsius: 15, houseAmps: 2, housePeakAmps: 2, fridgeOnBattery: false, held: false },
    });
    expect(phasesOf(use(leg({ kind: 'generator' })), 12)[0]!.inputs).toMatchObject({ generator: true, shore: false });
    expect(phasesOf(use(leg()), 12)[0]!.inputs).toMatchObject({ key: true, engine: 'road', disconnect: true });
  });
});

describe('the sun', () => {
  it('gives the hours that are stated, from six to six, most at noon', () => {
    for (const hours of [1, 4.5, 9]) {
      let sum = 0;
      for (let h = 0; h < 24; h += 0.01) sum += sunShare(h, hours) * 0.01;
      expect(sum).toBeCloseTo(hours, 2);
      expect(sunShare(12, hours)).toBeGreaterThan(sunShare(9, hours));
    }
    expect(sunShare(6, 5)).toBe(0);
    expect(sunShare(18, 5)).toBe(0);
    expect(sunShare(-12, 5)).toBeCloseTo(sunShare(12, 5), 12);
    expect(sunShare(9, 5)).toBeCloseTo(sunShare(15, 5), 12);
  });
});

describe('loads', () => {
  it('add up in watts, and fall as amps with the volts of the rig', () => {
    const ids = LOADS.map((l) => l.id);
    for (const celsius of [-10, 20, 35]) {
      const all = loadAmps(ids, celsius, 12);
      const each = ids.map((id) => loadAmps([id], celsius, 12));
      expect(all.mean).toBeCloseTo(
        each.reduce((s, x) => s + x.mean, 0),
        9,
      );
      expect(loadAmps(ids, celsius, 48).mean).toBeCloseTo(all.mean / 4, 9);
      expect(all.most).toBeGreaterThanOrEqual(all.mean);
    }
  });

  it('of cold and heat go the right way, and never under nothing or over always', () => {
    fc.assert(
      fc.property(fc.integer({ min: -40, max: 55 }), fc.constantFrom(...LOADS), (celsius, load) => {
        expect(load.duty(celsius)).toBeGreaterThanOrEqual(0);
        expect(load.duty(celsius)).toBeLessThanOrEqual(1);
      }),
    );
    const duty = (id: string, c: number) => LOADS.find((l) => l.id === id)!.duty(c);
    expect(duty('furnace-fan', 18)).toBe(0);
    expect(duty('furnace-fan', -10)).toBeGreaterThan(0.9 - 1e-9);
    expect(duty('fridge-compressor', 35)).toBeGreaterThan(duty('fridge-compressor', 20));
    expect(loadAmps(['furnace-fan'], 30, 12)).toEqual({ mean: 0, most: 0 });
  });

  it('nobody knows are refused by name', () => expect(() => loadAmps(['anvil'], 20, 12)).toThrow(/anvil/));
});
