/** Legal edits of any rig, drawn at random: what a hand on the Rig station could do, one after the other. */
import { isFuseOrBreaker } from '../src/core/parts/fuses';
import { is, partKind } from '../src/core/parts/kinds';
import { withConductor, withoutPieces, withPart, withPieces } from '../src/core/rig/applyEdit';
import { checkRig } from '../src/core/rig/check';
import { freeId } from '../src/core/rig/freeId';
import { insertFuse } from '../src/core/rig/insertFuse';
import type { Conductor, Endpoint, Rig } from '../src/core/rig/schema';
import { INSULATIONS } from '../src/core/units/ampacity';
import { assumed } from '../src/core/units/parameter';
import type { Rng } from '../src/core/units/rng';
import { GAUGES } from '../src/core/units/wire';

const pick = <T>(rng: Rng, list: readonly T[]): T =>
  list[Math.min(list.length - 1, Math.floor(rng.uniform() * list.length))]!;

const endsOf = (rig: Rig): Endpoint[] => [
  ...rig.parts.flatMap((p) => partKind(p.kind).terminals.map((t) => ({ part: p.id, terminal: t.id }))),
  ...rig.grounds.flatMap((g) => g.points.map((p) => ({ part: g.id, terminal: p.id }))),
];

type RandomEdit = (rig: Rig, rng: Rng) => Rig | undefined;

const EDITS: Readonly<Record<string, RandomEdit>> = {
  'other gauge': (rig, rng) => withConductor(rig, pick(rng, rig.conductors).id, { gauge: pick(rng, GAUGES) }),
  'other length': (rig, rng) =>
    withConductor(rig, pick(rng, rig.conductors).id, { length: 0.05 + 20 * rng.uniform() ** 3 }),
  'other insulation': (rig, rng) =>
    withConductor(rig, pick(rng, rig.conductors).id, {
      insulation: pick(rng, INSULATIONS),
      bundled: 1 + Math.floor(8 * rng.uniform()),
    }),
  followed: (rig, rng) => withConductor(rig, pick(rng, rig.conductors).id, { looked: true }),
  'other figure': (rig, rng) => {
    const part = pick(rng, rig.parts);
    const [name, spec] = pick(rng, Object.entries(partKind(part.kind).params)) ?? [];
    if (name === undefined) return undefined;
    const usual = part.params[name]?.value ?? spec!.default.value;
    // Up to three times its usual figure either way, within what the field takes.
    const value = Math.min(spec!.max, Math.max(spec!.min, usual * 3 ** (2 * rng.uniform() - 1)));
    return withPart(rig, part.id, {
      params: { [name]: { value, spread: spec!.default.spread, provenance: 'nameplate' } },
    });
  },
  'other choice': (rig, rng) => {
    const part = pick(rng, rig.parts);
    const option = pick(rng, Object.entries(partKind(part.kind).options ?? {}));
    return option && withPart(rig, part.id, { options: { [option[0]]: pick(rng, option[1].choices).id } });
  },
  'a fuse put in': (rig, rng) => {
    const wire = pick(
      rng,
      rig.conductors.filter((c) => c.use !== 'return'),
    );
    const end = rng.uniform() < 0.5 ? 'from' : 'to';
    if (!wire || !rig.parts.some((p) => p.id === wire[end].part)) return undefined;
    return withPieces(
      rig,
      insertFuse(rig, wire, end, pick(rng, [3, 10, 30, 60, 150]), pick(rng, ['blade', 'terminal', 'class-t'])),
    );
  },
  'a wire put in': (rig, rng) => {
    const ends = endsOf(rig);
    const like = pick(rng, rig.conductors);
    const wire: Conductor = {
      ...like,
      id: freeId(rig, 'added-wire'),
      name: 'Added wire',
      use: pick(rng, ['feed', 'return', 'control'] as const),
      from: pick(rng, ends),
      to: pick(rng, ends),
      length: 0.3 + 5 * rng.uniform(),
      joints: assumed(0.002, 0.4),
    };
    return withPieces(rig, { parts: [], conductors: [wire] });
  },
  'a wire taken out': (rig, rng) => withoutPieces(rig, { parts: [], conductors: [pick(rng, rig.conductors)] }),
  'a part taken out': (rig, rng) => {
    const part = pick(
      rng,
      rig.parts.filter((p) => !is(p, 'battery') || rng.uniform() < 0.2),
    );
    const wires = rig.conductors.filter((c) => [c.from, c.to].some((e) => e.part === part.id));
    return withoutPieces(rig, { parts: [part], conductors: wires });
  },
  'a fuse of another rating': (rig, rng) => {
    const fuses = rig.parts.filter(isFuseOrBreaker);
    return fuses.length === 0
      ? undefined
      : withPart(rig, pick(rng, fuses).id, {
          params: { rating: { value: pick(rng, [0, 5, 30, 80, 300]), spread: 0, provenance: 'nameplate' } },
        });
  },
};

/** A legal rig after one more edit, and what it was; the rig as it is where the draw was not legal. */
export function randomEdit(rig: Rig, rng: Rng): { rig: Rig; what: string } {
  for (let tries = 0; tries < 8; tries++) {
    const [what, edit] = pick(rng, Object.entries(EDITS));
    const next = edit(rig, rng);
    if (next && next !== rig && checkRig(next).length === 0) return { rig: next, what };
  }
  return { rig, what: 'nothing' };
}
