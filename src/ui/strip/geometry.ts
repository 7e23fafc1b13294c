/** What the strip is made of: its measures, and the shapes a layout gives. */
import { AWG_GAUGES, wireArea, type Gauge } from '../../core/units/wire';
import type { Part, Rig } from '../../core/rig/schema';

export const STRIP = {
  /** What a screen 1280 wide has room for; a rig of very many parts takes more, and is panned. */
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

export const PITCH = 84;
/** Icons nearer than this would touch. */
export const LEAST_PITCH = 72;
/** Narrowest a high flag's plate may be. */
export const LEAST_PLATE = 64;
/** A part's name begins this far before its middle, px. */
export const NAME_BEGINS = 38;
/** px a part's name takes in its face and size, with a little air. */
export const nameWidth = (text: string): number => text.length * 6.1 + 5;
export const FLAG_PITCH = 76;
export const CHIP_WIDTH = 50;

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

/** A vehicle's extent. */
export interface Shell {
  id: string;
  role: Rig['vehicles'][number]['role'];
  /** Metres. */
  from: number;
  to: number;
}

export interface StripLayout {
  width: number;
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
  plateWidth: number;
  /** Vehicles, nose to tail, with their ends on the drawing. */
  shells: (Shell & { x0: number; x1: number })[];
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
/** A metric size is drawn as the gauge nearest to its copper. */
export const gaugeWidth = (gauge: Gauge): number =>
  GAUGE_WIDTH[gauge] ??
  GAUGE_WIDTH[
    AWG_GAUGES.reduce((a, b) =>
      Math.abs(Math.log(wireArea(b) / wireArea(gauge))) < Math.abs(Math.log(wireArea(a) / wireArea(gauge))) ? b : a,
    )
  ] ??
  2.4;

export interface Placed {
  x: number;
  y: number;
  out: 'up' | 'down';
}

/** Which side of the link a place on the drawing is. */
export const sideAt = (layout: StripLayout, x: number): 'coach' | 'engine' =>
  x < layout.meet === layout.engineFirst ? 'engine' : 'coach';
