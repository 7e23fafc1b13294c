/** A fuse put into a conductor at one of its ends. */
import { partKind } from '../parts/kinds';
import { assumed, type Parameter } from '../units/parameter';
import type { Pieces } from './edit';
import { freeId } from './freeId';
import type { Conductor, Endpoint, Part, Rig } from './schema';

/** m of cable from a post or stud to its fuse: within the 7 in of 33 CFR 183.455, with room for a hand. */
export const POST_LEAD_METRES = 0.15;
/** Two lugs on clean studs, from memory. */
const JOINTS = assumed(0.0008, 0.45);

/**
 * The conductor keeps its id and ends at the fuse now; a short piece, written the same way round, joins the fuse
 * to where it ended.
 * @param rating A
 * @param type id of one of FUSE_KINDS
 */
export function insertFuse(rig: Rig, conductor: Conductor, end: 'from' | 'to', rating: number, type: string): Pieces {
  const at: Endpoint = conductor[end];
  const owner = rig.parts.find((p) => p.id === at.part)!;
  const other = rig.parts.find((p) => p.id === conductor[end === 'from' ? 'to' : 'from'].part);
  const away = Math.sign((other?.station ?? owner.station) - owner.station) || 1;
  const id = freeId(rig, `${conductor.id}-fuse`);
  const element = partKind('link-fuse').params['element']!.default;
  const fuse: Part = {
    id,
    kind: 'link-fuse',
    vehicle: owner.vehicle,
    station: owner.station + away * POST_LEAD_METRES,
    side: owner.side === 'both' ? (other?.side ?? 'coach') : owner.side,
    place: owner.place,
    name: `${owner.name} fuse`.slice(0, 60),
    note: `${rating} A`,
    options: { type },
    params: { element, rating: { value: rating, spread: 0, provenance: 'nameplate' } satisfies Parameter },
  };
  const source = { part: id, terminal: 'source' };
  const load = { part: id, terminal: 'load' };
  const { joints: _, ...like } = conductor;
  const pigtail: Conductor = {
    ...like,
    id: freeId(rig, `${conductor.id}-pigtail`),
    name: `${owner.name} to its fuse`.slice(0, 60),
    length: POST_LEAD_METRES,
    joints: JOINTS,
    from: end === 'from' ? at : source,
    to: end === 'from' ? source : at,
  };
  const was = { from: conductor.from, to: conductor.to, length: conductor.length };
  return {
    parts: [fuse],
    conductors: [pigtail],
    moved: [
      {
        conductor: conductor.id,
        was,
        set: { ...was, [end]: load, length: Math.max(0.05, Number((conductor.length - POST_LEAD_METRES).toFixed(3))) },
      },
    ],
  };
}
