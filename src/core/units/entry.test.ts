import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { showAmps, showBand, showClock, showPercent, showVolts } from './format';
import { ENTRY_LIMIT, parseMeterEntry } from './meterEntry';

const value = (text: string, unit: 'V' | 'A' = 'V', scale = 1) => {
  const r = parseMeterEntry(text, unit, scale);
  return r.ok ? r.value : r.error;
};

describe('what is typed at the keypad', () => {
  it('takes a decimal comma, a typed unit, any minus', () => {
    expect(value('12,46')).toBe(12.46);
    expect(value('12.46 V')).toBe(12.46);
    expect(value('350mV')).toBe(0.35);
    expect(value('\u221218', 'V', 0.001)).toBe(-0.018);
    expect(value('42.5 A', 'A')).toBe(42.5);
    expect(value('.5')).toBe(0.5);
  });

  it('knows every way the units are written, large and small', () => {
    for (const unit of ['v', 'V', 'volt', 'Volts']) expect(value(`12 ${unit}`), unit).toBe(12);
    for (const unit of ['mV', 'MV', 'millivolts']) expect(value(`12 ${unit}`), unit).toBe(0.012);
    expect(value('0.05 kV')).toBe(50);
    for (const unit of ['a', 'A', 'amp', 'amps']) expect(value(`7 ${unit}`, 'A'), unit).toBe(7);
    for (const unit of ['mA', 'milliamps']) expect(value(`70 ${unit}`, 'A'), unit).toBe(0.07);
  });

  it('refuses 1260 but offers 12.60', () => {
    expect(value('1260')).toMatchObject({ found: '1260', suggestion: 12.6 });
    expect(value('-1340')).toMatchObject({ suggestion: -13.4 });
  });

  it('says what it wants instead of amps on a volt probe, words, or nothing', () => {
    for (const text of ['12 A', 'twelve', '', '-', '1.2.3', '12 ohm', 'NaN', '1e3', 'Infinity']) {
      expect(value(text)).toMatchObject({ found: text, wanted: expect.stringContaining('volts') });
    }
  });

  it('never yields a number beyond any meter, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 24 }), fc.constantFrom<'V' | 'A'>('V', 'A'), (text, unit) => {
        const r = parseMeterEntry(text, unit);
        if (r.ok) {
          expect(Number.isFinite(r.value)).toBe(true);
          expect(Math.abs(r.value)).toBeLessThanOrEqual(ENTRY_LIMIT[unit]);
        } else {
          expect(r.error.wanted.length).toBeGreaterThan(5);
          if (r.error.suggestion !== undefined)
            expect(Math.abs(r.error.suggestion)).toBeLessThanOrEqual(ENTRY_LIMIT[unit]);
        }
      }),
    );
  });

  it('reads back what it shows', () => {
    fc.assert(
      fc.property(fc.integer({ min: -6000, max: 6000 }), (hundredths) => {
        const volts = hundredths / 100;
        const shown = showVolts(volts);
        expect(value(`${shown.text} ${shown.unit}`)).toBeCloseTo(volts, 9);
      }),
    );
  });
});

describe('figures on screen', () => {
  it('shows small volts in millivolts and never a minus zero', () => {
    expect(showVolts(0.018)).toEqual({ text: '18', unit: 'mV' });
    expect(showVolts(0.0042)).toEqual({ text: '4.2', unit: 'mV' });
    expect(showVolts(-0.00001)).toEqual({ text: '0', unit: 'mV' });
    expect(showVolts(12.4)).toEqual({ text: '12.40', unit: 'V' });
    expect(showAmps(-0.01).text).toBe('0.0');
    // A clamp shows a tenth to a hundred amps, whole amps from there.
    expect([99.94, 99.96, 120.4, 149, -99.94, -140].map((a) => showAmps(a).text)).toEqual([
      '99.9',
      '100',
      '120',
      '149',
      '\u221299.9',
      '\u2212140',
    ]);
    expect(showBand(-0.0051, 0.0492, 'V')).toBe('\u22125 to 49 mV');
    expect(showBand(13.36, 14.41, 'V')).toBe('13.4 to 14.4 V');
  });

  it('never claims certainty, and counts hours', () => {
    expect(showPercent(0.9999)).toBe('99');
    expect(showPercent(0.001)).toBe('<1');
    expect(showClock(192)).toBe('3:12');
    expect(showClock(3725)).toBe('1:02:05');
    expect(showClock(190 * 86400)).toBe('190 days');
    expect(showBand(-0.4, 0.41, 'A')).toBe('\u22120.4 to 0.4 A');
  });
});
