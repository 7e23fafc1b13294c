/** What is to be cut: every conductor that is new or has changed, with length, ends and labels. */
import { partKind } from '../../parts/kinds';
import type { Conductor, Endpoint, Rig } from '../../rig/schema';
import { endsFor, fitsTerminal } from '../../size/hardware';
import type { Gauge } from '../../units/wire';

/** m of slack left at each end so that a terminal can be made again: common practice. */
export const SERVICE_LOOP_METRES = 0.15;

export interface CutEnd {
  /** Part or ground it ends on, and the terminal. */
  at: Endpoint;
  part: string;
  terminal: string;
  /** What is made on it: lug, ferrule, ring. */
  made: string;
  /** What stands on its label. */
  label: string;
}

export interface Cut {
  id: string;
  name: string;
  use: Conductor['use'];
  gauge: Gauge;
  /** m to cut, service loops counted in. */
  length: number;
  ends: [CutEnd, CutEnd];
  shrink: number;
  crimper: string;
  /** The piece that was there before is taken out first. */
  replaces: boolean;
}

/** Whether a conductor of the one rig does for the other: same wire between the same points, as long to a hand. */
export const sameWire = (a: Conductor, b: Conductor): boolean =>
  a.gauge === b.gauge &&
  a.from.part === b.from.part &&
  a.from.terminal === b.from.terminal &&
  a.to.part === b.to.part &&
  a.to.terminal === b.to.terminal &&
  Math.abs(a.length - b.length) < 0.1;

function end(rig: Rig, c: Conductor, at: Endpoint, other: Endpoint): CutEnd {
  const part = rig.parts.find((p) => p.id === at.part);
  const ground = rig.grounds.find((g) => g.id === at.part);
  const name = (e: Endpoint): string =>
    rig.parts.find((p) => p.id === e.part)?.name ??
    rig.grounds.find((g) => g.id === e.part)?.points.find((p) => p.id === e.terminal)?.label ??
    e.part;
  const terminal = part
    ? (partKind(part.kind).terminals.find((t) => t.id === at.terminal)?.label ?? at.terminal)
    : (ground?.points.find((p) => p.id === at.terminal)?.label ?? at.terminal);
  const fit = part && fitsTerminal(part.kind, c.gauge);
  const made =
    c.use === 'control'
      ? 'sealed crimp'
      : part
        ? fit?.how.includes('clamp')
          ? 'ferrule'
          : `${endsFor(c.gauge).lug}${fit ? `; ${fit.how}` : ''}`
        : `${endsFor(c.gauge).lug}; bare metal, star washer, grease over it`;
  // A point of a ground is known by its label alone.
  const here = part ? `${name(at)} ${terminal}` : terminal;
  return { at, part: name(at), terminal, made, label: `${here} ← ${name(other)}` };
}

/** The cut list from one version of a rig to another, heavy first. */
export function cutList(from: Rig, to: Rig): Cut[] {
  const before = new Map(from.conductors.map((c) => [c.id, c]));
  return to.conductors
    .filter((c) => {
      const was = before.get(c.id);
      return !was || !sameWire(was, c);
    })
    .map((c): Cut => {
      const ends = endsFor(c.gauge);
      return {
        id: c.id,
        name: c.name,
        use: c.use,
        gauge: c.gauge,
        // Up to the next centimetre: a cable too short is no cable.
        length: Math.ceil((c.length + 2 * SERVICE_LOOP_METRES) * 100 - 1e-6) / 100,
        ends: [end(to, c, c.from, c.to), end(to, c, c.to, c.from)],
        shrink: ends.shrink,
        crimper: ends.crimper,
        replaces: before.has(c.id),
      };
    })
    .sort((a, b) => order(a) - order(b) || b.length - a.length);
}
const order = (c: Cut): number => (c.use === 'feed' ? 0 : c.use === 'return' ? 1 : 2);
