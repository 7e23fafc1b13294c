import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readFigure } from './typedFigure';

const value = (text: string, unit: string) => {
  const read = readFigure(text, unit);
  return read.is === 'figure' ? read.value : read;
};

describe('a figure typed or pasted into a field', () => {
  it('has a point or a comma, thousands apart, a sign of any kind', () => {
    for (const text of ['12.5', '12,5', ' 12.5 ', '+12.5', '12.50']) expect(value(text, 'V'), text).toBe(12.5);
    for (const text of ['1,234.5', '1.234,5', '1 234,5', "1'234.5", '$1,234.5', '1.234,5 €'])
      expect(value(text, ''), text).toBe(1234.5);
    expect(value('1,234,567', '')).toBe(1_234_567);
    expect(value('.5', 'V')).toBe(0.5);
    expect(value('−18', '°C')).toBe(-18);
    expect(readFigure('  ', 'V')).toEqual({ is: 'empty' });
  });

  it('may bring its unit, in any size of the same kind', () => {
    expect(value('12.5 V', 'V')).toBe(12.5);
    expect(value('350 mV', 'V')).toBe(0.35);
    expect(value('0.35V', 'mV')).toBe(350);
    expect(value('5 m', 'm')).toBe(5);
    expect(value('8 in', 'ft')).toBeCloseTo(0.6667, 4);
    expect(value('1.5 h', 'min')).toBe(90);
    expect(value('90 min', 'h')).toBe(1.5);
    expect(value('12 Ω', 'Ω')).toBe(12);
    expect(value('4 mΩ', 'Ω')).toBe(0.004);
  });

  it('agrees with the figures of the conversions themselves', () => {
    // 1 ft = 0.3048 m and 1 lb = 0.45359237 kg exactly (international yard and pound, 1959); 32 °F = 0 °C.
    expect(value('16.4 ft', 'm')).toBeCloseTo(4.99872, 9);
    expect(value('5 m', 'ft')).toBeCloseTo(16.4042, 4);
    expect(value('100 lb', 'kg')).toBeCloseTo(45.359237, 9);
    expect(value('50 °F', '°C')).toBeCloseTo(10, 9);
    expect(value('10 °C', '°F')).toBeCloseTo(50, 9);
    expect(value('-40 C', '°F')).toBeCloseTo(-40, 9);
    expect(value('10 ft-lb', 'N·m')).toBeCloseTo(13.558, 3);
  });

  it('of another kind is refused by name, and what is no number says what is wanted', () => {
    expect(value('12.4 A', 'V')).toEqual({ is: 'wrong', says: 'a number in V: “12.4 A” is amps' });
    expect(value('3 ft', 'V')).toMatchObject({ says: expect.stringContaining('length') });
    expect(value('5 furlongs', 'ft')).toMatchObject({ says: expect.stringContaining('“furlongs”') });
    for (const text of ['twelve', '1.2.3', '--4', '1e3', 'NaN', '12 5 V', '1,23,4.5'])
      expect(readFigure(text, 'V').is, text).toBe('wrong');
    expect(value('x', '')).toEqual({ is: 'wrong', says: 'a number, like 12.5' });
  });

  it('never is a number that was not typed, and reads back what is shown', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 20 }), fc.constantFrom('V', 'A', 'ft', '°F', 'min', ''), (text, unit) => {
        const read = readFigure(text, unit);
        if (read.is === 'figure') {
          expect(Number.isFinite(read.value)).toBe(true);
          expect(text).toMatch(/\d/);
        }
      }),
    );
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), fc.constantFrom('V', 'ft', '°C'), (x, unit) => {
        const shown = x.toFixed(3);
        expect(value(`${shown} ${unit}`, unit)).toBeCloseTo(Number(shown), 9);
        expect(value(shown.replace('.', ','), unit)).toBeCloseTo(Number(shown), 9);
      }),
    );
  });
});
