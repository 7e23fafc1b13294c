/** What a fuse has to break: at the volts of the bank that feeds it, into what that bank can push. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { motorhomeOf } from '../../../tests/motorhomes';
import { fuseKind, FUSE_KINDS, interruptsAt } from '../parts/fuses';
import { nominalOf } from '../parts/kinds';
import { withPart } from '../rig/applyEdit';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import type { Rig } from '../rig/schema';
import { RULE_SETS } from '../codes';
import { chargingVolts, fuseChecks, mostFaultAmps } from './fuseChecks';

const nothing = new Map<string, never>();
const interrupts = (rig: Rig, part = 'link-fuse') =>
  fuseChecks(rig, nothing, RULE_SETS.us)
    .find((f) => f.part === part)
    ?.checks.find((c) => c.id === 'interrupts');
const fitted = (rig: Rig, type: string, part = 'link-fuse') => withPart(rig, part, { options: { type } });
const bank = (rig: Rig, id: string, capacity: number, chemistry: string) =>
  withPart(rig, id, {
    params: { capacity: { value: capacity, spread: 0, provenance: 'nameplate' } },
    options: { chemistry },
  });

describe('a fuse on a 48 V bank', () => {
  const trailer = (capacity: number, type: string): Rig => {
    const rig = coupledRig('t', 'T', USUAL_COUPLED['trailer-48']);
    return fitted(bank(rig, 'coach-bank', capacity, 'lfp'), type, 'behind-fuse');
  };

  it('on the post is good for 2 kA there, not for the 10 kA it is sold with', () => {
    const found = interrupts(trailer(400, 'terminal'), 'behind-fuse');
    expect(found).toMatchObject({ verdict: 'bad' });
    expect(found!.says).toContain('2,000 A at 58 V');
    expect(found!.says).toContain('opens into more');
  });

  it('of class T breaks what any bank of a trailer pushes', () => {
    for (const capacity of [100, 200, 400])
      expect(interrupts(trailer(capacity, 'class-t'), 'behind-fuse')?.verdict, `${capacity} Ah`).toBe('good');
  });

  it('made for 32 V breaks nothing', () => {
    for (const type of ['blade', 'bolt-small', 'bolt-large'])
      expect(interrupts(trailer(100, type), 'behind-fuse')?.verdict, type).toBe('bad');
  });
});

describe('what a bank pushes into a short', () => {
  const rig = motorhomeOf();
  const coach = (capacity: number, chemistry: string) =>
    bank(rig, 'coach-bank', capacity, chemistry).parts.find((p) => p.id === 'coach-bank')!;

  it('grows with its capacity and falls with every milliohm between', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('flooded', 'agm', 'gel', 'lfp'),
        fc.integer({ min: 50, max: 500 }),
        fc.integer({ min: 1, max: 300 }),
        fc.double({ min: 0, max: 0.01, noNaN: true }),
        (chemistry, ah, more, ohms) => {
          const amps = mostFaultAmps(rig, coach(ah, chemistry), ohms);
          expect(amps).toBeGreaterThan(100);
          expect(mostFaultAmps(rig, coach(ah + more, chemistry), ohms)).toBeGreaterThanOrEqual(amps);
          expect(mostFaultAmps(rig, coach(ah, chemistry), ohms + 0.001)).toBeLessThan(amps);
        },
      ),
    );
  });

  it('is never taken for more than its volts drive through the ohms outside it', () => {
    for (const ohms of [0.001, 0.01, 0.1]) {
      const amps = mostFaultAmps(rig, coach(400, 'lfp'), ohms);
      expect(amps).toBeLessThan(14.7 / ohms);
    }
  });
});

describe('a fuse’s verdict', () => {
  it('is good exactly where its kind opens into the fault at the volts it is charged at', () => {
    for (const nominalVolts of [12, 24] as const)
      for (const { id } of FUSE_KINDS) {
        const rig = fitted(motorhomeOf({ nominalVolts }), id);
        const check = fuseChecks(rig, nothing, RULE_SETS.us).find((f) => f.part === 'link-fuse')!;
        const found = check.checks.find((c) => c.id === 'interrupts');
        if (!found) continue;
        const chassis = rig.parts.find((p) => p.id === 'chassis-bank')!;
        const volts = chargingVolts(rig, chassis);
        expect(volts / nominalOf(chassis, rig.vehicles[0]!)).toBeCloseTo(14.5 / 12, 9);
        expect(found.verdict, `${id} at ${volts} V`).toBe(
          interruptsAt(fuseKind(id)!, volts) >= check.fault.near ? 'good' : 'bad',
        );
      }
  });
});
