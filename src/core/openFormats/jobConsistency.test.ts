import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import type { Job } from '../job/job';
import { inconsistencies } from './jobConsistency';

const FINISHED = JSON.parse(readFileSync('examples/heron-1009.surrik.json', 'utf8')) as Job;
/** Where a changed copy of the finished visit does not hold together. */
function places(change: (job: Job) => void): string[] {
  const job = structuredClone(FINISHED);
  change(job);
  return inconsistencies(job).map((i) => i.pointer);
}
const NOBODY = '00000000-0000-4000-8000-000000000000';

describe('a job document', () => {
  it('that a shop finished holds together', () => {
    expect(places(() => {})).toEqual([]);
  });

  it('names every entry by an id of its own, list by list', () => {
    expect(places((j) => (j.readings[3]!.id = j.readings[0]!.id))).toEqual(['/readings/3/id']);
    // The same id in two lists is no clash: each list has its own table.
    expect(places((j) => (j.readings[3]!.id = j.approvals[0]!.id))).toEqual([]);
  });

  it.each(['verdicts', 'approvals', 'repairs'] as const)('has one of its %s standing', (name) => {
    const second = (j: Job) => {
      const list = j[name] as { id: string; withdrawn?: boolean }[];
      list.push({ ...structuredClone(list[0]!), id: NOBODY });
      return list;
    };
    expect(places(second)).toEqual([`/${name}/1`]);
    expect(places((j) => void (second(j)[0]!.withdrawn = true))).toEqual([]);
  });

  it('builds each revision on an earlier one of its own', () => {
    expect(places((j) => (j.revisions[1]!.parent = NOBODY))).toContain('/revisions/1/parent');
    expect(places((j) => (j.revisions[0]!.parent = j.revisions[1]!.id))).toContain('/revisions/0/parent');
  });

  it('has readings of points and epochs it knows', () => {
    expect(places((j) => (j.blackLead = 'moon.minus'))).toEqual(['/blackLead']);
    expect(places((j) => (j.readings[0]!.probe = 'moon.plus'))).toEqual(['/readings/0/probe']);
    expect(places((j) => (j.readings[0]!.ref = 'moon.minus'))).toEqual(['/readings/0/ref']);
    expect(places((j) => (j.readings[0]!.epoch = 9))).toEqual(['/readings/0/epoch']);
  });

  it('has a number with a measured reading and none with one that could not be taken', () => {
    const at = (i: number) => [`/readings/${i}/value`];
    expect(places((j) => delete j.readings[2]!.value)).toEqual(at(2));
    expect(places((j) => (j.readings[2]!.status = 'not-applicable' as never))).toEqual(at(2));
  });

  it('was measured with instruments it lists', () => {
    expect(places((j) => (j.meter = 'lost-meter'))).toEqual(['/meter']);
    const taken = FINISHED.readings.filter((r) => r.meter !== undefined).length;
    expect(taken).toBeGreaterThan(0);
    expect(places((j) => (j.instruments = []))).toHaveLength(taken + (FINISHED.meter === undefined ? 0 : 1));
  });

  it('answers what was asked, and only that', () => {
    const seen = { id: NOBODY, epoch: 0, at: FINISHED.readings[0]!.takenAt, by: 'Bay 2 technician', text: 'Seen' };
    const add = (more: object) => (j: Job) =>
      void j.observations.push({ ...seen, ...more } as Job['observations'][number]);
    expect(places(add({ kind: 'seen', what: 'heat', answer: 'cold' }))).toEqual([]);
    expect(places(add({ kind: 'seen', what: 'heat' }))).toEqual(['/observations/0/answer']);
    expect(places(add({ kind: 'note', what: 'heat', answer: 'cold' }))).toEqual(['/observations/0/answer']);
    expect(places(add({ kind: 'note' }))).toEqual([]);
  });

  it('approves and repairs verdicts it has, and signs revisions it has', () => {
    expect(places((j) => (j.approvals[0]!.verdict = NOBODY))).toEqual(['/approvals/0/verdict']);
    expect(places((j) => (j.repairs[0]!.verdict = NOBODY))).toEqual(['/repairs/0/verdict']);
    expect(places((j) => (j.repairs[0]!.revision = NOBODY))).toEqual(['/repairs/0/revision']);
    const signed = (revision: string) => (j: Job) =>
      void (j.signOffs = [{ id: NOBODY, revision } as NonNullable<Job['signOffs']>[number]]);
    expect(places(signed(FINISHED.revisions[1]!.id))).toEqual([]);
    expect(places(signed(NOBODY))).toEqual(['/signOffs/0/revision']);
  });

  it('picks a link among what was proposed, not among what is there', () => {
    const choice = { id: NOBODY, at: FINISHED.readings[0]!.takenAt, by: 'Bay 2 technician' };
    expect(
      places((j) => void j.choices.push({ ...choice, revision: j.revisions[0]!.id } as Job['choices'][number])),
    ).toEqual(['/choices/0/revision']);
  });

  it('is told everything that is wrong at once, with what was found and what is wanted', () => {
    const job = structuredClone(FINISHED);
    job.readings[0]!.probe = 'moon.plus';
    job.approvals[0]!.verdict = NOBODY;
    expect(inconsistencies(job)).toEqual([
      { pointer: '/readings/0/probe', found: '"moon.plus"', wanted: 'a probe of the rig' },
      { pointer: '/approvals/0/verdict', found: `"${NOBODY}"`, wanted: 'the id of a verdict of this job' },
    ]);
  });
});
