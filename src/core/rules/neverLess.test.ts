/**
 * No button makes a rig less protected: on every rig one can have drawn, and on EVERY_RIG spoiled at random, none lays a
 * thinner wire, takes a fuse out, or puts one in that its own wire does not bear.
 */
import { EVERY_RIG } from '../../../tests/everyRig';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { AWG_GAUGES, wireArea } from '../units/wire';
import { isFuseOrBreaker } from '../parts/fuses';
import { withConductor, withPart } from '../rig/applyEdit';
import type { Rig } from '../rig/schema';
import { houseBankOf } from '../rig/value';
import { usualScenarios } from '../plan/usualScenarios';
import { RULE_SETS } from '../codes';
import { fuseLimit, wireSpecOf } from '../size/fuseLimit';
import { sizeRig } from '../size/sizing';
import { checkDesign } from './check';
import type { Finding } from './rule';

const look = (rig: Rig): Finding[] => checkDesign(rig, sizeRig(rig, usualScenarios({}, houseBankOf(rig)?.id)));

/** What a button would take from a rig's protection, in words; nothing where it takes none. */
function weakens(rig: Rig, { mend }: Finding): string[] {
  if (!mend) return [];
  const wrong: string[] = [];
  if ('conductors' in mend)
    for (const id of mend.conductors) {
      const c = rig.conductors.find((x) => x.id === id)!;
      const { gauge } = mend.set;
      if (gauge && wireArea(gauge) < wireArea(c.gauge)) wrong.push(`${id}: ${c.gauge} becomes ${gauge}`);
    }
  else if ('part' in mend) {
    const part = rig.parts.find((p) => p.id === mend.part)!;
    const rating = mend.set.params?.['rating'];
    // A smaller one takes nothing from anybody; a larger one has to be borne by every wire on it.
    if (isFuseOrBreaker(part) && rating && rating.value > (part.params['rating']?.value ?? 0))
      for (const c of rig.conductors.filter((x) => x.use === 'feed' && [x.from, x.to].some((e) => e.part === part.id)))
        if (rating.value > fuseLimit(wireSpecOf(c), RULE_SETS.us).amps)
          wrong.push(`${part.id}: ${rating.value} A on ${c.gauge} AWG`);
  } else if (!mend.pieces.parts.some(isFuseOrBreaker)) wrong.push('pieces without a fuse');
  return wrong;
}

describe('a button', () => {
  it.each(EVERY_RIG)('of %s takes nothing from its protection', (_, rig) => {
    for (const f of look(rig)) expect(weakens(rig, f), `${f.rule} at ${f.at}: ${f.fix}`).toEqual([]);
  });

  it('of a rig that somebody spoiled takes nothing from its protection either', () => {
    fc.assert(
      fc.property(
        fc.nat(EVERY_RIG.length - 1),
        fc.array(fc.tuple(fc.nat(1000), fc.nat(AWG_GAUGES.length - 1)), { minLength: 1, maxLength: 4 }),
        fc.array(fc.tuple(fc.nat(1000), fc.constantFrom(5, 15, 30, 60, 150, 300)), { maxLength: 2 }),
        (which, wires, fuses) => {
          let [, rig] = EVERY_RIG[which]!;
          const feeds = rig.conductors.filter((c) => c.use === 'feed');
          for (const [n, g] of wires) rig = withConductor(rig, feeds[n % feeds.length]!.id, { gauge: AWG_GAUGES[g]! });
          const fitted = rig.parts.filter(isFuseOrBreaker);
          for (const [n, amps] of fuses)
            if (fitted.length > 0)
              rig = withPart(rig, fitted[n % fitted.length]!.id, {
                params: { rating: { value: amps, spread: 0, provenance: 'nameplate' } },
              });
          for (const f of look(rig)) expect(weakens(rig, f), `${f.rule} at ${f.at}: ${f.fix}`).toEqual([]);
        },
      ),
      { numRuns: 30, seed: 20261128 },
    );
  });
});

describe('a cable thicker than it needs to be', () => {
  it('is nothing to mend: no finding asks for less copper', () => {
    for (const [, rig] of EVERY_RIG.slice(0, 6)) {
      const thick = rig.conductors
        .filter((c) => c.use === 'feed')
        .reduce((r, c) => withConductor(r, c.id, { gauge: '4/0' }), rig);
      for (const f of look(thick)) {
        expect(f.fix, f.rule).not.toMatch(/would do/);
        expect(weakens(thick, f), `${f.rule}: ${f.fix}`).toEqual([]);
      }
    }
  });
});
