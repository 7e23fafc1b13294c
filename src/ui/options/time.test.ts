/** Hours of a use as a technician says and reads them. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { clockOf, inHours, isLong, tickOf } from './time';

describe('the clock of a use', () => {
  it('counts days from one and hours from when the use begins', () => {
    expect(clockOf(0, 17, false)).toBe('day 1, 17:00');
    expect(clockOf(7, 17, false)).toBe('day 2, 00:00');
    expect(clockOf(17.25, 17, false)).toBe('day 2, 10:15');
    expect(clockOf(500, 8, true)).toBe('day 22');
  });

  it('never shows a sixtieth minute or a twenty-fifth hour, however the time is cut', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 2000, noNaN: true }), fc.integer({ min: 0, max: 24 }), (hours, start) => {
        const [, h, m] = /^day \d+, (\d\d):(\d\d)$/.exec(clockOf(hours, start, false))!;
        expect(Number(h)).toBeLessThan(24);
        expect(Number(m)).toBeLessThan(60);
      }),
    );
  });

  it('ticks at midnight are days, else hours and minutes', () => {
    expect(tickOf(7, 17, false)).toBe('day 2');
    expect(tickOf(1.5, 17, false)).toBe('18:30');
    expect(tickOf(0, 0, false)).toBe('day 1');
    expect(tickOf(300, 8, true)).toBe('day 13');
  });

  it('of more than ten days is read in days', () => {
    expect([239, 240, 241].map(isLong)).toEqual([false, false, true]);
  });
});

describe('a span', () => {
  it('is in the unit one would say', () => {
    expect([0.25, 1, 5.25, 71.9, 72, 100, 999, 1000, 2190].map(inHours)).toEqual([
      '15 min',
      '1 h',
      '5.3 h',
      '71.9 h',
      '3 days',
      '4.2 days',
      '41.6 days',
      '1.4 months',
      '3.0 months',
    ]);
  });
});
