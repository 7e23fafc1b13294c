/** A handheld meter: how far its figure may be from the truth, and how it rounds it. */

/** Assumed handheld: 6000 counts, ±(0.5 % + 2 digits) volts; DC clamp ±(2 % + 3 digits). From memory, usual data sheets. */
export const METER = {
  /** One standard deviation of the gain, shared by all volt readings of one meter. */
  gainSpread: 0.0025,
  clampSpread: 0.01,
  clampFloor: 0.2,
  /** Of that floor: what a clamp is off by in all its readings of a round alike, and what each is off by beside it, A. */
  clampZero: 0.18,
  clampNoise: 0.1,
} as const;

/** How far one instrument may be off; SI, one standard deviation each. */
export interface MeterAccuracy {
  /** Share of a volt reading, the same for all readings of one meter. */
  voltShare: number;
  /** Times the noise of the usual display digit. */
  voltNoise: number;
  /** Share and floor of a clamp reading. */
  ampShare: number;
  ampFloor: number;
}

export const USUAL_METER: MeterAccuracy = {
  voltShare: METER.gainSpread,
  voltNoise: 1,
  ampShare: METER.clampSpread,
  ampFloor: METER.clampFloor,
};

/**
 * Leads and contact spots never give the same millivolts twice: one standard deviation of a volt reading
 * beyond the meter's own error, V. Assumed.
 */
export const SPOT_NOISE_VOLTS = 0.0025;

/** Volts per last digit in the range a 6000-count meter picks for this value. */
export function voltDigit(volts: number): number {
  const v = Math.abs(volts);
  return v < 0.6 ? 0.0001 : v < 6 ? 0.001 : v < 60 ? 0.01 : 0.1;
}

/** Standard deviation of one reading around what the points really carry; the gain is apart. */
export function meterNoise(unit: 'V' | 'A', value: number, m: MeterAccuracy = USUAL_METER): number {
  if (unit === 'A') return m.ampFloor + m.ampShare * Math.abs(value);
  return voltDigit(value) * 0.8 * m.voltNoise;
}

/** One standard deviation of a reading by an unknown meter: noise, spot and gain together. */
export function meterSpread(unit: 'V' | 'A', value: number): number {
  if (unit === 'A') return meterNoise(unit, value);
  return Math.hypot(meterNoise(unit, value), SPOT_NOISE_VOLTS, METER.gainSpread * value);
}

/** As the display shows it. */
export function roundToDisplay(unit: 'V' | 'A', value: number): number {
  const digit = unit === 'A' ? 0.1 : voltDigit(value);
  return Number((Math.round(value / digit) * digit).toFixed(4));
}

/** Share, and at most volts or amps, by which what flows changes between two takes while a bank fills or empties. */
const DRIFT_SHARE = 0.15;
const MOST_DRIFT = 0.1;

/**
 * Whether two takes of the same reading say the same: within four standard deviations of their difference and what
 * the rig drifts meanwhile (one per cent, or of a small reading 15 per cent: a drop goes with the amps, and those fall
 * as a bank fills; assumed). Only then is a slip on it ruled out: what differs by less than that is no slip.
 */
export function takesAgree(unit: 'V' | 'A', a: number, b: number): boolean {
  const noise = Math.hypot(meterNoise(unit, a), meterNoise(unit, b), unit === 'V' ? SPOT_NOISE_VOLTS * Math.SQRT2 : 0);
  const most = Math.max(Math.abs(a), Math.abs(b));
  return Math.abs(a - b) <= 4 * noise + Math.max(0.01 * most, Math.min(DRIFT_SHARE * most, MOST_DRIFT));
}
