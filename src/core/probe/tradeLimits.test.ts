import { describe, expect, it } from 'vitest';
import { EVERY_RIG } from '../../../tests/everyRig';
import { compileRig } from '../compile/compile';
import { motorhome } from '../rig/archetypes/motorhome';
import { BandTable } from './bands';
import { rigMeasurements } from './measurement';
import { modelSpread, reachOf } from './modelError';
import { dropLimit } from './tradeLimits';

const rig = motorhome('limits', 'Limits');

describe('drops the trade calls too much', () => {
  it('are known either way round, twice as large on 24 V, and none elsewhere', () => {
    expect(dropLimit(rig, 'alternator.output', 'chassis-bank.plus')).toBe(0.3);
    expect(dropLimit(rig, 'chassis-bank.plus', 'alternator.output')).toBe(0.3);
    expect(dropLimit(rig, 'link.chassis-stud', 'link.coach-stud')).toBe(0.2);
    expect(dropLimit(rig, 'engine.block', 'chassis-bank.minus')).toBe(0.2);
    const heavy = { ...rig, vehicles: rig.vehicles.map((v) => ({ ...v, nominalVolts: 24 as const })) };
    expect(dropLimit(heavy, 'alternator.output', 'chassis-bank.plus')).toBe(0.6);
    expect(dropLimit(rig, 'coach-bank.plus', 'frame.bay-2')).toBeUndefined();
    expect(dropLimit(rig, 'coach-negative.clamp', undefined)).toBeUndefined();
  });

  it('only make a band narrower, and leave an open contact its volts', () => {
    const table = new BandTable(compileRig(rig));
    expect(table.band('fast-idle', 'alternator.output', 'chassis-bank.plus')!.hi).toBeLessThanOrEqual(0.3);
    expect(table.band('idle-before-delay', 'link.chassis-stud', 'link.coach-stud')!.hi).toBeGreaterThan(0.5);
  });
});

describe('what the model is off by', () => {
  it('grows with what is read up to its cap, and has a floor where frame lies between the leads', () => {
    expect(modelSpread('V', 0, 'piece')).toBe(0);
    expect(modelSpread('V', 0, 'far')).toBeGreaterThan(0.01);
    for (const [a, b] of [
      [0.1, 0.2],
      [0.2, 0.6],
    ] as const)
      expect(modelSpread('V', b, 'piece')).toBeGreaterThan(modelSpread('V', a, 'piece'));
    expect(modelSpread('V', 13, 'piece')).toBe(modelSpread('V', 26, 'piece'));
    expect(modelSpread('A', -40, 'piece')).toBeCloseTo(modelSpread('A', 40, 'piece'), 12);
  });

  it.each(EVERY_RIG)('%s: what is offered as a drop over a piece is one; against the frame it is not', (_, doc) => {
    const reach = reachOf(doc);
    for (const m of rigMeasurements(doc)) {
      if ([m.red, m.black].some((k) => k?.endsWith('.middle'))) continue;
      expect(reach('idle', m.red, m.black)).toBe(m.black === undefined ? 'piece' : reach('idle', m.black, m.red));
      if (m.kind === 'drop' && !m.label.endsWith('–bolt')) expect(reach('idle', m.red, m.black), m.id).toBe('piece');
    }
    const bank = doc.parts.find((p) => p.kind === 'battery-bank')!.id;
    expect(reach('rested', `${bank}.plus`, 'frame.nowhere')).toBe('far');
    // A midpoint, whatever the black lead is on: told well at rest and under load, badly on any charger.
    for (const [state, told] of [
      ['rested', 'half'],
      ['boost-engine-off', 'half'],
      ['idle', 'half-charged'],
      ['shore', 'half-charged'],
      ['generator', 'half-charged'],
    ] as const)
      for (const black of ['frame.nowhere', `${bank}.minus`]) expect(reach(state, `${bank}.middle`, black)).toBe(told);
    expect(modelSpread('V', 6.3, 'half')).toBeLessThan(modelSpread('V', 6.3, 'far'));
    expect(modelSpread('V', 6.3, 'half-charged')).toBeGreaterThan(2 * modelSpread('V', 6.3, 'far'));
  });
});
