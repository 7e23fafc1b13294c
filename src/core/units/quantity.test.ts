import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inWordsQuantity, QUANTITIES, shownIn, storedFrom, unitOf, type Quantity, type Units } from './quantity';

const US: Units = { length: 'ft', temperature: 'F', gauge: 'awg' };
const SI: Units = { length: 'm', temperature: 'C', gauge: 'mm2' };

describe('quantities', () => {
  it.each(Object.keys(QUANTITIES) as Quantity[])('%s: what is shown is stored back, and stands with its unit', (q) => {
    for (const units of [US, SI])
      fc.assert(
        fc.property(fc.double({ min: -1e5, max: 1e5, noNaN: true }), (x) => {
          expect(storedFrom(q, shownIn(q, x, units), units)).toBeCloseTo(x, 6);
          const words = inWordsQuantity(q, x, units);
          const unit = unitOf(q, units);
          if (unit) expect(words.endsWith(` ${unit}`)).toBe(true);
          expect(words).not.toMatch(/NaN|e[+-]|^-/);
        }),
      );
  });

  it('reads as a shop writes it', () => {
    expect(inWordsQuantity('length', 0.3048 * 20, US)).toBe('20.0 ft');
    expect(inWordsQuantity('celsius', 25, US)).toBe('77 °F');
    expect(inWordsQuantity('rating', 7.5, US)).toBe('7.5 A');
    expect(inWordsQuantity('rating', 40, US)).toBe('40 A');
    expect(inWordsQuantity('volts', 0.0042, US)).toBe('0.0042 V');
    expect(inWordsQuantity('amps', -12.34, US)).toBe('−12.3 A');
    expect(inWordsQuantity('hours', Infinity, US)).toBe('no limit');
  });
});
