/** Edits applied to a rig document; pure. Apart from the schema, so that a page can apply without carrying it. */
import type { ConductorChange, PartChange, Pieces } from './edit';
import type { Part, Rig } from './schema';

/** The rig with a part changed; parameters and options not named stay as they are. */
export function withPart(rig: Rig, id: string, change: PartChange): Rig {
  const { params, options, ...rest } = change;
  return {
    ...rig,
    parts: rig.parts.map((p): Part =>
      p.id === id
        ? {
            ...p,
            ...rest,
            ...(params ? { params: { ...p.params, ...params } } : {}),
            ...(options ? { options: { ...p.options, ...options } } : {}),
          }
        : p,
    ),
  };
}

/** The rig with a conductor changed. */
export function withConductor(rig: Rig, id: string, change: ConductorChange): Rig {
  return { ...rig, conductors: rig.conductors.map((c) => (c.id === id ? { ...c, ...change } : c)) };
}

/** The rig with pieces put in; conductors that move end on them. */
export const withPieces = (rig: Rig, { parts, conductors, moved = [] }: Pieces): Rig => ({
  ...rig,
  parts: [...rig.parts, ...parts],
  conductors: [
    ...moved.reduce((list, m) => list.map((c) => (c.id === m.conductor ? { ...c, ...m.set } : c)), rig.conductors),
    ...conductors,
  ],
});

/** The rig without those pieces; what moved ends where it did. Probes on what goes are retired: their labels are never given again. */
export function withoutPieces(rig: Rig, { parts, conductors, moved = [] }: Pieces): Rig {
  const gone = new Set([...parts, ...conductors].map((x) => x.id));
  return {
    ...rig,
    probes: rig.probes.map((p) => (gone.has(p.key.split('.')[0]!) ? { ...p, retired: true } : p)),
    parts: rig.parts.filter((p) => !gone.has(p.id)),
    conductors: moved
      .reduce((list, m) => list.map((c) => (c.id === m.conductor ? { ...c, ...m.was } : c)), rig.conductors)
      .filter((c) => !gone.has(c.id)),
  };
}
