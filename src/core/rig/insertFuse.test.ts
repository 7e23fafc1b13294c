import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { motorhomeInWords, VARIETY } from '../../../tests/motorhomes';
import { compileRig } from '../compile/compile';
import { buildPlan } from '../plan/build/build';
import { BandTable } from '../probe/bands';
import { runsOf } from '../size/runs';
import { withoutPieces, withPieces } from './applyEdit';
import { coupledRig, USUAL_COUPLED } from './archetypes/coupled';
import { COUPLED_FAMILIES } from './archetypes/coupledChoices';
import { motorhome } from './archetypes/motorhome';
import { checkRig } from './check';
import { freeId } from './freeId';
import { insertFuse } from './insertFuse';
import type { Rig } from './schema';

const RIGS: [string, Rig][] = [
  ...VARIETY.map((c): [string, Rig] => [motorhomeInWords(c), motorhome('t', 'T', c)]),
  ...COUPLED_FAMILIES.map(({ id }): [string, Rig] => [id, coupledRig('t', 'T', USUAL_COUPLED[id])]),
];

describe('a fuse put into a conductor', () => {
  it.each(RIGS)('leaves a sound rig, whichever feed and end, and comes out again without a trace: %s', (_, rig) => {
    for (const c of rig.conductors.filter((x) => x.use === 'feed'))
      for (const end of ['from', 'to'] as const) {
        if (!rig.parts.some((p) => p.id === c[end].part)) continue;
        const pieces = insertFuse(rig, c, end, 60, 'bolt-large');
        const fused = withPieces(rig, pieces);
        expect(checkRig(fused), `${c.id} ${end}`).toEqual([]);
        expect(withoutPieces(fused, pieces), `${c.id} ${end}`).toEqual(rig);
        // The same cable, in two pieces about the fuse.
        const [fuse] = pieces.parts;
        const run = runsOf(fused).find((r) => r.conductors.some((x) => x.id === c.id))!;
        expect(run.inline.map((p) => p.id)).toContain(fuse!.id);
        const metres = (list: readonly { length: number }[]) => list.reduce((s, x) => s + x.length, 0);
        const before = runsOf(rig).find((r) => r.conductors.some((x) => x.id === c.id))!;
        if (c.length > 0.2) expect(metres(run.conductors)).toBeCloseTo(metres(before.conductors), 2);
      }
  });

  it('costs the line its own milliohms and no more, and points the same way', () => {
    const rig = motorhome('t', 'T');
    const link = rig.conductors.find((c) => c.id === 'link-cable')!;
    const amps = (r: Rig) => new BandTable(compileRig(r)).band('idle', 'link-cable.clamp')!.nominal;
    for (const end of ['from', 'to'] as const) {
      const fused = amps(withPieces(rig, insertFuse(rig, link, end, 150, 'terminal')));
      expect(fused).toBeLessThan(amps(rig));
      // 0.7 mΩ of fuse and 0.8 of lugs beside some 12 mΩ of loop.
      expect(fused).toBeGreaterThan(0.85 * amps(rig));
    }
  });

  it('is planned: ordered, cut, mounted, and the cable it is in made anew', () => {
    const rig = motorhome('t', 'T');
    const fused = withPieces(
      rig,
      insertFuse(
        rig,
        rig.conductors.find((c) => c.id === 'link-cable')!,
        'to',
        150,
        'terminal',
      ),
    );
    const plan = buildPlan(rig, fused);
    expect(plan.cuts.map((c) => c.id).sort()).toEqual(['link-cable', 'link-cable-pigtail']);
    expect(plan.steps.map((s) => s.id)).toContain('mount-link-cable-fuse');
    expect(plan.parts.filter((p) => p.group === 'part').map((p) => `${p.what}: ${p.needs}`)).toEqual([
      expect.stringMatching(/fuse.*150 A/i),
    ]);
  });
});

describe('an id for a new piece', () => {
  it('is one the document allows and nobody has, whatever words it is made of', () => {
    const rig = motorhome('t', 'T');
    const taken = new Set([...rig.parts, ...rig.conductors, ...rig.grounds, ...rig.bonds].map((x) => x.id));
    fc.assert(
      fc.property(
        fc.oneof(fc.string({ maxLength: 80 }), fc.constantFrom(...taken), fc.constant('Überlandleitung 12 V, links')),
        (words) => {
          const id = freeId(rig, words);
          expect(id).toMatch(/^[a-z][a-z0-9-]{0,39}$/);
          expect(taken.has(id)).toBe(false);
        },
      ),
    );
  });
});
