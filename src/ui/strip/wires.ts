/** Conductors on their lanes, their names, and each part's return down to the frame rail. */
import type { GaugeUnit } from '../../core/units/preferences';
import { gaugeShown } from '../../core/units/wire';
import type { Conductor, Endpoint, Rig } from '../../core/rig/schema';
import { gaugeWidth, STRIP, type Column, type Flag, type Placed, type Side, type Wire } from './geometry';

const sameEnd = (a: Conductor, b: Conductor): boolean =>
  [a.from, a.to].some((p) => [b.from, b.to].some((q) => p.part === q.part && p.terminal === q.terminal));

function sideOf(c: Conductor, columnOf: ReadonlyMap<string, Column>): Side {
  if (c.use === 'control') return 'control';
  const sides = [c.from.part, c.to.part].map((id) => columnOf.get(id)?.part.side);
  return sides.includes('coach') ? 'coach' : 'engine';
}

/** Feeds and control wires, each on the first lane where nothing else runs over the same stretch. */
export function drawWires(
  rig: Rig,
  place: (e: Endpoint) => Placed | undefined,
  columnOf: ReadonlyMap<string, Column>,
): { wires: Wire[]; laneOf: Map<string, number>; spans: Span[] } {
  const lanes = { feed: [STRIP.main, ...STRIP.upper], control: [...STRIP.control] };
  const taken = new Map<number, { c: Conductor; from: number; to: number }[]>();
  const laneOf = new Map<string, number>();
  const wires: Wire[] = [];
  const span = (c: Conductor) => Math.abs((place(c.from)?.x ?? 0) - (place(c.to)?.x ?? 0));
  const spans: Span[] = [];
  const ordered = rig.conductors
    .filter((c) => c.use !== 'return')
    .sort((a, b) => gaugeWidth(b.gauge) - gaugeWidth(a.gauge) || span(a) - span(b));
  for (const c of ordered) {
    const a = place(c.from);
    const b = place(c.to);
    if (!a || !b) continue;
    const from = Math.min(a.x, b.x);
    const to = Math.max(a.x, b.x);
    const choices = c.use === 'control' ? lanes.control : lanes.feed;
    const free = (y: number) =>
      (taken.get(y) ?? []).every((t) => t.to <= from - 4 || t.from >= to + 4 || (c.use === 'feed' && sameEnd(t.c, c)));
    const lane = choices.find(free) ?? choices[choices.length - 1]!;
    taken.set(lane, [...(taken.get(lane) ?? []), { c, from, to }]);
    laneOf.set(c.id, lane);
    const wire: Wire = {
      id: c.id,
      side: sideOf(c, columnOf),
      width: c.use === 'control' ? 1.7 : gaugeWidth(c.gauge),
      points: [
        [a.x, a.y],
        [a.x, lane],
        [b.x, lane],
        [b.x, b.y],
      ],
      joints: [],
    };
    wires.push(wire);
    spans.push({ wire, c, lane, from, to });
  }
  // A terminal where several feeds meet is a joint on each lane they use.
  const ends = new Map<string, { x: number; lanes: Set<number>; count: number; wire: Wire }>();
  for (const c of rig.conductors) {
    const lane = laneOf.get(c.id);
    const wire = wires.find((w) => w.id === c.id);
    if (lane === undefined || !wire || c.use !== 'feed') continue;
    for (const e of [c.from, c.to]) {
      const p = place(e)!;
      const key = `${e.part}.${e.terminal}`;
      const entry = ends.get(key) ?? { x: p.x, lanes: new Set<number>(), count: 0, wire };
      entry.lanes.add(lane);
      entry.count++;
      ends.set(key, entry);
    }
  }
  for (const e of ends.values()) if (e.count > 1) for (const lane of e.lanes) e.wire.joints.push([e.x, lane]);
  return { wires, laneOf, spans };
}

/** Names the long wires, where neither another wire nor a probe's leader runs through the letters. */
export function labelWires(
  rig: Rig,
  spans: readonly Span[],
  place: (e: Endpoint) => Placed | undefined,
  columnOf: ReadonlyMap<string, Column>,
  flags: readonly Flag[],
  gauge: GaugeUnit,
): void {
  // What drops through the control lanes to the frame rail would run through a name.
  const drops = rig.conductors.flatMap((c) => {
    const p = place(c.from);
    const column = columnOf.get(c.from.part);
    return c.use === 'return' && p && column ? [spineOf(p, column)] : [];
  });
  for (const span of spans) {
    // A high flag's leader comes down through the lanes above its tap, a low one's through those below.
    const leaders = flags.flatMap(({ low, tap: [x, y] }) =>
      low ? (y <= span.lane + LETTERS ? [x] : []) : y >= span.lane - LETTERS ? [x] : [],
    );
    labelWire(span, spans, span.c.use === 'control' ? [...drops, ...leaders] : leaders, gauge);
  }
}

/** px a label's letters take above and below its lane. */
const LETTERS = 12;

export interface Span {
  wire: Wire;
  c: Conductor;
  lane: number;
  from: number;
  to: number;
}

/** Names a long wire where no other lane runs close enough to touch the letters, and nothing crosses them. */
function labelWire(
  { wire, c, lane, from, to }: Span,
  all: readonly Span[],
  crossings: readonly number[],
  gauge: GaugeUnit,
): void {
  if (to - from < (c.use === 'control' ? 150 : 300)) return;
  const text =
    c.use === 'control'
      ? c.name.split(' ')[0]!.toLowerCase()
      : `${c.name.charAt(0).toLowerCase()}${c.name.slice(1)}, ${gaugeShown(c.gauge, gauge)}`;
  const half = text.length * 3.1 + 8;
  for (const share of [0.5, 0.4, 0.6, 0.3, 0.7, 0.2, 0.8, 0.15, 0.85]) {
    const x = from + (to - from) * share;
    const clear = all.every(
      (s) =>
        s.wire === wire ||
        Math.abs(s.lane - lane) > LETTERS ||
        c.use === 'control' ||
        s.to < x - half ||
        s.from > x + half,
    );
    const free = crossings.every((d) => Math.abs(d - x) > half);
    if (clear && free && x - half > from && x + half < to) {
      wire.label = { x, y: lane, text };
      return;
    }
  }
}

/** Where the return of a terminal drops past its part. */
const spineOf = (p: Placed, column: Column): number => (p.x > column.x ? column.x + 40 : column.x - 42);

/** Each part's return drops down its own spine to a bolt on the frame rail. */
export function returns(
  rig: Rig,
  columnOf: ReadonlyMap<string, Column>,
  place: (e: Endpoint) => Placed | undefined,
  wires: Wire[],
): [number, number][] {
  const bolts: [number, number][] = [];
  const railMiddle = STRIP.rail + STRIP.railHeight / 2;
  const drop = (id: string, from: Endpoint, width: number, to?: Endpoint) => {
    const p = place(from);
    const column = columnOf.get(from.part);
    if (!p || !column) return;
    const spine = spineOf(p, column);
    const turn = p.y > STRIP.icon + 40 ? p.y + 5 : p.y - 6;
    // To another part's stud, as a shunt's, it runs under the part instead.
    const q = to && columnOf.has(to.part) ? place(to) : undefined;
    if (q) {
      const low = STRIP.icon + 49;
      const points: [number, number][] = [
        [p.x, p.y],
        [p.x, turn],
        [spine, turn],
        [spine, low],
        [q.x - 8, low],
        [q.x - 8, q.y],
        [q.x, q.y],
      ];
      wires.unshift({ id, side: 'return', width, points, joints: [] });
      return;
    }
    wires.unshift({
      id,
      side: 'return',
      width,
      points: [
        [p.x, p.y],
        [p.x, turn],
        [spine, turn],
        [spine, railMiddle],
      ],
      joints: [],
    });
    bolts.push([spine, railMiddle]);
  };
  for (const c of rig.conductors) {
    if (c.use === 'return' && columnOf.has(c.from.part)) drop(c.id, c.from, gaugeWidth(c.gauge), c.to);
  }
  for (const b of rig.bonds) if (columnOf.has(b.from.part)) drop(b.id, b.from, 5);
  return bolts;
}
