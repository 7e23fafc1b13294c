import { beforeAll, describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { HiddenRig } from '../diagnose/hiddenRig';
import { BandTable } from '../probe/bands';
import { motorhome } from '../rig/archetypes/motorhome';
import { bonferroni, proofs, proven, type PointReading } from './proofs';

const compiled = compileRig(motorhome('test', 'Test coach'));
let bands: BandTable;
beforeAll(() => {
  bands = new BandTable(compiled);
});
const REF = 'frame.bay-2';
const sick = new HiddenRig(compiled, 'link.contact-open', 31);
const take = (rig: HiddenRig, at: { state: string; probe: string; ref?: string }): PointReading => ({
  ...at,
  value: rig.read(at.state, at.probe, at.ref).value,
});

describe('a band among several', () => {
  // Two-sided quantiles of the normal distribution at 1 − 0.05/n: handbook table of critical values.
  it.each([
    [1, 1.95996],
    [2, 2.2414],
    [5, 2.57583],
    [10, 2.80703],
    [20, 3.02334],
  ])('is widened so that %i together hold 95 %%', (count, critical) => {
    expect(bonferroni(count)).toBeCloseTo(critical / 1.95996, 3);
  });

  it('keeps the figure it expects inside, at the same share of its width', () => {
    const list = proofs(bands, [], []);
    for (const p of list) {
      const usual = bands.band(p.state, p.probe, p.ref, true)!;
      const by = bonferroni(list.length);
      expect(p.band.hi - p.band.lo).toBeCloseTo((usual.hi - usual.lo) * by, 9);
      const middle = Math.min(usual.hi, Math.max(usual.lo, usual.nominal));
      expect(middle - p.band.lo).toBeCloseTo((middle - usual.lo) * by, 9);
    }
  });
});

describe('proof after a repair', () => {
  const before = ['link.coach-stud', 'coach-bank.plus', 'link.coil-plus'].map((probe) =>
    take(sick, { state: 'idle', probe, ref: REF }),
  );

  it('asks for what was out of its band, and for the link’s own function', () => {
    const list = proofs(bands, before, []);
    const at = (state: string, probe: string, ref?: string) =>
      list.find((p) => p.state === state && p.probe === probe && p.ref === ref);
    expect(at('idle', 'link.coach-stud', REF)).toMatchObject({
      why: 'it was out of its band',
      before: { verdict: 'low' },
    });
    expect(at('idle', 'link.chassis-stud', 'link.coach-stud')).toBeDefined();
    expect(at('boost-engine-off', 'link.chassis-stud', 'link.coach-stud')?.why).toContain('boost');
    expect(proven(list)).toBe(false);
  });

  it('is given by nearly all healthy rigs and by no sick one', () => {
    const wanted = proofs(bands, before, []);
    let given = 0;
    const RIGS = 80;
    for (let seed = 100; seed < 100 + RIGS; seed++) {
      const rig = new HiddenRig(compiled, 'nothing-wrong', seed);
      if (
        proven(
          proofs(
            bands,
            before,
            wanted.map((p) => take(rig, p)),
          ),
        )
      )
        given++;
      const ill = new HiddenRig(compiled, 'link.contact-open', seed);
      expect(
        proven(
          proofs(
            bands,
            before,
            wanted.map((p) => take(ill, p)),
          ),
        ),
        `sick rig ${seed}`,
      ).toBe(false);
    }
    expect(given / RIGS).toBeGreaterThan(0.85);
  });

  it('is not given while one is still to take', () => {
    const wanted = proofs(bands, before, []);
    expect(
      proven(
        proofs(
          bands,
          before,
          wanted.slice(1).map((p) => take(sick, p)),
        ),
      ),
    ).toBe(false);
    expect(wanted.length).toBeGreaterThan(3);
  });

  it('asks for the same point once', () => {
    const list = proofs(bands, [...before, ...before], []);
    expect(new Set(list.map((p) => `${p.state}${p.probe}${p.ref}`)).size).toBe(list.length);
  });

  it('of nothing is no proof', () => {
    expect(proven([])).toBe(false);
  });
});
