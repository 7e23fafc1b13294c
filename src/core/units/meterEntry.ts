/**
 * What a technician typed, or a meter showed, as a number in SI; or why it cannot be one, with what it
 * probably was. Nothing typed is thrown away: the refusal carries the text.
 */
import { err, ok, type Result } from './result';

export type MeterUnit = 'V' | 'A';

export interface EntryRefusal {
  found: string;
  wanted: string;
  /** A value in SI that was probably meant, to be offered, never taken by itself. */
  suggestion?: number;
}

/**
 * Largest magnitude a reading may have. Charging links of nominal 48 V stay under 64 V; a clamp on a cranking
 * cable under 2,000 A. Beyond that it is a slip, not a reading.
 */
export const ENTRY_LIMIT: Record<MeterUnit, number> = { V: 64, A: 2000 };

const UNIT_FACTORS: Record<MeterUnit, Record<string, number>> = {
  V: { v: 1, volt: 1, volts: 1, mv: 1e-3, millivolts: 1e-3, kv: 1e3 },
  A: { a: 1, amp: 1, amps: 1, ma: 1e-3, milliamps: 1e-3 },
};

/**
 * Reads an entry. Accepts a decimal comma, a Unicode minus, a typed unit. `unit` is what the probe measures;
 * `scale` is the keypad's own unit (1 for volts, 0.001 for millivolts) used when none is typed.
 */
export function parseMeterEntry(text: string, unit: MeterUnit, scale = 1): Result<number, EntryRefusal> {
  const found = text.trim();
  const wanted = unit === 'V' ? 'volts, like 12.46 or 350 mV' : 'amps, like 42.5';
  const match = /^([+\-\u2212\u2013]?)\s*(\d*)(?:[.,](\d*))?\s*([a-zA-Z]*)$/.exec(found.replace(/\u00a0/g, ' '));
  const digits = match ? `${match[2] ?? ''}${match[3] ?? ''}` : '';
  if (!match || digits === '' || digits.length > 12) return err({ found, wanted });
  const typedUnit = (match[4] ?? '').toLowerCase();
  const factor = typedUnit === '' ? scale : UNIT_FACTORS[unit][typedUnit];
  if (factor === undefined) {
    return err({ found, wanted: `${wanted}; this probe is measured in ${unit === 'V' ? 'volts' : 'amps'}` });
  }
  const magnitude = Number(`${match[2] || '0'}.${match[3] || '0'}`) * factor;
  const value = match[1] === '' || match[1] === '+' ? magnitude : -magnitude;
  const limit = ENTRY_LIMIT[unit];
  if (magnitude > limit) {
    // 1260 for 12.60: the decimal point was not typed.
    let suggestion = value;
    while (Math.abs(suggestion) > limit / 3) suggestion /= 10;
    return err({
      found,
      wanted: `${wanted}; no more than ${limit} ${unit}`,
      suggestion: Number(suggestion.toPrecision(6)),
    });
  }
  return ok(value === 0 ? 0 : Number(value.toPrecision(9)));
}
