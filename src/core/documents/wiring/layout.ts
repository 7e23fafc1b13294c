/**
 * Where everything stands on a wiring sheet: heavy parts nose to tail in one row, what decides above them, every
 * conductor between parts on a track of its own in between. mm.
 */
import { partKind } from '../../parts/kinds';
import type { Conductor, Endpoint, Part, Rig } from '../../rig/schema';
import { textWidth } from './drawing';
import { SheetNames, type WiringUnits } from './names';

export const MARGIN_MM = 8;
const PIN_MM = 7;
const MIN_BOX_MM = 21;
const GAP_MM = 5;
const TRACK_MM = 5.6;
const CLEAR_MM = 7;
/** Down from the main row to the end of what hangs below it. */
export const STUB_MM = 31;
/** Where the rows begin. */
export const TOP = MARGIN_MM + 12;
/** Two pins nearer than this would seem joined. */
const APART_MM = 1.3;

export interface Pin {
  part: string;
  terminal: string;
  x: number;
  y: number;
  /** The conductors leave upward from the box, or downward. */
  up: boolean;
}

/** A conductor between two pins. */
export interface SpanAt {
  c: Conductor;
  a: Pin;
  b: Pin;
  lo: number;
  hi: number;
  /** Its track. */
  y: number;
}

type Terminals = readonly { id: string; label: string }[];
interface Used {
  pins: Terminals;
  /** All of whose conductors go to metal: they hang below; the others reach up to the tracks. */
  below: Terminals;
  above: Terminals;
}

export interface Layout {
  rig: Rig;
  names: SheetNames;
  rows: { top: readonly Part[]; main: readonly Part[] };
  /** Left edge and width of each part's box. */
  at: ReadonlyMap<string, { x: number; w: number }>;
  /** Those tracks reach, and those that hang below. */
  pins: readonly Pin[];
  belowPins: readonly Pin[];
  spans: readonly SpanAt[];
  heights: { top: number; main: number };
  /** Lower edge of the upper row, upper edge of the main one, and the names in it from that edge. */
  topBottom: number;
  mainTop: number;
  namesAt: number;
  width: number;
}

export const isGround = (rig: Rig, e: Endpoint): boolean => rig.grounds.some((g) => g.id === e.part);
export const isAbove = (p: Part): boolean => partKind(p.kind).role === 'control';

function usedOf(rig: Rig, p: Part): Used {
  const on = (t: string) =>
    rig.conductors.filter(
      (c) => (c.from.part === p.id && c.from.terminal === t) || (c.to.part === p.id && c.to.terminal === t),
    );
  const pins = partKind(p.kind).terminals.filter(
    (t) =>
      on(t.id).length > 0 || rig.bonds.some((b) => [b.from, b.to].some((e) => e.part === p.id && e.terminal === t.id)),
  );
  const other = (c: Conductor, t: string): Endpoint => (c.from.part === p.id && c.from.terminal === t ? c.to : c.from);
  const below = pins.filter((t) => on(t.id).every((c) => isGround(rig, other(c, t.id))));
  return { pins, below, above: pins.filter((t) => !below.includes(t)) };
}

/** Boxes side by side from the margin, spread over the width. */
function spreadOut(row: readonly Part[], widthOf: (p: Part) => number, inner: number, at: Map<string, Box>): void {
  const spread = row.length > 1 ? (inner - widthOfRow(row, widthOf)) / (row.length - 1) + GAP_MM : 0;
  let x = MARGIN_MM;
  for (const p of row) {
    at.set(p.id, { x, w: widthOf(p) });
    x += widthOf(p) + spread;
  }
}

interface Box {
  x: number;
  w: number;
}

const widthOfRow = (row: readonly Part[], widthOf: (p: Part) => number): number =>
  row.reduce((sum, p) => sum + widthOf(p), 0) + GAP_MM * Math.max(0, row.length - 1);

/** x over a station of the rig, between the middles of the boxes below. */
function over(middles: readonly (readonly [station: number, x: number])[], station: number): number {
  const k = middles.findIndex(([s]) => s > station);
  if (k <= 0) return k === 0 ? middles[0]![1] : (middles.at(-1)?.[1] ?? MARGIN_MM);
  const [s0, x0] = middles[k - 1]!;
  const [s1, x1] = middles[k]!;
  return s1 === s0 ? x0 : x0 + ((x1 - x0) * (station - s0)) / (s1 - s0);
}

/** Each part of the upper row over where it is on the rig, pushed apart from left to right, then back from the margin. */
function placeOver(
  row: readonly Part[],
  under: readonly Part[],
  widthOf: (p: Part) => number,
  inner: number,
  at: Map<string, Box>,
): void {
  const middles = under.map((p) => [p.station, at.get(p.id)!.x + at.get(p.id)!.w / 2] as const);
  let x = MARGIN_MM;
  const spots = row.map((p) => {
    const w = widthOf(p);
    const left = Math.max(x, over(middles, p.station) - w / 2);
    x = left + w + GAP_MM;
    return { p, left, w };
  });
  let right = MARGIN_MM + inner;
  for (const spot of spots.reverse()) {
    const left = Math.min(spot.left, right - spot.w);
    right = left - GAP_MM;
    at.set(spot.p.id, { x: left, w: spot.w });
  }
}

/** Pins spread over a box's edge; with `taken`, none stands where another does in the row opposite. */
function pinsOn(box: Box, part: string, list: Terminals, up: boolean, y: number, taken?: readonly Pin[]): Pin[] {
  const made: Pin[] = [];
  list.forEach((t, i) => {
    let x = box.x + (box.w * (i + 0.5)) / list.length;
    while (taken && [...taken, ...made].some((q) => Math.abs(q.x - x) < APART_MM)) x += APART_MM;
    made.push({ part, terminal: t.id, x, y, up });
  });
  return made;
}

/** Conductors between pins, short hops nearest the heavy row, each on the first track where it meets no other. */
function tracksOf(
  names: SheetNames,
  pins: readonly Pin[],
): { spans: (Omit<SpanAt, 'y'> & { track: number })[]; tracks: number } {
  const { rig } = names;
  const pinOf = (e: Endpoint): Pin | undefined => pins.find((q) => q.part === e.part && q.terminal === e.terminal);
  const spans = rig.conductors
    .filter((c) => !isGround(rig, c.from) && !isGround(rig, c.to))
    .flatMap((c) => {
      const a = pinOf(c.from);
      const b = pinOf(c.to);
      return a && b ? [{ c, a, b, lo: Math.min(a.x, b.x), hi: Math.max(a.x, b.x) }] : [];
    })
    .sort((s, t) => s.hi - s.lo - (t.hi - t.lo));
  const tracks: { lo: number; hi: number }[][] = [];
  const placed = spans.map((s) => {
    const need = Math.max(s.hi - s.lo, textWidth(names.span(s.c), 2.5) + 2);
    const middle = (s.lo + s.hi) / 2;
    const lo = Math.min(s.lo, middle - need / 2);
    const hi = Math.max(s.hi, middle + need / 2);
    let track = tracks.findIndex((t) => t.every((x) => hi + 1.5 < x.lo || lo - 1.5 > x.hi));
    if (track < 0) track = tracks.push([]) - 1;
    tracks[track]!.push({ lo, hi });
    return { ...s, track };
  });
  return { spans: placed, tracks: tracks.length };
}

export function layoutOf(rig: Rig, units: WiringUnits): Layout {
  const names = new SheetNames(rig, units);
  const bySide = [...rig.parts].sort((a, b) => a.station - b.station);
  const rows = { top: bySide.filter(isAbove), main: bySide.filter((p) => !isAbove(p)) };
  const uses = new Map(rig.parts.map((p) => [p.id, usedOf(rig, p)]));
  const used = (p: Part): Used => uses.get(p.id)!;
  const widthOf = (p: Part): number => {
    const u = used(p);
    const most = isAbove(p) ? u.pins.length : Math.max(u.above.length, u.below.length);
    return Math.max(MIN_BOX_MM, most * PIN_MM + 4);
  };
  const inner = Math.max(widthOfRow(rows.main, widthOf), widthOfRow(rows.top, widthOf), 150);
  const at = new Map<string, Box>();
  spreadOut(rows.main, widthOf, inner, at);
  placeOver(rows.top, rows.main, widthOf, inner, at);

  // A row is as high as its longest pin names and its part names need.
  const words = (p: Part, list: Terminals): number => Math.max(0, ...list.map((t) => textWidth(names.pin(p, t), 2.1)));
  const nameHeight = (p: Part): number => wrapped(p.name, widthOf(p) - 2, 2.7).length * 3 + (p.note ? 3 : 0) + 3;
  const namesAt = 6 + Math.max(0, ...rows.main.map((p) => words(p, used(p).above)));
  const heights = {
    top: Math.max(0, ...rows.top.map((p) => nameHeight(p) + words(p, used(p).pins) + 4)),
    main: Math.max(0, ...rows.main.map((p) => namesAt + nameHeight(p) + words(p, used(p).below))),
  };
  const topBottom = rows.top.length > 0 ? TOP + heights.top : TOP - CLEAR_MM;

  // x of the pins, the main row first; how many tracks they need sets how far apart the rows stand.
  const pins: Pin[] = [];
  for (const p of rows.main) pins.push(...pinsOn(at.get(p.id)!, p.id, used(p).above, true, 0, pins));
  for (const p of rows.top) pins.push(...pinsOn(at.get(p.id)!, p.id, used(p).pins, false, topBottom, pins));
  const { spans, tracks } = tracksOf(names, pins);
  const mainTop = topBottom + CLEAR_MM + tracks * TRACK_MM + CLEAR_MM;
  for (const q of pins) if (q.up) q.y = mainTop;
  return {
    rig,
    names,
    rows,
    at,
    pins,
    belowPins: rows.main.flatMap((p) => pinsOn(at.get(p.id)!, p.id, used(p).below, false, mainTop + heights.main)),
    spans: spans.map(({ track, ...s }) => ({ ...s, y: mainTop - CLEAR_MM - track * TRACK_MM })),
    heights,
    topBottom,
    mainTop,
    namesAt,
    width: inner + 2 * MARGIN_MM,
  };
}

/** A name in lines that fit; at most two, the rest is cut with a sign that it is. */
export function wrapped(text: string, width: number, size: number): string[] {
  const lines: string[] = [];
  for (const word of text.split(' ')) {
    const last = lines.at(-1);
    if (last !== undefined && textWidth(`${last} ${word}`, size) <= width) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  if (lines.length <= 2) return lines;
  return [lines[0]!, `${lines[1]!}…`];
}
