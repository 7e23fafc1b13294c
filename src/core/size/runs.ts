/**
 * Heavy runs of a rig: conductors in one line, through fuses, breakers, disconnects, contacts and connectors,
 * that carry one current. A run ends at a battery, a charger, a load, or where the line branches.
 */
import { is, partKind } from '../parts/kinds';
import type { Conductor, Endpoint, Part, Rig } from '../rig/schema';

export interface Run {
  /** Id of its longest conductor: it stays the same when what is round it changes. */
  id: string;
  name: string;
  /** In order from the end nearer the engine. */
  conductors: Conductor[];
  /** What sits in the line between them, in order. */
  inline: Part[];
  /** Terminals at its two ends. */
  from: Endpoint;
  to: Endpoint;
}

const key = (e: Endpoint): string => `${e.part}.${e.terminal}`;

/** The terminal on the other side of what sits in the line; undefined where the line ends. */
function through(rig: Rig, e: Endpoint): Endpoint | undefined {
  const part = rig.parts.find((p) => p.id === e.part);
  if (!part) return undefined;
  const kind = partKind(part.kind);
  if (kind.role !== 'inline' && kind.role !== 'link') return undefined;
  for (const el of kind.elements) {
    if (el.kind !== 'contact' && !(el.kind === 'resistor' && kind.role === 'inline')) continue;
    if (el.a === e.terminal) return { part: e.part, terminal: el.b };
    if (el.b === e.terminal) return { part: e.part, terminal: el.a };
  }
  return undefined;
}

/** Every run of feeds in a rig, nose to tail. */
export function runsOf(rig: Rig): Run[] {
  const feeds = rig.conductors.filter((c) => c.use === 'feed');
  const at = new Map<string, Conductor[]>();
  for (const c of feeds) for (const e of [c.from, c.to]) at.set(key(e), [...(at.get(key(e)) ?? []), c]);
  const seen = new Set<string>();
  const runs: Run[] = [];
  for (const first of feeds) {
    if (seen.has(first.id)) continue;
    seen.add(first.id);
    const walk = (start: Endpoint): { conductors: Conductor[]; inline: Part[]; end: Endpoint } => {
      const conductors: Conductor[] = [];
      const inline: Part[] = [];
      let end = start;
      for (;;) {
        const other = through(rig, end);
        // One cable on either stud, else the line branches here.
        if (!other || at.get(key(end))!.length !== 1 || at.get(key(other))?.length !== 1) break;
        const [next] = at.get(key(other))!;
        if (!next || seen.has(next.id)) break;
        inline.push(rig.parts.find((p) => p.id === end.part)!);
        seen.add(next.id);
        conductors.push(next);
        end = key(next.from) === key(other) ? next.to : next.from;
      }
      return { conductors, inline, end };
    };
    const back = walk(first.from);
    const on = walk(first.to);
    const conductors = [...back.conductors.reverse(), first, ...on.conductors];
    const longest = conductors.reduce((a, b) => (b.length > a.length ? b : a));
    runs.push({
      id: longest.id,
      name: longest.name,
      conductors,
      inline: [...back.inline.reverse(), ...on.inline],
      from: back.end,
      to: on.end,
    });
  }
  return runs;
}

/** Terminal by which the part at a run's end returns; undefined for what sits in the line or has none. */
export function returnOf(rig: Rig, e: Endpoint): Endpoint | undefined {
  const part = rig.parts.find((p) => p.id === e.part);
  if (!part || through(rig, e)) return undefined;
  const terminal = partKind(part.kind).terminals.find((t) => t.id === 'minus' || t.id === 'ground' || t.id === 'case');
  return terminal && { part: e.part, terminal: terminal.id };
}

/** Returns that carry the run's current back, at both its ends and through connectors in it. */
export function returnsOf(rig: Rig, run: Run): Conductor[] {
  const ends = [run.from, run.to].flatMap((e) => returnOf(rig, e) ?? []);
  const sides = run.inline.filter((p) => is(p, 'towConnector')).map((p) => p.id);
  return rig.conductors.filter(
    (c) => c.use === 'return' && (ends.some((e) => key(c.from) === key(e)) || sides.includes(c.from.part)),
  );
}

/** m between the stations of a conductor's two ends along the vehicles: what it would take without a detour. */
export function straightMetres(rig: Rig, c: Conductor): number {
  const station = (e: Endpoint): number | undefined =>
    rig.parts.find((p) => p.id === e.part)?.station ??
    rig.grounds.find((g) => g.id === e.part)?.points.find((p) => p.id === e.terminal)?.station;
  const [a, b] = [station(c.from), station(c.to)];
  return a === undefined || b === undefined ? 0 : Math.abs(a - b);
}
