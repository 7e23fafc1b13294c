/** When two takes of one reading rule out a slip. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { takesAgree } from './meter';

const volts = fc.double({ min: -60, max: 60, noNaN: true });

describe('two takes', () => {
  it('agree with themselves, and whichever came first', () => {
    fc.assert(
      fc.property(volts, volts, fc.constantFrom('V' as const, 'A' as const), (a, b, unit) => {
        expect(takesAgree(unit, a, a)).toBe(true);
        // Noise is of the first: a hair's breadth at the limit may differ.
        if (Math.abs(Math.abs(a) - Math.abs(b)) < 1e-9) expect(takesAgree(unit, a, b)).toBe(takesAgree(unit, b, a));
      }),
    );
  });

  it('of a drop that falls while a bank fills agree; a drop that is gone, or stands the other way round, is a slip', () => {
    // An hour of charge takes amps down by a tenth: common practice to read such a drop as the same.
    expect(takesAgree('V', 0.4588, 0.41)).toBe(true);
    expect(takesAgree('V', -0.2207, -0.2597)).toBe(true);
    expect(takesAgree('V', 0.1175, 0.0014)).toBe(false);
    expect(takesAgree('V', 0.39, -0.39)).toBe(false);
    expect(takesAgree('V', 0.34, 3.4)).toBe(false);
  });

  it('of bank volts are a tenth apart at most: two points of one rig lie further', () => {
    expect(takesAgree('V', 12.6, 12.72)).toBe(true);
    expect(takesAgree('V', 12.6, 13.0)).toBe(false);
    expect(takesAgree('V', 12.6, 11.9)).toBe(false);
  });
});
