import { describe, expect, it } from 'vitest';
import {
  AWG_GAUGES,
  awgNumber,
  GAUGES,
  gaugeName,
  gaugeShown,
  gaugesOf,
  METRIC_GAUGES,
  wireArea,
  wireDiameter,
  wireResistance,
  type AwgGauge,
} from './wire';

// ASTM B258 standard nominal diameters (in) and areas (circular mils), from the published table.
const B258: Record<AwgGauge, [inches: number, circularMils: number]> = {
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
const NEC_TABLE_8: Record<AwgGauge, number> = {
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
  it.each(AWG_GAUGES)('%s: diameter and area by ASTM B258', (gauge) => {
    const [inches, circularMils] = B258[gauge];
    expect(Math.abs(wireDiameter(gauge) / 0.0254 - inches)).toBeLessThan(0.00006); // the table's rounding
    const mils = wireDiameter(gauge) / 0.0254e-3;
    // The table rounds the diameter to 0.1 mil first: 0.3 % on the thinnest.
    expect(Math.abs(mils * mils - circularMils) / circularMils).toBeLessThan(0.003);
    expect(wireArea(gauge)).toBeCloseTo((Math.PI / 4) * (mils * 0.0254e-3) ** 2, 12);
  });

  it.each(AWG_GAUGES)('%s: resistance within 1.5 %% of NEC chapter 9 table 8', (gauge) => {
    const per1000ft = wireResistance(gauge, 304.8, 75);
    expect(Math.abs(per1000ft / NEC_TABLE_8[gauge] - 1)).toBeLessThan(0.015);
  });

  // ISO 6722-1, vehicle cable, most Ω/km at 20 °C (from memory): another standard than the one in use, which errs high.
  it.each([
    ['2.5mm2', 7.6],
    ['4mm2', 4.71],
    ['6mm2', 3.14],
    ['10mm2', 1.82],
    ['16mm2', 1.16],
    ['25mm2', 0.743],
    ['35mm2', 0.527],
    ['50mm2', 0.368],
  ] as const)('%s: at most 6 %% above vehicle cable of ISO 6722-1, and never under it', (gauge, ohmsPerKm) => {
    const share = wireResistance(gauge, 1000, 20) / ohmsPerKm;
    expect(share).toBeGreaterThan(1);
    expect(share).toBeLessThan(1.06);
  });

  it.each(METRIC_GAUGES)('%s: more than a bar of its named area would have, by less than a fifth', (gauge) => {
    // 17.241 Ω·mm²/km, annealed copper at 20 °C: IEC 60028.
    const bar = 17.241 / Number(gauge.replace('mm2', ''));
    expect(wireResistance(gauge, 1000, 20) / bar).toBeGreaterThan(1);
    expect(wireResistance(gauge, 1000, 20) / bar).toBeLessThan(1.2);
  });

  it('a metric size has less copper than its name, and lies between its neighbours of the other family', () => {
    for (const g of METRIC_GAUGES) {
      const named = Number(g.replace('mm2', '')) * 1e-6;
      expect(wireArea(g) / named, g).toBeGreaterThan(0.85);
      expect(wireArea(g) / named, g).toBeLessThan(1.01);
    }
    // 16 mm² stands between 6 and 4 AWG, 50 mm² between 1 and 1/0.
    expect(awgNumber('16mm2')).toBeGreaterThan(4.9);
    expect(awgNumber('16mm2')).toBeLessThan(6);
    expect(GAUGES.indexOf('50mm2')).toBeGreaterThan(GAUGES.indexOf('1'));
    expect(GAUGES.indexOf('50mm2')).toBeLessThan(GAUGES.indexOf('1/0'));
  });

  it('names are the shop’s', () => {
    expect([gaugeName('16mm2'), gaugeShown('16mm2', 'awg'), gaugeShown('8', 'mm2'), gaugeShown('8', 'awg')]).toEqual([
      '16 mm²',
      '16 mm²',
      '8.4 mm²',
      '8 AWG',
    ]);
    expect(gaugesOf('mm2')).toEqual([...METRIC_GAUGES]);
    expect(gaugesOf('awg', '16mm2')).toContain('16mm2');
    expect(gaugesOf('awg')).toEqual([...AWG_GAUGES]);
  });

  it('every step to a thicker gauge lowers resistance', () => {
    const ohms = GAUGES.map((g) => wireResistance(g, 1));
    expect([...ohms].sort((a, b) => b - a)).toEqual(ohms);
  });
});
