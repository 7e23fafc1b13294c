/** When is a controller's coming and going a chatter, and when its work. */
import { describe, expect, it } from 'vitest';
import { HuntingWatch } from './hunting';

/** Plays a controller that closes every `period` seconds, and tells what was said on the last closing. */
function play(watch: HuntingWatch, period: (n: number) => number, times: number, k = 0) {
  let t = 0;
  let told;
  for (let n = 0; n < times; n++) {
    told = watch.changed(k, 'closed', t);
    watch.changed(k, 'open', t + 1);
    t += period(n);
  }
  return told;
}

describe('hunting', () => {
  it('is four cycles alike, and told as new once', () => {
    const watch = new HuntingWatch(2);
    expect(play(watch, () => 30, 4)).toBeUndefined();
    const again = new HuntingWatch(1);
    let news = 0;
    for (let n = 0; n < 12; n++) if (again.changed(0, 'closed', 30 * n)?.first) news++;
    expect(news).toBe(1);
    expect(again.hunters).toEqual([0]);
    expect(again.silent(0)).toBe(true);
  });

  it('is quicker than a quarter of an hour: at exactly that it is work', () => {
    expect(play(new HuntingWatch(1), () => 900, 8)).toBeUndefined();
    expect(play(new HuntingWatch(1), () => 899, 8)).toMatchObject({ period: 899 });
  });

  it('tells the period', () => {
    const watch = new HuntingWatch(1);
    expect(play(watch, () => 42, 6)).toMatchObject({ controller: 0, mode: 'closed', period: 42 });
  });

  it('is not the work of hours, nor cycles that grow', () => {
    expect(play(new HuntingWatch(1), () => 3600, 8)).toBeUndefined();
    expect(play(new HuntingWatch(1), (n) => 30 * 1.2 ** n, 8)).toBeUndefined();
    // What differs by a few parts in a hundred is alike.
    expect(play(new HuntingWatch(1), (n) => 100 + (n % 2) * 5, 8)).toBeDefined();
  });

  it('of one controller says nothing of another, and ends where the cycle ends', () => {
    const watch = new HuntingWatch(2);
    play(watch, () => 30, 8, 1);
    expect(watch.hunters).toEqual([1]);
    expect(watch.silent(0)).toBe(false);
    watch.changed(1, 'closed', 10_000);
    expect(watch.silent(1)).toBe(false);
    expect(watch.hunters).toEqual([1]);
  });

  it('that never does the same twice is told by so many rounds at once', () => {
    const ragged = [13, 29, 47, 16, 60, 21];
    const watch = new HuntingWatch(1);
    const told: number[] = [];
    let t = 0;
    for (let n = 0; n < 30; n++) {
      const cycle = watch.changed(0, 'closed', t);
      if (cycle) told.push(cycle.period);
      t += ragged[n % ragged.length]!;
    }
    expect(told.length).toBeGreaterThan(1);
    for (const period of told)
      expect(period).toBeCloseTo(
        ragged.reduce((a, b) => a + b),
        9,
      );
    expect(watch.silent(0)).toBe(true);
    expect(watch.hunters).toEqual([0]);
  });

  it('goes on after a leap in time as if nothing had been', () => {
    const watch = new HuntingWatch(1);
    for (let n = 0; n < 6; n++) watch.changed(0, 'closed', 30 * n);
    watch.shift(3000);
    expect(watch.changed(0, 'closed', 3000 + 180)).toMatchObject({ period: 30, first: false });
  });
});
