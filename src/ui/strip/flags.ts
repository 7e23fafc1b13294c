/** Where the probes' flags stand, and the legend in the gaps between them. */
import type { Endpoint, Rig } from '../../core/rig/schema';
import { CHIP_WIDTH, FLAG_PITCH, STRIP, type Column, type Flag, type Placed } from './geometry';
import { spread } from './isotonic';

/** px of paper left free at either end. */
export const EDGE = 8;

/** Width of the high flags' plates: what their pitch leaves. */
export const plateWidth = (flags: readonly Flag[], width: number): number =>
  Math.min(72, Math.floor((width - 2 * EDGE) / Math.max(1, flags.filter((f) => !f.low).length)) - 3);

export function placeFlags(
  rig: Rig,
  place: (e: Endpoint) => Placed | undefined,
  laneOf: ReadonlyMap<string, number>,
  columnOf: ReadonlyMap<string, Column>,
  width: number,
): Flag[] {
  interface Wanted extends Omit<Flag, 'x'> {
    want: number;
  }
  const wanted: Wanted[] = [];
  for (const probe of rig.probes) {
    if (probe.retired) continue;
    const [owner, terminal] = probe.key.split('.') as [string, string];
    const base = { key: probe.key, label: probe.label, name: probe.name };
    if (terminal === 'clamp') {
      const c = rig.conductors.find((x) => x.id === owner)!;
      const a = place(c.from);
      const b = place(c.to);
      const lane = laneOf.get(owner);
      if (a && b && lane !== undefined) {
        const x = (a.x + b.x) / 2;
        wanted.push({ ...base, low: c.use === 'control', tap: [x, lane], want: x });
      } else if (a) {
        const right = a.x > (columnOf.get(c.from.part)?.x ?? a.x);
        const spine = (columnOf.get(c.from.part)?.x ?? a.x) + (right ? 40 : -42);
        wanted.push({ ...base, low: true, tap: [spine, STRIP.control[2]], want: spine });
      }
      continue;
    }
    const p = place({ part: owner, terminal });
    if (!p) continue;
    if (p.out === 'up') {
      const lane = rig.conductors
        .filter((c) => c.use === 'feed' && [c.from, c.to].some((e) => e.part === owner && e.terminal === terminal))
        .map((c) => laneOf.get(c.id) ?? STRIP.main)
        .sort((a, b) => b - a)[0];
      wanted.push({ ...base, low: false, tap: [p.x, lane ?? STRIP.main], want: p.x });
    } else {
      // A low point is tapped on its wire's lane, or on its return's spine.
      const own = rig.conductors.find((c) => [c.from, c.to].some((e) => e.part === owner && e.terminal === terminal));
      const lane = own ? laneOf.get(own.id) : undefined;
      const column = columnOf.get(owner)!;
      const spine = column.x + (p.x > column.x ? 40 : -42);
      const tap: [number, number] = lane === undefined ? (own ? [spine, STRIP.control[1]] : [p.x, p.y]) : [p.x, lane];
      wanted.push({ ...base, low: true, tap, want: lane === undefined ? tap[0] : p.x });
    }
  }
  const flags: Flag[] = [];
  for (const low of [false, true]) {
    const list = wanted.filter((w) => w.low === low).sort((a, b) => a.want - b.want);
    // Many stand closer: the paper has no more room.
    const pitch = Math.min(low ? CHIP_WIDTH + 3 : FLAG_PITCH, (width - 2 * EDGE) / Math.max(1, list.length));
    const xs = spread(
      list.map((w) => w.want),
      list.map(() => pitch),
      EDGE,
      width - EDGE,
    );
    list.forEach(({ want: _want, ...flag }, i) => flags.push({ ...flag, x: Math.round(xs[i]!) }));
  }
  return flags;
}

/** The widest free stretch of the bottom row on each side, for the side's name. */
export function legendPlaces(
  flags: readonly Flag[],
  meet: number,
  engineFirst: boolean,
  width: number,
): { coach: number; engine: number } {
  const low = flags.filter((f) => f.low).map((f) => f.x);
  const widest = (from: number, to: number) => {
    const inside = [
      from,
      ...low.filter((x) => x > from && x < to).flatMap((x) => [x - CHIP_WIDTH / 2, x + CHIP_WIDTH / 2]),
      to,
    ];
    let best = (from + to) / 2;
    let size = 0;
    for (let i = 0; i + 1 < inside.length; i += 2) {
      if (inside[i + 1]! - inside[i]! > size) {
        size = inside[i + 1]! - inside[i]!;
        best = (inside[i]! + inside[i + 1]!) / 2;
      }
    }
    return Math.round(best);
  };
  const nose = widest(14, meet);
  const tail = widest(meet, width - 14);
  return engineFirst ? { coach: tail, engine: nose } : { coach: nose, engine: tail };
}
