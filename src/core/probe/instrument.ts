/**
 * The shop's meters and clamps: what each one's data sheet allows, and when it was last compared with
 * something known. An instrument without a row is taken to be the usual one (meter.ts).
 */
import type { Instrument } from './instrumentSchema';
import { METER, type MeterAccuracy } from './meter';

/** A data sheet's limit is taken to be two standard deviations: from memory, usual practice for uncertainty budgets. */
const LIMIT_IN_SIGMAS = 2;
/** An instrument past its date, or never verified, is taken to be this many times less true. Assumed. */
export const OVERDUE_FACTOR = 2;

/** The day a calibration runs out, as year-month-day; undefined when it was never done. */
export function dueOn({ calibratedOn, months }: Pick<Instrument, 'calibratedOn' | 'months'>): string | undefined {
  if (calibratedOn === undefined) return undefined;
  const [year, month, date] = calibratedOn.split('-').map(Number) as [number, number, number];
  const count = month - 1 + months;
  const two = (n: number) => String(n).padStart(2, '0');
  const y = year + Math.floor(count / 12);
  const m = (count % 12) + 1;
  // Months end differently: the 31st plus a month is the last day there is.
  const last =
    m === 2 ? (y % 4 === 0 && (y % 100 !== 0 || y % 400 === 0) ? 29 : 28) : [4, 6, 9, 11].includes(m) ? 30 : 31;
  return `${y}-${two(m)}-${two(Math.min(date, last))}`;
}

/** Whether an instrument is past its date on a day (year-month-day, or an instant that begins with one). */
export function isOverdue(instrument: Pick<Instrument, 'calibratedOn' | 'months'>, on: string): boolean {
  const due = dueOn(instrument);
  return due === undefined || on.slice(0, 10) > due;
}

/** How far the instrument may be off on a day. */
export function accuracyOf(instrument: Instrument, on: string): MeterAccuracy {
  const wider = isOverdue(instrument, on) ? OVERDUE_FACTOR : 1;
  return {
    voltShare: (wider * instrument.voltPercent) / 100 / LIMIT_IN_SIGMAS,
    voltNoise: Math.max(0.5, instrument.voltDigits / LIMIT_IN_SIGMAS),
    ampShare: (wider * instrument.ampPercent) / 100 / LIMIT_IN_SIGMAS,
    ampFloor: (wider * instrument.ampFloor) / LIMIT_IN_SIGMAS,
  };
}

/** What an unnamed instrument is taken to be, as a data sheet would say it. */
export const USUAL_INSTRUMENT: Omit<Instrument, 'id' | 'name'> = {
  voltPercent: METER.gainSpread * 100 * LIMIT_IN_SIGMAS,
  voltDigits: 2,
  ampPercent: METER.clampSpread * 100 * LIMIT_IN_SIGMAS,
  ampFloor: METER.clampFloor * LIMIT_IN_SIGMAS,
  months: 12,
};
