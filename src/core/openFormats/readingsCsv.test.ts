import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../../db/demo/jobs';
import { confirmedIds, currentRevision, standingReadings, type Job } from '../job/job';
import { parseReadingsCsv, readingsCsv } from './readingsCsv';

const jobs = demoJobs(new Date('2026-11-24T16:00:00Z'));
const open = jobs[1]!;
const { doc, epoch } = currentRevision(open);
const NOW = Date.parse('2026-11-24T18:00:00Z');
const bare = (job: Job): Job => ({ ...job, readings: [] });

describe('readings as a table', () => {
  it('come back as they went out, with their times, whatever the job', () => {
    for (const job of jobs) {
      const back = parseReadingsCsv(readingsCsv(job), bare(job), NOW);
      const now = currentRevision(job).epoch;
      const about = job.readings.filter((r) => r.epoch === now && !r.retracted);
      expect(back).toEqual({
        ok: true,
        value: {
          readings: about.map(({ state, probe, ref, value, unit, status, secondsInState, takenAt }) => ({
            state,
            probe,
            unit,
            status,
            secondsInState,
            ...(ref ? { ref } : {}),
            ...(value === undefined ? {} : { value }),
            taken: Date.parse(takenAt),
          })),
          here: 0,
          before: job.readings.filter((r) => r.epoch !== now && !r.retracted).length,
        },
      });
    }
  });

  it('round-trip any value to its last digit and any instant to its millisecond', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -2000, max: 2000, noNaN: true }),
        fc.integer({ min: 0, max: NOW }),
        (value, taken) => {
          const job: Job = {
            ...open,
            readings: [{ ...open.readings[0]!, value, takenAt: new Date(taken).toISOString() }],
          };
          const back = parseReadingsCsv(readingsCsv(job), bare(job), NOW);
          expect(back.ok && back.value.readings[0]).toMatchObject({ value: value === 0 ? 0 : value, taken });
        },
      ),
    );
  });

  it('are taken in once: the same table again brings nothing, one of it what is missing', () => {
    const text = readingsCsv(open);
    expect(parseReadingsCsv(text, open, NOW)).toMatchObject({
      ok: true,
      value: { readings: [], here: open.readings.length },
    });
    const without: Job = { ...open, readings: open.readings.slice(1) };
    expect(parseReadingsCsv(text, without, NOW)).toMatchObject({
      ok: true,
      value: { readings: [{ probe: open.readings[0]!.probe }], here: open.readings.length - 1 },
    });
  });

  it('of a rig before it was changed stay out of what it is now', () => {
    const changed: Job = {
      ...bare(open),
      revisions: [
        ...open.revisions,
        {
          id: '00000000-0000-4000-8000-000000000001',
          kind: 'as-built',
          epoch: epoch + 1,
          at: '2026-11-24T17:00:00Z',
          doc,
        },
      ],
    };
    expect(parseReadingsCsv(readingsCsv(open), changed, NOW)).toMatchObject({
      ok: true,
      value: { readings: [], before: open.readings.length },
    });
  });

  it('stand in the order they were taken, whenever they were entered', () => {
    const early = { ...open.readings[0]!, id: 'early', value: 11, takenAt: '2026-11-20T09:00:00Z' };
    const late = { ...early, id: 'late', value: 12, takenAt: '2026-11-20T09:00:00.500Z' };
    for (const readings of [
      [early, late],
      [late, early],
    ]) {
      const job: Job = { ...open, readings };
      expect(standingReadings(job, epoch).map((r) => r.id)).toEqual(['late']);
      expect(confirmedIds(job, epoch).size).toBe(0);
      expect([...confirmedIds({ ...job, readings: readings.map((r) => ({ ...r, value: 12 })) }, epoch)]).toEqual([
        'late',
      ]);
    }
  });

  it('take a header in any order, labels for keys, a byte order mark, and times with a zone of their own', () => {
    expect(parseReadingsCsv('\ufeffvalue,probe,state\r\n12.4,p9,idle\r\n-3,P17,idle\r\n', open, NOW)).toEqual({
      ok: true,
      value: {
        readings: [
          { state: 'idle', probe: 'link.coach-stud', status: 'measured', value: 12.4, unit: 'V', secondsInState: 0 },
          { state: 'idle', probe: 'link-cable.clamp', status: 'measured', value: -3, unit: 'A', secondsInState: 0 },
        ],
        here: 0,
        before: 0,
      },
    });
    const at = (text: string) => parseReadingsCsv(`taken at,value,probe,state\n${text},12.4,P9,idle\n`, open, NOW);
    for (const text of ['2026-05-04T09:30:00Z', '2026-05-04 09:30', '2026-05-04T03:30:00-06:00'])
      expect(at(text), text).toMatchObject({ ok: true, value: { readings: [{ taken: Date.UTC(2026, 4, 4, 9, 30) }] } });
  });

  it('refuse all where one cell is wrong, naming line and column', () => {
    const bad = (row: string) =>
      parseReadingsCsv(`state,probe,value,unit,status,taken at,epoch\nidle,P9,12.4,V,measured,,\n${row}\n`, open, NOW);
    expect(bad('idling,P9,12,V,measured,,')).toMatchObject({
      ok: false,
      error: [{ pointer: 'line 3, state', found: 'idling' }],
    });
    expect(bad('idle,P99,12,V,measured,,')).toMatchObject({ ok: false, error: [{ pointer: 'line 3, probe' }] });
    expect(bad('idle,P9,OL,V,measured,,')).toMatchObject({
      ok: false,
      error: [{ pointer: 'line 3, value', found: 'OL' }],
    });
    expect(bad('idle,P9,"12,4",V,measured,,')).toMatchObject({ ok: false, error: [{ pointer: 'line 3, value' }] });
    expect(bad('idle,P9,12,A,measured,,')).toMatchObject({ ok: false, error: [{ pointer: 'line 3, unit' }] });
    expect(bad('idle,P9,12,V,measured,yesterday,')).toMatchObject({
      ok: false,
      error: [{ pointer: 'line 3, taken at', found: 'yesterday' }],
    });
    expect(bad('idle,P9,12,V,measured,2026-11-24T18:00:01Z,')).toMatchObject({
      ok: false,
      error: [{ pointer: 'line 3, taken at', wanted: 'a time that is past' }],
    });
    expect(bad(`idle,P9,12,V,measured,,${epoch + 1}`)).toMatchObject({
      ok: false,
      error: [{ pointer: 'line 3, epoch' }],
    });
    expect(parseReadingsCsv('a,b\n1,2\n', open, NOW)).toMatchObject({ ok: false, error: [{ pointer: 'line 1' }] });
    expect(parseReadingsCsv('', open, NOW).ok).toBe(false);
  });
});
