import { describe, expect, it } from 'vitest';
import {
  after,
  command,
  coupled,
  declared,
  newId,
  open,
  pick,
  picked,
  repaired,
  trip,
  waiver,
} from '../../../tests/afternoon';
import { demoUuid } from '../../../db/demo/shop';
import { NOTHING_WRONG } from '../diagnose/catalogue/nothingWrong';
import { auditJob, buildJob, foundFault, jobCandidates, jobScenarios, sizedRevision, sizeJob } from './options';

describe('what a job brings to the comparison of links', () => {
  it('is the fault that stands on the rig as it is: none before a verdict, after the repair, or where nothing is wrong', () => {
    expect(foundFault(open)).toBeUndefined();
    expect(foundFault(declared)).toMatchObject({ name: 'n', repair: 'r' });
    expect(foundFault(repaired)).toBeUndefined();
    const fine = after(
      open,
      command('verdict.declare', {
        id: newId(),
        fault: NOTHING_WRONG.id,
        name: 'n',
        repair: 'r',
        probability: 0.9,
        settled: true,
      }),
    );
    expect(foundFault(fine)).toBeUndefined();
    // A repair like for like is among the ways once there is something to repair.
    expect(jobCandidates(declared).length).toBeGreaterThanOrEqual(jobCandidates(open).length);
  });

  it('is the use told at intake until somebody sets another', () => {
    const told = after(
      open,
      command('intake.set', {
        was: { usage: open.intake.usage },
        set: { usage: { ...open.intake.usage, driveHours: 7 } },
      }),
    );
    const bare = { ...told, usage: { scenarios: [] } };
    // Hours of a travel day: there, and back.
    expect(
      jobScenarios(bare)[0]!
        .legs.filter((l) => l.kind === 'drive')
        .map((l) => l.hours),
    ).toEqual([7, 7]);
    const set = after(open, command('usage.set', { was: open.usage, set: { scenarios: [trip] } }));
    expect(jobScenarios(set)).toEqual([trip]);
  });

  it('is sized as it is, or as it is picked; a rule that was set aside carries who and why', () => {
    expect(sizedRevision(open).id).toBe(open.revisions.at(-1)!.id);
    expect(sizedRevision(picked).id).toBe(pick.revision);
    expect(sizedRevision(after(picked, command('option.withdraw', { id: pick.id }))).id).toBe(
      open.revisions.at(-1)!.id,
    );
    const plain = sizeJob(open);
    expect(plain.revision).toBeUndefined();
    expect(sizeJob(picked).revision).toBe(pick.revision);
    const waived = sizeJob(after(open, command('waiver.record', waiver)));
    const aside = waived.findings.filter((f) => f.waiver);
    expect(aside.map((f) => [f.rule, f.at, f.waiver!.reason])).toEqual([[waiver.rule, waiver.at, waiver.reason]]);
    expect(waived.findings.map(({ waiver: _, ...f }) => f)).toEqual(plain.findings);
  });

  it('has a tow audit where there is a plug, and a plan where there is a pick', () => {
    expect(auditJob(open)).toBeUndefined();
    expect(auditJob(coupled)).toMatchObject({ described: false });
    expect(buildJob(open)).toBeUndefined();
    expect(buildJob(picked)).toMatchObject({ candidate: pick.candidate, revision: pick.revision, plan: { steps: [] } });
    expect(buildJob(after(picked, command('option.withdraw', { id: pick.id })))).toBeUndefined();
    expect(pick.id).toBe(demoUuid('pick'));
  });
});
