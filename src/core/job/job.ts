/**
 * Questions one asks of a job document. The schema is apart (jobSchema.ts), so that a page can ask without
 * carrying it.
 */
import { takesAgree } from '../probe/meter';
import type { Rig } from '../rig/schema';
import type { IntakeClue } from '../diagnose/intake';
import type {
  Approval,
  Build,
  OptionChoice,
  CheckRecord,
  Intake,
  Job,
  Reading,
  Revision,
  SignOff,
  Usage,
  DeclaredFault,
  Waiver,
} from './jobSchema';

export type {
  Approval,
  Booking,
  Build,
  CheckRecord,
  OptionChoice,
  FollowUp,
  Hunt,
  KeptLog,
  PlanChange,
  SignOff,
  Usage,
  Intake,
  Job,
  Observation,
  Photo,
  Reading,
  Repair,
  Revision,
  DeclaredFault,
  Waiver,
} from './jobSchema';

/** The revision that describes the rig as it stands: the newest that is neither proposed nor withdrawn. */
export function currentRevision(job: Job): Revision {
  const standing = job.revisions.filter((r) => r.kind !== 'proposed' && !r.withdrawn);
  return standing[standing.length - 1] ?? job.revisions[0]!;
}

/** The revision a command line names: `as-found`, `as-built`, `proposed` or `proposed:ID`. */
export function namedRevision(job: Job, name: string): Revision | undefined {
  const [kind, id] = name.split(':');
  return [...job.revisions].reverse().find((r) => !r.withdrawn && r.kind === kind && (id === undefined || r.id === id));
}

/** Readings about an epoch that were not taken back, in the order they were taken: a table brings older ones later. */
const takenReadings = (job: Job, epoch: number): Reading[] =>
  job.readings
    .filter((r) => !r.retracted && r.epoch === epoch)
    .sort((a, b) => Date.parse(a.takenAt) - Date.parse(b.takenAt));

/** Readings that stand as evidence about an epoch: newest of each point, nothing retracted. */
export const standingReadings = (job: Job, epoch: number): Reading[] => [
  ...new Map(takenReadings(job, epoch).map((r) => [`${r.state}/${r.probe}/${r.ref ?? ''}`, r])).values(),
];

/** Standing readings whose last two takes at the same point agree: a slip on them is ruled out. */
export function confirmedIds(job: Job, epoch: number): Set<string> {
  const takes = new Map<string, Reading[]>();
  for (const r of takenReadings(job, epoch)) {
    if (r.value === undefined) continue;
    const key = `${r.state}/${r.probe}/${r.ref ?? ''}`;
    takes.set(key, [...(takes.get(key) ?? []), r]);
  }
  const confirmed = new Set<string>();
  for (const list of takes.values()) {
    const [before, last] = list.slice(-2);
    if (before && last && takesAgree(last.unit, before.value!, last.value!)) confirmed.add(last.id);
  }
  return confirmed;
}

/** Answers that stand about an epoch: the newest of each question. */
export function standingAnswers(job: Job, epoch: number): { id: string; what: string; answer: string }[] {
  const newest = new Map<string, { id: string; what: string; answer: string }>();
  for (const o of job.observations) {
    if (o.retracted || o.epoch !== epoch || o.what === undefined || o.answer === undefined) continue;
    newest.set(o.what, { id: o.id, what: o.what, answer: o.answer });
  }
  return [...newest.values()];
}

/** What the intake says, as clues for the priors. */
export const intakeClues = (job: Pick<Job, 'complaint' | 'intake'>): IntakeClue[] => [
  ...job.complaint.codes,
  ...job.intake.facts,
];

/** An intake of which nothing is known yet. */
export const EMPTY_INTAKE: Intake = { facts: [], usage: {}, told: '' };

/** No scenario yet. */
export const EMPTY_USAGE: Usage = { scenarios: [] };

/** The pick that stands, if any. */
export const standingChoice = (job: Job): OptionChoice | undefined => job.choices.findLast((c) => !c.withdrawn);

/** The proposal that is being built, as its pick stands; undefined where nothing is picked. */
export function proposedRevision(job: Job): Revision | undefined {
  const choice = standingChoice(job);
  return job.revisions.find((r) => r.id === choice?.revision && !r.withdrawn);
}

/** How far the build of a pick is; nothing done where nobody has begun. */
export const buildOf = (job: Job, candidate: string): Build =>
  job.build?.candidate === candidate ? job.build : { candidate, ticks: {}, done: [] };

/** The as-built revision a proposal became, if it is built. */
export const builtOf = (job: Job, revision: string): Revision | undefined =>
  job.revisions.find((r) => r.kind === 'as-built' && r.parent === revision && !r.withdrawn);

/** The waivers that stand. */
export const standingWaivers = (job: Job): Waiver[] => (job.waivers ?? []).filter((w) => !w.withdrawn);

/** The signature that stands under the record, if it is signed. */
export const standingSignOff = (job: Job): SignOff | undefined => job.signOffs?.findLast((s) => !s.reopened);

/** Checks that stand about an epoch: newest result of each; entries of a watch are apart. */
export function standingChecks(job: Job, epoch: number): Map<string, CheckRecord> {
  return new Map(
    (job.checks ?? [])
      .filter((c) => !c.retracted && c.epoch === epoch && c.result !== 'entry')
      .map((c) => [c.check, c]),
  );
}

/** What was written down during a watch, in its order. */
export const watchEntries = (job: Job, epoch: number, check: string): CheckRecord[] =>
  (job.checks ?? []).filter((c) => !c.retracted && c.epoch === epoch && c.check === check && c.result === 'entry');

/**
 * What made the rig as it stands, where that has to be proved: a repair, or the build of a proposal. Undefined
 * while the rig is as found, or was only described or changed on the way.
 */
export function madeBy(job: Job): 'repair' | 'build' | undefined {
  const { epoch } = currentRevision(job);
  const ofEpoch = job.revisions.filter((r) => r.epoch === epoch && r.kind === 'as-built' && !r.withdrawn);
  if (job.repairs.some((r) => !r.withdrawn && ofEpoch.some((v) => v.id === r.revision))) return 'repair';
  if (ofEpoch.some((v) => job.revisions.some((r) => r.id === v.parent && r.kind === 'proposed'))) return 'build';
  return undefined;
}

/** What the rig as it stands is proved against: the readings and the rig before, and the fault that was put right. */
export function provedAgainst(job: Job): { readings: Reading[]; from?: Rig; fault?: string } {
  const { epoch } = currentRevision(job);
  const made = madeBy(job);
  const first = job.revisions.find((r) => r.epoch === epoch && !r.withdrawn && r.kind === 'as-built');
  if (!made || !first) return { readings: [] };
  let from = job.revisions.find((r) => r.id === first.parent);
  if (from?.kind === 'proposed') from = job.revisions.find((r) => r.id === from!.parent);
  const repair = job.repairs.find((r) => !r.withdrawn && r.revision === first.id);
  const fault = job.verdicts.find((v) => v.id === repair?.verdict)?.fault;
  return {
    // What another rig read says nothing of one that was built anew.
    readings: made === 'repair' && from ? standingReadings(job, from.epoch) : [],
    ...(from ? { from: from.doc } : {}),
    ...(fault === undefined ? {} : { fault }),
  };
}

/** The verdict that stands about the rig as it is now: an earlier one was answered by what made this rig. */
export const presentVerdict = (job: Job): DeclaredFault | undefined => {
  const { epoch } = currentRevision(job);
  return job.verdicts.findLast((v) => !v.withdrawn && v.epoch === epoch);
};

/** The verdict that stands, if any. */
export const standingVerdict = (job: Job): DeclaredFault | undefined => job.verdicts.findLast((v) => !v.withdrawn);

/** The approval that stands for a verdict. */
export const standingApproval = (job: Job, verdict: string): Approval | undefined =>
  job.approvals.findLast((a) => a.verdict === verdict && !a.withdrawn);
