/**
 * The loom strip's geometry from the rig document alone: columns, ruler, lanes, wires, flags. Pure numbers;
 * the drawing is in LoomStrip.tsx.
 */
import type { Conductor, Endpoint, Part, Rig } from '../../core/rig/schema';
import type { GaugeUnit } from '../../core/units/preferences';
import { gaugeShown } from '../../core/units/wire';
import { ANCHORS, IN_LINE } from './anchors';
import { spread } from './isotonic';

export const STRIP = {
  width: 1160,
  height: 312,
  feet: 12,
  bar: 17,
  metres: 37,
  flag: 57,
  plate: 77,
  plateHeight: 24,
  roof: 104,
  main: 134,
  /** Feed lanes above the main line, nearest first. */
  upper: [122, 111],
  icon: 143,
  /** Control lanes under the icons. */
  control: [204, 214, 224],
  name: 243,
  note: 258,
  rail: 264,
  railHeight: 6,
  chip: 274,
  chipHeight: 36,
} as const;

/** Kinds that join the two sides; the strip's wash changes there. */
const LINKS: readonly string[] = ['link-solenoid', 'diode-isolator'];
const PITCH = 84;
const FLAG_PITCH = 76;
const CHIP_WIDTH = 50;
const FEET = 0.3048;

export type Side = 'engine' | 'coach' | 'control' | 'return';

export interface Column {
  part: Part;
  x: number;
}

export interface Wire {
  id: string;
  side: Side;
  /** Stroke width, px, by gauge. */
  width: number;
  points: [number, number][];
  /** Joints with other wires of the same terminal, to be dotted. */
  joints: [number, number][];
  label?: { x: number; y: number; text: string };
}

export interface Flag {
  key: string;
  label: string;
  name: string;
  x: number;
  /** High flags fly above the roof, low ones are chips under the frame. */
  low: boolean;
  tap: [number, number];
  /** Low flags: where the leader leaves the lane. */
}

export interface StripLayout {
  columns: Column[];
  wires: Wire[];
  bolts: [number, number][];
  splices: number[];
  flags: Flag[];
  /** Metres to x. */
  x(station: number): number;
  length: number;
  /** Where the two sides meet, and whether the engine's is toward the nose. */
  meet: number;
  engineFirst: boolean;
  legend: { coach: number; engine: number };
  chipWidth: number;
}

/** Stroke width by gauge, px. */
const GAUGE_WIDTH: Readonly<Record<string, number>> = {
  '4/0': 11,
  '3/0': 10,
  '2/0': 9,
  '1/0': 8,
  '1': 7,
  '2': 6,
  '4': 5,
  '6': 4,
  '8': 3.4,
  '10': 2.8,
};
export const gaugeWidth = (gauge: string): number => GAUGE_WIDTH[gauge] ?? 2.4;

interface Placed {
  x: number;
  y: number;
  out: 'up' | 'down';
}

export function stripLayout(rig: Rig, gauge: GaugeUnit = 'awg'): StripLayout {
  const length = rig.vehicles.reduce((most, v) => Math.max(most, v.length), 1);
  const parts = [...rig.parts].sort((a, b) => a.station - b.station);
  const want = parts.map((p) => 60 + (STRIP.width - 120) * (p.station / length));
  const pitch = Math.min(PITCH, (STRIP.width - 30) / Math.max(1, parts.length));
  const xs = spread(want, parts.map(() => pitch), 14, STRIP.width - 10);
  const columns = parts.map((part, i) => ({ part, x: Math.round(xs[i]!) }));
  const columnOf = new Map(columns.map((c) => [c.part.id, c]));
  const station = stationScale(columns, length);
  const place = placer(rig, columnOf);

  const { wires, laneOf } = drawWires(rig, place, columnOf, gauge);
  const bolts = returns(rig, columnOf, place, wires);
  const splices = rig.bonds
    .filter((b) => !columnOf.has(b.from.part) && !columnOf.has(b.to.part))
    .flatMap((b) => {
      const at = (e: Endpoint) => rig.grounds.find((g) => g.id === e.part)?.points.find((p) => p.id === e.terminal)?.station;
      const from = at(b.from);
      const to = at(b.to);
      return from === undefined || to === undefined ? [] : [Math.round((station(from) + station(to)) / 2)];
    });
  const flags = placeFlags(rig, place, laneOf, columnOf);
  const meet = columns.find((c) => LINKS.includes(c.part.kind))?.x ?? STRIP.width / 2;
  const middle = (side: Part['side']) => {
    const of = columns.filter((c) => c.part.side === side && c.part.place !== 'Dash');
    return of.reduce((sum, c) => sum + c.x, 0) / Math.max(1, of.length);
  };
  const engineFirst = middle('engine') < middle('coach');
  return { columns, wires, bolts, splices, flags, x: station, length, meet, engineFirst, legend: legendPlaces(flags, meet, engineFirst), chipWidth: CHIP_WIDTH };
}

/** Stations to x: straight between the parts, so that the ruler shows where the drawing stretches. */
function stationScale(columns: readonly Column[], length: number): (station: number) => number {
  const knots: [number, number][] = [[0, 16]];
  for (const c of columns) {
    const [last] = knots[knots.length - 1]!;
    if (c.part.station > last + 0.05 && c.part.station < length - 0.05) knots.push([c.part.station, c.x]);
  }
  knots.push([length, STRIP.width - 16]);
  return (s) => {
    let i = 1;
    while (i < knots.length - 1 && s > knots[i]![0]) i++;
    const [a, xa] = knots[i - 1]!;
    const [b, xb] = knots[i]!;
    return xa + ((s - a) / (b - a)) * (xb - xa);
  };
}

/** Where a terminal is on the drawing; in-line parts are turned the way their cables run. */
function placer(rig: Rig, columnOf: ReadonlyMap<string, Column>): (e: Endpoint) => Placed | undefined {
  const turned = new Map<string, boolean>();
  for (const { part, x } of columnOf.values()) {
    const pair = IN_LINE[part.kind];
    if (!pair) continue;
    const mean = (terminal: string) => {
      const others = rig.conductors
        .filter((c) => c.use === 'feed')
        .flatMap((c) =>
          c.from.part === part.id && c.from.terminal === terminal
            ? [c.to.part]
            : c.to.part === part.id && c.to.terminal === terminal
              ? [c.from.part]
              : [],
        )
        .map((id) => columnOf.get(id)?.x ?? x);
      return others.length > 0 ? others.reduce((s, v) => s + v, 0) / others.length : x;
    };
    turned.set(part.id, mean(pair[0]) > mean(pair[1]));
  }
  return (e) => {
    const column = columnOf.get(e.part);
    if (!column) return undefined;
    const anchors = ANCHORS[column.part.kind];
    const pair = IN_LINE[column.part.kind];
    let name = e.terminal;
    if (pair?.includes(e.terminal)) {
      const first = e.terminal === pair[0];
      name = first !== (turned.get(e.part) ?? false) ? 'left' : 'right';
    }
    const a = anchors?.[name];
    return a ? { x: column.x + a.dx, y: STRIP.icon + a.dy, out: a.out } : undefined;
  };
}

const sameEnd = (a: Conductor, b: Conductor): boolean =>
  [a.from, a.to].some((p) => [b.from, b.to].some((q) => p.part === q.part && p.terminal === q.terminal));

function sideOf(c: Conductor, columnOf: ReadonlyMap<string, Column>): Side {
  if (c.use === 'control') return 'control';
  const sides = [c.from.part, c.to.part].map((id) => columnOf.get(id)?.part.side);
  return sides.includes('coach') ? 'coach' : 'engine';
}

/** Feeds and control wires, each on the first lane where nothing else runs over the same stretch. */
function drawWires(
  rig: Rig,
  place: (e: Endpoint) => Placed | undefined,
  columnOf: ReadonlyMap<string, Column>,
  gauge: GaugeUnit,
): { wires: Wire[]; laneOf: Map<string, number> } {
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
  for (const span of spans) labelWire(span, spans, gauge);
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
  return { wires, laneOf };
}

interface Span {
  wire: Wire;
  c: Conductor;
  lane: number;
  from: number;
  to: number;
}

/** Names a long wire where no other lane runs close enough to touch the letters. */
function labelWire({ wire, c, lane, from, to }: Span, all: readonly Span[], gauge: GaugeUnit): void {
  if (to - from < (c.use === 'control' ? 150 : 300)) return;
  const text = c.use === 'control' ? c.name.split(' ')[0]!.toLowerCase() : `${c.name.charAt(0).toLowerCase()}${c.name.slice(1)}, ${gaugeShown(c.gauge, gauge)}`;
  const half = text.length * 3.1 + 8;
  for (const share of [0.5, 0.3, 0.7, 0.85]) {
    const x = from + (to - from) * share;
    const clear = all.every(
      (s) => s.wire === wire || Math.abs(s.lane - lane) > 12 || c.use === 'control' || s.to < x - half || s.from > x + half,
    );
    if (clear && x - half > from && x + half < to) {
      wire.label = { x, y: lane, text };
      return;
    }
  }
}

/** Each part's return drops down its own spine to a bolt on the frame rail. */
function returns(
  rig: Rig,
  columnOf: ReadonlyMap<string, Column>,
  place: (e: Endpoint) => Placed | undefined,
  wires: Wire[],
): [number, number][] {
  const bolts: [number, number][] = [];
  const railMiddle = STRIP.rail + STRIP.railHeight / 2;
  const drop = (id: string, from: Endpoint, width: number) => {
    const p = place(from);
    const column = columnOf.get(from.part);
    if (!p || !column) return;
    const right = p.x > column.x;
    const spine = right ? column.x + 40 : column.x - 42;
    const turn = p.y > STRIP.icon + 40 ? p.y + 5 : p.y - 6;
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
    if (c.use === 'return' && columnOf.has(c.from.part)) drop(c.id, c.from, gaugeWidth(c.gauge));
  }
  for (const b of rig.bonds) if (columnOf.has(b.from.part)) drop(b.id, b.from, 5);
  return bolts;
}

function placeFlags(
  rig: Rig,
  place: (e: Endpoint) => Placed | undefined,
  laneOf: ReadonlyMap<string, number>,
  columnOf: ReadonlyMap<string, Column>,
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
    const room = list.map(() => (low ? CHIP_WIDTH + 3 : FLAG_PITCH));
    const xs = spread(list.map((w) => w.want), room, 8, STRIP.width - 8);
    list.forEach(({ want: _want, ...flag }, i) => flags.push({ ...flag, x: Math.round(xs[i]!) }));
  }
  return flags;
}

/** The widest free stretch of the bottom row on each side, for the side's name. */
function legendPlaces(flags: readonly Flag[], meet: number, engineFirst: boolean): { coach: number; engine: number } {
  const low = flags.filter((f) => f.low).map((f) => f.x);
  const widest = (from: number, to: number) => {
    const inside = [from, ...low.filter((x) => x > from && x < to).flatMap((x) => [x - CHIP_WIDTH / 2, x + CHIP_WIDTH / 2]), to];
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
  const tail = widest(meet, STRIP.width - 14);
  return engineFirst ? { coach: tail, engine: nose } : { coach: nose, engine: tail };
}

/** Ticks for a ruler: every two feet, with the labels that fit. */
export function feetTicks(layout: StripLayout): { x0: number; x1: number; dark: boolean }[] {
  const feet = layout.length / FEET;
  const ticks: { x0: number; x1: number; dark: boolean }[] = [];
  for (let f = 0; f < feet - 0.01; f += 2) {
    ticks.push({ x0: layout.x(f * FEET), x1: layout.x(Math.min(f + 2, feet) * FEET), dark: (f / 2) % 2 === 0 });
  }
  return ticks;
}

/** Labels along the ruler with at least `gap` px between them. */
export function rulerLabels(layout: StripLayout, unit: 'ft' | 'm', gap: number): { x: number; text: string }[] {
  const step = unit === 'ft' ? 2 * FEET : 1;
  const labels: { x: number; text: string }[] = [];
  for (let k = 0; k * step <= layout.length + 0.01; k++) {
    const x = layout.x(k * step);
    const last = labels[labels.length - 1];
    if (last && x - last.x < gap) continue;
    labels.push({ x, text: k === 0 ? `0 ${unit}` : String(unit === 'ft' ? k * 2 : k) });
  }
  return labels;
}
