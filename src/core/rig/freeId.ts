/** Ids for pieces that are added to a rig. */
import type { Rig } from './schema';

/** Room for a number behind it within the 40 characters of an id. */
const MAX_STEM_LENGTH = 36;

/** An id nobody in the rig has: the words in kebab case, numbered where taken. */
export function freeId(rig: Pick<Rig, 'parts' | 'conductors' | 'grounds' | 'bonds'>, words: string): string {
  const taken = new Set([...rig.parts, ...rig.conductors, ...rig.grounds, ...rig.bonds].map((x) => x.id));
  const base =
    words
      .toLowerCase()
      .normalize('NFKD')
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^[^a-z]+|-+$/g, '')
      .slice(0, MAX_STEM_LENGTH) || 'piece';
  let id = base;
  for (let n = 2; taken.has(id); n++) id = `${base}-${n}`;
  return id;
}
