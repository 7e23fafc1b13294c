/** A made-up rig to learn on. */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { caseOf } from '../learn/closedCase';
import { exampleJob } from '../../../tests/answers';
import { motorhome } from '../rig/archetypes/motorhome';
import { Belief, type Evidence } from './belief';
import { diagnose } from './diagnose';
import { practiceAnswer, practiceReading, toPractice } from './practiceRig';

const rig = motorhome('practice', 'Practice coach');
const ids = Array.from({ length: 40 }, (_, k) => `00000000-0000-4000-8000-${String(k).padStart(12, '0')}`);

describe('a practice rig', () => {
  it('hides the same fault for the same job, and over many jobs more than one', () => {
    const hidden = ids.map((id) => toPractice(rig, id).practice!);
    expect(ids.map((id) => toPractice(rig, id).practice!)).toEqual(hidden);
    expect(new Set(hidden.map((h) => h.fault)).size).toBeGreaterThan(2);
  });

  it('says that no vehicle is meant', () => expect(toPractice(rig, ids[0]!).kind).toMatch(/^Practice, no vehicle/));

  it('reads as a sound one once it is mended', () => {
    const made = { ...rig, practice: { fault: 'link.contact-open', seed: 3 } };
    const at = { state: 'idle', probe: 'link.chassis-stud', ref: 'link.coach-stud', take: 0 };
    const [sick, well] = [practiceReading(made, false, at).value, practiceReading(made, true, at).value];
    expect(Math.abs(sick)).toBeGreaterThan(0.5);
    expect(Math.abs(well)).toBeLessThan(0.3);
  });

  it('teaches the shop nothing', () => {
    const job = { ...exampleJob('heron-1009'), status: 'done' as const };
    expect(caseOf(job)).toBeDefined();
    const revisions = job.revisions.map((r) => ({ ...r, doc: { ...r.doc, practice: { fault: 'x', seed: 1 } } }));
    expect(caseOf({ ...job, revisions })).toBeUndefined();
  });
});

it.each(['link.contact-open', 'link-fuse.open', 'link.coil-open', 'coil-ground.ground-lost'])(
  'whoever does as asked finds %s',
  (fault) => {
    const made = { ...rig, practice: { fault, seed: 5 } };
    const belief = new Belief(compileRig(made), ['coach-not-charging']);
    const evidence: Evidence[] = [];
    const observed: { id: string; what: string; answer: string }[] = [];
    let state = 'rested';
    let answer = diagnose(belief, { state });
    for (let k = 0; k < 25 && !answer.stop.reached; k++) {
      const next = answer.next[0]!;
      state = next.state;
      const question = belief.questions.find((q) => q.id === next.test);
      if (question) {
        const label = practiceAnswer(made, false, question);
        observed.push({
          id: question.id,
          what: question.id,
          answer: question.answers.find((a) => a.label === label)!.id,
        });
      } else {
        const id = `${next.state}/${next.test}`;
        const known = evidence.findIndex((e) => e.id === id);
        const { value } = practiceReading(made, false, {
          state,
          probe: next.probe!,
          ...(next.ref === undefined ? {} : { ref: next.ref }),
          take: known < 0 ? 0 : 1,
        });
        const reading = {
          id,
          state,
          probe: next.probe!,
          ...(next.ref === undefined ? {} : { ref: next.ref }),
          value,
          ...(known < 0 ? {} : { confirmed: true }),
        };
        if (known < 0) evidence.push(reading);
        else evidence[known] = reading;
      }
      belief.setEvidence(evidence, observed);
      answer = diagnose(belief, { state });
    }
    expect(answer.stop.reached).toBe(true);
    const found = belief.faults.find((f) => f.id === fault)!;
    expect(answer.stop.class).toBe(found.class);
  },
);
