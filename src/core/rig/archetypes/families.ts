/** A rig drawn up from what it was made of, and the same rig with another link. */
import { benchRig } from './bench';
import { motorhome } from './motorhome';
import { coupledRig } from './coupled';
import { LINK_CHOICES } from './choices';
import { COUPLED_LINKS } from './coupledChoices';
import type { LinkRow } from './links';
import type { Made, Rig } from '../schema';

/** Draws a rig from its archetype. */
export const drawRig = (id: string, name: string, made: Made): Rig =>
  made.family === 'motorhome'
    ? motorhome(id, name, made.choices)
    : made.family === 'coupled'
      ? coupledRig(id, name, made.choices)
      : benchRig(id, name, made.choices);

/** What a link is called, on any family. */
export function linkWords(id: string): LinkRow {
  const found = [...LINK_CHOICES, ...COUPLED_LINKS].find((l) => l.id === id);
  if (!found) throw new Error(`unknown link ${id}`);
  return found;
}
