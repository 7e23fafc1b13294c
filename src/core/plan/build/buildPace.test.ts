import { describe, expect, it } from 'vitest';
import { buildPace, paced } from './buildPace';

const done = (step: string, minutes: number, planned = 10) => ({ step, minutes, planned });

describe('a shop’s own minutes', () => {
  it('are the median of actual over planned, kind by kind, once three builds said so', () => {
    const pace = buildPace([
      [done('pull-link', 20), done('off-coach', 10)],
      [done('pull-line', 15)],
      [done('pull-x', 30), { step: 'pull-y' }],
    ]);
    expect(pace).toEqual({ pull: { times: 2, steps: 3 } });
  });
  it('do not heed a tea break', () => {
    expect(
      buildPace([[done('pull-a', 10), done('pull-b', 11), done('pull-c', 12), done('pull-d', 400)]])['pull']!.times,
    ).toBe(1.1);
  });
  it('scale the plan and nothing else', () => {
    const steps = [
      { id: 'pull-a', minutes: [10, 20] as const },
      { id: 'off-b', minutes: [4, 8] as const },
    ];
    expect(paced(steps, { pull: { times: 1.5, steps: 4 } })).toEqual([
      { id: 'pull-a', minutes: [15, 30] },
      { id: 'off-b', minutes: [4, 8] },
    ]);
    expect(paced(steps, {})).toEqual(steps);
  });
});
