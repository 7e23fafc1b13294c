/**
 * The one next action of a job, from its record and the core's answers. Exactly one thing on the screen is
 * highlighted; this says which.
 */
import type { Diagnosis, NextTest } from '../../core/diagnose/diagnose';
import { standingApproval, type Job } from '../../core/formats/job';
import { operatingState } from '../../core/operate/states';
import type { Measurement } from '../../core/probe/measurement';
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
  | { kind: 'finish'; words: string }
  | { kind: 'reopen-fault'; words: string }
  | { kind: 'report'; words: string };

export interface NextInput {
  job: Job;
  diagnosis: Diagnosis | undefined;
  proofs: readonly Proof[] | undefined;
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
  const what = `${m.label}, ${m.name.charAt(0).toLowerCase()}${m.name.slice(1)}`;
  if (test.state !== job.rigState.id) {
    return { kind: 'change-state', state: test.state, words: `Change to: ${operatingState(test.state).label}`, then: `Measure ${what}` };
  }
  return { kind: 'measure', measurement: m, words: `${test.retake ? 'Take again' : 'Measure'} ${what}`, minutes: test.minutes, retake: test.retake ?? false };
};

/** A test that looks, listens or tries, in the state it wants. */
const toAsk = (job: Job, test: NextTest): NextAction =>
  test.state !== job.rigState.id
    ? { kind: 'change-state', state: test.state, words: `Change to: ${operatingState(test.state).label}`, then: test.name }
    : { kind: 'ask', question: test.test, words: `${VERB[test.kind] ?? 'Look'}: ${test.name}`, minutes: test.minutes };
const VERB: Readonly<Record<string, string>> = { look: 'Look', listen: 'Listen', feel: 'Feel', try: 'Try' };

export function nextAction({ job, diagnosis, proofs, measurements, ownRound = false }: NextInput): NextAction {
  const verdict = job.verdicts.findLast((v) => !v.withdrawn);
  const repair = job.repairs.findLast((r) => !r.withdrawn);
  if (job.status === 'done') return { kind: 'report', words: 'Print the report' };
  if (repair) {
    if (!proofs) return { kind: 'wait', words: 'Working out what to prove' };
    const bad = proofs.find((p) => p.after && p.after.verdict !== 'ok');
    const open = proofs.filter((p) => !p.after);
    const here = open.find((p) => p.state === job.rigState.id) ?? open[0];
    if (here) return toMeasure(job, measurements, { state: here.state, probe: here.probe, ...(here.ref === undefined ? {} : { ref: here.ref }), minutes: 1 });
    if (bad) return { kind: 'reopen-fault', words: `${bad.label} is still out of its band: not proven` };
    return { kind: 'finish', words: 'Finish: it is right now' };
  }
  if (verdict && verdict.fault !== 'nothing-wrong' && !standingApproval(job, verdict.id)) return { kind: 'approve', words: 'Record the approval' };
  if (verdict) return { kind: 'repair', words: 'Record the repair' };
  if (!diagnosis) return { kind: 'wait', words: 'Working out the suspects' };
  if (diagnosis.stop.reached) return { kind: 'declare', words: `Declare: ${diagnosis.suspects[0]!.name}` };
  if (ownRound) return { kind: 'own', words: 'Your own round: everything you take counts' };
  const test: NextTest | undefined = diagnosis.next[0];
  if (!test) return { kind: 'look', words: 'No probe tells the leading suspects apart' };
  if (test.probe === undefined) return toAsk(job, test);
  return toMeasure(job, measurements, { ...test, probe: test.probe });
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
    case 'finish':
      return 'prove';
    case 'wait':
    case 'own':
    case 'change-state':
    case 'report':
      return undefined;
  }
};
