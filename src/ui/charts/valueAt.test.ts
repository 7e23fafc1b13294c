import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { valueAt } from './valueAt';

describe('a value between two points', () => {
  const t = Float64Array.of(0, 10, 10, 40);
  const v = Float64Array.of(1, 2, 5, 8);

  it('lies on the line between them, and stays at the ends', () => {
    expect(valueAt(t, v, 5)).toBeCloseTo(1.5, 12);
    expect(valueAt(t, v, 25)).toBeCloseTo(6.5, 12);
    expect(valueAt(t, v, 100)).toBe(8);
    expect(valueAt(Float64Array.of(), Float64Array.of(), 3)).toBeNaN();
    expect(valueAt(Float64Array.of(2), Float64Array.of(7), 2)).toBe(7);
  });

  it('is what a plain search finds, anywhere', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 50 }), fc.integer({ min: -100, max: 100 })), {
          minLength: 2,
          maxLength: 40,
        }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (steps, share) => {
          let at = 0;
          const ts = Float64Array.from(steps, ([d]) => (at += d));
          const vs = Float64Array.from(steps, ([, x]) => x);
          const look = ts[0]! + share * (ts.at(-1)! - ts[0]!);
          let i = 1;
          while (i < ts.length - 1 && ts[i]! < look) i++;
          const [a, b] = [ts[i - 1]!, ts[i]!];
          expect(valueAt(ts, vs, look)).toBeCloseTo(vs[i - 1]! + ((vs[i]! - vs[i - 1]!) * (look - a)) / (b - a), 9);
        },
      ),
    );
  });
});
