import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../../db/demo/jobs';
import type { Job, Reading } from '../job/job';
import { trendsOf } from './trends';

const [done, open] = demoJobs(new Date('2026-11-24T16:00:00Z')) as [Job, Job];

describe('trends', () => {
  it('put one measurement of all jobs in the order of time, whatever order the jobs come in', () => {
    const a = trendsOf([done, open]);
    expect(trendsOf([open, done])).toEqual(a);
    const coach = a.find((t) => t.probe === 'coach-bank.plus' && t.state === 'idle' && t.ref === 'frame.bay-2')!;
    expect(coach.points.map((p) => p.job)).toEqual([1009, 1042]);
    expect(coach.points[0]!.changed).toBe(true);
    // Nothing that was measured is left out, nothing is there twice.
    expect(a.filter((t) => t.unit !== 'ohm').reduce((n, t) => n + t.points.length, 0)).toBe(
      done.readings.length + open.readings.length,
    );
  });

  it('do not mix a reading with one against another point', () => {
    const a = trendsOf([done]);
    expect(
      a
        .filter((t) => t.probe === 'coach-bank.minus')
        .map((t) => t.name)
        .sort(),
    ).toEqual(['Coach –', 'Coach – to house frame bolt, bay 1']);
  });

  it('make milliohms of a contact from its drop and amps of one state, only with current enough to judge', () => {
    const reading = (over: Partial<Reading>): Reading => ({ ...done.readings[0]!, epoch: 1, state: 'idle', ...over });
    const at = (amps: number) =>
      trendsOf([
        {
          ...done,
          readings: [
            reading({ id: 'a', probe: 'link.chassis-stud', ref: 'link.coach-stud', value: 0.07, unit: 'V' }),
            {
              ...reading({ id: 'b', probe: 'link-cable.clamp', value: amps, unit: 'A' }),
              ref: undefined,
            } as never as Reading,
          ],
        },
      ]).find((t) => t.unit === 'ohm');
    expect(at(70)!.points[0]!.value).toBeCloseTo(0.001, 9);
    expect(at(10)).toBeUndefined();
  });
});
