/**
 * What a person types or pastes into a field that wants a figure: a point or a comma, thousands apart, a unit behind it,
 * of the same kind in another size. What it cannot be is said with what the field wants; nothing is guessed.
 */
import { METRES_PER_FOOT } from './preferences';

export type TypedFigure =
  | { is: 'empty' }
  /** In the field's own unit. */
  | { is: 'figure'; value: number }
  | { is: 'wrong'; says: string };

interface Unit {
  /** What it measures, as a field would ask for it. */
  kind: string;
  /** Of the kind's base unit: `base = (figure + offset) × times`. */
  times: number;
  offset?: number;
}

const KG_PER_POUND = 0.453_592_37;
/** N·m in a pound-foot, exactly by the definitions of pound and foot. */
const NEWTON_METRES_PER_POUND_FOOT = 1.355_817_948_331_400_4;

const unit = (kind: string, times: number, ...names: string[]): [string, Unit][] =>
  names.map((n) => [n, { kind, times }]);

/** By every way a unit is written, in small letters. */
const UNITS: ReadonlyMap<string, Unit> = new Map<string, Unit>([
  ...unit('volts', 1, 'v', 'volt', 'volts', 'vdc'),
  ...unit('volts', 1e-3, 'mv', 'millivolt', 'millivolts'),
  ...unit('volts', 1e3, 'kv'),
  ...unit('amps', 1, 'a', 'amp', 'amps', 'adc'),
  ...unit('amps', 1e-3, 'ma', 'milliamp', 'milliamps'),
  ...unit('ohms', 1, 'ω', 'ohm', 'ohms'),
  ...unit('ohms', 1e-3, 'mω', 'mohm', 'milliohm', 'milliohms'),
  ...unit('ohms', 1e3, 'kω', 'kohm'),
  ...unit('amp-hours', 1, 'ah', 'amp-hours'),
  ...unit('watts', 1, 'w', 'watt', 'watts'),
  ...unit('watts', 1e3, 'kw'),
  ...unit('watt-hours', 1, 'wh'),
  ...unit('watt-hours', 1e3, 'kwh'),
  ...unit('length', 1, 'm', 'meter', 'meters', 'metre', 'metres'),
  ...unit('length', 0.01, 'cm'),
  ...unit('length', 0.001, 'mm'),
  ...unit('length', METRES_PER_FOOT, 'ft', 'foot', 'feet', "'", '′'),
  ...unit('length', METRES_PER_FOOT / 12, 'in', 'inch', 'inches', '"', '″'),
  ...unit('weight', 1, 'kg'),
  ...unit('weight', KG_PER_POUND, 'lb', 'lbs', 'pound', 'pounds'),
  ...unit('time', 1, 's', 'sec', 'second', 'seconds'),
  ...unit('time', 60, 'min', 'mins', 'minute', 'minutes'),
  ...unit('time', 3600, 'h', 'hr', 'hrs', 'hour', 'hours'),
  ...unit('time', 86_400, 'd', 'day', 'days'),
  ...unit('torque', 1, 'n·m', 'nm'),
  ...unit('torque', NEWTON_METRES_PER_POUND_FOOT, 'ft·lb', 'ft-lb', 'lb·ft', 'lb-ft', 'lbf·ft'),
  ...unit('temperature', 1, '°c', 'c'),
  ['°f', { kind: 'temperature', times: 5 / 9, offset: -32 }],
  ['f', { kind: 'temperature', times: 5 / 9, offset: -32 }],
  ...unit('percent', 1, '%', 'percent'),
]);

const known = (name: string): Unit | undefined => UNITS.get(name.toLowerCase());

/** Signs of money that may stand before a sum. */
const MONEY = /^[$€£]\s*|\s*[$€£]$/g;

/**
 * @param wanted the unit the field shows: V, A, ft, °F, min, %, … or nothing
 * @returns the figure in that unit
 */
export function readFigure(text: string, wanted: string): TypedFigure {
  const typed = text.replaceAll(/[\u00a0\u202f]/g, ' ').trim();
  if (typed === '') return { is: 'empty' };
  const match = /^([+\-−–]?)\s*([\d.,' ]*\d[.,]?|[.,]\d+)\s*(\D*)$/.exec(typed.replace(MONEY, ''));
  const asks = wanted === '' ? 'a number' : `a number in ${wanted}`;
  const magnitude = match && plainNumber(match[2]!);
  if (magnitude === undefined || magnitude === null) return { is: 'wrong', says: `${asks}, like 12.5` };
  const value = /[-−–]/.test(match![1]!) ? -magnitude : magnitude;
  const name = match![3]!.trim();
  if (name === '' || name.toLowerCase() === wanted.toLowerCase()) return { is: 'figure', value };
  const [theirs, ours] = [known(name), known(wanted)];
  if (!theirs) return { is: 'wrong', says: `${asks}: “${name}” is no unit that is known here` };
  if (!ours || ours.kind !== theirs.kind) return { is: 'wrong', says: `${asks}: “${typed}” is ${theirs.kind}` };
  const base = (value + (theirs.offset ?? 0)) * theirs.times;
  return { is: 'figure', value: Number((base / ours.times - (ours.offset ?? 0)).toPrecision(9)) };
}

/** A number without sign, by what stands last: 1,234.5 and 1.234,5 and 1 234,5 are one; 1,234 has a decimal comma. */
function plainNumber(text: string): number | undefined {
  const marks = [...text.matchAll(/[.,]/g)].map((m) => m[0]);
  const last = marks.at(-1);
  const decimal = new Set(marks).size === 2 || marks.length === 1 ? last : undefined;
  const groups = text.split(/[.,' ]/);
  // Several of the same mark set thousands apart, and then in threes.
  const whole = decimal === undefined ? groups : groups.slice(0, -1);
  if (whole.length > 1 && whole.slice(1).some((g) => g.length !== 3)) return undefined;
  const fraction = decimal === undefined ? '' : groups.at(-1)!;
  const n = Number(`${whole.join('') || '0'}.${fraction || '0'}`);
  return Number.isFinite(n) ? n : undefined;
}
