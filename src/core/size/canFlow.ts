/**
 * What can flow in a run for hours, whatever one use of the rig asks: what the chargers, alternators and panels on its
 * ends are made for, and no more than its fuses let pass. A cable is sized by this, not by one trip's average.
 */
import { isFuseOrBreaker } from '../parts/fuses';
import { is, partKind, traitsOf } from '../parts/kinds';
import { follow, joins } from '../rig/follow';
import type { Endpoint, Part, Rig } from '../rig/schema';
import { partValue } from '../rig/value';
import { ratingOf } from './rating';
import { returnOf, type Run } from './runs';

/** A a part's terminal passes for hours, by its own figure or the usual one; 0 for what carries nothing of its own. */
export function carriedAt(part: Part, terminal: string): number {
  const carries = traitsOf(part).carries?.[terminal];
  return carries === undefined ? 0 : typeof carries === 'number' ? carries : partValue(part, carries);
}

interface Side {
  draws: number;
  supplies: number;
}

/** A that what hangs beyond one end of a run can draw, and can supply; a battery does either without end. */
function beyond(rig: Rig, run: Run, end: Endpoint): Side {
  const part = rig.parts.find((p) => p.id === end.part);
  const own = new Set(run.conductors.map((c) => c.id));
  const reached = new Map<string, { part: Part; terminal: string }>();
  if (part) reached.set(`${end.part}.${end.terminal}`, { part, terminal: end.terminal });
  // A stud that only joins: what else hangs on it, and beyond it.
  if (part && !is(part, 'battery') && returnOf(rig, end) === undefined) {
    const rest = { ...rig, conductors: rig.conductors.filter((c) => !own.has(c.id)) };
    for (const { id: terminal } of joins(part) ? partKind(part.kind).terminals : [{ id: end.terminal }])
      for (const s of follow(rest, { part: part.id, terminal }))
        if (s.part) reached.set(`${s.part.id}.${s.to.terminal}`, { part: s.part, terminal: s.to.terminal });
  }
  const side: Side = { draws: 0, supplies: 0 };
  for (const { part: p, terminal } of reached.values()) {
    if (is(p, 'battery')) return { draws: Infinity, supplies: Infinity };
    const amps = carriedAt(p, terminal);
    const gives = is(p, 'alternator') || is(p, 'mainsCharger') || is(p, 'panels') || terminal === 'output';
    if (gives && terminal !== 'input') side.supplies += amps;
    else side.draws += amps;
  }
  return side;
}

/** A, 0 where batteries meet on both sides: there the loop itself sets the current. */
export function canFlow(rig: Rig, run: Run): number {
  const [a, b] = [beyond(rig, run, run.from), beyond(rig, run, run.to)];
  const most = Math.max(Math.min(a.supplies, b.draws), Math.min(b.supplies, a.draws));
  if (most === Infinity) return 0;
  const fuses = run.inline
    .filter(isFuseOrBreaker)
    .map(ratingOf)
    .filter((amps) => amps > 0);
  return Math.min(most, ...fuses);
}
