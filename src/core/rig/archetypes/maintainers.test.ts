/** A small unit that keeps the start battery up from the coach bank: drawn fused and sound, and it does what its kind does. */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../../compile/compile';
import { resistorAmps } from '../../circuit/readings';
import { RigModel } from '../../operate/settle';
import { candidatesOf } from '../../plan/candidates';
import { usualScenarios } from '../../plan/usualScenarios';
import { checkDesign } from '../../rules/check';
import type { Leg, Scenario } from '../../simulate/scenarioSchema';
import { simulate } from '../../simulate/simulate';
import { sizeRig } from '../../size/sizing';
import { checkRig } from '../check';
import { MAINTAINER_CHOICES } from './choices';
import { motorhome, USUAL_MOTORHOME } from './motorhome';

type Kind = (typeof MAINTAINER_CHOICES)[number]['id'];
const KINDS = MAINTAINER_CHOICES.map((m) => m.id).filter((id) => id !== 'none');
const coach = (maintainer: Kind, nominalVolts: 12 | 24 = 12) =>
  motorhome('t', 'T', { ...USUAL_MOTORHOME, maintainer, nominalVolts });

const standing = (kind: Leg['kind'], days: number, more: Partial<Leg> = {}): Scenario => ({
  id: 'use',
  name: 'Use',
  startHour: 8,
  startSoc: { 'coach-bank': 0.95, 'chassis-bank': 0.7 },
  legs: [{ id: 'a', name: 'A', kind, hours: 24 * days, celsius: 20, sunHours: 0, loads: [], ...more }],
});
const ends = (maintainer: Kind, use: Scenario) => {
  const { batteries } = simulate(compileRig(coach(maintainer)), use, { series: false }).summary;
  return Object.fromEntries(batteries.map((b) => [b.part, b])) as Record<string, (typeof batteries)[number]>;
};

describe.each(KINDS)('a %s maintainer', (kind) => {
  it.each([12, 24] as const)('is drawn sound at %i V, with a fuse at either battery and no danger', (volts) => {
    const rig = coach(kind, volts);
    expect(checkRig(rig)).toEqual([]);
    const sizing = sizeRig(rig, usualScenarios({ driveHours: 1, nights: 1 }, 'coach-bank'));
    expect(checkDesign(rig, sizing).filter((f) => f.severity === 'danger')).toEqual([]);
    for (const post of ['coach-bank', 'chassis-bank']) {
      const lead = rig.conductors.find(
        (c) => c.id.startsWith('maintainer') && [c.from.part, c.to.part].includes(post),
      )!;
      expect(
        [lead.from.part, lead.to.part].some((p) => p.includes('fuse')),
        post,
      ).toBe(true);
    }
  });

  it('fills the start battery on shore power, which nothing else does there', () => {
    const use = standing('shore', 14);
    const kept = ends(kind, use)['chassis-bank']!;
    const left = ends('none', use)['chassis-bank']!;
    expect(left.endSoc).toBeLessThan(left.startSoc);
    expect(kept.endSoc).toBeGreaterThan(kept.startSoc + 0.1);
    expect(kept.highestVolts).toBeLessThan(14.5);
  });

  it('never lets the start battery feed the coach', () => {
    const use = { ...standing('stand', 5, { moreAmps: 4 }), startSoc: { 'coach-bank': 0.3, 'chassis-bank': 1 } };
    const kept = ends(kind, use)['chassis-bank']!;
    const left = ends('none', use)['chassis-bank']!;
    expect(kept.ahOut).toBeLessThan(left.ahOut + 1);
  });

  it('is offered where the start battery gets nothing on shore power, and picks its unit and wires in one', () => {
    const found = candidatesOf(coach('none')).find((c) => c.id === `maintainer-${kind}`)!;
    expect(checkRig(found.rig)).toEqual([]);
    expect(found.school).toBe('small');
    expect(found.differences.every((d) => d.kind === 'added')).toBe(true);
    expect(found.differences.filter((d) => d.what === 'part')).toHaveLength(3);
    expect(candidatesOf(coach(kind)).some((c) => c.id.startsWith('maintainer'))).toBe(false);
    expect(
      candidatesOf(motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'bidirectional' })).some((c) =>
        c.id.startsWith('maintainer'),
      ),
    ).toBe(false);
  });
});

describe('by kind, as common practice has it', () => {
  const amps = (kind: Kind, coachSoc: number, chassisSoc: number, state: string) => {
    const rig = coach(kind);
    const compiled = compileRig({
      ...rig,
      parts: rig.parts.map((p) =>
        p.id === 'coach-bank' || p.id === 'chassis-bank'
          ? {
              ...p,
              params: {
                ...p.params,
                soc: { ...p.params['soc']!, value: p.id === 'coach-bank' ? coachSoc : chassisSoc },
              },
            }
          : p,
      ),
    });
    const model = new RigModel(compiled);
    model.settle(state);
    return resistorAmps(model.solver, model.values, compiled.resistor.get('maintainer-to')!);
  };

  it('a differential one gives about an ampere across three quarters of a volt, no more than 8 Ah a night', () => {
    expect(Math.abs(amps('differential', 0.9, 0.75, 'shore'))).toBeGreaterThan(0.4);
    expect(Math.abs(amps('differential', 0.9, 0.75, 'shore'))).toBeLessThan(2);
    expect(Math.abs(amps('differential', 0.5, 1, 'rested'))).toBeLessThan(0.01);
    const night = ends('differential', {
      ...standing('stand', 8 / 24),
      startSoc: { 'coach-bank': 1, 'chassis-bank': 0.2 },
    });
    expect(night['chassis-bank']!.ahIn).toBeLessThanOrEqual(8);
  });

  it('one by volts waits while the bank only floats, and a lamp lets through some 1.3 to 2 A on a charging bank', () => {
    expect(Math.abs(amps('triggered', 1, 0.7, 'rested'))).toBeLessThan(0.01);
    const lamp = Math.abs(amps('diode-lamp', 0.9, 0.75, 'shore'));
    expect(lamp).toBeGreaterThan(0.5);
    expect(lamp).toBeLessThan(2.5);
  });
});
