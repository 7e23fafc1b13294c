/** Numbers as a technician reads them: the unit always stands with the figure. Pure; SI in. */

import { METRES_PER_FOOT } from './preferences';

const MINUS = '\u2212';
const sign = (text: string) => text.replace('-', MINUS);

export interface Shown {
  text: string;
  unit: string;
}

/** Volts: under 0.1 V in millivolts, else two decimals. */
export function showVolts(volts: number): Shown {
  if (Math.abs(volts) < 0.0999) {
    const mv = volts * 1000;
    const text = Math.abs(mv) < 9.95 && Math.abs(mv) >= 0.05 ? mv.toFixed(1) : mv.toFixed(0);
    return { text: sign(text === '-0' ? '0' : text), unit: 'mV' };
  }
  return { text: sign(volts.toFixed(2)), unit: 'V' };
}

export function showAmps(amps: number): Shown {
  const text = Math.abs(amps) >= 99.95 ? amps.toFixed(0) : amps.toFixed(1);
  return { text: sign(text === '-0.0' ? '0.0' : text), unit: 'A' };
}

export const show = (value: number, unit: 'V' | 'A'): Shown => (unit === 'V' ? showVolts(value) : showAmps(value));

export const showText = (value: number, unit: 'V' | 'A'): string => {
  const s = show(value, unit);
  return `${s.text} ${s.unit}`;
};

/** A band in one unit, both ends alike: "13.0 to 13.5 V", "−5 to 9 mV". */
export function showBand(lo: number, hi: number, unit: 'V' | 'A'): string {
  if (unit === 'A') {
    const digits = Math.max(Math.abs(lo), Math.abs(hi)) < 10 ? 1 : 0;
    const amps = (x: number) => sign(Number(x.toFixed(digits)) === 0 ? '0' : x.toFixed(digits));
    return `${amps(lo)} to ${amps(hi)} A`;
  }
  if (Math.max(Math.abs(lo), Math.abs(hi)) < 0.25) {
    const mv = (x: number) => {
      const r = Math.round(x * 1000);
      return sign(String(r === 0 ? 0 : r));
    };
    return `${mv(lo)} to ${mv(hi)} mV`;
  }
  return `${sign(lo.toFixed(1))} to ${sign(hi.toFixed(1))} V`;
}

/** How far a value is outside its band, in words: "1.10 V under the band". */
export function showMiss(value: number, lo: number, hi: number, unit: 'V' | 'A'): string {
  if (value < lo) return `${showText(lo - value, unit)} under the band`;
  if (value > hi) return `${showText(value - hi, unit)} over the band`;
  return 'in the band';
}

/** A probability as a whole per cent that never claims certainty. */
export function showPercent(p: number): string {
  if (p < 0.005) return '<1';
  return String(Math.min(99, Math.round(p * 100)));
}

/** How sure one is, in words a customer understands. */
export function inWordsConfidence(p: number): string {
  return p >= 0.95
    ? 'Practically certain'
    : p >= 0.85
      ? 'Very likely'
      : p >= 0.65
        ? 'Likely'
        : p >= 0.4
          ? 'One of a few left'
          : 'A suspicion only';
}

/** Seconds as a running clock: 3:12, 1:02:05; days once nobody is counting. */
export function showClock(seconds: number): string {
  const s = Math.max(0, Math.floor(seconds));
  const two = (n: number) => String(n).padStart(2, '0');
  const h = Math.floor(s / 3600);
  if (h >= 48) return `${Math.floor(h / 24)} days`;
  return h > 0 ? `${h}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}` : `${Math.floor(s / 60)}:${two(s % 60)}`;
}

/** A stored parameter with its unit, scaled to be read: 0.0008 ohm is 0.8 mΩ. */
export function showQuantity(value: number, unit: string): string {
  if (unit === 'ohm') {
    if (Math.abs(value) < 1) return `${Number((value * 1000).toPrecision(3))} m\u03a9`;
    return `${Number(value.toPrecision(3))} \u03a9`;
  }
  return `${Number(value.toPrecision(4))}${unit ? ` ${unit}` : ''}`;
}

/** A parameter's spread in words: ±30 % on a ratio, ± in the unit otherwise. */
export function showSpread(spread: number, scale: 'ratio' | 'offset', unit: string): string {
  return scale === 'ratio' ? `\u00b1${Math.round(spread * 100)} %` : `\u00b1${showQuantity(spread, unit)}`;
}

/** A name in the middle of a sentence: its first letter small, but for one that is an abbreviation (DC-DC, LFP). */
export const midSentence = (name: string): string =>
  /^[A-Z]([A-Z]|-)/.test(name) ? name : name.charAt(0).toLowerCase() + name.slice(1);

/** A short length for whoever reads it, in both families: "7 in (0.18 m)", "20.7 ft (6.3 m)". @param metres m */
export const lengthInBoth = (metres: number): string =>
  metres < METRES_PER_FOOT * 3
    ? `${((metres / METRES_PER_FOOT) * 12).toFixed(0)} in (${metres.toFixed(2)} m)`
    : `${(metres / METRES_PER_FOOT).toFixed(1)} ft (${metres.toFixed(1)} m)`;
