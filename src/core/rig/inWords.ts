/** A rig's names in a shop's vocabulary. Ids, keys, terminals and what a person named stay: only what is read changes. */
import { inWords, type Vocabulary } from '../units/vocabulary';
import type { Rig } from './schema';

/** What people named: no vocabulary changes it, wherever it stands. */
export const namesGiven = (rig: Rig): string[] => rig.parts.flatMap((p) => (p.named ? [p.name] : []));

export function rigInWords(vocabulary: Vocabulary, rig: Rig): Rig {
  if (vocabulary === 'north-america') return rig;
  const own = namesGiven(rig);
  const w = (text: string) => inWords(vocabulary, text, own);
  return {
    ...rig,
    kind: w(rig.kind),
    parts: rig.parts.map((p) => ({
      ...p,
      name: w(p.name),
      place: w(p.place),
      ...(p.note === undefined ? {} : { note: w(p.note) }),
    })),
    conductors: rig.conductors.map((c) => ({ ...c, name: w(c.name) })),
    grounds: rig.grounds.map((g) => ({
      ...g,
      name: w(g.name),
      points: g.points.map((p) => ({ ...p, label: w(p.label), place: w(p.place) })),
    })),
    bonds: rig.bonds.map((b) => ({ ...b, name: w(b.name) })),
    probes: rig.probes.map((p) => ({ ...p, name: w(p.name) })),
  };
}
