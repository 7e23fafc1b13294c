import { describe, expect, it } from 'vitest';
import { portCurrent, portValueSlopes } from '../circuit/ports';
import { CHEMISTRIES, chemistryOf, overvoltageShare, restVolts } from './chemistry';

describe('chemistries (common practice, no source)', () => {
  it.each(CHEMISTRIES.map((c) => [c.id, c] as const))(
    '%s: rest volts rise with charge, overvoltage builds up to all of it',
    (_, chemistry) => {
      for (let s = 0; s < 0.999; s += 0.01)
        expect(restVolts(s + 0.01, chemistry)).toBeGreaterThan(restVolts(s, chemistry));
      expect(overvoltageShare(0, chemistry)).toBe(0);
      for (let t = 0; t < 20_000; t += 500)
        expect(overvoltageShare(t + 500, chemistry)).toBeGreaterThan(overvoltageShare(t, chemistry));
      expect(overvoltageShare(1e7, chemistry)).toBeCloseTo(1, 6);
    },
  );

  it('AGM rests 0.1 to 0.15 V above flooded', () => {
    for (let s = 0; s <= 1; s += 0.05) {
      const above = restVolts(s, chemistryOf('agm')) - restVolts(s, chemistryOf('flooded'));
      expect(above).toBeGreaterThanOrEqual(0.1 - 1e-9);
      expect(above).toBeLessThanOrEqual(0.15 + 1e-9);
    }
  });

  it('LFP rests at 13.0 to 13.3 V over 20 to 90 %: volts are a poor gauge there', () => {
    for (let s = 0.2; s <= 0.9; s += 0.05) {
      expect(restVolts(s, chemistryOf('lfp'))).toBeGreaterThan(12.95);
      expect(restVolts(s, chemistryOf('lfp'))).toBeLessThan(13.35);
    }
  });
});

describe('a diode', () => {
  const values = Float64Array.of(5e-7, 0.04, 0);
  const amps = (u: number) => {
    const out = new Float64Array(2);
    portCurrent('diode', values, 0, -u, out); // u forward: anode above cathode
    return out;
  };

  it('drops 0.6 to 0.8 V at 5 to 100 A and blocks the other way', () => {
    for (const wanted of [5, 20, 70, 100]) {
      let low = 0;
      let high = 1;
      for (let k = 0; k < 60; k++) {
        const middle = (low + high) / 2;
        if (amps(middle)[0]! < wanted) low = middle;
        else high = middle;
      }
      expect(low).toBeGreaterThan(0.6);
      expect(low).toBeLessThan(0.8);
    }
    expect(Math.abs(amps(-13)[0]!)).toBeLessThan(1e-6);
  });

  it('is smooth and never rises with the voltage across its port, far beyond where it is used', () => {
    let before = Infinity;
    for (let u = -20; u <= 3; u += 0.01) {
      const [i, slope] = amps(u) as unknown as [number, number];
      expect(Number.isFinite(i)).toBe(true);
      expect(slope).toBeLessThanOrEqual(0);
      if (before !== Infinity) expect(i).toBeGreaterThanOrEqual(before);
      before = i;
      const h = 1e-6;
      const difference = -(amps(u + h)[0]! - amps(u - h)[0]!) / (2 * h);
      expect(Math.abs(slope - difference)).toBeLessThan(1e-3 * Math.max(1e-3, Math.abs(slope)));
    }
  });

  it('has slopes by its own values that are finite differences', () => {
    const slopes = new Float64Array(3);
    portValueSlopes('diode', values, 0, -0.7, slopes);
    const at = (is: number, nvt: number) => {
      const out = new Float64Array(2);
      portCurrent('diode', Float64Array.of(is, nvt, 0), 0, -0.7, out);
      return out[0]!;
    };
    expect(slopes[0]).toBeCloseTo((at(5.01e-7, 0.04) - at(4.99e-7, 0.04)) / 2e-9, -3);
    expect(slopes[1]! / ((at(5e-7, 0.040001) - at(5e-7, 0.039999)) / 2e-6)).toBeCloseTo(1, 4);
  });
});
