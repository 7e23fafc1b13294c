/** Facts of the trade the model must meet. Each is common practice, no source, unless it says otherwise. */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../../src/core/compile/compile';
import { RigModel } from '../../src/core/operate/settle';
import { chemistryOf, restVolts } from '../../src/core/parts/chemistry';
import { BandTable } from '../../src/core/probe/bands';
import { rigFaults } from '../../src/core/diagnose/faults';
import { readOutputs, rigOutputs } from '../../src/core/probe/outputs';
import { motorhome } from '../../src/core/rig/archetypes/motorhome';

describe('flooded lead-acid at rest', () => {
  it.each([
    [1, 12.65, 12.75],
    [0.75, 12.4, 12.5],
    [0.5, 12.15, 12.25],
    [0.25, 11.98, 12.08],
    [0, 11.4, 11.9],
  ])('at %d of full reads %d to %d V (common practice, no source)', (soc, lo, hi) => {
    expect(restVolts(soc)).toBeGreaterThanOrEqual(lo);
    expect(restVolts(soc)).toBeLessThanOrEqual(hi);
  });

  it('rises with charge', () => {
    for (let s = 0; s < 1; s += 0.01) expect(restVolts(s + 0.01)).toBeGreaterThan(restVolts(s));
  });
});

describe('the link under way', () => {
  const read = (edit: (rig: ReturnType<typeof motorhome>) => void) => {
    const rig = structuredClone(motorhome('fact', 'Fact coach'));
    edit(rig);
    const compiled = compileRig(rig);
    const model = new RigModel(compiled);
    model.settle('idle');
    const outputs = rigOutputs(compiled);
    const values = new Float64Array(outputs.length);
    readOutputs(model, outputs, values);
    return Object.fromEntries(outputs.map((o, i) => [o.key, values[i]!])) as Record<string, number>;
  };

  it('into a half-empty 225 Ah golf-cart bank carries 50 to 80 A some minutes in (common practice, no source)', () => {
    const at = read((rig) => {
      const bank = rig.parts.find((p) => p.id === 'coach-bank')!;
      bank.params['capacity']!.value = 225;
      bank.params['soc']!.value = 0.5;
      rig.parts.find((p) => p.id === 'alternator')!.params['idleLimit']!.value = 200;
    });
    expect(at['link-cable.clamp']!).toBeGreaterThan(45);
    expect(at['link-cable.clamp']!).toBeLessThan(80);
  });
});

describe('other chemistries at rest (common practice, no source)', () => {
  it('AGM stands 0.1 to 0.15 V above flooded, LFP flat at 13.0 to 13.35 V over its middle', () => {
    for (const soc of [0.25, 0.5, 0.75, 1]) {
      const above = restVolts(soc, chemistryOf('agm')) - restVolts(soc, chemistryOf('flooded'));
      expect(above).toBeGreaterThanOrEqual(0.1);
      expect(above).toBeLessThanOrEqual(0.15);
    }
    for (const soc of [0.2, 0.5, 0.9]) {
      expect(restVolts(soc, chemistryOf('lfp'))).toBeGreaterThanOrEqual(12.98);
      expect(restVolts(soc, chemistryOf('lfp'))).toBeLessThanOrEqual(13.35);
    }
  });
});

describe('drop and parasitic rules on a healthy rig (common practice, no source)', () => {
  const compiled = compileRig(motorhome('fact', 'Fact coach'));
  const table = new BandTable(compiled);

  it('output stud to battery + stays under 0.3 V, block to battery – under 0.2 V', () => {
    expect(table.band('fast-idle', 'alternator.output', 'chassis-bank.plus')!.hi).toBeLessThanOrEqual(0.3);
    expect(Math.abs(table.band('fast-idle', 'engine.block', 'chassis-bank.minus')!.lo)).toBeLessThanOrEqual(0.2);
  });

  it('a sound contact drops under 0.1 to 0.2 V at its working current', () => {
    expect(table.band('idle', 'link.chassis-stud', 'link.coach-stud')!.hi).toBeLessThan(0.2);
  });

  it('asleep, the start battery gives about 0.07 A or less, and a parasitic load is one a shop would look for', () => {
    const clamp = 'chassis-negative.clamp';
    expect(Math.abs(table.band('rested', clamp)!.nominal)).toBeLessThanOrEqual(0.07);
    const parasitic = rigFaults(compiled.rig).find((f) => f.id === 'chassis-loads.parasitic')!;
    const model = new RigModel(compiled);
    const outputs = rigOutputs(compiled);
    const values = new Float64Array(outputs.length);
    const amps = (severity: number) => {
      model.settle('rested', { effects: parasitic.effects, severity });
      readOutputs(model, outputs, values);
      return Math.abs(values[outputs.findIndex((o) => o.key === clamp)]!);
    };
    // Over 85 mA is looked for by every maker's guide; over 5 A a cable or a lamp tells without a meter.
    expect(amps(0)).toBeGreaterThan(0.085);
    expect(amps(1)).toBeLessThan(5);
  });
});
