/** Kinds of figure a form asks for or shows: stored SI, shown in the shop's units. */
import { METRES_PER_FOOT } from './preferences';
import type { GaugeUnit, LengthUnit, TemperatureUnit } from './preferences';

const KG_PER_POUND = 0.453_592_37;

export interface Units {
  length: LengthUnit;
  temperature: TemperatureUnit;
  gauge: GaugeUnit;
}

interface Row {
  unit(u: Units): string;
  shown(stored: number, u: Units): number;
  stored(shown: number, u: Units): number;
  digits: number;
  /** A rating: no digits it is not made in. */
  trim?: true;
}

const plain = (unit: string, digits: number, times = 1): Row => ({
  unit: () => unit,
  shown: (x) => x * times,
  stored: (x) => x / times,
  digits,
});

export const QUANTITIES = {
  volts: plain('V', 2),
  millivolts: plain('mV', 0, 1000),
  amps: plain('A', 1),
  rating: { ...plain('A', 1), trim: true },
  milliamps: plain('mA', 0, 1000),
  watts: plain('W', 1),
  watthours: plain('Wh', 0),
  milliohms: plain('mΩ', 2, 1000),
  charge: plain('Ah', 1),
  hours: plain('h', 1, 1 / 3600),
  days: plain('days', 1, 1 / 86_400),
  seconds: plain('s', 1),
  share: plain('%', 0, 100),
  area: plain('mm²', 2, 1e6),
  number: plain('', 2),
  times: plain('×', 2),
  torque: plain('N·m', 1),
  length: {
    unit: (u) => u.length,
    shown: (x, u) => (u.length === 'ft' ? x / METRES_PER_FOOT : x),
    stored: (x, u) => (u.length === 'ft' ? x * METRES_PER_FOOT : x),
    digits: 1,
  },
  mass: {
    unit: (u) => (u.length === 'ft' ? 'lb' : 'kg'),
    shown: (x, u) => (u.length === 'ft' ? x / KG_PER_POUND : x),
    stored: (x, u) => (u.length === 'ft' ? x * KG_PER_POUND : x),
    digits: 0,
  },
  celsius: {
    unit: (u) => `°${u.temperature}`,
    shown: (x, u) => (u.temperature === 'F' ? x * 1.8 + 32 : x),
    stored: (x, u) => (u.temperature === 'F' ? (x - 32) / 1.8 : x),
    digits: 0,
  },
} satisfies Record<string, Row>;
export type Quantity = keyof typeof QUANTITIES;

export const unitOf = (q: Quantity, u: Units): string => QUANTITIES[q].unit(u);
export const shownIn = (q: Quantity, stored: number, u: Units): number => QUANTITIES[q].shown(stored, u);
export const storedFrom = (q: Quantity, shown: number, u: Units): number => QUANTITIES[q].stored(shown, u);

/** Figure and unit as read: "12.41 V". Small figures keep two significant digits. */
export function inWordsQuantity(q: Quantity, stored: number, u: Units): string {
  if (!Number.isFinite(stored)) return stored > 0 ? 'no limit' : '–';
  const row: Row = QUANTITIES[q];
  const shown = row.shown(stored, u);
  const digits =
    shown !== 0 && Math.abs(shown) < 10 ** -row.digits ? 1 - Math.floor(Math.log10(Math.abs(shown))) : row.digits;
  const fixed = shown.toFixed(Math.min(6, digits));
  const text = row.trim ? String(Number(fixed)) : fixed;
  const unit = unitOf(q, u);
  return `${(Number(text) === 0 ? text.replace('-', '') : text).replace('-', '\u2212')}${unit ? ` ${unit}` : ''}`;
}
