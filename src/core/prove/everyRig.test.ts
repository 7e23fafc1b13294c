/** Checks of a finished rig, on every rig one can have drawn, repaired or built: which come up, and what passes them. */
import { EVERY_RIG } from '../../../tests/everyRig';
import { describe, expect, it } from 'vitest';
import { is } from '../parts/kinds';
import { passes } from './check';
import { rigChecks } from './checks';

describe.each(EVERY_RIG)('%s', (_, rig) => {
  const all = (['repair', 'build'] as const).flatMap((made) => rigChecks({ rig, from: undefined, made }));

  it('has checks with an id of their own, in whole words, with a source for every limit', () => {
    for (const made of ['repair', 'build'] as const) {
      const list = rigChecks({ rig, from: undefined, made });
      expect(new Set(list.map((c) => c.id)).size).toBe(list.length);
      for (const c of list) {
        expect(JSON.stringify(c)).not.toMatch(/undefined|NaN|Infinity/);
        for (const v of c.values ?? []) {
          if (v.most !== undefined) expect(v.source, `${c.id} ${v.id}`).toBeTruthy();
          expect(v.unit, `${c.id} ${v.id}`).not.toBe('');
        }
      }
    }
  });

  it('asks more of a rig that was built than of one that was repaired', () => {
    const due = (made: 'repair' | 'build') =>
      rigChecks({ rig, from: undefined, made }).filter((c) => c.required).length;
    expect(due('build')).toBeGreaterThanOrEqual(due('repair'));
  });

  it('passes a value inside its limits and none outside', () => {
    for (const c of all) {
      const limited = (c.values ?? []).filter((v) => v.most !== undefined);
      if (limited.length === 0) continue;
      const inside = Object.fromEntries((c.values ?? []).map((v) => [v.id, v.most ?? 1]));
      expect(passes(c, inside), c.id).not.toBe(false);
      for (const v of limited) {
        if (v.most !== undefined) expect(passes(c, { ...inside, [v.id]: v.most + 0.01 }), c.id).toBe(false);
      }
    }
  });

  it('says the caution of an engine that runs wherever one has to', () => {
    for (const c of all.filter((x) => /engine|alternator/i.test(JSON.stringify(x)) && x.watch))
      expect(c.caution ?? '', c.id).toMatch(/open|chock|brake/i);
  });

  it('asks for the sleep current of a start battery where there is one', () => {
    const start = rig.parts.some((p) => is(p, 'battery') && p.side === 'engine');
    expect(all.some((c) => /sleep/i.test(c.id))).toBe(start);
  });
});
