/** Back and forth at one instant: held for a moment, where it passes nothing if it can be. */
import { describe, expect, it } from 'vitest';
import { Chatter, CHATTER_HOLD_SECONDS } from './chatter';

describe('chatter', () => {
  it('is two changes and two more at one instant, and is held where it passes nothing', () => {
    const chatter = new Chatter(2);
    chatter.instant();
    expect([true, false, true].map((passes) => chatter.flipped(0, passes, 7))).toEqual([false, false, false]);
    expect(chatter.left(0, 7)).toBe(0);
    expect(chatter.flipped(0, false, 7)).toBe(true);
    expect(chatter.left(0, 7)).toBe(CHATTER_HOLD_SECONDS);
    expect(chatter.left(1, 7)).toBe(0);
  });

  it('is held anyhow where every way passes something', () => {
    const chatter = new Chatter(1);
    chatter.instant();
    expect(Array.from({ length: 6 }, () => chatter.flipped(0, true, 0))).toEqual([
      false,
      false,
      false,
      false,
      false,
      true,
    ]);
  });

  it('is no count of work: a new instant begins at nought', () => {
    const chatter = new Chatter(1);
    for (let t = 0; t < 20; t++) {
      chatter.instant();
      expect(chatter.flipped(0, false, t)).toBe(false);
    }
  });

  it('lasts its hold to a rounding, goes on a while after, and moves with a leap', () => {
    const chatter = new Chatter(1);
    chatter.instant();
    for (let k = 0; k < 4; k++) chatter.flipped(0, false, 100);
    expect(chatter.left(0, 100 + CHATTER_HOLD_SECONDS - 1e-9)).toBe(0);
    expect(chatter.left(0, 100.25)).toBeCloseTo(CHATTER_HOLD_SECONDS - 0.25, 9);
    expect(chatter.goesOn(0, 102.5)).toBe(true);
    expect(chatter.goesOn(0, 103.5)).toBe(false);
    chatter.shift(1000);
    expect(chatter.left(0, 1100.25)).toBeCloseTo(CHATTER_HOLD_SECONDS - 0.25, 9);
  });
});
