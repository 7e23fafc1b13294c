/** Following a feed from a terminal through what only joins, to the batteries, chargers and loads it reaches. */
import { is, partKind } from '../parts/kinds';
import { wireResistance } from '../units/wire';
import type { Conductor, Endpoint, Part, Rig } from './schema';

export const terminalKey = (e: Endpoint): string => `${e.part}.${e.terminal}`;

/** Whether a part only joins what is on its terminals: a fuse, a disconnect, a contact, a connector. */
export const joins = (part: Part): boolean => partKind(part.kind).role === 'inline' || is(part, 'joinsBothWays');

export interface FeedStep {
  conductor: Conductor;
  /** The end it arrived at, and the part there; undefined at a ground. */
  to: Endpoint;
  part?: Part;
  /** The step it came by; none where it begins. */
  before?: FeedStep;
  /** Along the way so far: m of wire, Ω of wire and joints. */
  metres: number;
  ohms: number;
}

/** Terminals a feed goes on from, once it has come to one of a part that joins: through its contact or element, never its coil. */
export function onwards(part: Part, terminal: string): string[] {
  const kind = partKind(part.kind);
  if (!joins(part)) return [];
  return kind.elements.flatMap((el) =>
    el.kind === 'contact' || (el.kind === 'resistor' && kind.role === 'inline')
      ? el.a === terminal
        ? [el.b]
        : el.b === terminal
          ? [el.a]
          : []
      : [],
  );
}

/**
 * Every feed reached from a terminal, nearest first: other wires on a stud with it, but not those on a battery's post.
 * @param past whether to go on through a part that joins. @param uses what is followed: feeds alone, or signal wires too.
 */
export function follow(
  rig: Rig,
  from: Endpoint,
  past: (part: Part) => boolean = () => true,
  uses: readonly Conductor['use'][] = ['feed'],
): FeedStep[] {
  const feeds = rig.conductors.filter((c) => uses.includes(c.use));
  const steps: FeedStep[] = [];
  const seen = new Set<string>();
  const queue: { at: string; metres: number; ohms: number; before?: FeedStep }[] = [
    { at: terminalKey(from), metres: 0, ohms: 0 },
  ];
  while (queue.length > 0) {
    const here = queue.shift()!;
    for (const conductor of feeds) {
      if (seen.has(conductor.id)) continue;
      const to =
        terminalKey(conductor.from) === here.at
          ? conductor.to
          : terminalKey(conductor.to) === here.at
            ? conductor.from
            : undefined;
      if (!to) continue;
      seen.add(conductor.id);
      const along = {
        metres: here.metres + conductor.length,
        ohms: here.ohms + wireResistance(conductor.gauge, conductor.length) + conductor.joints.value,
      };
      const part = rig.parts.find((p) => p.id === to.part);
      const step: FeedStep = {
        conductor,
        to,
        ...(part ? { part } : {}),
        ...(here.before ? { before: here.before } : {}),
        ...along,
      };
      steps.push(step);
      if (!part || is(part, 'battery')) continue;
      for (const t of [to.terminal, ...(past(part) ? onwards(part, to.terminal) : [])])
        queue.push({ at: `${part.id}.${t}`, ...along, before: step });
    }
  }
  return steps;
}
