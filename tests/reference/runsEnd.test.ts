/**
 * No run without an end: whatever the rig and however it is used, a simulation answers, with what it has where
 * something switches without rest. A sample here; ten thousand in `./surrik trials runs`.
 */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../../src/core/compile/compile';
import { coupledRig, USUAL_COUPLED } from '../../src/core/rig/archetypes/coupled';
import { partsWith } from '../../src/core/rig/value';
import { LOAD_IDS } from '../../src/core/simulate/loadTable';
import type { Leg, Scenario } from '../../src/core/simulate/scenarioSchema';
import { simulate, Simulation } from '../../src/core/simulate/simulate';
import { randomRun } from '../randomUse';

/** Of what one may take; a usual trip takes a few thousand. */
const HARD_ROUNDS = 1_000_000;

const leg = (kind: Leg['kind'], hours: number, more: Partial<Leg> = {}): Leg => ({
  id: `${kind}-${hours}`,
  name: kind,
  kind,
  hours,
  celsius: -2,
  sunHours: 0,
  loads: [],
  ...more,
});
const use = (...legs: Leg[]): Scenario => ({ id: 'use', name: 'Use', startHour: 8, legs });

/**
 * Seeds that had no end: a relay whose load takes away what holds it, steps halved for ever, a flat battery before a
 * charger, chained chargers that never do the same twice.
 */
const HAD_NO_END = [78, 263, 299, 763, 1080, 1163, 1804];

describe('a run', () => {
  it.each(HAD_NO_END)('of seed %i comes to its end, and its books balance', (seed) => {
    const { rig, use: told } = randomRun(seed);
    const { summary } = simulate(compileRig(rig), told, { series: false });
    expect(summary.ranOutAt).toBeUndefined();
    for (const b of summary.batteries) {
      expect(b.endSoc).toBeGreaterThanOrEqual(0);
      expect(b.endSoc).toBeLessThanOrEqual(1);
    }
    // A flat battery that never settles is the hardest to keep the books of.
    expect(summary.balance.charge).toBeLessThan(0.01);
  });

  it('of any rig and use ends, within what it may take', () => {
    let most = 0;
    for (let seed = 50_000; seed < 50_080; seed++) {
      const { rig, use: told } = randomRun(seed);
      const compiled = compileRig(rig);
      const result = simulate(compiled, told, { series: false });
      expect(result.summary.legEnds, `seed ${seed}`).toHaveLength(told.legs.length);
      expect(result.summary.hours).toBeCloseTo(
        told.legs.reduce((sum, l) => sum + l.hours, 0),
        6,
      );
      most = Math.max(most, result.solves);
    }
    expect(most).toBeLessThan(HARD_ROUNDS);
  });

  it('of a towed car with a lithium battery in the frost, with panels and a fridge, twelve hours on the road', () => {
    const rig = coupledRig('t', 'T', {
      ...USUAL_COUPLED['towed-car'],
      link: 'dcdc-pin',
      behind: { chemistry: 'lfp', layout: 'single', capacity: 50 },
      solar: true,
      fridge: true,
    });
    const told = use(leg('drive', 12, { idleShare: 0.2, sunHours: 3, fridgeOnBattery: true }));
    const { summary } = simulate(compileRig(rig), told, { series: false });
    expect(summary.ranOutAt).toBeUndefined();
  });

  it('of a chained van with everything on in the frost', () => {
    const rig = coupledRig('t', 'T', USUAL_COUPLED['second-battery']);
    const told = use(leg('drive', 12, { idleShare: 0.5, fridgeOnBattery: true, loads: [...LOAD_IDS] }));
    const { summary } = simulate(compileRig(rig), told, { series: false });
    expect(summary.ranOutAt).toBeUndefined();
  });

  it.each([6120, 6917, 7239])('of seed %i whose network finds no rest on the way tells what came before', (seed) => {
    const { rig, use: told } = randomRun(seed);
    const { summary, events } = simulate(compileRig(rig), told, { series: false });
    expect(summary.ranOutAt).toBeGreaterThan(0);
    expect(events.findLast((e) => e.kind === 'limit')!.why).toContain('no operating point');
  });

  it('out of its budget answers with what it has and says so', () => {
    const { rig, use: told } = randomRun(78);
    const compiled = compileRig(rig);
    const result = new Simulation(compiled, told, { budget: 20_000 }).run();
    const whole = told.legs.reduce((sum, l) => sum + l.hours, 0);
    expect(result.summary.ranOutAt).toBeGreaterThan(0);
    expect(result.summary.ranOutAt).toBeLessThan(whole);
    expect(result.t[result.t.length - 1]! / 3600).toBeCloseTo(result.summary.ranOutAt!, 6);
    expect(result.summary.legEnds).toHaveLength(told.legs.length);
    expect(result.summary.batteries).toHaveLength(partsWith(rig, 'battery').length);
    const last = result.events.findLast((e) => e.kind === 'limit')!;
    expect(last.what).toMatch(/simulation ends here, [\d.]+ h in/);
    expect(last.why).toContain('Isolator switches on and off without rest');
  });
});
