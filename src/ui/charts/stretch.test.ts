import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { moved, widened, type Stretch } from './stretch';

const LIMITS = { min: 10, max: 110, least: 2 };
const stretch = fc
  .tuple(fc.double({ min: 10, max: 107, noNaN: true }), fc.double({ min: 2, max: 100, noNaN: true }))
  .map(([from, width]): Stretch => [from, Math.min(110, from + width)]);

describe('the stretch of a chart that is shown', () => {
  it('stays inside its limits and never under its least width, whatever is asked', () => {
    fc.assert(
      fc.property(
        stretch,
        fc.double({ min: 0.01, max: 100, noNaN: true }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        (s, times, by) => {
          for (const [from, to] of [widened(s, times, LIMITS), moved(s, by, LIMITS)]) {
            expect(from).toBeGreaterThanOrEqual(LIMITS.min - 1e-9);
            expect(to).toBeLessThanOrEqual(LIMITS.max + 1e-9);
            expect(to - from).toBeGreaterThanOrEqual(LIMITS.least - 1e-9);
          }
        },
      ),
    );
  });

  it('keeps what is pointed at under the finger where there is room', () => {
    // A third of the way along before, and after.
    const [from, to] = widened([40, 70], 0.5, LIMITS, 50);
    expect(to - from).toBeCloseTo(15, 9);
    expect((50 - from) / (to - from)).toBeCloseTo(1 / 3, 9);
  });

  it('moves by a share of its width, and stops at the ends', () => {
    expect(moved([40, 60], 0.5, LIMITS)).toEqual([50, 70]);
    expect(moved([40, 60], 9, LIMITS)).toEqual([90, 110]);
    expect(moved([40, 60], -9, LIMITS)).toEqual([10, 30]);
  });

  it('shows all where more is asked than there is', () => {
    expect(widened([40, 60], 1000, LIMITS)).toEqual([10, 110]);
  });
});
