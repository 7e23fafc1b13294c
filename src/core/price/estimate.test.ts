import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { showMoney, showRange } from '../units/money';
import { estimate } from './estimate';

describe('an estimate', () => {
  it('bills started quarters at the shop’s rate, and parts at its mark-up', () => {
    // By hand: 40 to 75 min are 45 and 75; at 160 an hour 120 and 200; parts 45 to 160 times 1.25.
    const e = estimate({ minutes: [40, 75], parts: [45, 160] }, { labourPerHour: 160, partsTimes: 1.25 });
    expect(e.minutes).toEqual([45, 75]);
    expect(e.labour).toEqual([120, 200]);
    expect(e.parts).toEqual([56.25, 200]);
    expect(e.total).toEqual([176.25, 400]);
  });

  it('never falls when anything rises', () => {
    const n = fc.integer({ min: 0, max: 600 });
    fc.assert(
      fc.property(n, n, n, n, fc.double({ min: 0.1, max: 5, noNaN: true }), (a, b, p, rate, times) => {
        const lo = Math.min(a, b);
        const hi = Math.max(a, b);
        const e = estimate({ minutes: [lo, hi], parts: [p, p + 10] }, { labourPerHour: rate, partsTimes: times });
        expect(e.total[0]).toBeLessThanOrEqual(e.total[1]);
        expect(e.minutes[1]).toBeGreaterThanOrEqual(hi);
        expect(
          estimate({ minutes: [lo, hi + 20], parts: [p, p + 10] }, { labourPerHour: rate, partsTimes: times }).total[1],
        ).toBeGreaterThanOrEqual(e.total[1]);
      }),
    );
  });

  it('is shown in whole units of the shop’s money', () => {
    expect(showMoney(1234.4, 'USD')).toBe('$1,234');
    expect(showRange(45, 160, 'EUR')).toBe('€45 to €160');
    expect(showRange(99.6, 100.2, 'AUD')).toBe('A$100');
  });
});
