/**
 * Set points that are advised, on every rig one can have drawn: inside what a battery lives at, apart enough not to
 * chatter, and better than what they replace.
 */
import { EVERY_RIG } from '../../../tests/everyRig';
import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { nominalOf } from '../parts/kinds';
import { withPart } from '../rig/applyEdit';
import { lockoutsOf } from './lockouts';
import { thresholdsOf } from './thresholds';

describe.each(EVERY_RIG)('%s', (_, rig) => {
  const blocks = (id: string) => {
    const part = rig.parts.find((p) => p.id === id)!;
    return (
      nominalOf(
        part,
        rig.vehicles.find((v) => v.id === part.vehicle)!,
      ) / 12
    );
  };

  it('thresholds: where any are advised they are set points one would set', () => {
    for (const t of thresholdsOf(compileRig(rig))) {
      expect(t.says).not.toMatch(/NaN|undefined/);
      expect(t.off.lo).toBeLessThanOrEqual(t.off.hi);
      expect(t.loaded.lo).toBeLessThanOrEqual(t.loaded.hi);
      if (!t.wants) continue;
      const n = blocks(t.part);
      expect(t.wants.openAt / n, t.part).toBeGreaterThan(11);
      expect(t.wants.closeAt / n, t.part).toBeLessThan(14.6);
      expect(t.wants.closeAt, t.part).toBeGreaterThan(t.wants.openAt);
    }
  });

  it('thresholds set as advised hold in the bay', () => {
    for (const t of thresholdsOf(compileRig(rig))) {
      if (!t.wants || t.verdict === 'holds') continue;
      const set = (value: number) => ({ value, spread: 0.05, provenance: 'nameplate' as const });
      const better = withPart(rig, t.part, {
        params: { [t.params.closes]: set(t.wants.closeAt), [t.params.opens]: set(t.wants.openAt) },
      });
      const after = thresholdsOf(compileRig(better)).find((x) => x.part === t.part)!;
      expect(after.openAt).toBe(t.wants.openAt);
      expect(['holds', 'may hunt', 'may not close'], `${t.part}: ${after.says}`).toContain(after.verdict);
      expect(after.verdict === 'may not let go', after.says).toBe(false);
    }
  });

  it('input lockouts: advised ones spare the battery, restart higher, and never act before it starts', () => {
    for (const l of lockoutsOf(compileRig(rig))) {
      expect(l.says).not.toMatch(/NaN|undefined/);
      for (const of100 of [l.starved, l.drawnOn]) {
        expect(of100).toBeGreaterThanOrEqual(0);
        expect(of100).toBeLessThanOrEqual(100);
      }
      expect(l.verdict === 'holds' || l.wants !== undefined || l.says.length > 20).toBe(true);
      if (!l.wants) continue;
      // Its input is fed by the vehicle in front.
      const n = rig.vehicles[0]!.nominalVolts / 12;
      expect(l.wants.lockout / n, l.part).toBeGreaterThanOrEqual(11);
      expect(l.wants.restart, l.part).toBeGreaterThan(l.wants.lockout);
      // Where its battery is drawn on the lockout shall act; before the charger starts it never does.
      expect(l.wants.lockout, l.part).toBeLessThan(l.before.lo);
    }
  });
});
