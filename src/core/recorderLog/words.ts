/** An estimate of a log in words: value, unit, interval. */
export interface Worded {
  name: string;
  unit: string;
  value: number;
  lo: number;
  hi: number;
  bound?: 'at least';
}

/** "7.5 mΩ (7.4 to 7.6)", "at least 81 Ah". */
export function valueInWords(e: Worded): string {
  const times = e.unit === 'ohm' ? 1000 : 1;
  const unit = e.unit === 'ohm' ? 'mΩ' : e.unit;
  const digits = e.unit === 'ohm' ? 1 : e.unit === 'Ah' ? 0 : 2;
  const f = (x: number) => (x * times).toFixed(digits);
  return e.bound ? `${e.bound} ${f(e.value)} ${unit}` : `${f(e.value)} ${unit} (${f(e.lo)} to ${f(e.hi)})`;
}

/** The same with what it is. */
export const estimateInWords = (e: Worded): string => `${e.name}: ${valueInWords(e)}`;
