import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { RigModel } from '../operate/settle';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import type { Rig } from '../rig/schema';
import type { Scenario } from '../simulate/scenarioSchema';
import { simulate } from '../simulate/simulate';
import { chargerSize, CHARGER_SIZES } from './chargerSize';
import { feedOf } from './lockouts';

const rigOf = (capacity: number, chemistry: 'flooded' | 'lfp' = 'flooded', alternatorAmps = 160): Rig =>
  coupledRig('t', 'T', {
    ...USUAL_COUPLED.trailer,
    link: 'dcdc',
    dcdcAmps: 40,
    alternatorAmps,
    behind: { chemistry, layout: 'single', capacity },
  });
const drive = (hours: number, soc = 0.5): Scenario[] => [
  {
    id: 'd',
    name: 'D',
    startHour: 8,
    startSoc: { 'coach-bank': soc },
    legs: [{ id: 'l', name: 'L', kind: 'drive', hours, celsius: 25, sunHours: 0, loads: [] }],
  },
];
const size = (rig: Rig, scenarios: Scenario[], ohms = 0.01, upfit?: number) =>
  chargerSize(
    rig,
    rig.parts.find((p) => p.id === 'dcdc')!,
    scenarios,
    { volts: 13.8, ohms },
    upfit,
  )!;

describe('the size of a charger', () => {
  it('asks more the bigger and flatter the bank, and the shorter the drive', () => {
    expect(size(rigOf(400), drive(5)).asks).toBeGreaterThan(size(rigOf(200), drive(5)).asks);
    expect(size(rigOf(200), drive(3)).asks).toBeGreaterThan(size(rigOf(200), drive(6)).asks);
    expect(size(rigOf(200), drive(5, 0.2)).asks).toBeGreaterThan(size(rigOf(200), drive(5, 0.4)).asks);
    // A full bank today does not make a small charger right.
    expect(size(rigOf(200), drive(5, 0.95)).asks).toBe(size(rigOf(200), drive(5, 0.5)).asks);
  });
  it('is one that is sold, never over what bank, alternator, upfit limit or cable allow', () => {
    for (const ah of [50, 100, 200, 400])
      for (const amps of [60, 120, 200])
        for (const ohms of [0.005, 0.03, 0.1])
          for (const upfit of [undefined, 30]) {
            const s = size(rigOf(ah, 'lfp', amps), drive(4), ohms, upfit);
            expect(CHARGER_SIZES).toContain(s.pick);
            for (const b of s.bounds) if (b.amps >= CHARGER_SIZES[0]) expect(s.pick, b.id).toBeLessThanOrEqual(b.amps);
            if (s.bounds.every((b) => b.amps >= s.asks * 1.5)) expect(s.pick).toBeGreaterThanOrEqual(s.asks);
          }
  });
  it('40 A into 400 Ah takes about ten hours (common practice, no source)', () => {
    // From empty by half to nearly full: what is asked in ten hours is what such a charger gives.
    expect(size(rigOf(400, 'lfp'), drive(10, 0)).asks).toBeGreaterThan(33);
    expect(size(rigOf(400, 'lfp'), drive(10, 0)).asks).toBeLessThan(44);
  });
  it('what it picks brings the bank about there, in the simulation', () => {
    const rig = rigOf(200, 'lfp');
    const s = size(rig, drive(5, 0.4), 0.008);
    const fitted: Rig = {
      ...rig,
      parts: rig.parts.map((p) =>
        p.id === 'dcdc'
          ? {
              ...p,
              params: {
                ...p.params,
                limit: { value: s.pick, spread: 0, provenance: 'nameplate' as const },
                inLimit: { value: s.pick * 1.6, spread: 0, provenance: 'nameplate' as const },
              },
            }
          : p,
      ),
    };
    const end = simulate(compileRig(fitted), drive(5, 0.4)[0]!).summary.batteries.find(
      (b) => b.part === 'coach-bank',
    )!.endSoc;
    expect(end).toBeGreaterThan(0.85);
  });
  it('asks no feed for more than it can give: what it allows does not lock out, in the whole rig', () => {
    for (const dcdcAmps of [18, 25]) {
      const rig = coupledRig('t', 'T', { ...USUAL_COUPLED['trailer-48'], dcdcAmps });
      const model = new RigModel(compileRig(rig));
      const dcdc = rig.parts.find((p) => p.id === 'dcdc')!;
      const s = chargerSize(rig, dcdc, drive(1.5, 0.2), feedOf(model, dcdc))!;
      expect(s.bounds.find((b) => b.id === 'cable')!.amps).toBeLessThan(dcdcAmps);
      const fitted: Rig = {
        ...rig,
        parts: rig.parts.map((p) =>
          p.id === 'dcdc'
            ? { ...p, params: { ...p.params, limit: { value: s.pick, spread: 0, provenance: 'nameplate' as const } } }
            : p,
        ),
      };
      expect(new RigModel(compileRig(fitted)).settle('idle').modes['dcdc']!.mode).toBe('bulk');
    }
  });
});
