import { beforeAll, describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { HiddenRig } from '../diagnose/hiddenRig';
import { BandTable } from '../probe/bands';
import { motorhome } from '../rig/archetypes/motorhome';
import { proofs, proven, type PointReading } from './proofs';

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
