import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PART_KINDS } from '../parts/kinds';
import { displayUnit } from './display';
import { assumed, type ParameterSpec } from './parameter';
import {
  lengthInBoth,
  inWordsConfidence,
  midSentence,
  showAmps,
  showBand,
  showClock,
  showMiss,
  showPercent,
  showQuantity,
  showSpread,
  showText,
  showVolts,
} from './format';
import { celsiusShown, celsiusStored, lengthShown, lengthStored } from './preferences';

const back = ({ text, unit }: { text: string; unit: string }): number =>
  Number(text.replace('\u2212', '-')) * (unit === 'mV' ? 1e-3 : 1);
const volts = fc.double({ min: -80, max: 80, noNaN: true });

describe('a figure on the screen', () => {
  it('is the value to its last digit, and the same figure with a minus for its opposite', () => {
    fc.assert(
      fc.property(volts, (v) => {
        const shown = showVolts(v);
        expect(Math.abs(back(shown) - v)).toBeLessThanOrEqual(
          shown.unit === 'V' ? 0.00501 : Math.abs(v) < 0.00995 ? 0.0000501 : 0.000501,
        );
        expect(showVolts(-v).text.replace('\u2212', '')).toBe(shown.text.replace('\u2212', ''));
        expect(shown.text).not.toMatch(/-|^\u22120(\.0*)?$/);
      }),
    );
    fc.assert(
      fc.property(fc.double({ min: -900, max: 900, noNaN: true }), (a) => {
        expect(Math.abs(back(showAmps(a)) - a)).toBeLessThanOrEqual(Math.abs(a) < 99.95 ? 0.0501 : 0.501);
        expect(showAmps(a).text).not.toMatch(/-|^\u22120(\.0*)?$/);
      }),
    );
  });

  it('changes from millivolts to volts where a tenth of a volt begins', () => {
    expect([0.0043, 0.056, 0.0994, 0.0999, 0.3, 12.4].map((v) => showText(v, 'V'))).toEqual([
      '4.3 mV',
      '56 mV',
      '99 mV',
      '0.10 V',
      '0.30 V',
      '12.40 V',
    ]);
  });

  it('of a band has both ends in one unit, the lower first', () => {
    fc.assert(
      fc.property(volts, volts, (a, b) => {
        const [lo, hi] = a < b ? [a, b] : [b, a];
        const text = showBand(lo, hi, 'V');
        const [first, second] = text
          .replaceAll('\u2212', '-')
          .match(/-?[\d.]+/g)!
          .map(Number) as [number, number];
        expect(first).toBeLessThanOrEqual(second);
        expect(text).toMatch(/ (mV|V)$/);
      }),
    );
    expect(showBand(-0.0002, 0.009, 'V')).toBe('0 to 9 mV');
    expect(showBand(22.4, 80.2, 'A')).toBe('22 to 80 A');
    expect(showBand(-0.4, 0.02, 'A')).toBe('\u22120.4 to 0 A');
  });

  it('that misses its band says by how much and on which side', () => {
    expect(showMiss(12.1, 13.2, 13.9, 'V')).toBe('1.10 V under the band');
    expect(showMiss(14.02, 13.2, 13.9, 'V')).toBe('0.12 V over the band');
    expect(showMiss(13.5, 13.2, 13.9, 'V')).toBe('in the band');
  });

  it('of a chance never claims certainty, and never falls where the chance rises', () => {
    const chances = Array.from({ length: 201 }, (_, i) => i / 200);
    const shown = chances.map((p) => Number(showPercent(p).replace('<1', '0')));
    expect(shown.every((x, i) => i === 0 || x >= shown[i - 1]!)).toBe(true);
    expect([showPercent(0), showPercent(1)]).toEqual(['<1', '99']);
    expect(new Set(chances.map(inWordsConfidence)).size).toBe(5);
  });

  it('of a clock is the seconds it counts', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 48 * 3600 - 1 }), (s) => {
        const parts = showClock(s).split(':').map(Number);
        expect(parts.reduce((sum, x) => sum * 60 + x, 0)).toBe(s);
      }),
    );
    expect([showClock(192), showClock(3725), showClock(-4), showClock(50 * 3600)]).toEqual([
      '3:12',
      '1:02:05',
      '0:00',
      '2 days',
    ]);
  });

  it('of a parameter is read in the unit the trade reads', () => {
    expect([
      showQuantity(0.0008, 'ohm'),
      showQuantity(14.2, 'ohm'),
      showQuantity(440, 'Ah'),
      showQuantity(0.92, ''),
    ]).toEqual(['0.8 m\u03a9', '14.2 \u03a9', '440 Ah', '0.92']);
    expect([showSpread(0.3, 'ratio', 'ohm'), showSpread(0.002, 'offset', 'ohm')]).toEqual([
      '\u00b130 %',
      '\u00b12 m\u03a9',
    ]);
    // What is shown times what it is stored as: a thousand milliohms an ohm, a hundred per cent a whole.
    const spec = (unit: ParameterSpec['unit'], value: number, max: number) => ({
      unit,
      max,
      default: assumed(value, 0),
    });
    expect(displayUnit(spec('ohm', 0.0009, 1))).toEqual({ unit: 'mΩ', times: 1000 });
    expect(displayUnit(spec('ohm', 1, 100))).toEqual({ unit: 'Ω', times: 1 });
    expect(displayUnit(spec('', 0.8, 1))).toEqual({ unit: '%', times: 100 });
    expect(displayUnit(spec('', 1.2, 3))).toEqual({ unit: '×', times: 1 });
    expect(displayUnit(spec('Ah', 100, 5000))).toEqual({ unit: 'Ah', times: 1 });
    for (const kind of PART_KINDS.values())
      for (const [name, spec] of Object.entries(kind.params)) {
        const { unit, times } = displayUnit(spec);
        expect(unit, `${kind.id}.${name}`).not.toBe('');
        // Nothing a technician edits reads like 0.0008 or 1,000,000.
        const shown = Math.abs(spec.default.value * times);
        if (shown !== 0) expect(shown >= 0.01 && shown < 100_000, `${kind.id}.${name}: ${shown} ${unit}`).toBe(true);
      }
  });

  it('of a name begins small in the middle of a sentence, but for an abbreviation', () => {
    expect(['Coach bank', 'DC-DC charger', 'LFP bank', 'Link fuse'].map(midSentence)).toEqual([
      'coach bank',
      'DC-DC charger',
      'LFP bank',
      'link fuse',
    ]);
  });
});

describe('the shop’s own units', () => {
  it('come back as they were stored, to half a millimetre and a thousandth of a degree', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 100, noNaN: true }),
        fc.constantFrom('ft' as const, 'm' as const),
        (m, unit) => {
          expect(Math.abs(lengthStored(lengthShown(m, unit), unit) - m)).toBeLessThanOrEqual(0.00051);
        },
      ),
    );
    fc.assert(
      fc.property(
        fc.double({ min: -60, max: 150, noNaN: true }),
        fc.constantFrom('F' as const, 'C' as const),
        (c, unit) => {
          expect(celsiusStored(celsiusShown(c, unit), unit)).toBeCloseTo(c, 3);
        },
      ),
    );
    // Fixed points of the scales: water freezes and boils.
    expect([celsiusShown(0, 'F'), celsiusShown(100, 'F'), celsiusShown(-40, 'F')]).toEqual([32, 212, -40]);
    expect(lengthShown(0.3048, 'ft')).toBeCloseTo(1, 12);
  });
});

describe('a length in both families', () => {
  it('is inches for a hand of cable, feet for a run, metres beside either', () => {
    expect(lengthInBoth(0.18)).toBe('7 in (0.18 m)');
    expect(lengthInBoth(0.457)).toBe('18 in (0.46 m)');
    expect(lengthInBoth(6.3)).toBe('20.7 ft (6.3 m)');
  });
});
