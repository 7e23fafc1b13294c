import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../../db/demo/jobs';
import { currentRevision, type Job } from './job';
import { parseReadingsCsv, readingsCsv } from './readingsCsv';

const jobs = demoJobs(new Date('2026-11-24T16:00:00Z'));
const open = jobs[1]!;
const { doc } = currentRevision(open);

describe('readings as a table', () => {
  it('come back as they went out, whatever the job', () => {
    for (const job of jobs) {
      const back = parseReadingsCsv(readingsCsv(job), currentRevision(job).doc);
      expect(back.ok).toBe(true);
      if (back.ok) expect(back.value).toEqual(job.readings.map(({ state, probe, ref, value, unit, status, secondsInState }) => ({ state, probe, unit, status, secondsInState, ...(ref ? { ref } : {}), ...(value === undefined ? {} : { value }) })));
    }
  });

  it('round-trip any value to its last digit', () => {
    fc.assert(fc.property(fc.double({ min: -2000, max: 2000, noNaN: true }), (value) => {
      const job: Job = { ...open, readings: [{ ...open.readings[0]!, value }] };
      const back = parseReadingsCsv(readingsCsv(job), doc);
      expect(back.ok && back.value[0]!.value).toBe(value === 0 ? 0 : value);
    }));
  });

  it('take a header in any order, labels for keys, and a byte order mark', () => {
    expect(parseReadingsCsv('\ufeffvalue,probe,state\r\n12.4,p9,idle\r\n-3,P17,idle\r\n', doc)).toMatchObject({ ok: true, value: [{ probe: 'link.coach-stud', value: 12.4, unit: 'V' }, { probe: 'link-cable.clamp', value: -3, unit: 'A' }] });
  });

  it('refuse all where one cell is wrong, naming line and column', () => {
    const bad = (row: string) => parseReadingsCsv(`state,probe,value,unit,status\nidle,P9,12.4,V,measured\n${row}\n`, doc);
    expect(bad('idling,P9,12,V,measured')).toMatchObject({ ok: false, error: [{ pointer: 'line 3, state', found: 'idling' }] });
    expect(bad('idle,P99,12,V,measured')).toMatchObject({ ok: false, error: [{ pointer: 'line 3, probe' }] });
    expect(bad('idle,P9,OL,V,measured')).toMatchObject({ ok: false, error: [{ pointer: 'line 3, value', found: 'OL' }] });
    expect(bad('idle,P9,"12,4",V,measured')).toMatchObject({ ok: false, error: [{ pointer: 'line 3, value' }] });
    expect(bad('idle,P9,12,A,measured')).toMatchObject({ ok: false, error: [{ pointer: 'line 3, unit' }] });
    expect(parseReadingsCsv('a,b\n1,2\n', doc)).toMatchObject({ ok: false, error: [{ pointer: 'line 1' }] });
    expect(parseReadingsCsv('', doc).ok).toBe(false);
  });
});
