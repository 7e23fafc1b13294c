import { describe, expect, it } from 'vitest';
import { paceOf, type TimedStep } from './pace';

const round = (...ways: [place: string, minutes: number, state?: string][]): TimedStep[] => {
  let minute = 100;
  return ways.map(([place, minutes, state = 'idle']) => ({ place, state, minute: (minute += minutes) }));
};

describe('a shop’s own pace', () => {
  it('is the median way to a place first opened, the measuring taken off', () => {
    const rounds = [3, 4, 5, 6, 30].map((m) => round(['Dash', 1], ['Dash', 0.8], ['Link box', m]));
    // 30 minutes was a coffee: four ways are too few.
    expect(paceOf(rounds)).toEqual([]);
    expect(paceOf([...rounds, round(['Dash', 1], ['Link box', 5])])).toEqual([
      { place: 'Link box', minutes: 4.3, times: 5 },
    ]);
  });

  it('counts no change of state, and no way back', () => {
    const changed = Array.from({ length: 6 }, () => round(['Dash', 1], ['Link box', 5, 'shore']));
    expect(paceOf(changed)).toEqual([]);
    const back = Array.from({ length: 6 }, () => round(['Dash', 1], ['Link box', 5], ['Dash', 2]));
    expect(paceOf(back)).toEqual([{ place: 'Link box', minutes: 4.3, times: 6 }]);
  });
});
