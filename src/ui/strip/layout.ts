/**
 * The loom strip's geometry from the rig document alone: columns, ruler, lanes, wires, flags. Pure numbers;
 * the drawing is in LoomStrip.tsx.
 */
import type { TraitName } from '../../core/parts/traits';
import { is, traitsOf } from '../../core/parts/kinds';
import type { Endpoint, Part, Rig } from '../../core/rig/schema';
import type { GaugeUnit } from '../../core/units/preferences';
import { ANCHORS } from './anchors';
import { EDGE, legendPlaces, placeFlags, plateWidth } from './flags';
import {
  CHIP_WIDTH,
  LEAST_PITCH,
  LEAST_PLATE,
  NAME_BEGINS,
  nameWidth,
  PITCH,
  STRIP,
  type Column,
  type Placed,
  type Shell,
  type StripLayout,
} from './geometry';
import { spread } from './isotonic';
import { shellsOf } from './vehicles';
import { drawWires, labelWires, returns } from './wires';

/** Where the sides meet: at the hitch, else at the link. */
const MEETS: readonly TraitName[] = ['towConnector', 'solenoid', 'oneWay'];

export function stripLayout(rig: Rig, gauge: GaugeUnit = 'awg'): StripLayout {
  const layout = layoutAt(rig, gauge, STRIP.width);
  const wants = roomFor(layout);
  return wants > STRIP.width ? layoutAt(rig, gauge, wants) : layout;
}

/** px at which every name ends before the next part and no two flags touch, the parts as close as may be. */
function roomFor({ columns, flags }: StripLayout): number {
  const names = columns.reduce((sum, { part }) => sum + Math.max(LEAST_PITCH, nameWidth(part.name)), 30);
  const high = flags.filter((f) => !f.low).length;
  return Math.ceil(
    Math.max(names, high * (LEAST_PLATE + 3) + 2 * EDGE, (flags.length - high) * (CHIP_WIDTH + 3) + 2 * EDGE),
  );
}

function layoutAt(rig: Rig, gauge: GaugeUnit, width: number): StripLayout {
  const shells = shellsOf(rig);
  const length = shells.reduce((most, v) => Math.max(most, v.to), 1);
  const parts = [...rig.parts].sort((a, b) => a.station - b.station);
  const want = parts.map((p) => 60 + (width - 120) * (p.station / length));
  const { pitch, gaps } = pitches(parts, width);
  const xs = spread(
    want,
    parts.map(() => pitch),
    NOSE,
    width - tailRoom(parts, pitch) + pitch / 2,
    gaps,
  );
  const columns = parts.map((part, i) => ({ part, x: Math.round(xs[i]!) }));
  const columnOf = new Map(columns.map((c) => [c.part.id, c]));
  const station = stationScale(columns, length, width);
  const place = placer(rig, columnOf);

  const { wires, laneOf, spans } = drawWires(rig, place, columnOf);
  const bolts = returns(rig, columnOf, place, wires);
  const splices = rig.bonds
    .filter((b) => !columnOf.has(b.from.part) && !columnOf.has(b.to.part))
    .flatMap((b) => {
      const at = (e: Endpoint) =>
        rig.grounds.find((g) => g.id === e.part)?.points.find((p) => p.id === e.terminal)?.station;
      const from = at(b.from);
      const to = at(b.to);
      return from === undefined || to === undefined ? [] : [Math.round((station(from) + station(to)) / 2)];
    });
  const flags = placeFlags(rig, place, laneOf, columnOf, width);
  labelWires(rig, spans, place, columnOf, flags, gauge);
  const meet =
    MEETS.map((trait) => columns.find((c) => is(c.part, trait))?.x).find((x) => x !== undefined) ?? width / 2;
  const middle = (side: Part['side']) => {
    const of = columns.filter((c) => c.part.side === side && c.part.place !== 'Dash');
    return of.reduce((sum, c) => sum + c.x, 0) / Math.max(1, of.length);
  };
  const engineFirst = middle('engine') < middle('coach');
  return {
    width,
    columns,
    wires,
    bolts,
    splices,
    flags,
    x: station,
    length,
    meet,
    engineFirst,
    legend: legendPlaces(flags, meet, engineFirst, width),
    chipWidth: CHIP_WIDTH,
    plateWidth: plateWidth(flags, width),
    shells: drawnShells(shells, columns, station, width),
  };
}

/** px left free before the first part, and behind the middle of the last: its own half, and its name. */
const NOSE = 14;
const tailRoom = (parts: readonly Part[], pitch: number): number =>
  Math.max(10 + pitch / 2, nameWidth(parts.at(-1)?.name ?? '') - NAME_BEGINS + 2);

/** The next part's name begins where this one's ends: where many parts stand close, short names make room for long ones. */
function pitches(parts: readonly Part[], width: number): { pitch: number; gaps: number[] } {
  const gapsAt = (pitch: number) => parts.slice(0, -1).map((p) => Math.max(pitch, nameWidth(p.name)));
  const takes = (pitch: number) => gapsAt(pitch).reduce((sum, g) => sum + g, NOSE + pitch / 2 + tailRoom(parts, pitch));
  let pitch = Math.min(PITCH, (width - 30) / Math.max(1, parts.length));
  while (pitch > LEAST_PITCH && takes(pitch) > width) pitch -= 1;
  return { pitch, gaps: gapsAt(pitch) };
}

/** Half of the gap a plug bridges, px. */
const HITCH = 20;

/** Ends of the vehicles; where a plug joins two, the gap is drawn under it, however short it is to scale. */
function drawnShells(
  shells: readonly Shell[],
  columns: readonly Column[],
  station: (s: number) => number,
  width: number,
): StripLayout['shells'] {
  const plug = columns.find((c) => is(c.part, 'towConnector'))?.x;
  return shells.map((s, i) => {
    const behind = i > 0 && s.role !== 'camper' && plug !== undefined;
    const towing = i < shells.length - 1 && shells[i + 1]!.role !== 'camper' && plug !== undefined;
    return {
      ...s,
      x0: i === 0 ? 12 : behind ? plug + HITCH : Math.round(station(s.from)),
      x1: i === shells.length - 1 ? width - 10 : towing ? plug - HITCH : Math.round(station(s.to)),
    };
  });
}

/** Stations to x: straight between the parts, so that the ruler shows where the drawing stretches. */
function stationScale(columns: readonly Column[], length: number, width: number): (station: number) => number {
  const knots: [number, number][] = [[0, 16]];
  for (const c of columns) {
    const [last] = knots[knots.length - 1]!;
    if (c.part.station > last + 0.05 && c.part.station < length - 0.05) knots.push([c.part.station, c.x]);
  }
  knots.push([length, width - 16]);
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
    const pair = traitsOf(part).line;
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
    const pair = traitsOf(column.part).line;
    let name = e.terminal;
    if (pair?.includes(e.terminal)) {
      const first = e.terminal === pair[0];
      name = first !== (turned.get(e.part) ?? false) ? 'left' : 'right';
    }
    const a = anchors?.[name];
    return a ? { x: column.x + a.dx, y: STRIP.icon + a.dy, out: a.out } : undefined;
  };
}
