import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { GAUGES, wireArea, wireResistance } from '../units/wire';
import { ampacity, conductorCelsius, INSULATIONS, type WirePlace } from '../units/ampacity';
import { FUSE_KINDS, fuseKind, opensAtEarliest, opensAtLatest, opensSeconds } from '../parts/fuses';
import { fuseWindow } from './protect';
import { bearsSeconds, shortCircuitK } from './shortCircuit';

const places: WirePlace[] = ['open', 'engine-space'];

describe('ampacity', () => {
  // 33 CFR 183.425 table 5, from memory: rows a shop quotes, and the table's engine-space factors.
  it.each([
    ['16', 105, 25],
    ['10', 105, 60],
    ['8', 105, 80],
    ['6', 105, 120],
    ['4', 105, 160],
    ['2', 105, 210],
    ['1/0', 105, 285],
    ['2/0', 105, 330],
    ['4/0', 105, 445],
    ['8', 60, 55],
    ['6', 75, 95],
    ['2/0', 90, 285],
  ] as const)('%s AWG, %i °C insulation: %i A', (gauge, insulation, amps) => {
    expect(ampacity(gauge, insulation, 'open')).toBe(amps);
  });

  it.each([
    [60, 0.58],
    [75, 0.75],
    [90, 0.82],
    [105, 0.85],
    [200, 1],
  ] as const)('%i °C insulation in an engine space: times %f', (insulation, factor) => {
    expect(ampacity('4', insulation, 'engine-space')).toBeCloseTo(ampacity('4', insulation, 'open') * factor, 9);
  });

  it('thicker or hotter-rated never carries less, an engine space never more', () => {
    for (const insulation of INSULATIONS)
      for (const place of places)
        GAUGES.forEach((g, i) => {
          if (i > 0)
            expect(ampacity(g, insulation, place)).toBeGreaterThanOrEqual(ampacity(GAUGES[i - 1]!, insulation, place));
        });
    for (const g of GAUGES)
      INSULATIONS.forEach((t, i) => {
        if (i > 0) expect(ampacity(g, t, 'open')).toBeGreaterThanOrEqual(ampacity(g, INSULATIONS[i - 1]!, 'open'));
        expect(ampacity(g, t, 'engine-space')).toBeLessThanOrEqual(ampacity(g, t, 'open'));
      });
  });

  it('at its ampacity a conductor is as hot as its insulation bears, at none as the air', () => {
    for (const g of GAUGES)
      for (const place of places) {
        expect(conductorCelsius(g, 105, place, ampacity(g, 105, place))).toBeCloseTo(105, 9);
        expect(conductorCelsius(g, 105, place, 0)).toBe(place === 'open' ? 30 : 50);
      }
  });
});

describe('voltage drop', () => {
  it('is what the circular-mil rule of the trade gives: CM = K·I·L/E with K = 10.75 (ABYC E-11, from memory)', () => {
    // Worked: 20 A over 30 ft out and back, 3 % of 12 V: 17,917 circular mils, so 6 AWG (26,240) and not 8 (16,510).
    const drop = (gauge: (typeof GAUGES)[number]) => 20 * wireResistance(gauge, 30 * 0.3048, 30);
    expect((10.75 * 20 * 30) / 0.36).toBeCloseTo(17_917, 0);
    expect(drop('6')).toBeLessThan(0.36);
    expect(drop('8')).toBeGreaterThan(0.36);
    // K is the resistance of a circular-mil foot: ours within 4 %, stranding and temperature counted.
    for (const g of GAUGES) {
      const circularMils = wireArea(g) / ((Math.PI / 4) * 0.0254e-3 ** 2);
      const k = wireResistance(g, 0.3048, 30) * circularMils;
      expect(Math.abs(k / 10.75 - 1)).toBeLessThan(0.04);
    }
  });

  // IEC 60228 table 3, class 5, plain copper at 20 °C: mΩ/m of the metric size nearest above each area (from memory).
  it.each([
    [2.5, 7.98],
    [4, 4.95],
    [6, 3.3],
    [10, 1.91],
    [16, 1.21],
    [25, 0.78],
    [35, 0.554],
    [50, 0.386],
    [70, 0.272],
    [95, 0.206],
  ])('%f mm² agrees with IEC 60228 within 14 %% of its ceiling', (mm2, milliohms) => {
    // By area alone: the standard's figure is a ceiling, for the thinnest copper that may be sold under the name.
    const byArea = (1.7241e-8 * 1.02) / (mm2 * 1e-6);
    expect(byArea * 1000).toBeLessThan(milliohms);
    expect(byArea * 1000).toBeGreaterThan(milliohms * 0.86);
  });
});

describe('short circuit', () => {
  // IEC 60364-4-43, table 43A: 115 for thermoplastic copper (70 to 160 °C), 143 for cross-linked (90 to 250 °C).
  it('has the factors of the standard', () => {
    expect(shortCircuitK(70, 160)).toBeCloseTo(115, 0);
    expect(shortCircuitK(90, 250)).toBeCloseTo(143, 0);
  });

  it('a thicker wire bears it longer, a larger current shorter, by the square', () => {
    expect(bearsSeconds('8', 105, 2000) / bearsSeconds('8', 105, 1000)).toBeCloseTo(0.25, 9);
    GAUGES.forEach(
      (g, i) => i > 0 && expect(bearsSeconds(g, 105, 1000)).toBeGreaterThan(bearsSeconds(GAUGES[i - 1]!, 105, 1000)),
    );
  });
});

describe('fuses', () => {
  it.each(FUSE_KINDS.map((k) => [k.label, k] as const))(
    '%s opens between its earliest and latest, and sooner the more it carries',
    (_, kind) => {
      let before = Infinity;
      for (let m = 1; m < 20; m *= 1.05) {
        const t = opensSeconds(kind, m);
        expect(t).toBeLessThanOrEqual(before);
        expect(opensAtLatest(kind, m)).toBeGreaterThanOrEqual(t);
        expect(opensAtEarliest(kind, m)).toBeLessThanOrEqual(t);
        before = t;
      }
      expect(opensSeconds(kind, 1.1)).toBe(Infinity);
    },
  );

  // Opening times by family as data sheets print them, s from and to; typed here, from memory. ISO 8820-3 type C (blade)
  // and type E (large blade); ISO 8820-5 (bolt-in). 110 % is held for 100 h.
  it.each([
    ['blade', 1.35, 0.75, 600],
    ['blade', 2, 0.15, 5],
    ['blade', 3.5, 0.04, 0.5],
    ['blade', 6, 0.02, 0.1],
    ['blade-large', 1.35, 60, 1800],
    ['blade-large', 2, 2, 60],
    ['blade-large', 3.5, 0.2, 7],
    ['blade-large', 6, 0.04, 1],
    ['bolt-large', 2, 1, 60],
    ['bolt-large', 3.5, 0.1, 7],
    ['bolt-large', 6, 0.03, 1],
  ] as const)('%s at %d times its rating opens as its standard says', (id, multiple, from, to) => {
    const kind = fuseKind(id)!;
    expect(opensSeconds(kind, multiple)).toBeGreaterThanOrEqual(from);
    expect(opensSeconds(kind, multiple)).toBeLessThanOrEqual(to);
    expect(opensAtLatest(kind, multiple)).toBeLessThanOrEqual(to);
    expect(opensAtEarliest(kind, multiple)).toBeGreaterThanOrEqual(from);
  });

  it('knows no fuse that nobody makes', () => expect(fuseKind('paper-clip')).toBeUndefined());

  it('one that is picked always protects its wire, carries its load, and opens before a short harms the wire', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 300, noNaN: true }),
        fc.constantFrom(...GAUGES),
        fc.constantFrom(...INSULATIONS),
        fc.constantFrom(...places),
        (amps, gauge, insulation, place) => {
          const w = fuseWindow(amps, [{ gauge, insulation, place }]);
          if (w.pick === undefined) {
            expect(w.verdict).toBe('nothing fits');
            return;
          }
          expect(w.pick).toBeLessThanOrEqual(ampacity(gauge, insulation, place));
          expect(w.pick).toBeGreaterThan(amps);
          if (w.verdict === 'fits') expect(w.pick * 0.8).toBeGreaterThanOrEqual(amps - 1e-9);
        },
      ),
    );
  });

  it('the weakest wire behind it decides', () => {
    const thick = { gauge: '2', insulation: 105, place: 'open' } as const;
    const thin = { gauge: '10', insulation: 60, place: 'open' } as const;
    expect(fuseWindow(30, [thick]).pick).toBe(40);
    expect(fuseWindow(30, [thick, thin]).pick).toBe(40);
    expect(fuseWindow(45, [thick, thin]).verdict).toBe('nothing fits');
  });
});
