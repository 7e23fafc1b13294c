/** Edits applied to a rig document; pure. Apart from the schema, so that a page can apply without carrying it. */
import type { ConductorChange, PartChange } from './edit';
import type { Part, Rig } from './schema';

/** The rig with a part changed; parameters and options not named stay as they are. */
export function withPart(rig: Rig, id: string, change: PartChange): Rig {
  const { params, options, ...rest } = change;
  return {
    ...rig,
    parts: rig.parts.map((p): Part =>
      p.id === id
        ? { ...p, ...rest, ...(params ? { params: { ...p.params, ...params } } : {}), ...(options ? { options: { ...p.options, ...options } } : {}) }
        : p,
    ),
  };
}

/** The rig with a conductor changed. */
export function withConductor(rig: Rig, id: string, change: ConductorChange): Rig {
  return { ...rig, conductors: rig.conductors.map((c) => (c.id === id ? { ...c, ...change } : c)) };
}
