import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../../db/demo/jobs';
import { demoUuid } from '../../../db/demo/shop';
import type { Command, CommandType, Payload } from './command';
import { currentRevision, madeBy, presentVerdict, standingSignOff, type Job } from './job';
import { applyCommand } from './applyCommand';
import { validateJobDocument } from '../openFormats/validate';

const [done] = demoJobs(new Date('2026-11-24T16:00:00Z')) as [Job];
let n = 0;
const command = <T extends CommandType>(type: T, payload: Payload<T>): Command =>
  ({
    id: demoUuid(`sign ${n++}`),
    type,
    version: 1,
    baseSeq: 0,
    at: '2026-11-24T17:00:00Z',
    actor: 'Bay 2 technician',
    payload,
  }) as Command;
const after = (job: Job, c: Command): Job => {
  const next = applyCommand(job, c);
  if (!next.ok) throw new Error(`${c.type}: ${next.error.found}`);
  return next.value;
};

describe('a signature', () => {
  const sign = command('record.sign', {
    id: demoUuid('signature'),
    revision: currentRevision(done).id,
    words: 'Right now.',
  });
  const signed = after(done, sign);

  it('locks the record: what was measured and decided takes no more, and says what to do', () => {
    for (const c of [
      command('note.add', { id: demoUuid('late'), text: 'late' }),
      command('state.set', { state: 'idle' }),
      command('reading.retract', { id: done.readings[0]!.id }),
      command('record.sign', { id: demoUuid('second'), revision: currentRevision(done).id, words: 'twice' }),
    ])
      expect(applyCommand(signed, c)).toMatchObject({
        ok: false,
        error: { wanted: expect.stringContaining('with a reason') },
      });
    expect(after(signed, command('job.set-status', { status: 'done' })).status).toBe('done');
  });

  it('is of the rig as it stands, not of one that was changed meanwhile', () => {
    expect(
      applyCommand(done, command('record.sign', { id: demoUuid('old'), revision: done.revisions[0]!.id, words: 'x' }))
        .ok,
    ).toBe(false);
  });

  it('is opened again by a revision with a reason; what was measured stays evidence, and the signature is not lost', () => {
    const opened = after(
      signed,
      command('record.reopen', {
        id: demoUuid('signature'),
        reason: 'Owner rang: the lamp flickers.',
        revision: demoUuid('reopened'),
      }),
    );
    expect(standingSignOff(opened)).toBeUndefined();
    expect(opened.signOffs).toHaveLength(1);
    expect(currentRevision(opened)).toMatchObject({
      reason: 'Owner rang: the lamp flickers.',
      epoch: currentRevision(done).epoch,
    });
    expect(madeBy(opened)).toBe('repair');
    expect(presentVerdict(opened)).toBeUndefined();
    expect(applyCommand(opened, command('note.add', { id: demoUuid('later'), text: 'later' })).ok).toBe(true);
    expect(validateJobDocument(opened).ok).toBe(true);
    // And may be signed anew.
    expect(
      standingSignOff(
        after(
          opened,
          command('record.sign', { id: demoUuid('again'), revision: demoUuid('reopened'), words: 'Right.' }),
        ),
      )?.id,
    ).toBe(demoUuid('again'));
  });
});

describe('an item as it was and as it shall be', () => {
  const hunt = {
    sleptMinutes: 40,
    amps: 0.3,
    circuits: [{ id: demoUuid('c'), name: 'Radio', fuse: 'blade-10', millivolts: 1, known: false }],
  };
  it('is known again whatever order a database kept its keys in, and refused where it was changed', () => {
    const job = after(done, command('hunt.set', { set: hunt }));
    const turned = {
      ...job,
      hunt: {
        circuits: [{ known: false, fuse: 'blade-10', name: 'Radio', id: demoUuid('c'), millivolts: 1 }],
        amps: 0.3,
        sleptMinutes: 40,
      },
    };
    expect(after(turned, command('hunt.set', { was: hunt, set: { ...hunt, after: 0.05 } })).hunt).toMatchObject({
      after: 0.05,
    });
    expect(
      applyCommand({ ...job, hunt: { ...hunt, amps: 0.4 } }, command('hunt.set', { was: hunt, set: hunt })).ok,
    ).toBe(false);
  });
  it('is entered under the name of who enters it', () => {
    expect(
      applyCommand(
        done,
        command('followUp.set', { set: { id: demoUuid('f'), due: '2027-01-01', what: 'x', by: 'Somebody else' } }),
      ).ok,
    ).toBe(false);
  });
});
