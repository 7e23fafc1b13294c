/** A bench shows what a unit does: each is drawn whole and does what it is taught to do. Common practice, no source. */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../../compile/compile';
import { rigFaults } from '../../diagnose/faults';
import { RigModel } from '../../operate/settle';
import { statesOf } from '../../operate/states';
import { checkDesign } from '../../rules/check';
import { sizeRig } from '../../size/sizing';
import { stripLayout } from '../../../ui/strip/layout';
import { checkRig } from '../check';
import { benchRig, USUAL_BENCH } from './bench';
import { BENCH_UNITS, type BenchUnit } from './benchChoices';
import type { BenchChoices } from './benchSchema';

const of = (unit: BenchUnit, more: Partial<BenchChoices> = {}) => benchRig('t', 'T', { ...USUAL_BENCH, unit, ...more });
/** V lost along the clip lead from a unit to the second battery's fuse: nothing flows where nothing is lost. */
function lostToSecond(unit: BenchUnit, state: string): number {
  const compiled = compileRig(of(unit));
  const model = new RigModel(compiled);
  expect(model.settle(state).solved).toBe(true);
  const at = (key: string) => model.solver.volts[compiled.node.get(key)!]!;
  return at('unit.output') - at('second-fuse.load');
}

describe.each(BENCH_UNITS.map((u) => [u.id] as const))('a bench with %s', (unit) => {
  it.each([
    [12, 'first'],
    [12, 'second'],
    [24, 'first'],
  ] as const)('at %i V, the charger on the %s, is a sound drawing without a danger', (nominalVolts, chargerAt) => {
    const rig = of(unit, { nominalVolts, chargerAt });
    expect(checkRig(rig)).toEqual([]);
    expect(() => stripLayout(rig)).not.toThrow();
    const model = new RigModel(compileRig(rig));
    for (const { id } of statesOf(rig)) expect(model.settle(id).solved, id).toBe(true);
    expect(
      checkDesign(rig, sizeRig(rig, []))
        .filter((f) => f.severity === 'danger')
        .map((f) => f.says),
    ).toEqual([]);
    expect(rigFaults(rig).length).toBeGreaterThan(10);
  });
});

describe('on a bench', () => {
  it('a charger gives with its key clip live, and nothing without', () => {
    expect(lostToSecond('dcdc', 'key-on')).toBeGreaterThan(0.05);
    expect(Math.abs(lostToSecond('dcdc', 'rested'))).toBeLessThan(0.002);
  });

  it('a one-way module closes for the charger on 1, not on 2; a two-way one for either', () => {
    const closes = (unit: BenchUnit, chargerAt: 'first' | 'second') => {
      const rig = of(unit, { chargerAt });
      return new RigModel(compileRig(rig)).settle('shore').modes['link']?.mode === 'closed';
    };
    expect(closes('one-way', 'first')).toBe(true);
    expect(closes('one-way', 'second')).toBe(false);
    expect(closes('two-way', 'first')).toBe(true);
    expect(closes('two-way', 'second')).toBe(true);
  });

  it('a delay module closes by its key clip alone, whatever charges', () => {
    const mode = (state: string) => new RigModel(compileRig(of('delay'))).settle(state).modes['link']?.mode;
    expect(mode('key-on')).toBe('closed');
    expect(mode('shore')).not.toBe('closed');
  });
});
