import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { RigModel } from '../operate/settle';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import type { CoupledChoices } from '../rig/archetypes/coupledSchema';
import { motorhome, USUAL_MOTORHOME } from '../rig/archetypes/motorhome';
import type { Rig } from '../rig/schema';
import { wireResistance } from '../units/wire';
import { feedOf, lockoutsOf } from './lockouts';

const clinic = (more: Partial<CoupledChoices> = {}): Rig =>
  coupledRig('t', 'T', { ...USUAL_COUPLED['trailer-48'], ...more });
const dcdc = (rig: Rig) => rig.parts.find((p) => p.id === 'dcdc')!;
const of = (rig: Rig) => lockoutsOf(compileRig(rig)).find((l) => l.part === 'dcdc')!;
const set = (rig: Rig, to: Record<string, number>): Rig => ({
  ...rig,
  parts: rig.parts.map((p) =>
    p.id === 'dcdc'
      ? {
          ...p,
          params: {
            ...p.params,
            ...Object.fromEntries(
              Object.entries(to).map(([k, value]) => [k, { value, spread: 0, provenance: 'nameplate' as const }]),
            ),
          },
        }
      : p,
  ),
});

describe('the loop that feeds a charger', () => {
  it('is the ohms of every piece from the post out and back', () => {
    const rig = clinic();
    const { battery, loopOhms: ohms, ohms: whole } = feedOf(new RigModel(compileRig(rig)), dcdc(rig));
    expect(whole).toBeGreaterThan(ohms);
    expect(battery?.id).toBe('chassis-bank');
    const ids = ['fuse-lead', 'line', 'plug-line', 'line-return', 'plug-return', 'dcdc-ground', 'chassis-negative'];
    const copper = rig.conductors
      .filter((c) => ids.includes(c.id))
      .reduce((sum, c) => sum + wireResistance(c.gauge, c.length) + c.joints.value, 0);
    const inline =
      rig.parts.find((p) => p.id === 'link-fuse')!.params['element']!.value +
      ['pin', 'groundPin'].reduce((sum, k) => sum + rig.parts.find((p) => p.id === 'connector')!.params[k]!.value, 0);
    // What the brake battery and the battery's own negative carry beside it moves it a little.
    expect(ohms).toBeGreaterThan(0.9 * (copper + inline));
    expect(ohms).toBeLessThan(1.1 * (copper + inline));
  });
  it('of a chained charger begins at the battery that feeds it', () => {
    const rig = coupledRig('t', 'T', USUAL_COUPLED['second-battery']);
    expect(feedOf(new RigModel(compileRig(rig)), dcdc(rig)).battery?.id).toBe('accessory-bank');
  });
});

describe('an input lockout', () => {
  it('starves the more, the more the charger gives and the thinner its line', () => {
    const shares = [8, 12, 15, 20].map((dcdcAmps) => of(clinic({ dcdcAmps })).starved);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    const thin: Rig = {
      ...clinic({ dcdcAmps: 15 }),
      conductors: clinic({ dcdcAmps: 15 }).conductors.map((c) =>
        c.id === 'line' || c.id === 'line-return' ? { ...c, gauge: '4' as const } : c,
      ),
    };
    expect(of(thin).starved).toBeGreaterThan(of(clinic({ dcdcAmps: 15 })).starved);
    expect(of(thin).loopOhms).toBeGreaterThan(of(clinic({ dcdcAmps: 15 })).loopOhms);
  });

  it('with what is proposed it holds, and never under 11 V', () => {
    const rig = clinic({ dcdcAmps: 14 });
    const before = of(rig);
    expect(before.verdict).toBe('may lock out');
    expect(before.wants!.lockout).toBeGreaterThanOrEqual(11);
    expect(before.wants!.restart).toBeGreaterThan(before.wants!.lockout);
    expect(before.wants!.restart).toBeLessThan(before.before.lo);
    const after = of(set(rig, before.wants!));
    expect(after.verdict).toBe('holds');
    expect(after.starved).toBeLessThan(before.starved);
  });

  it('what is healthy by it does not hunt when settled with the same assumptions, what is not does', () => {
    const share = (rig: Rig) => {
      const compiled = compileRig(rig);
      const model = new RigModel(compiled);
      const l = of(rig);
      model.settle('idle');
      return { starved: l.starved, runs: !/locked-out|recovering/.test(model.settle('idle').modes['dcdc']!.mode) };
    };
    expect(share(clinic({ dcdcAmps: 8 }))).toMatchObject({ starved: 0, runs: true });
    expect(share(clinic({ dcdcAmps: 25 }))).toMatchObject({ runs: false });
    expect(share(clinic({ dcdcAmps: 25 })).starved).toBeGreaterThan(50);
  });

  it('is no remedy where the battery that feeds it is drawn on: chained chargers (common practice, no source)', () => {
    const l = of(coupledRig('t', 'T', USUAL_COUPLED['second-battery']));
    expect(l).toMatchObject({ verdict: 'more than its feed gives' });
    expect(l.wants).toBeUndefined();
    expect(l.says).toContain('Accessory');
  });

  it('is not touched where it alone spares the battery, and not looked at where volts enable', () => {
    expect(lockoutsOf(compileRig(clinic({ enable: 'always' })))).toEqual([]);
    expect(lockoutsOf(compileRig(clinic({ enable: 'volts' })))).toEqual([]);
    expect(lockoutsOf(compileRig(motorhome('t', 'T', USUAL_MOTORHOME)))).toEqual([]);
  });
});
