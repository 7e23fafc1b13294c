/**
 * Ghost volts: what a meter of ten megohms shows on an end that an open circuit has left with nothing on it. Leaks and
 * neighbors set it, no drawing does; a load on the same end would take it down to nothing. Common practice, sizes from
 * memory.
 */
import type { Effect } from '../operate/effects';
import type { Rig } from '../rig/schema';

/** V, one standard deviation; and V under which an end counts as left with nothing on it. */
export const GHOST_VOLTS = 0.6;
export const DEAD_VOLTS = 1;

const NONE: ReadonlySet<string> = new Set();

/** Points a broken wire may leave with nothing on them: its ends at a terminal where no other wire holds it. */
export function looseEnds(rig: Rig, effects: readonly Effect[]): ReadonlySet<string> {
  const opened = effects.flatMap((e) => (e.do === 'open' ? rig.conductors.filter((c) => c.id === e.element) : []));
  if (opened.length === 0) return NONE;
  const key = (e: { part: string; terminal: string }) => `${e.part}.${e.terminal}`;
  const onIt = (at: string) => rig.conductors.filter((c) => [c.from, c.to].some((e) => key(e) === at)).length;
  return new Set(
    opened
      .flatMap((wire) => [wire.from, wire.to])
      // An end on metal is held by it.
      .filter((e) => rig.parts.some((p) => p.id === e.part) && onIt(key(e)) === 1)
      .map(key),
  );
}
