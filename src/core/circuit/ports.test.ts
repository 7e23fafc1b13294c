/** Nonlinear elements against their written laws, and their slopes against finite differences, far out and close in. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PortBranch } from './network';
import { portCurrent, portValueSlopes } from './ports';

type Kind = PortBranch['kind'];
const out = new Float64Array(3);
const amps = (kind: Kind, values: readonly number[], u: number): number => {
  portCurrent(kind, Float64Array.from(values), 0, u, out);
  return out[0]!;
};
const slope = (kind: Kind, values: readonly number[], u: number): number => {
  portCurrent(kind, Float64Array.from(values), 0, u, out);
  return out[1]!;
};
const byValue = (kind: Kind, values: readonly number[], u: number): number[] => {
  portValueSlopes(kind, Float64Array.from(values), 0, u, out);
  return [...out];
};

/** An alternator, a battery's polarisation, a 6 A diode, a 55 W lamp; and volts at which each is asked. */
const CASES: readonly (readonly [Kind, readonly number[], readonly number[]])[] = [
  ['source', [14.2, 0.004, 90], [14.5, 14.19, 14, 13.86, 13.7, 0]],
  ['overvoltage', [0.6, 0.1, 0.03], [-1.2, -0.5, -0.1, -1e-5, 1e-5, 0.02, 0.3, 2, 4]],
  ['diode', [3e-7, 0.0414, 0], [-0.7, -0.4, -0.05, 0.05, 0.3, 12, -1.5]],
  ['lamp', [12, 55, 0], [-13, -3, -0.4, 0.4, 1, 6, 12, 15]],
  ['current', [7, 0, 0], [-3, 0, 13]],
];

describe.each(CASES)('%s', (kind, values, volts) => {
  it('falls, or stays, as the volts across it rise', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -30, max: 30, noNaN: true }),
        fc.double({ min: 1e-9, max: 3, noNaN: true }),
        (u, more) => {
          const [a, b] = [amps(kind, values, u), amps(kind, values, u + more)];
          expect(Number.isFinite(a) && Number.isFinite(b)).toBe(true);
          expect(b).toBeLessThanOrEqual(a + 1e-12 * Math.abs(a));
          expect(slope(kind, values, u)).toBeLessThanOrEqual(0);
        },
      ),
    );
  });

  it('has the slope by its volts that a small step shows', () => {
    for (const u of volts) {
      const h = 1e-6 * Math.max(0.01, Math.abs(u));
      const shown = (amps(kind, values, u + h) - amps(kind, values, u - h)) / (2 * h);
      expect(Math.abs(slope(kind, values, u) - shown), `at ${u} V`).toBeLessThan(1e-5 * Math.abs(shown) + 1e-9);
    }
  });

  it('has the slopes by its own values that a small step shows', () => {
    for (const u of volts) {
      const said = byValue(kind, values, u);
      values.forEach((value, k) => {
        if (value === 0) return;
        const h = 1e-6 * value;
        const at = (x: number) =>
          amps(
            kind,
            values.map((v, i) => (i === k ? x : v)),
            u,
          );
        const shown = (at(value + h) - at(value - h)) / (2 * h);
        expect(Math.abs(said[k]! - shown), `value ${k} at ${u} V: ${said[k]} for ${shown}`).toBeLessThan(
          2e-5 * Math.abs(shown) + 1e-9,
        );
      });
    }
  });
});

describe('laws', () => {
  it('a source gives what its droop leaves, at most its limit, and never takes', () => {
    expect(amps('source', [14.2, 0.004, 90], 14)).toBeCloseTo(50, 9);
    expect(amps('source', [14.2, 0.004, 90], 13)).toBe(90);
    expect(amps('source', [14.2, 0.004, 90], 14.3)).toBe(0);
    expect(amps('source', [14.2, 0.004, 0], 10)).toBe(0);
  });

  it('a battery’s polarisation is i0·sinh(u/η), with an η of its own each way', () => {
    expect(amps('overvoltage', [0.6, 0.1, 0.03], 0.2)).toBeCloseTo(-0.6 * Math.sinh(2), 9);
    expect(amps('overvoltage', [0.6, 0.1, 0.03], -0.06)).toBeCloseTo(0.6 * Math.sinh(2), 9);
    // Next to nothing it is the straight line through zero, to the last digit.
    expect(amps('overvoltage', [0.6, 0.1, 0.03], 1e-9)).toBeCloseTo(-6e-9, 18);
  });

  it('a polarisation goes on straight, without a step or a kink, where the sinh would overflow', () => {
    for (const [u, eta] of [
      [30 * 0.1, 0.1],
      [-30 * 0.03, 0.03],
    ] as const) {
      const values = [0.6, 0.1, 0.03];
      const [a, b] = [amps('overvoltage', values, u * (1 - 1e-9)), amps('overvoltage', values, u * (1 + 1e-9))];
      expect(Math.abs(a - b) / Math.abs(a)).toBeLessThan(1e-6);
      expect(slope('overvoltage', values, u * 1.001) / slope('overvoltage', values, u * 0.999999)).toBeCloseTo(1, 3);
      const far = amps('overvoltage', values, u + Math.sign(u) * eta) - amps('overvoltage', values, u);
      expect(Math.abs(far)).toBeCloseTo(0.6 * Math.cosh(30), -8);
    }
  });

  it('a diode is Shockley’s: 0.65 V at 1.4 A less its ohms, and leaks its saturation backward', () => {
    // Its plus is the cathode: forward is below zero.
    expect(amps('diode', [3e-7, 1.6 * 0.02585, 0], -0.63)).toBeCloseTo(3e-7 * Math.expm1(0.63 / (1.6 * 0.02585)), 6);
    expect(amps('diode', [3e-7, 1.6 * 0.02585, 0], -0.65)).toBeGreaterThan(1.3);
    expect(amps('diode', [3e-7, 1.6 * 0.02585, 0], 12)).toBeCloseTo(-3e-7, 12);
  });

  it('a lamp takes its watts at its volts, and fourteen times as much at first touch', () => {
    expect(-amps('lamp', [12, 55, 0], 12) * 12).toBeCloseTo(55, 6);
    expect(amps('lamp', [12, 55, 0], -12)).toBeCloseTo(-amps('lamp', [12, 55, 0], 12), 9);
    const cold = -slope('lamp', [12, 55, 0], 1e-6);
    expect(cold / (55 / 144)).toBeCloseTo(14.6, 3);
  });

  it('a converter’s input takes so many amps whatever the volts', () => {
    for (const u of [-5, 0, 13])
      expect([amps('current', [7, 0, 0], u), slope('current', [7, 0, 0], u)]).toEqual([-7, 0]);
  });
});
