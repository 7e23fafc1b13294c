/** Against tables of the handbooks, not against the formulas. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bisect, median, middle95, normalQuantile, quantile, studentT95 } from './stats';

describe('quantiles of distributions', () => {
  // Abramowitz and Stegun, table 26.5, and the usual critical values to four places.
  it.each([
    [0.5, 0],
    [0.8413447, 1],
    [0.95, 1.6449],
    [0.975, 1.96],
    [0.995, 2.5758],
    [0.9995, 3.2905],
    [0.001, -3.0902],
  ])('the normal at %f is %f', (p, z) => expect(normalQuantile(p)).toBeCloseTo(z, 3));

  it('is odd about one half and rises', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-6, max: 0.4999, noNaN: true }), (p) => {
        expect(normalQuantile(1 - p)).toBeCloseTo(-normalQuantile(p), 6);
        expect(normalQuantile(p)).toBeLessThan(normalQuantile(p + 1e-4));
      }),
    );
  });

  // Student's t, 97.5 %: the table in any handbook of statistics.
  it.each([
    [5, 2.571],
    [10, 2.228],
    [19, 2.093],
    [30, 2.042],
    [120, 1.98],
  ])('Student’s t with %i degrees of freedom is %f', (nu, t) => expect(studentT95(nu)).toBeCloseTo(t, 1));
});

describe('lists', () => {
  it('have a median, quantiles by nearest rank, and a middle', () => {
    expect(median([3, 1, 2])).toBe(2);
    expect(median([4, 1, 2, 3])).toBe(3);
    expect(median([])).toBeNaN();
    const list = Array.from({ length: 101 }, (_, i) => 100 - i);
    expect([quantile(list, 0), quantile(list, 0.5), quantile(list, 0.95), quantile(list, 1)]).toEqual([0, 50, 95, 100]);
    expect(middle95(Array.from({ length: 200 }, (_, i) => i))).toEqual({ lo: 5, hi: 194 });
  });

  it('are left as they were', () => {
    const list = [3, 1, 2];
    median(list);
    quantile(list, 0.5);
    middle95(list);
    expect(list).toEqual([3, 1, 2]);
  });

  it('of samples hold 95 % between the ends of their middle', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ noNaN: true, min: -1e6, max: 1e6 }), { minLength: 100, maxLength: 400 }),
        (list) => {
          const { lo, hi } = middle95(list);
          const inside = list.filter((x) => x >= lo && x <= hi).length / list.length;
          expect(inside).toBeGreaterThanOrEqual(0.95);
        },
      ),
    );
  });
});

describe('bisection', () => {
  it('finds where something turns, to the tolerance asked for', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.001, max: 0.999, noNaN: true }), (turn) => {
        const all = bisect(0, 1, (x) => x < turn);
        expect(all.low).toBeCloseTo(turn, 12);
        const rough = bisect(0, 1, (x) => x < turn, { tolerance: 0.01 });
        expect(rough.high - rough.low).toBeLessThanOrEqual(0.01);
        expect(rough.low <= turn && turn <= rough.high).toBe(true);
      }),
    );
    expect(bisect(0, 1, () => true, { rounds: 3 })).toEqual({ low: 0.875, high: 1 });
  });
});
