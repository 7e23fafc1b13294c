/** What of a job's readings counts as evidence: measured ones of the present rig, with the meter they were taken with. */
import { describe, expect, it } from 'vitest';
import { after, command, newId, open } from '../../../tests/afternoon';
import { currentRevision, type Job } from '../job/job';
import { accuracyOf } from '../probe/instrument';
import { jobEvidence, jobUnreachable } from './evidence';

const { epoch } = currentRevision(open);
const kept = (job: Job, payload: Record<string, unknown>): Job =>
  after(
    job,
    command('reading.keep', {
      id: newId(),
      state: 'idle',
      probe: 'link.coach-stud',
      ref: open.blackLead,
      unit: 'V',
      status: 'measured',
      ...payload,
    } as never),
  );

describe('evidence', () => {
  it('is every measured reading of this rig, and nothing that was not measured', () => {
    const before = jobEvidence(open, epoch);
    expect(before.length).toBe(open.readings.filter((r) => r.status === 'measured' && !r.retracted).length);
    const measured = kept(open, { value: 12.51 });
    expect(jobEvidence(measured, epoch).length).toBe(before.length + 1);
    expect(jobEvidence(measured, epoch).at(-1)).toMatchObject({
      state: 'idle',
      probe: 'link.coach-stud',
      ref: open.blackLead,
      value: 12.51,
    });
    for (const status of ['cannot-reach', 'overload'])
      expect(jobEvidence(kept(open, { status }), epoch)).toEqual(before);
  });

  it('forgets what is taken back, and has it again when that is undone', () => {
    const measured = kept(open, { value: 12.51 });
    const { id } = jobEvidence(measured, epoch).at(-1)!;
    const back = after(measured, command('reading.retract', { id }));
    expect(jobEvidence(back, epoch).map((e) => e.id)).not.toContain(id);
    const again = after(back, command('reading.restore', { id }));
    expect(jobEvidence(again, epoch).map((e) => e.id)).toContain(id);
  });

  it('of another version of the rig is none of this one', () => {
    expect(jobEvidence(open, epoch + 1)).toEqual([]);
    expect(jobUnreachable(open, epoch + 1)).toEqual([]);
  });

  it('knows how true the meter was it was taken with', () => {
    const [instrument] = open.instruments;
    if (!instrument) return;
    const measured = kept(open, { value: 12.51, meter: instrument.id });
    const e = jobEvidence(measured, epoch).at(-1)!;
    const reading = measured.readings.at(-1)!;
    expect(e.meter).toEqual(accuracyOf(instrument, reading.takenAt));
  });

  it('a second look at the same point stands for the first: twice the same is confirmed', () => {
    const twice = kept(kept(open, { value: 12.51 }), { value: 12.5 });
    const own = jobEvidence(twice, epoch).filter((e) => e.probe === 'link.coach-stud' && e.state === 'idle');
    expect(own.length).toBe(1);
    expect(own[0]!.value).toBe(12.5);
    expect(own[0]!.confirmed).toBe(true);
  });
});

describe('what cannot be reached', () => {
  it('is told by state and leads, and no longer once it was measured after all', () => {
    const out = kept(open, { status: 'cannot-reach' });
    expect(jobUnreachable(out, epoch)).toContain(`idle/link.coach-stud~${open.blackLead}`);
    const measured = kept(out, { value: 12.5 });
    expect(jobUnreachable(measured, epoch)).not.toContain(`idle/link.coach-stud~${open.blackLead}`);
  });
});
