import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import { motorhome, USUAL_MOTORHOME } from '../rig/archetypes/motorhome';
import type { Rig } from '../rig/schema';
import { simulate } from '../simulate/simulate';
import { thresholdsOf } from './thresholds';

const set = (rig: Rig, part: string, to: Record<string, number>): Rig => ({
  ...rig,
  parts: rig.parts.map((p) =>
    p.id === part
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
const home = motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'one-way' });
const [usual] = thresholdsOf(compileRig(home));

describe('thresholds by volts', () => {
  it('the usual one-way module has room, and what is proposed lies in it, opening under closing', () => {
    expect(usual!.verdict).toBe('holds');
    expect(usual!.off.hi).toBeLessThan(usual!.loaded.lo);
    const { openAt, closeAt } = usual!.wants!;
    expect(openAt).toBeGreaterThan(usual!.off.hi);
    expect(openAt).toBeLessThan(usual!.loaded.lo);
    expect(closeAt).toBeLessThan(usual!.before.lo);
  });

  it.each([
    ['one-way', 12],
    ['bidirectional', 12],
    ['one-way', 24],
    ['bidirectional', 24],
  ] as const)('what is proposed for a %s module at %i V is what is usual in bays', (link, nominalVolts) => {
    // On at 13.2–14.0 V, off at 12.8–13.5 V, at least 0.3 V apart: common practice, no source.
    const n = nominalVolts / 12;
    const all = thresholdsOf(compileRig(motorhome('t', 'T', { ...USUAL_MOTORHOME, link, nominalVolts })));
    expect(all.length).toBeGreaterThan(0);
    for (const { wants } of all) {
      expect(wants!.closeAt / n).toBeGreaterThanOrEqual(13.15);
      expect(wants!.closeAt / n).toBeLessThan(14);
      expect(wants!.openAt / n).toBeGreaterThanOrEqual(12.8);
      expect(wants!.openAt / n).toBeLessThan(13.5);
      expect((wants!.closeAt - wants!.openAt) / n).toBeGreaterThanOrEqual(0.299);
    }
  });

  it('has less room hot than cold, and what is proposed holds at both ends', () => {
    const [cold, hot] = usual!.extremes;
    const room = (e: { off: { hi: number }; loaded: { lo: number } }) => e.loaded.lo - e.off.hi;
    expect(room(hot!)).toBeLessThan(room(usual!));
    expect(room(cold!)).toBeGreaterThan(room(usual!));
    // A cold regulator holds about 0.3 V more (common practice, no source).
    expect(cold!.loaded.lo - usual!.loaded.lo).toBeCloseTo(0.28, 2);
    const set_ = thresholdsOf(compileRig(set(home, 'delay', usual!.wants!)))[0]!;
    if (room(hot!) > 0) expect(set_.extremes.map((e) => e.verdict)).toEqual(['holds', 'holds']);
  });

  it('with what is proposed it holds', () => {
    expect(thresholdsOf(compileRig(set(home, 'delay', usual!.wants!)))[0]!.verdict).toBe('holds');
  });

  it('set above what it sees under load it may hunt; below its rest it may not let go; too high it may not close', () => {
    const verdict = (to: Record<string, number>) => thresholdsOf(compileRig(set(home, 'delay', to)))[0]!.verdict;
    // A little above what it sees, or more: where the two lie is a matter of the rigs that are drawn.
    const raised = [0.05, 0.1, 0.15, 0.2, 0.25, 0.3].map((v) =>
      verdict({ openAt: usual!.loaded.lo + v, closeAt: usual!.loaded.lo + v + 0.05 }),
    );
    expect(raised).toContain('may hunt');
    expect(verdict({ openAt: usual!.off.hi - 0.2 })).toBe('may not let go');
    expect(verdict({ closeAt: usual!.before.lo + 0.1 })).toBe('may not close');
  });

  it('a verdict of "may hunt" on a thin line is what the simulation does there', () => {
    const rig = coupledRig('t', 'T', { ...USUAL_COUPLED.trailer, link: 'voltage-relay' });
    const relay = thresholdsOf(compileRig(rig)).find((t) => t.part === 'relay')!;
    const r = simulate(compileRig(rig), {
      id: 'd',
      name: 'D',
      startHour: 8,
      startSoc: { 'coach-bank': 0.4 },
      legs: [{ id: 'l', name: 'L', kind: 'drive', hours: 3, celsius: 25, sunHours: 0, loads: [], moreAmps: 6 }],
    });
    if (relay.verdict === 'holds') expect(r.summary.hunting).not.toContain('relay');
    else expect(['may hunt', 'no room']).toContain(relay.verdict);
    // Copper as thick as a rail: nothing to hunt on.
    const thick: Rig = {
      ...rig,
      conductors: rig.conductors.map((c) =>
        c.use === 'feed' ? { ...c, gauge: '4/0' as const, joints: { ...c.joints, value: 1e-4, spread: 0 } } : c,
      ),
    };
    expect(thresholdsOf(compileRig(thick)).find((t) => t.part === 'relay')!.loaded.lo).toBeGreaterThan(relay.loaded.lo);
  });

  it('a lithium bank on the sense leaves no room: volts cannot tell', () => {
    const rig = motorhome('t', 'T', {
      ...USUAL_MOTORHOME,
      link: 'one-way',
      chassis: { chemistry: 'lfp', layout: 'single', capacity: 100 },
    });
    expect(['no room', 'may not let go']).toContain(thresholdsOf(compileRig(rig))[0]!.verdict);
  });

  it('rigs that decide by nothing but a wire have none', () => {
    expect(thresholdsOf(compileRig(motorhome('t', 'T')))).toEqual([]);
    expect(thresholdsOf(compileRig(motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'dcdc' })))).toEqual([]);
  });
});
