/**
 * No edit makes a danger vanish whose cause is still there: on rigs full of dangers harmless pieces are added at
 * random, a light on some stud, a wire beside another, a part on nothing, and every danger stays.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { EVERY_RIG } from '../../../tests/everyRig';
import { isFuseOrBreaker } from '../parts/fuses';
import { is, partKind } from '../parts/kinds';
import { withConductor, withPart, withPieces } from '../rig/applyEdit';
import { checkRig } from '../rig/check';
import type { Conductor, Part, Rig } from '../rig/schema';
import { houseBankOf } from '../rig/value';
import { usualScenarios } from '../plan/usualScenarios';
import { sizeRig } from '../size/sizing';
import { assumed } from '../units/parameter';
import { checkDesign } from './check';

/** Followed, with every fuse far too big: what a careless build leaves. */
function careless(rig: Rig): Rig {
  const followed = rig.conductors.reduce((r, c) => withConductor(r, c.id, { looked: true }), rig);
  return followed.parts
    .filter(isFuseOrBreaker)
    .reduce(
      (r, p) => withPart(r, p.id, { params: { rating: { value: 500, spread: 0, provenance: 'nameplate' } } }),
      followed,
    );
}
const dangers = (rig: Rig): string[] =>
  checkDesign(rig, sizeRig(rig, usualScenarios({ driveHours: 1, nights: 1 }, houseBankOf(rig)?.id).slice(0, 1)))
    .filter((f) => f.severity === 'danger')
    // With an unfused branch on it, a feed whose fuse is too far off is one without a fuse: worse, of the same wire.
    .map((f) => `${f.rule === 'fuse-far' ? 'feed-unfused' : f.rule} ${f.at}`);

/** A small load on a stud of the rig, by two thin wires. */
function lightOn(rig: Rig, n: number, k: number): { parts: Part[]; conductors: Conductor[] } {
  const studs = rig.conductors
    .filter((c) => c.use === 'feed')
    .flatMap((c) => [c.from, c.to])
    .filter(
      (e) =>
        !is(
          rig.parts.find((p) => p.id === e.part),
          'battery',
        ),
    );
  const stud = studs[n % studs.length]!;
  const ground = rig.grounds[0]!;
  const like = rig.parts.find((p) => p.id === stud.part)!;
  const id = `light-${k}`;
  const wire = (wireId: string, use: Conductor['use'], from: Conductor['from'], to: Conductor['to']): Conductor => ({
    id: wireId,
    name: `Light ${k}, ${use}`,
    use,
    from,
    to,
    gauge: '14',
    length: 2,
    joints: assumed(0.01, 0.3),
  });
  return {
    parts: [
      {
        id,
        kind: 'house-loads',
        vehicle: like.vehicle,
        station: like.station,
        side: like.side,
        place: like.place,
        name: `Light ${k}`,
        params: { draw: { value: 0.2, spread: 0, provenance: 'nameplate' } },
      },
    ],
    conductors: [
      wire(`${id}-feed`, 'feed', stud, { part: id, terminal: 'plus' }),
      wire(
        `${id}-return`,
        'return',
        { part: id, terminal: 'minus' },
        { part: ground.id, terminal: ground.points[0]!.id },
      ),
    ],
  };
}

describe('a danger', () => {
  it('stays while its cause does, whatever harmless thing is added', () => {
    const rigs = EVERY_RIG.map(([name, rig]) => [name, careless(rig)] as const);
    const known = new Map<string, string[]>();
    fc.assert(
      fc.property(
        fc.nat(rigs.length - 1),
        fc.array(fc.nat(1000), { minLength: 1, maxLength: 3 }),
        fc.boolean(),
        (which, studs, alone) => {
          const [name, rig] = rigs[which]!;
          const before = known.get(name) ?? dangers(rig);
          known.set(name, before);
          expect(before.length, name).toBeGreaterThan(2);
          let more = studs.reduce((r, n, k) => withPieces(r, lightOn(r, n, k)), rig);
          if (alone) {
            const kind = partKind('disconnect');
            more = withPieces(more, {
              parts: [
                {
                  id: 'spare',
                  kind: 'disconnect',
                  vehicle: more.vehicles[0]!.id,
                  station: 1,
                  side: 'coach',
                  place: 'Shelf',
                  name: 'Spare switch',
                  params: Object.fromEntries(Object.entries(kind.params).map(([k, p]) => [k, { ...p.default }])),
                },
              ],
              conductors: [],
            });
          }
          expect(checkRig(more)).toEqual([]);
          const after = new Set(dangers(more));
          expect(
            before.filter((d) => !after.has(d)),
            name,
          ).toEqual([]);
        },
      ),
      { numRuns: 24, seed: 20261129 },
    );
  });
});
