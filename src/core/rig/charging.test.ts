import { describe, expect, it } from 'vitest';
import { coupledRig, USUAL_COUPLED } from './archetypes/coupled';
import { motorhome, USUAL_MOTORHOME } from './archetypes/motorhome';
import { chargersOnAlternator, mostTaken } from './charging';
import { compileRig } from '../compile/compile';
import { CURRENT } from '../circuit/devices';
import { RigModel } from '../operate/settle';

describe('what chargers ask of an alternator', () => {
  it('is a quarter to a half more than they give, whatever is printed as their input limit (common practice)', () => {
    for (const dcdcAmps of [12, 20, 40, 60]) {
      const rig = motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'dcdc', dcdcAmps });
      const charger = rig.parts.find((p) => p.id === 'dcdc')!;
      const lax = { ...charger, params: { ...charger.params, inLimit: { ...charger.params['inLimit']!, value: 400 } } };
      expect(mostTaken(lax) / dcdcAmps).toBeGreaterThan(1.25);
      expect(mostTaken(lax) / dcdcAmps).toBeLessThan(1.5);
      const strict = {
        ...charger,
        params: { ...charger.params, inLimit: { ...charger.params['inLimit']!, value: 10 } },
      };
      expect(mostTaken(strict)).toBe(10);
    }
  });

  it('is no less than the network takes where it idles', () => {
    const rig = motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'dcdc', dcdcAmps: 40 });
    const compiled = compileRig(rig);
    const model = new RigModel(compiled);
    model.settle('idle');
    const taken = CURRENT.amps.get(model.values, compiled.converters.find((c) => c.part === 'dcdc')!.inPort);
    expect(taken).toBeGreaterThan(20);
    expect(mostTaken(rig.parts.find((p) => p.id === 'dcdc')!)).toBeGreaterThanOrEqual(taken);
  });

  it('does not add up through a battery: one behind another charger asks nothing of it', () => {
    const chained = coupledRig('t', 'T', USUAL_COUPLED['second-battery']);
    const all = chained.parts.filter((p) => p.kind === 'dcdc-charger');
    expect(all.length).toBe(2);
    expect(chargersOnAlternator(chained).length).toBe(1);
    const own = coupledRig('t', 'T', { ...USUAL_COUPLED['second-battery'], link: 'dcdc' });
    expect(chargersOnAlternator(own).length).toBe(2);
  });
});
