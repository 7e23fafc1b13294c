/**
 * What a battery feeds before any fuse, against a walk of another making: the listed conductors cut, no live copper is
 * left beyond the guide's distance from any post.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { EVERY_RIG } from '../../../tests/everyRig';
import { motorhomeOf } from '../../../tests/motorhomes';
import { RULE_SETS } from '../codes';
import { isFuseOrBreaker } from '../parts/fuses';
import { is, partKind } from '../parts/kinds';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import { insertFuse } from '../rig/insertFuse';
import { withConductor, withPieces } from '../rig/applyEdit';
import type { Rig } from '../rig/schema';
import { crankingCables, unprotectedFeeds } from './batteryFeeds';

const US = RULE_SETS.us;
const GUIDE = US.fuseWithin.guide;

/** Terminals live from a post with every contact closed and every fuse out, and m of cable to each: Bellman and Ford. */
function liveFrom(rig: Rig, battery: string, without: ReadonlySet<string>): Map<string, number> {
  const at = new Map([[`${battery}.plus`, 0]]);
  const links: [string, string, number][] = rig.conductors
    .filter((c) => c.use !== 'return' && !without.has(c.id))
    .map((c) => [`${c.from.part}.${c.from.terminal}`, `${c.to.part}.${c.to.terminal}`, c.length]);
  for (const p of rig.parts) {
    if (isFuseOrBreaker(p)) continue;
    const kind = partKind(p.kind);
    if (kind.role !== 'inline' && !is(p, 'joinsBothWays')) continue;
    for (const el of kind.elements)
      if (el.kind === 'contact' || (el.kind === 'resistor' && kind.role === 'inline'))
        links.push([`${p.id}.${el.a}`, `${p.id}.${el.b}`, 0]);
  }
  const post = (k: string) =>
    is(
      rig.parts.find((p) => p.id === k.split('.')[0]),
      'battery',
    ) && k !== `${battery}.plus`;
  for (let round = 0; round < links.length; round++)
    for (const [a, b, m] of links)
      for (const [from, to] of [
        [a, b],
        [b, a],
      ] as const)
        if (at.has(from) && !post(from) && (at.get(to) ?? Infinity) > at.get(from)! + m) at.set(to, at.get(from)! + m);
  return at;
}

describe('every feed of a battery', () => {
  it.each(EVERY_RIG)('of %s is fused at the post, listed, or a cranking cable', (_, rig) => {
    const listed = unprotectedFeeds(rig, US);
    const cranking = crankingCables(rig).map((c) => c.id);
    for (const battery of rig.parts.filter((p) => is(p, 'battery'))) {
      const cut = new Set([...listed.filter((f) => f.battery === battery).map((f) => f.conductor.id), ...cranking]);
      const far = [...liveFrom(rig, battery.id, cut)].filter(([, metres]) => metres > GUIDE + 1e-9);
      expect(far, battery.name).toEqual([]);
    }
    // And nothing is listed that a fuse at the post protects.
    for (const f of listed) {
      const live = liveFrom(rig, f.battery.id, new Set());
      const ends = [f.conductor.from, f.conductor.to].map((e) => live.get(`${e.part}.${e.terminal}`));
      expect(
        ends.some((m) => m !== undefined && m > GUIDE),
        f.conductor.id,
      ).toBe(true);
    }
  });

  it('is no longer listed once a fuse stands at the battery, and the fuse protects it', () => {
    for (const [name, rig] of EVERY_RIG.filter((_, i) => i % 3 === 0))
      for (const f of unprotectedFeeds(rig, US)) {
        if (f.conductor[f.end].part !== f.battery.id) continue;
        const fused = withPieces(rig, insertFuse(rig, f.conductor, f.end, 30, 'terminal'));
        const still = unprotectedFeeds(fused, US).filter(
          (x) => x.battery.id === f.battery.id && x.conductor.id === f.conductor.id,
        );
        expect(still, `${name}: ${f.conductor.id}`).toEqual([]);
      }
  });

  it('hides behind no branch: a thin wire on a stud is found as well as the cable it hangs on', () => {
    const rig = coupledRig('t', 'T', USUAL_COUPLED.trailer);
    const bare: Rig = {
      ...rig,
      conductors: [
        ...rig.conductors.map((c) => (c.id === 'fuse-lead' ? { ...c, length: 2 } : c)),
        {
          ...rig.conductors.find((c) => c.use === 'control')!,
          id: 'tap',
          name: 'Tap on the fuse’s stud',
          from: { part: 'link-fuse', terminal: 'source' },
          to: { part: 'house', terminal: 'plus' },
          length: 3,
        },
      ],
    };
    const at = unprotectedFeeds(bare, US)
      .filter((f) => f.battery.id === 'chassis-bank')
      .map((f) => f.conductor.id);
    expect(at).toContain('fuse-lead');
    const near = {
      ...bare,
      conductors: bare.conductors.map((c) => (c.id === 'fuse-lead' ? { ...c, length: 0.1 } : c)),
    };
    expect(
      unprotectedFeeds(near, US)
        .filter((f) => f.battery.id === 'chassis-bank')
        .map((f) => f.conductor.id),
    ).toContain('tap');
  });

  it('leaves a cranking cable alone, and says which it is', () => {
    const rig = motorhomeOf({ generator: true });
    expect(crankingCables(rig).map((c) => c.id)).toEqual(['generator-lead']);
    expect(unprotectedFeeds(rig, US).map((f) => f.conductor.id)).not.toContain('generator-lead');
  });
});

describe('what nobody has looked at', () => {
  const rig = motorhomeOf({});
  const of = (r: Rig, id: string) => unprotectedFeeds(r, US).find((f) => f.conductor.id === id);

  it('is asked while the archetype drew it so, and judged once somebody has followed it', () => {
    expect(of(rig, 'dash-feed')!.unlooked).toBe(true);
    expect(of(withConductor(rig, 'dash-feed', { looked: true }), 'dash-feed')!.unlooked).toBe(false);
  });

  it('is judged at once on a rig no archetype drew, and on a wire that ends elsewhere than drawn', () => {
    const { made: _, ...own } = rig;
    for (const f of unprotectedFeeds(own, US)) expect(f.unlooked, f.conductor.id).toBe(false);
    const moved: Rig = {
      ...rig,
      conductors: rig.conductors.map((c) =>
        c.id === 'dash-feed' ? { ...c, to: { part: 'chassis-loads', terminal: 'plus' } } : c,
      ),
    };
    expect(of(moved, 'dash-feed')!.unlooked).toBe(false);
  });
});

describe('the distance', () => {
  it('is the guide’s to be silent, and the place’s own to be too much', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 3, noNaN: true }),
        fc.constantFrom('us', 'uk', 'au-nz'),
        (metres, place) => {
          const rig = motorhomeOf({});
          const r = withConductor(rig, 'fuse-lead', { length: metres });
          const found = unprotectedFeeds(r, RULE_SETS[place]).find((f) => f.conductor.id === 'fuse-lead');
          expect(found !== undefined).toBe(metres > 0.18);
          if (found) expect(found.metres).toBeCloseTo(metres, 9);
        },
      ),
      { numRuns: 60 },
    );
  });
});
