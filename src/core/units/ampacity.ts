/**
 * What current a conductor carries by its insulation and its place: 33 CFR 183.425 table 5 (boats under 50 V,
 * the yardstick rig shops use; ABYC E-11 has the same figures), from memory. Copper, not bundled, air at 30 °C.
 */
import { AWG_GAUGES, wireArea, type AwgGauge, type Gauge } from './wire';

/** Insulation ratings of the table's columns, °C. */
export const INSULATIONS = [60, 75, 80, 90, 105, 125, 200] as const;
export type Insulation = (typeof INSULATIONS)[number];

/**
 * Insulation nobody has read off the jacket: 80 °C, as SAE J1127 SGT battery cable, J1128 GPT and trailer cable are
 * (from memory). A cross-linked one bears more, and says so.
 */
export const UNREAD_INSULATION_CELSIUS: Insulation = 80;

/** A by gauge, in the order of INSULATIONS. */
const TABLE: Readonly<Record<AwgGauge, readonly [number, number, number, number, number, number, number]>> = {
  '18': [10, 10, 15, 20, 20, 25, 25],
  '16': [15, 15, 20, 25, 25, 30, 35],
  '14': [20, 20, 25, 30, 35, 40, 45],
  '12': [25, 25, 35, 40, 45, 50, 55],
  '10': [40, 40, 50, 55, 60, 70, 70],
  '8': [55, 65, 70, 70, 80, 90, 100],
  '6': [80, 95, 100, 100, 120, 125, 135],
  '4': [105, 125, 130, 135, 160, 170, 180],
  '2': [140, 170, 175, 180, 210, 225, 240],
  '1': [165, 195, 210, 210, 245, 265, 280],
  '1/0': [195, 230, 245, 245, 285, 305, 325],
  '2/0': [225, 265, 285, 285, 330, 355, 370],
  '3/0': [260, 310, 330, 330, 385, 410, 430],
  '4/0': [300, 360, 385, 385, 445, 475, 510],
};

/** Factors of the same table for engine spaces (50 °C air). */
const ENGINE_SPACE: Readonly<Record<Insulation, number>> = {
  60: 0.58,
  75: 0.75,
  80: 0.78,
  90: 0.82,
  105: 0.85,
  125: 0.89,
  200: 1,
};

/** °C of the air the figures hold for, by place. */
export const AIR = { open: 30, 'engine-space': 50 } as const;
export type WirePlace = keyof typeof AIR;

/** A of the table's column; between its rows, and a little beyond them, straight on logarithmic scales of copper. */
function tabled(gauge: Gauge, column: number): number {
  if (gauge in TABLE) return TABLE[gauge as AwgGauge][column]!;
  const area = wireArea(gauge);
  // Thinner than the table: with the square root of the copper, every column alike (from memory).
  if (area < wireArea('18')) return TABLE['18'][column]! * Math.sqrt(area / wireArea('18'));
  let k = 1;
  while (k < AWG_GAUGES.length - 1 && wireArea(AWG_GAUGES[k]!) < area) k++;
  const [a, b] = [AWG_GAUGES[k - 1]!, AWG_GAUGES[k]!];
  const share = Math.log(area / wireArea(a)) / Math.log(wireArea(b) / wireArea(a));
  return TABLE[a][column]! * (TABLE[b][column]! / TABLE[a][column]!) ** share;
}

/**
 * Share of its ampacity left to a conductor in one jacket or loom with others that carry current too, up to so many
 * in all: 3, 4 to 6, 7 to 24, more (the notes to the same table, ABYC E-11; from memory).
 */
const BUNDLED: readonly (readonly [upTo: number, share: number])[] = [
  [2, 1],
  [3, 0.7],
  [6, 0.6],
  [24, 0.5],
  [Infinity, 0.4],
];
/** What a wire may share its jacket or loom with: current-carrying conductors, itself with them. */
export const BUNDLES = [
  { id: '1', label: 'Nothing' },
  { id: '3', label: 'Two that carry current' },
  { id: '6', label: 'Three to five' },
  { id: '24', label: 'Six or more' },
] as const;

export const bundleShare = (conductors: number): number => BUNDLED.find(([upTo]) => conductors <= upTo)![1];

/**
 * A a conductor may carry for as long as one likes.
 * @param insulation °C it is rated for. @param bundled current-carrying conductors in its jacket or loom, itself with them.
 */
export function ampacity(gauge: Gauge, insulation: Insulation, place: WirePlace, bundled = 1): number {
  return (
    tabled(gauge, INSULATIONS.indexOf(insulation)) *
    (place === 'engine-space' ? ENGINE_SPACE[insulation] : 1) *
    bundleShare(bundled)
  );
}

/**
 * °C of a conductor under a steady current: heat goes with the square, and at its ampacity it is as hot as
 * its insulation bears. (How the tables themselves are made: Neher and McGrath 1957, one resistance to the air.)
 */
export function conductorCelsius(
  gauge: Gauge,
  insulation: Insulation,
  place: WirePlace,
  amps: number,
  air: number = AIR[place],
  bundled = 1,
): number {
  return air + (insulation - AIR[place]) * (amps / ampacity(gauge, insulation, place, bundled)) ** 2;
}
