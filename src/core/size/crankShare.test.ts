import { describe, expect, it } from 'vitest';
import { fuseKind, opensAtEarliest, opensAtLatest, opensSeconds, FUSE_KINDS } from '../parts/fuses';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import { motorhome, USUAL_MOTORHOME } from '../rig/archetypes/motorhome';
import { sizeRig } from './sizing';
import { crankShare } from './crankShare';

const coach = (capacity: number, chemistry: 'flooded' | 'lfp' = 'flooded') =>
  motorhome('m', 'M', { ...USUAL_MOTORHOME, coach: { chemistry, layout: 'parallel', capacity } });

describe('what comes through the link while one cranks with boost held', () => {
  it('grows with the bank that lends, and never passes what the starter takes', () => {
    const shares = [50, 100, 200, 400].map((ah) => crankShare(coach(ah))!);
    for (let i = 1; i < shares.length; i++) expect(shares[i]!.amps).toBeGreaterThan(shares[i - 1]!.amps);
    for (const s of shares) expect(s.amps).toBeLessThanOrEqual(s.starter);
  });
  it('is the larger part of it where the start battery is tired, and passes fuse and contact', () => {
    const rig = coach(200);
    const s = crankShare(rig)!;
    expect(s.through).toContain('link-fuse');
    expect(s.through).toContain('link');
    expect(s.donor.id).toBe('coach-bank');
    expect(s.amps / s.starter).toBeGreaterThan(0.3);
    expect(s.amps / s.starter).toBeLessThan(1);
  });
  it('names what a lithium bank’s BMS lets out', () => {
    expect(crankShare(coach(100, 'lfp'))!.bmsLimit).toBe(200);
    expect(crankShare(coach(100))!.bmsLimit).toBeUndefined();
  });
  it('is of no rig without a switch that joins its banks', () => {
    expect(crankShare(coupledRig('t', 'T', USUAL_COUPLED.trailer))).toBeUndefined();
  });
  it('is one of the checks of the link’s fuse, with a word for the owner where it may open', () => {
    const check = (rig: ReturnType<typeof coach>) =>
      sizeRig(rig, [])
        .fuses.find((f) => f.part === 'link-fuse')!
        .checks.find((c) => c.id === 'crank')!;
    const rig = coach(200);
    const small = {
      ...rig,
      parts: rig.parts.map((p) =>
        p.id === 'link-fuse' ? { ...p, params: { ...p.params, rating: { ...p.params['rating']!, value: 60 } } } : p,
      ),
    };
    expect(check(small)).toMatchObject({ verdict: 'watch' });
    expect(check(small).says).toContain('hold boost to charge, wait, release, then crank');
    const large = {
      ...rig,
      parts: rig.parts.map((p) =>
        p.id === 'link-fuse' ? { ...p, params: { ...p.params, rating: { ...p.params['rating']!, value: 500 } } } : p,
      ),
    };
    expect(check(large)).toMatchObject({ verdict: 'good' });
  });
});

describe('a fuse at its quickest', () => {
  it('opens never later than in the middle, never before its slowest', () => {
    for (const kind of FUSE_KINDS)
      for (const m of [1.36, 1.7, 2, 3, 5, 8, 20]) {
        expect(opensAtEarliest(kind, m), `${kind.id} ${m}`).toBeLessThanOrEqual(opensSeconds(kind, m) * 1.0001);
        expect(opensAtEarliest(kind, m)).toBeLessThanOrEqual(opensAtLatest(kind, m));
      }
    expect(opensAtEarliest(fuseKind('blade')!, 1)).toBe(Infinity);
    // ISO 8820-3's gate at 200 %: 0.15 to 5 s (from memory).
    expect(opensAtEarliest(fuseKind('blade')!, 2)).toBeCloseTo(0.15, 9);
  });
});
