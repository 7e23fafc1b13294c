/**
 * The one next action of a job, from its record and the core's answers. Exactly one thing on the screen is
 * highlighted; this says which.
 */
import type { Diagnosis, NextTest } from '../../core/diagnose/diagnose';
import {
  currentRevision,
  madeBy,
  presentVerdict,
  standingApproval,
  standingChecks,
  standingSignOff,
  type Job,
} from '../../core/job/job';
import type { CommandType } from '../../core/job/command';
import { operatingState } from '../../core/operate/states';
import type { Measurement } from '../../core/probe/measurement';
import { midSentence } from '../../core/units/format';
import type { RigCheck } from '../../core/prove/check';
import type { Proof } from '../../core/prove/proofs';

export type NextAction =
  | { kind: 'wait'; words: string }
  | { kind: 'change-state'; state: string; words: string; then: string }
  | { kind: 'ask'; question: string; words: string; minutes: number }
  | { kind: 'own'; words: string }
  | { kind: 'measure'; measurement: Measurement; words: string; minutes: number; retake: boolean }
  | { kind: 'declare'; words: string }
  | { kind: 'look'; words: string }
  | { kind: 'approve'; words: string }
  | { kind: 'repair'; words: string }
  | { kind: 'check'; check: string; words: string; minutes: number }
  | { kind: 'finish'; words: string }
  | { kind: 'reopen-fault'; words: string }
  | { kind: 'report'; words: string };

export interface NextInput {
  job: Job;
  diagnosis: Diagnosis | undefined;
  proofs: readonly Proof[] | undefined;
  checks?: readonly RigCheck[] | undefined;
  /** The Fault station is open: a failed proof is looked into there. */
  atFault?: boolean;
  measurements: readonly Measurement[];
  /** The technician goes his own way round. */
  ownRound?: boolean;
}

const toMeasure = (
  job: Job,
  measurements: readonly Measurement[],
  test: { state: string; probe: string; ref?: string; minutes: number; retake?: boolean },
): NextAction => {
  const m = measurements.find((x) => x.red === test.probe && x.black === test.ref);
  if (!m) return { kind: 'wait', words: 'Working out the next measurement' };
  const what = `${m.label}, ${midSentence(m.name)}`;
  if (test.state !== job.rigState.id) {
    return {
      kind: 'change-state',
      state: test.state,
      words: `Change to: ${operatingState(test.state).label}`,
      then: `Measure ${what}`,
    };
  }
  return {
    kind: 'measure',
    measurement: m,
    words: `${test.retake ? 'Take again' : 'Measure'} ${what}`,
    minutes: test.minutes,
    retake: test.retake ?? false,
  };
};

/** A test that looks, listens or tries, in the state it wants. */
const toAsk = (job: Job, test: NextTest): NextAction =>
  test.state !== job.rigState.id
    ? {
        kind: 'change-state',
        state: test.state,
        words: `Change to: ${operatingState(test.state).label}`,
        then: test.name,
      }
    : { kind: 'ask', question: test.test, words: `${VERB[test.kind] ?? 'Look'}: ${test.name}`, minutes: test.minutes };
const VERB: Readonly<Record<string, string>> = { look: 'Look', listen: 'Listen', feel: 'Feel', try: 'Try' };

/** What is still to prove of a rig that was repaired or built; undefined where its fault is being looked for. */
function toProve({ job, proofs, checks = [], measurements, atFault = false }: NextInput): NextAction | undefined {
  if (!proofs) return { kind: 'wait', words: 'Working out what to prove' };
  const { epoch } = currentRevision(job);
  const read = (p: Proof) =>
    toMeasure(job, measurements, {
      state: p.state,
      probe: p.probe,
      ...(p.ref === undefined ? {} : { ref: p.ref }),
      minutes: 1,
      retake: p.after !== undefined,
    });
  const open = proofs.filter((p) => !p.after);
  const here = open.find((p) => p.state === job.rigState.id) ?? open[0];
  if (here) return read(here);
  const explained = presentVerdict(job)?.fault === 'nothing-wrong';
  const bad = proofs.filter((p) => p.after && p.after.verdict !== 'ok');
  // One slip of a lead is no fault: what failed is taken once more before it is looked into.
  const takes = (p: Proof) =>
    job.readings.filter(
      (r) => !r.retracted && r.epoch === epoch && r.state === p.state && r.probe === p.probe && r.ref === p.ref,
    ).length;
  const once = bad.find((p) => takes(p) < 2);
  if (once) return read(once);
  const results = standingChecks(job, epoch);
  const failed = checks.find((c) => results.get(c.id)?.result === 'fail');
  if (!explained && (bad.length > 0 || failed))
    return atFault
      ? undefined
      : {
          kind: 'reopen-fault',
          words:
            bad.length > 0
              ? `${bad[0]!.label} is out of its band: find out why`
              : `${failed!.name}: failed, find out why`,
        };
  const due = checks.find((c) => c.required && !results.has(c.id));
  if (due) return { kind: 'check', check: due.id, words: `Check: ${midSentence(due.name)}`, minutes: due.minutes };
  return { kind: 'finish', words: 'Finish and sign: it is right now' };
}

export function nextAction(input: NextInput): NextAction {
  const { job, diagnosis, measurements, ownRound = false } = input;
  if (job.status === 'done' || standingSignOff(job)) return { kind: 'report', words: 'Print the report' };
  const verdict = presentVerdict(job);
  if (madeBy(job) && (!verdict || verdict.fault === 'nothing-wrong')) {
    const proving = toProve(input);
    if (proving) return proving;
  }
  if (verdict && verdict.fault !== 'nothing-wrong' && !standingApproval(job, verdict.id))
    return { kind: 'approve', words: 'Record the approval' };
  if (verdict)
    return {
      kind: 'repair',
      words: verdict.fault === 'nothing-wrong' ? 'Record what the owner was told' : 'Record the repair',
    };
  if (!diagnosis) return { kind: 'wait', words: 'Working out the suspects' };
  if (diagnosis.stop.reached && diagnosis.suspects[0]!.fault === 'not-on-list')
    return { kind: 'own', words: 'Look by hand: none of the listed faults fits' };
  if (diagnosis.stop.reached) return { kind: 'declare', words: `Declare: ${diagnosis.suspects[0]!.name}` };
  if (ownRound) return { kind: 'own', words: 'Your own round: everything you take counts' };
  const test: NextTest | undefined = diagnosis.next[0];
  if (!test) return { kind: 'look', words: 'No probe tells the leading suspects apart' };
  if (test.probe === undefined) return toAsk(job, test);
  return toMeasure(job, measurements, { ...test, probe: test.probe });
}

/** What hangs on the record alone; all else follows from the readings. */
const FROM_THE_RECORD: ReadonlySet<NextAction['kind']> = new Set(['wait', 'own', 'approve', 'repair', 'report']);

/**
 * An action found from the readings before the last, while the last is still being taken in: nothing is asked for that
 * would be another thing before the finger is down.
 */
export const whileThinking = (next: NextAction): NextAction =>
  FROM_THE_RECORD.has(next.kind) ? next : { kind: 'wait', words: 'Working out what is next' };

/** The command an action ends in: who may not give it is told whose it is. */
const ENDS_IN: Partial<Record<NextAction['kind'], CommandType>> = {
  measure: 'reading.keep',
  'change-state': 'state.set',
  ask: 'observation.keep',
  check: 'check.record',
  declare: 'verdict.declare',
  approve: 'approval.record',
  repair: 'repair.record',
  finish: 'record.sign',
};

/** Why this person does not go on from here, in a sentence; undefined where he does. */
export function notMine(next: NextAction, whyNot: (type: CommandType) => string | undefined): string | undefined {
  const type = ENDS_IN[next.kind];
  return type && whyNot(type);
}

/** Action buttons that belong to a station other than the one shown take one there. */
export const stationOf = (next: NextAction): 'readings' | 'fault' | 'prove' | undefined => {
  switch (next.kind) {
    case 'measure':
      return 'readings';
    case 'ask':
      return 'fault';
    case 'declare':
    case 'look':
    case 'approve':
    case 'repair':
    case 'reopen-fault':
      return 'fault';
    case 'check':
    case 'finish':
      return 'prove';
    case 'wait':
    case 'own':
    case 'change-state':
    case 'report':
      return undefined;
  }
};
