import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  buildOf,
  builtOf,
  confirmedIds,
  currentRevision,
  intakeClues,
  madeBy,
  namedRevision,
  presentVerdict,
  proposedRevision,
  provedAgainst,
  standingAnswers,
  standingApproval,
  standingChecks,
  standingChoice,
  standingReadings,
  standingSignOff,
  standingVerdict,
  standingWaivers,
  watchEntries,
  type Job,
} from './job';

/** A finished visit: as found, one verdict, one repair, as built. */
const job = (): Job => JSON.parse(readFileSync('examples/heron-1009.surrik.json', 'utf8')) as Job;
const with_ = (change: (j: Job) => void): Job => {
  const j = job();
  change(j);
  return j;
};
const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
type ListOf<K extends keyof Job> = NonNullable<Job[K]>;

describe('what stands in a record', () => {
  it('is the newest check of each name about an epoch, taken-back ones and entries of a watch left out', () => {
    const check = (n: number, more: object) => ({ id: id(n), epoch: 1, check: 'sleep', result: 'pass', ...more });
    const j = with_((x) => {
      x.checks = [
        check(1, { result: 'fail' }),
        check(2, {}),
        check(3, { result: 'fail', retracted: true }),
        check(4, { epoch: 0, result: 'fail' }),
        check(5, { check: 'idle-hour', result: 'entry' }),
        check(6, { check: 'idle-hour', result: 'entry', retracted: true }),
        check(7, { check: 'hunting' }),
      ] as ListOf<'checks'>;
    });
    expect([...standingChecks(j, 1)].map(([name, c]) => [name, c.id])).toEqual([
      ['sleep', id(2)],
      ['hunting', id(7)],
    ]);
    expect([...standingChecks(j, 0)].map(([, c]) => c.result)).toEqual(['fail']);
    expect(watchEntries(j, 1, 'idle-hour').map((c) => c.id)).toEqual([id(5)]);
    expect(watchEntries(j, 1, 'sleep')).toEqual([]);
    expect(standingChecks(job(), 1).size).toBe(0);
  });

  it('is the last signature that was not opened again', () => {
    const signed = (n: number, reopened: boolean) =>
      ({
        id: id(n),
        ...(reopened ? { reopened: { reason: 'r', by: 'b', at: 'a' } } : {}),
      }) as ListOf<'signOffs'>[number];
    const of = (...list: ListOf<'signOffs'>) => standingSignOff(with_((j) => (j.signOffs = list)))?.id;
    expect(of(signed(1, true), signed(2, false))).toBe(id(2));
    expect(of(signed(1, false), signed(2, true))).toBe(id(1));
    expect(of(signed(1, true))).toBeUndefined();
    expect(standingSignOff(job())).toBeUndefined();
  });

  it('is what was not withdrawn: verdict, approval, choice, waiver', () => {
    const verdict = standingVerdict(job())!;
    expect(verdict.id).toBe(job().verdicts[0]!.id);
    expect(standingVerdict(with_((j) => (j.verdicts[0]!.withdrawn = true)))).toBeUndefined();
    expect(standingApproval(job(), verdict.id)?.upTo).toBe(220);
    expect(standingApproval(job(), id(1))).toBeUndefined();
    expect(
      standingApproval(
        with_((j) => (j.approvals[0]!.withdrawn = true)),
        verdict.id,
      ),
    ).toBeUndefined();
    expect(standingChoice(job())).toBeUndefined();
    const waivers = [{ id: id(1), withdrawn: true }, { id: id(2) }] as ListOf<'waivers'>;
    expect(standingWaivers(with_((j) => (j.waivers = waivers))).map((w) => w.id)).toEqual([id(2)]);
    expect(standingWaivers(job())).toEqual([]);
  });

  it('is the last reading of a point in a state, about one epoch', () => {
    const before = standingReadings(job(), 0);
    const again = { ...before[0]!, id: id(1), value: 1.5 };
    const taken = standingReadings(
      with_((j) => void j.readings.push(again)),
      0,
    );
    expect(taken).toHaveLength(before.length);
    expect(taken.find((r) => r.id === id(1))?.value).toBe(1.5);
    expect(standingReadings(job(), 1).every((r) => r.epoch === 1)).toBe(true);
    expect(
      standingReadings(
        with_((j) => (j.readings[0]!.retracted = true)),
        0,
      ),
    ).toHaveLength(before.length - 1);
    expect(confirmedIds(job(), 0).size).toBe(0);
  });

  it('is the answer given last to each question about an epoch', () => {
    const answer = (n: number, more: object) => ({
      id: id(n),
      epoch: 0,
      kind: 'seen',
      what: 'heat',
      answer: 'hot',
      ...more,
    });
    const j = with_((x) => {
      x.observations = [
        answer(1, {}),
        answer(2, { answer: 'cold' }),
        answer(3, { answer: 'warm', retracted: true }),
        answer(4, { epoch: 1 }),
        { id: id(5), epoch: 0, kind: 'note', text: 'cold studs' },
      ] as unknown as Job['observations'];
    });
    expect(standingAnswers(j, 0).map((a) => a.answer)).toEqual(['cold']);
    expect(standingAnswers(j, 1)).toHaveLength(1);
  });
});

describe('the rig as it stands', () => {
  it('is the last revision that was neither proposed nor withdrawn', () => {
    expect(currentRevision(job()).kind).toBe('as-built');
    expect(currentRevision(with_((j) => (j.revisions[1]!.withdrawn = true))).kind).toBe('as-found');
    const proposed = with_((j) => void j.revisions.push({ ...j.revisions[0]!, id: id(1), kind: 'proposed' }));
    expect(currentRevision(proposed).kind).toBe('as-built');
  });

  it('is found by its name, and by its id where there are several', () => {
    const [found, built] = job().revisions;
    expect(namedRevision(job(), 'as-found')?.id).toBe(found!.id);
    expect(namedRevision(job(), 'as-built')?.id).toBe(built!.id);
    expect(namedRevision(job(), `as-built:${built!.id}`)?.id).toBe(built!.id);
    expect(namedRevision(job(), `as-built:${found!.id}`)).toBeUndefined();
    expect(namedRevision(job(), 'proposed')).toBeUndefined();
    const withdrawn = with_((x) => (x.revisions[1]!.withdrawn = true));
    expect(namedRevision(withdrawn, 'as-built')).toBeUndefined();
  });

  it('was made by a repair, and is proved against what spoke of the fault', () => {
    expect(madeBy(job())).toBe('repair');
    expect(provedAgainst(job())).toMatchObject({ fault: 'coach-negative.bad-joint' });
    expect(provedAgainst(job()).readings.every((r) => r.epoch === 0)).toBe(true);
    const found = with_((j) => {
      j.revisions.pop();
      j.repairs = [];
    });
    expect(madeBy(found)).toBeUndefined();
    expect(presentVerdict(found)?.fault).toBe('coach-negative.bad-joint');
  });

  it('has nothing proposed where no link was picked; what was built names what it was built from', () => {
    expect(proposedRevision(job())).toBeUndefined();
    const [found, built] = job().revisions;
    expect(builtOf(job(), found!.id)?.id).toBe(built!.id);
    expect(builtOf(job(), built!.id)).toBeUndefined();
    expect(buildOf(job(), 'dcdc')).toBeDefined();
  });
});

describe('what the customer told', () => {
  it('speaks for the diagnosis: complaints and facts alike', () => {
    expect(intakeClues(job())).toEqual(['coach-not-charging', 'slowly']);
  });
});
