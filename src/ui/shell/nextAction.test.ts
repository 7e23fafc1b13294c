import { calibrationOf } from '../../core/diagnose/calibration';
import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../../db/demo/jobs';
import type { Diagnosis } from '../../core/diagnose/diagnose';
import { rigMeasurements } from '../../core/probe/measurement';
import type { RigCheck } from '../../core/prove/check';
import type { Proof } from '../../core/prove/proofs';
import { midSentence } from '../../core/units/format';
import { nextAction, whileThinking } from './nextAction';

const [done, open] = demoJobs(new Date('2026-11-24T16:00:00Z')) as [
  ReturnType<typeof demoJobs>[0],
  ReturnType<typeof demoJobs>[0],
];
const measurements = rigMeasurements(open.revisions[0]!.doc);
const suspect = {
  fault: 'f',
  name: 'A fault',
  class: 'c',
  repair: 'r',
  shows: 's',
  probability: 0.9,
  prior: 0.1,
  for: [],
  against: [],
};
const test = (state: string) => ({
  test: 't',
  kind: 'volts' as const,
  name: 'n',
  label: 'P10',
  place: 'Link box',
  state,
  probe: 'link.coil-plus',
  ref: 'frame.bay-2',
  minutes: 3,
  changeMinutes: 0,
  bits: 1,
  leaves: { of: 4, about: 2 },
  outcomes: [],
});
const diagnosis = (over: Partial<Diagnosis>): Diagnosis => ({
  suspects: [suspect],
  next: [],
  stop: { reached: false, why: '' },
  contradiction: [],
  added: [],
  telling: {},
  classes: [],
  calibration: calibrationOf(open.revisions[0]!.doc),
  ...over,
});
const proof = (state: string, after?: 'ok' | 'low'): Proof => ({
  state,
  probe: 'link.coil-plus',
  ref: 'frame.bay-2',
  label: 'P10',
  name: 'Coil +',
  band: { lo: 0, hi: 1, nominal: 0.5, unit: 'V' },
  why: '',
  wait: 180,
  ...(after ? { after: { value: 0.5, verdict: after } } : {}),
});
const next = (job: typeof open, d?: Diagnosis, p?: Proof[]) =>
  nextAction({ job, diagnosis: d, proofs: p, measurements });

describe('the one next action', () => {
  it('asks to look where that tells most, in the state it wants, and keeps quiet on one’s own round', () => {
    const look = {
      test: 'wedge.boost',
      kind: 'look' as const,
      name: 'A wedge under the Boost switch',
      place: 'Dash',
      minutes: 2,
      changeMinutes: 0,
      bits: 1,
      leaves: { of: 4, about: 2 },
      outcomes: [],
    };
    expect(next(open, diagnosis({ next: [{ ...look, state: 'idle' }] }))).toMatchObject({
      kind: 'ask',
      question: 'wedge.boost',
      words: 'Look: A wedge under the Boost switch',
    });
    expect(next(open, diagnosis({ next: [{ ...look, state: 'rested' }] }))).toMatchObject({
      kind: 'change-state',
      state: 'rested',
    });
    expect(
      nextAction({
        job: open,
        diagnosis: diagnosis({ next: [test('idle')] }),
        proofs: undefined,
        measurements,
        ownRound: true,
      }),
    ).toMatchObject({ kind: 'own' });
  });
  it('measures in the present state, or first changes it', () => {
    expect(next(open, diagnosis({ next: [test('idle')] }))).toMatchObject({ kind: 'measure' });
    expect(next(open, diagnosis({ next: [test('shore')] }))).toMatchObject({
      kind: 'change-state',
      state: 'shore',
      then: expect.stringContaining('P10'),
    });
  });
  it('asks for nothing that the last reading may change, and for what the record asks all the same', () => {
    const found = [
      next(open, diagnosis({ next: [test('idle')] })),
      next(open, diagnosis({ next: [test('shore')] })),
      next(open, diagnosis({ stop: { reached: true, why: '' } })),
      next(open, diagnosis({})),
    ];
    expect(found.map((f) => f.kind)).toEqual(['measure', 'change-state', 'declare', 'look']);
    for (const f of found) expect(whileThinking(f)).toEqual({ kind: 'wait', words: 'Working out what is next' });
    const report = next(done);
    expect(report.kind).toBe('report');
    expect(whileThinking(report)).toBe(report);
  });
  it('keeps an abbreviation as it is written in the middle of a sentence', () => {
    expect(['Coach +', 'DC-DC in amps', 'LFP bank'].map(midSentence)).toEqual(['coach +', 'DC-DC in amps', 'LFP bank']);
  });
  it('declares when the diagnosis stops, looks when nothing tells suspects apart, waits while it thinks', () => {
    expect(next(open, diagnosis({ stop: { reached: true, why: '' } }))).toMatchObject({
      kind: 'declare',
      words: 'Declare: A fault',
    });
    expect(next(open, diagnosis({}))).toMatchObject({ kind: 'look' });
    expect(next(open)).toMatchObject({ kind: 'wait' });
  });
  it('repairs what is declared, proves what is repaired, finishes only what is proven', () => {
    const declared = { ...open, verdicts: done.verdicts };
    expect(next(declared, diagnosis({}))).toMatchObject({ kind: 'approve' });
    const approved = { ...declared, approvals: done.approvals };
    expect(next(approved, diagnosis({}))).toMatchObject({ kind: 'repair' });
    const repaired = { ...declared, revisions: done.revisions, repairs: done.repairs, readings: [] };
    expect(next(repaired, undefined, [proof('idle')])).toMatchObject({ kind: 'measure' });
    expect(next(repaired, undefined, [proof('shore')])).toMatchObject({ kind: 'change-state', state: 'shore' });
    // Out of its band once: taken again; twice: looked into, under Fault with the diagnosis of the repaired rig.
    const inIdle = { ...repaired, rigState: { ...repaired.rigState, id: 'idle' } };
    const take = {
      ...done.readings[0]!,
      epoch: 1,
      state: 'idle',
      probe: 'link.coil-plus',
      ref: 'frame.bay-2',
      retracted: false,
    };
    expect(next(inIdle, undefined, [proof('idle', 'low')])).toMatchObject({ kind: 'measure', retake: true });
    const twice = {
      ...inIdle,
      readings: [
        { ...take, id: '1' },
        { ...take, id: '2' },
      ],
    };
    expect(next(twice, undefined, [proof('idle', 'low')])).toMatchObject({ kind: 'reopen-fault' });
    expect(
      nextAction({
        job: twice,
        diagnosis: diagnosis({ next: [test('idle')] }),
        proofs: [proof('idle', 'low')],
        measurements,
        atFault: true,
      }),
    ).toMatchObject({ kind: 'measure' });
    expect(next(repaired, undefined, [proof('idle', 'ok')])).toMatchObject({ kind: 'finish' });
    expect(next(done, undefined, [])).toMatchObject({ kind: 'report' });
  });
  it('asks for the checks that are due after the readings, and not for advised ones', () => {
    const repaired = {
      ...open,
      verdicts: done.verdicts,
      revisions: done.revisions,
      repairs: done.repairs,
      readings: [],
    };
    const check = (id: string, required: boolean): RigCheck => ({
      id,
      name: 'Lights',
      how: '',
      why: '',
      state: 'rested',
      minutes: 4,
      values: [],
      watch: false,
      required,
    });
    const ask = (checks: RigCheck[], job = repaired) =>
      nextAction({ job, diagnosis: undefined, proofs: [proof('idle', 'ok')], checks, measurements });
    expect(ask([check('sleep', false), check('lights', true)])).toMatchObject({ kind: 'check', check: 'lights' });
    const record = { id: 'c', epoch: 1, check: 'lights', at: '2026-11-24T16:00:00Z', by: 'b' };
    expect(
      ask([check('lights', true)], { ...repaired, checks: [{ ...record, result: 'entry' as const }] }),
    ).toMatchObject({ kind: 'check' });
    expect(
      ask([check('lights', true)], { ...repaired, checks: [{ ...record, result: 'pass' as const }] }),
    ).toMatchObject({ kind: 'finish' });
    expect(
      ask([check('lights', true)], { ...repaired, checks: [{ ...record, result: 'fail' as const }] }),
    ).toMatchObject({ kind: 'reopen-fault' });
  });
});
