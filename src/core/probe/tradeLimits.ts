/**
 * Drops that the trade calls too much whatever the drawing says: a band never calls more than that healthy. Common
 * practice, no source; they only make a band narrower.
 */
import { is } from '../parts/kinds';
import type { TraitName } from '../parts/traits';
import type { Rig } from '../rig/schema';

/** A terminal of a kind of part, or a point of the engine's metal. */
type End = { trait: TraitName; terminal: string } | { engineMetal: true };

interface DropLimit {
  red: End;
  black: End;
  /** Of a 12 V rig. */
  volts: number;
}

const DROP_LIMITS: readonly DropLimit[] = [
  // Output stud to battery plus, loads on.
  { red: { trait: 'alternator', terminal: 'output' }, black: { trait: 'battery', terminal: 'plus' }, volts: 0.3 },
  // Engine block to battery minus, the same.
  { red: { engineMetal: true }, black: { trait: 'battery', terminal: 'minus' }, volts: 0.2 },
  // Across a closed contact at its working amps: 0.1 to 0.2 V; an open one is no drop, and its band is far wider.
  {
    red: { trait: 'solenoid', terminal: 'chassis-stud' },
    black: { trait: 'solenoid', terminal: 'coach-stud' },
    volts: 0.2,
  },
];

/** The most volts a healthy rig may read between two points, either way; undefined where the trade names none. */
export function dropLimit(rig: Rig, red: string, black: string | undefined): number | undefined {
  if (black === undefined) return undefined;
  const at = (key: string) => {
    const [id, terminal] = key.split('.');
    return { part: rig.parts.find((p) => p.id === id), ground: rig.grounds.some((g) => g.id === id), id, terminal };
  };
  const ends = [at(red), at(black)];
  const fits = (end: (typeof ends)[number], want: End) =>
    'engineMetal' in want
      ? end.ground && end.id === 'engine'
      : end.part !== undefined && end.terminal === want.terminal && is(end.part, want.trait);
  const row = DROP_LIMITS.find(
    (l) => (fits(ends[0]!, l.red) && fits(ends[1]!, l.black)) || (fits(ends[1]!, l.red) && fits(ends[0]!, l.black)),
  );
  return row && row.volts * (rig.vehicles[0]!.nominalVolts / 12);
}
