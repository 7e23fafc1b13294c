import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { clockTicks, tickPattern } from './clockTicks';

describe('ticks of a time axis', () => {
  it('stand inside the window, evenly, on whole steps of the clock, and not too many', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 2e9 }),
        fc.double({ min: 8, max: 9e7, noNaN: true }),
        fc.integer({ min: 3, max: 10 }),
        fc.constantFrom(0, -6 * 3600, 5.5 * 3600),
        (from, long, most, ahead) => {
          const { step, at } = clockTicks(from, from + long, most, ahead);
          expect(at.length).toBeLessThanOrEqual(most + 1);
          expect(at.every((t) => t >= from && t <= from + long && Math.abs((t + ahead) % step) < 1e-6)).toBe(true);
          for (let i = 1; i < at.length; i++) expect(at[i]! - at[i - 1]!).toBe(step);
        },
      ),
    );
  });

  it('of a day are every three hours, its midnight named by its date', () => {
    const midnight = Date.UTC(2026, 10, 21) / 1000;
    const { step, at } = clockTicks(midnight - 7 * 3600, midnight + 15 * 3600, 8);
    expect(step).toBe(3 * 3600);
    expect(at[0]).toBe(midnight - 6 * 3600);
    expect(at.map((t) => tickPattern(t, step))).toEqual(at.map((t) => (t === midnight ? 'd MMM' : 'HH:mm')));
    expect(tickPattern(midnight + 1, 1)).toBe('HH:mm:ss');
  });
});
