/**
 * Tow connectors as anybody may meet them: positions as one sees them looking INTO the vehicle's socket, what
 * each is for by convention, what it bears. Positions, colours and ratings are from memory of the standards
 * named in each row; shops wire the same body differently, so a convention is what to expect, never what is.
 */
import type { Gauge } from '../units/wire';

/** What a position is for. `ground-charge` and `ground-switched` serve one feed only. */
export const POSITION_USES = [
  'ground',
  'ground-charge',
  'ground-switched',
  'tail',
  'left',
  'right',
  'stop',
  'brake',
  'charge',
  'switched',
  'reverse',
  'fog',
  'spare',
] as const;
export type PositionUse = (typeof POSITION_USES)[number];

export const POSITION_WORDS: Readonly<Record<PositionUse, string>> = {
  ground: 'Ground',
  'ground-charge': 'Ground of the constant feed',
  'ground-switched': 'Ground of the switched feed',
  tail: 'Tail lamps',
  left: 'Left turn',
  right: 'Right turn',
  stop: 'Stop lamps',
  brake: 'Electric brakes',
  charge: 'Charge line',
  switched: 'Switched feed',
  reverse: 'Reverse',
  fog: 'Rear fog',
  spare: 'Spare',
};

export interface Position {
  id: string;
  /** In the socket's face, −1 to 1 each way, y downward. */
  x: number;
  y: number;
  /** A it bears for ever. */
  amps: number;
  /** Thickest wire its terminal takes. */
  thickest: Gauge;
}

export interface Convention {
  id: string;
  label: string;
  uses: Readonly<Record<string, PositionUse>>;
  /** Insulation colours by position: what to expect, never what is. */
  colours: Readonly<Record<string, string>>;
}

export interface Connector {
  id: string;
  label: string;
  source: string;
  body: 'round' | 'flat' | 'block';
  contact: 'blade' | 'pin' | 'bar';
  /** Where the key or the lid's hinge is, so that the face can be turned right way up. */
  key: string;
  /** Stop lamps share the turn positions. */
  combined: boolean;
  positions: readonly Position[];
  conventions: readonly Convention[];
}

/** On a circle by the hour of a clock, looking into the socket. */
const hour = (id: string, h: number, amps: number, thickest: Gauge, radius = 0.66): Position => ({
  id,
  x: Number((radius * Math.sin((h * Math.PI) / 6)).toFixed(3)),
  y: Number((-radius * Math.cos((h * Math.PI) / 6)).toFixed(3)),
  amps,
  thickest,
});
const row = (ids: readonly string[], y: number, amps: number, thickest: Gauge, half = 0.84): Position[] =>
  ids.map((id, i) => ({
    id,
    x: Number((-half + (2 * half * i) / Math.max(1, ids.length - 1)).toFixed(3)),
    y,
    amps,
    thickest,
  }));
/** "1 ground white, 2 brake blue": pairs of use and colour by position. */
const wired = (
  id: string,
  label: string,
  table: Readonly<Record<string, readonly [PositionUse, string]>>,
): Convention => ({
  id,
  label,
  uses: Object.fromEntries(Object.entries(table).map(([k, [use]]) => [k, use])),
  colours: Object.fromEntries(Object.entries(table).map(([k, [, colour]]) => [k, colour])),
});
const twoPole = (amps: number, thickest: Gauge): Connector => ({
  id: `two-pole-${amps}`,
  label: `Two-pole, ${amps} A`,
  source: 'makers’ rating for continuous current, from memory',
  body: 'block',
  contact: 'bar',
  key: 'housings of one color only',
  combined: false,
  positions: [
    { id: 'plus', x: -0.42, y: 0, amps, thickest },
    { id: 'minus', x: 0.42, y: 0, amps, thickest },
  ],
  conventions: [wired('usual', 'Plus and minus', { plus: ['charge', 'red'], minus: ['ground', 'black'] })],
});
const SIX_LAMPS = {
  td: ['tail', 'brown'],
  lt: ['left', 'yellow'],
  rt: ['right', 'green'],
  gd: ['ground', 'white'],
} as const;

export const CONNECTORS: readonly Connector[] = [
  {
    id: 'blade-7',
    label: '7-way blade',
    source: 'SAE J2863, from memory',
    body: 'round',
    contact: 'blade',
    key: 'lid hinge at the top',
    combined: true,
    positions: [
      hour('1', 5, 30, '8'),
      hour('2', 7, 30, '10'),
      hour('3', 1, 20, '10'),
      hour('4', 11, 30, '8'),
      hour('5', 3, 20, '10'),
      hour('6', 9, 20, '10'),
      { id: '7', x: 0, y: 0, amps: 20, thickest: '12' },
    ],
    conventions: [
      wired('rv', 'RV colors', {
        1: ['ground', 'white'],
        2: ['brake', 'blue'],
        3: ['tail', 'green'],
        4: ['charge', 'black'],
        5: ['left', 'red'],
        6: ['right', 'brown'],
        7: ['reverse', 'yellow'],
      }),
      wired('automotive', 'Automotive colors', {
        1: ['ground', 'white'],
        2: ['brake', 'blue'],
        3: ['tail', 'brown'],
        4: ['charge', 'orange'],
        5: ['left', 'yellow'],
        6: ['right', 'green'],
        7: ['reverse', 'purple'],
      }),
    ],
  },
  {
    id: 'round-6',
    label: '6-way round',
    source: 'common practice, no source; letters on the body',
    body: 'round',
    contact: 'pin',
    key: 'key at the top',
    combined: true,
    positions: [
      hour('gd', 11, 25, '10'),
      hour('lt', 1, 20, '12'),
      hour('td', 4, 20, '12'),
      hour('s', 6, 25, '10'),
      hour('rt', 8, 20, '12'),
      { id: 'a', x: 0, y: 0, amps: 25, thickest: '10' },
    ],
    conventions: [
      wired('centre-charge', 'Charge in the center', { ...SIX_LAMPS, a: ['charge', 'black'], s: ['brake', 'blue'] }),
      wired('centre-brake', 'Brakes in the center', { ...SIX_LAMPS, a: ['brake', 'blue'], s: ['charge', 'black'] }),
    ],
  },
  {
    id: 'flat-4',
    label: '4-flat',
    source: 'SAE J1239, from memory',
    body: 'flat',
    contact: 'pin',
    key: 'the bare pin on the vehicle’s side is ground; the trailer’s ground is the shrouded one',
    combined: true,
    positions: row(['1', '2', '3', '4'], 0, 10, '14', 0.7),
    conventions: [
      wired('usual', 'As made', {
        1: ['ground', 'white'],
        2: ['tail', 'brown'],
        3: ['left', 'yellow'],
        4: ['right', 'green'],
      }),
    ],
  },
  {
    id: 'flat-7',
    label: '7-pin flat',
    source: 'AS 4177.5, from memory',
    body: 'flat',
    contact: 'pin',
    key: 'lid hinge at the top',
    combined: false,
    positions: row(['1', '2', '3', '4', '5', '6', '7'], 0, 15, '12'),
    conventions: [
      wired('usual', 'As standardized', {
        1: ['left', 'yellow'],
        2: ['reverse', 'black'],
        3: ['ground', 'white'],
        4: ['right', 'green'],
        5: ['brake', 'blue'],
        6: ['stop', 'red'],
        7: ['tail', 'brown'],
      }),
    ],
  },
  {
    id: 'flat-12',
    label: '12-pin flat',
    source: 'AS 4177.5, from memory',
    body: 'flat',
    contact: 'pin',
    key: 'lid hinge at the top',
    combined: false,
    positions: [
      ...row(['1', '2', '3', '4', '5', '6', '7'], 0.32, 15, '12'),
      ...row(['8', '9', '10', '11', '12'], -0.36, 35, '8', 0.72),
    ],
    conventions: [
      wired('usual', 'As standardized', {
        1: ['left', 'yellow'],
        2: ['reverse', 'black'],
        3: ['ground', 'white'],
        4: ['right', 'green'],
        5: ['brake', 'blue'],
        6: ['stop', 'red'],
        7: ['tail', 'brown'],
        8: ['charge', 'orange'],
        9: ['switched', 'pink'],
        10: ['ground-charge', 'white'],
        11: ['fog', 'gray'],
        12: ['spare', 'violet'],
      }),
    ],
  },
  {
    id: 'round-13',
    label: '13-pin',
    source: 'ISO 11446, from memory',
    body: 'round',
    contact: 'pin',
    key: 'key at the bottom',
    combined: false,
    positions: [
      hour('1', 7.6, 15, '12', 0.76),
      hour('2', 9, 15, '12', 0.76),
      hour('3', 10.4, 20, '10', 0.76),
      hour('4', 11.6, 15, '12', 0.76),
      hour('5', 0.8, 15, '12', 0.76),
      hour('6', 2.1, 15, '12', 0.76),
      hour('7', 3.4, 15, '12', 0.76),
      hour('8', 4.6, 15, '12', 0.76),
      hour('9', 8.4, 20, '10', 0.36),
      hour('10', 10.8, 20, '10', 0.36),
      hour('11', 1.2, 20, '10', 0.36),
      hour('12', 3.6, 15, '12', 0.36),
      hour('13', 6, 20, '10', 0.36),
    ],
    conventions: [
      wired('usual', 'As standardized', {
        1: ['left', 'yellow'],
        2: ['fog', 'blue'],
        3: ['ground', 'white'],
        4: ['right', 'green'],
        5: ['tail', 'brown'],
        6: ['stop', 'red'],
        7: ['tail', 'black'],
        8: ['reverse', 'pink'],
        9: ['charge', 'orange'],
        10: ['switched', 'gray'],
        11: ['ground-switched', 'white and black'],
        12: ['spare', '–'],
        13: ['ground-charge', 'white and red'],
      }),
    ],
  },
  {
    id: 'round-7n',
    label: '7-pin round, lamps',
    source: 'ISO 1724, from memory',
    body: 'round',
    contact: 'pin',
    key: 'key at the bottom',
    combined: false,
    positions: [
      hour('1', 7, 15, '12'),
      hour('2', 9, 15, '12'),
      hour('3', 11, 20, '12'),
      hour('4', 1, 15, '12'),
      hour('5', 3, 15, '12'),
      hour('6', 5, 15, '12'),
      { id: '7', x: 0, y: 0, amps: 15, thickest: '12' },
    ],
    conventions: [
      wired('usual', 'As standardized', {
        1: ['left', 'yellow'],
        2: ['fog', 'blue'],
        3: ['ground', 'white'],
        4: ['right', 'green'],
        5: ['tail', 'brown'],
        6: ['stop', 'red'],
        7: ['tail', 'black'],
      }),
    ],
  },
  {
    id: 'round-7s',
    label: '7-pin round, supplies',
    source: 'ISO 3732, from memory',
    body: 'round',
    contact: 'pin',
    key: 'key at the bottom',
    combined: false,
    positions: [
      hour('1', 7, 15, '12'),
      hour('2', 9, 15, '12'),
      hour('3', 11, 20, '10'),
      hour('4', 1, 20, '10'),
      hour('5', 3, 15, '12'),
      hour('6', 5, 20, '10'),
      { id: '7', x: 0, y: 0, amps: 20, thickest: '10' },
    ],
    conventions: [
      wired('usual', 'As standardized', {
        1: ['reverse', 'yellow'],
        2: ['spare', 'blue'],
        3: ['ground', 'white'],
        4: ['charge', 'green'],
        5: ['spare', 'brown'],
        6: ['switched', 'red'],
        7: ['ground-switched', 'black'],
      }),
      // Two feeds of one body before 1998: a self-switched one at 2 for the battery, the caravan's interior at 4.
      wired('early-uk', 'UK before 1998', {
        1: ['reverse', 'yellow'],
        2: ['charge', 'blue'],
        3: ['ground', 'white'],
        4: ['spare', 'green'],
        5: ['spare', 'brown'],
        6: ['switched', 'red'],
        7: ['ground-switched', 'black'],
      }),
    ],
  },
  twoPole(50, '6'),
  twoPole(120, '2'),
  twoPole(175, '1/0'),
];

const BY_ID = new Map(CONNECTORS.map((c) => [c.id, c]));

/** The connector with this id; throws on one no validated document holds. */
export function connectorOf(id: string): Connector {
  const connector = BY_ID.get(id);
  if (!connector) throw new Error(`unknown connector ${id}`);
  return connector;
}

/** What stands on the body where it is not the id: 6-way bodies mark tail lamps TM. */
const MARKED: Readonly<Record<string, string>> = { plus: '+', minus: '–', td: 'TM' };
/** A position as it is called: 4, A, +. */
export const positionShown = (id: string): string => MARKED[id] ?? id.toUpperCase();

/** Positions as seen from a side: looking into the socket, or at the plug's face, which is its mirror. */
export const facing = (connector: Connector, side: 'socket' | 'plug'): Position[] =>
  connector.positions.map((p) => (side === 'socket' ? p : { ...p, x: p.x === 0 ? 0 : -p.x }));
