import { describe, expect, it } from 'vitest';
import { partKind } from '../parts/kinds';
import { motorhome, USUAL_MOTORHOME } from '../rig/archetypes/motorhome';
import { rigFaults } from './faults';

const rigOf = (nominalVolts: 12 | 24) =>
  motorhome('test', 'Test coach', { ...USUAL_MOTORHOME, nominalVolts, link: 'bidirectional' });

describe('the faults of a 24 V coach', () => {
  const [at12, at24] = [12, 24].map((v) => rigFaults(rigOf(v as 12 | 24))) as [
    ReturnType<typeof rigFaults>,
    ReturnType<typeof rigFaults>,
  ];

  it('are those of a 12 V one', () => {
    expect(at24.map((f) => f.id)).toEqual(at12.map((f) => f.id));
  });

  it('shift volts twice as far, and nothing else', () => {
    const rig = rigOf(12);
    const kinds = new Map(rig.parts.map((p) => [p.id, partKind(p.kind)]));
    const [volts, others] = [new Set<string>(), new Set<string>()];
    at12.forEach((fault, i) =>
      fault.effects.forEach((effect, k) => {
        if (!('from' in effect) || !('to' in effect)) return;
        const twin = at24[i]!.effects[k] as typeof effect;
        const [part, param] = effect.do === 'shift-param' ? effect.param.split('.') : [];
        const inVolts = effect.do === 'shift-volts' || kinds.get(part ?? '')?.params[param!]?.unit === 'V';
        (inVolts ? volts : others).add(fault.id);
        expect([twin.from, twin.to], fault.id).toEqual(
          [effect.from, effect.to].map((x) => (inVolts ? 2 * (x as number) : x)),
        );
      }),
    );
    expect(volts.size).toBeGreaterThan(0);
    expect(others.size).toBeGreaterThan(0);
  });
});
