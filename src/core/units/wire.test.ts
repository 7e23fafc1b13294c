import { describe, expect, it } from 'vitest';
import { GAUGES, wireArea, wireDiameter, wireResistance, type Gauge } from './wire';

// ASTM B258 standard nominal diameters (in) and areas (circular mils), from the published table.
const B258: Record<Gauge, [inches: number, circularMils: number]> = {
  '18': [0.0403, 1620],
  '16': [0.0508, 2580],
  '14': [0.0641, 4110],
  '12': [0.0808, 6530],
  '10': [0.1019, 10380],
  '8': [0.1285, 16510],
  '6': [0.162, 26240],
  '4': [0.2043, 41740],
  '2': [0.2576, 66360],
  '1': [0.2893, 83690],
  '1/0': [0.3249, 105600],
  '2/0': [0.3648, 133100],
  '3/0': [0.4096, 167800],
  '4/0': [0.46, 211600],
};

// NEC chapter 9 table 8: DC resistance at 75 °C of stranded uncoated copper, Ω per 1000 ft.
const NEC_TABLE_8: Record<Gauge, number> = {
  '18': 7.95,
  '16': 4.99,
  '14': 3.14,
  '12': 1.98,
  '10': 1.24,
  '8': 0.778,
  '6': 0.491,
  '4': 0.308,
  '2': 0.194,
  '1': 0.154,
  '1/0': 0.122,
  '2/0': 0.0967,
  '3/0': 0.0766,
  '4/0': 0.0608,
};

describe('wire against published tables', () => {
  it.each(GAUGES)('%s: diameter and area by ASTM B258', (gauge) => {
    const [inches, circularMils] = B258[gauge];
    expect(Math.abs(wireDiameter(gauge) / 0.0254 - inches)).toBeLessThan(0.00006); // the table's rounding
    const mils = wireDiameter(gauge) / 0.0254e-3;
    // The table rounds the diameter to 0.1 mil first: 0.3 % on the thinnest.
    expect(Math.abs(mils * mils - circularMils) / circularMils).toBeLessThan(0.003);
    expect(wireArea(gauge)).toBeCloseTo((Math.PI / 4) * (mils * 0.0254e-3) ** 2, 12);
  });

  it.each(GAUGES)('%s: resistance within 1.5 %% of NEC chapter 9 table 8', (gauge) => {
    const per1000ft = wireResistance(gauge, 304.8, 75);
    expect(Math.abs(per1000ft / NEC_TABLE_8[gauge] - 1)).toBeLessThan(0.015);
  });

  it('every step to a thicker gauge lowers resistance', () => {
    const ohms = GAUGES.map((g) => wireResistance(g, 1));
    expect([...ohms].sort((a, b) => b - a)).toEqual(ohms);
  });
});
