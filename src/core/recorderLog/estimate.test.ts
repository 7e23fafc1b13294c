import { describe, expect, it } from 'vitest';
import { seededRng, type Rng } from '../units/rng';
import { level, line, noiseOf, ratio, stepResponse } from './estimate';

const every = (n: number) => Int32Array.from({ length: n }, (_, i) => i);
/** A slow sweep, so that second differences hold noise alone. */
const sweep = (n: number, of: number) => Float64Array.from({ length: n }, (_, i) => of * Math.sin((i / n) * 6.283));
const noisy = (values: Float64Array, sd: number, rng: Rng) => values.map((v) => v + sd * rng.normal());

describe('the noise of a column', () => {
  it('is that of the numbers put on it, and nothing of a slope', () => {
    const rng = seededRng(7);
    const n = 20_000;
    const slope = Float64Array.from({ length: n }, (_, i) => 12 + i * 1e-3);
    expect(noiseOf(slope, every(n))).toBeLessThan(1e-9);
    expect(noiseOf(noisy(slope, 0.05, rng), every(n)) / 0.05).toBeCloseTo(1, 1);
  });
  it('is not carried across a gap, and is nothing where there is too little to say', () => {
    const n = 400;
    const step = Float64Array.from({ length: n }, (_, i) => (i % 2 === 0 ? 0 : 100));
    // Every third sample: none has both neighbours.
    expect(
      noiseOf(
        step,
        Int32Array.from({ length: 100 }, (_, i) => 3 * i),
      ),
    ).toBe(0);
    expect(noiseOf(step, every(5))).toBe(0);
  });
});

describe('a line through noisy volts and amps', () => {
  it('is exact where nothing is noisy', () => {
    const amps = sweep(4000, 30);
    const volts = amps.map((a) => 12.7 - 0.012 * a);
    const fit = line(amps, volts, every(4000))!;
    expect(fit.slope.value).toBeCloseTo(-0.012, 9);
    expect(fit.intercept.value).toBeCloseTo(12.7, 9);
    // A sine of amplitude 30 has 30/√2 of spread.
    expect(fit.spread).toBeCloseTo(30 / Math.SQRT2, 1);
  });

  it('is not flattened by noise on the amps, which an ordinary line is', () => {
    const rng = seededRng(11);
    const n = 20_000;
    const amps = sweep(n, 6);
    const volts = noisy(
      amps.map((a) => 13 + 0.05 * a),
      0.02,
      rng,
    );
    const shown = noisy(amps, 1.2, rng);
    const fit = line(shown, volts, every(n))!;
    expect(Math.abs(fit.slope.value - 0.05)).toBeLessThan(0.001);
    // Ordinary least squares would give 0.05 · 18/(18 + 1.44) = 0.0463.
    expect(fit.slope.value).toBeGreaterThan(0.0485);
  });

  it('holds the truth in its interval in about 95 of 100 logs', () => {
    let inside = 0;
    const LOGS = 200;
    for (let seed = 1; seed <= LOGS; seed++) {
      const rng = seededRng(seed);
      const amps = sweep(2000, 20);
      const volts = noisy(
        amps.map((a) => 12.8 + 0.02 * a),
        0.03,
        rng,
      );
      const { slope } = line(noisy(amps, 0.3, rng), volts, every(2000))!;
      if (slope.lo <= 0.02 && 0.02 <= slope.hi) inside++;
    }
    // Binomial 200 · 0.95: three standard deviations are 9 logs.
    expect(inside).toBeGreaterThanOrEqual(LOGS * 0.95 - 9);
    expect(inside).toBeLessThan(LOGS);
  });

  it('is not drawn through a point, nor through too few', () => {
    const rng = seededRng(3);
    const still = noisy(new Float64Array(4000).fill(5), 0.2, rng);
    expect(line(still, still, every(4000))).toBeUndefined();
    expect(line(sweep(50, 5), sweep(50, 5), every(50))).toBeUndefined();
  });

  it('leaves out samples that are not numbers', () => {
    const amps = sweep(4000, 30);
    const volts = amps.map((a, i) => (i % 7 === 0 ? NaN : 12 + 0.01 * a));
    expect(line(amps, volts, every(4000))!.slope.value).toBeCloseTo(0.01, 9);
  });
});

describe('a ratio', () => {
  it('is mean over mean, with an interval of nothing where it never changes', () => {
    const x = Float64Array.from({ length: 400 }, (_, i) => 10 + (i % 5));
    const r = ratio(
      x,
      x.map((v) => 3 * v),
      every(400),
    )!;
    expect(r.value).toBeCloseTo(3, 12);
    expect(r.hi - r.lo).toBeLessThan(1e-9);
  });

  it('has the interval of a jackknife over twenty blocks, worked out plainly', () => {
    const rng = seededRng(11);
    const x = Float64Array.from({ length: 2000 }, () => 20 + rng.normal());
    const y = x.map((v) => 0.5 * v + 2 * rng.normal());
    const r = ratio(x, y, every(2000))!;
    const sum = (a: Float64Array) => a.reduce((s, v) => s + v, 0);
    // One block of a hundred left out at a time; t of 19 degrees of freedom is 2.093 (any table).
    const without = Array.from({ length: 20 }, (_, b) => {
      const rest = (a: Float64Array) => sum(a) - sum(a.slice(100 * b, 100 * b + 100));
      return rest(y) / rest(x);
    });
    const mean = without.reduce((a, b) => a + b, 0) / 20;
    const half = 2.093 * Math.sqrt((19 / 20) * without.reduce((a, b) => a + (b - mean) ** 2, 0));
    expect(r.value).toBeCloseTo(sum(y) / sum(x), 12);
    expect((r.hi - r.lo) / 2).toBeCloseTo(half, 5);
    expect(r.samples).toBe(2000);
  });
});

describe('a level', () => {
  it('is not moved by a spike in every block', () => {
    const values = Float64Array.from({ length: 2000 }, (_, i) => (i % 50 === 0 ? 400 : 12.5));
    expect(level(values, every(2000))!.value).toBeCloseTo(12.5, 9);
  });
  it('is the mean where nothing stands out, wider where blocks differ', () => {
    const drift = Float64Array.from({ length: 2000 }, (_, i) => 12 + i / 2000);
    const l = level(drift, every(2000))!;
    expect(l.value).toBeCloseTo(12.5, 2);
    const flat = level(new Float64Array(2000).fill(12.5), every(2000))!;
    expect(l.hi - l.lo).toBeGreaterThan(flat.hi - flat.lo);
  });
});

describe('the answer to steps', () => {
  /** A load of 20 A that comes and goes every 100 samples, on volts that drift. */
  const load = Float64Array.from({ length: 2000 }, (_, i) => (Math.floor(i / 100) % 2 === 0 ? 0 : -20));
  it('is the resistance behind the bank, whatever the bank drifts by meanwhile', () => {
    const rng = seededRng(5);
    const volts = load.map((a, i) => 12.8 + 0.015 * a - 0.6 * (i / 2000));
    const r = stepResponse(load, noisy(volts, 0.004, rng), every(2000), 3)!;
    expect(Math.abs(r.value - 0.015)).toBeLessThan(0.0005);
    expect(r.lo).toBeLessThan(0.015);
    expect(r.hi).toBeGreaterThan(0.015);
  });
  it('says nothing of a log without steps, or with one', () => {
    const still = new Float64Array(2000).fill(5);
    expect(stepResponse(still, still, every(2000), 3)).toBeUndefined();
    const once = Float64Array.from({ length: 2000 }, (_, i) => (i < 900 ? 0 : 20));
    expect(stepResponse(once, once, every(2000), 3)).toBeUndefined();
  });
});
