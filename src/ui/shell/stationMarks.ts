/** What each station still lacks, in a word and a mark: from the job's record and the core's answers. */
import {
  builtOf,
  madeBy,
  presentVerdict,
  provedAgainst,
  standingChecks,
  standingChoice,
  standingSignOff,
  type Job,
  type Reading,
} from '../../core/job/job';
import { NOTHING_WRONG } from '../../core/diagnose/catalogue/nothingWrong';
import type { Diagnosis } from '../../core/diagnose/diagnose';
import type { RigCheck } from '../../core/prove/check';
import type { Proof } from '../../core/prove/proofs';
import type { Rig } from '../../core/rig/schema';
import type { Station } from './stations';

/** Done, part of it, still to come. */
export type Pip = 'done' | 'part' | 'wait';
export interface Mark {
  pip: Pip;
  says: string;
}
export interface MarkInput {
  job: Job;
  rig: Rig;
  epoch: number;
  readings: readonly Reading[];
  diagnosis: Pick<Diagnosis, 'stop'> | undefined;
  proofs: readonly Proof[] | undefined;
  checks: readonly RigCheck[] | undefined;
  visits: readonly unknown[];
}

const mark = (pip: Pip, says: string): Mark => ({ pip, says });

function intake({ job }: MarkInput): Mark {
  const told = job.complaint.codes.length + job.intake.facts.length;
  if (job.intake.facts.length > 0) return mark('done', `${told} told`);
  return mark(told === 0 ? 'wait' : 'part', 'complaint only');
}

function rigMark({ rig }: MarkInput): Mark {
  const measured = rig.parts.some((p) => Object.values(p.params).some((x) => x.provenance === 'measured'));
  return mark(measured ? 'part' : 'wait', `${rig.parts.length} parts`);
}

function readingsMark({ job, readings, diagnosis }: MarkInput): Mark {
  if (presentVerdict(job) || diagnosis?.stop.reached) return mark('done', 'enough');
  const taken = readings.filter((r) => r.status === 'measured').length;
  return mark(taken > 0 ? 'part' : 'wait', `${taken} taken`);
}

function fault({ job, diagnosis }: MarkInput): Mark {
  if (presentVerdict(job)) return mark('part', 'declared');
  if (madeBy(job) === 'repair' && !diagnosis)
    return mark('done', provedAgainst(job).fault === NOTHING_WRONG.id ? 'explained' : 'repaired');
  return diagnosis?.stop.reached ? mark('part', 'settled') : mark('wait', 'open');
}

function options({ job }: MarkInput): Mark {
  if (standingChoice(job)) return mark('done', 'picked');
  return mark('wait', job.usage.scenarios.length > 0 ? 'use is set' : 'to compare');
}

const sizing = ({ job }: MarkInput): Mark =>
  standingChoice(job) ? mark('part', 'to check') : mark('wait', 'as it is');

function build({ job }: MarkInput): Mark {
  const choice = standingChoice(job);
  if (!choice) return mark('wait', 'nothing picked');
  if (builtOf(job, choice.revision)) return mark('done', 'built');
  const done = job.build?.candidate === choice.candidate ? job.build.done.length : 0;
  return done > 0 ? mark('part', `${done} done`) : mark('wait', 'planned');
}

function prove({ job, epoch, proofs, checks }: MarkInput): Mark {
  if (standingSignOff(job)) return mark('done', 'signed');
  if (!madeBy(job)) return mark('wait', 'not yet');
  const results = standingChecks(job, epoch);
  const due = checks?.filter((c) => c.required) ?? [];
  const passed = due.filter((c) => {
    const result = results.get(c.id)?.result;
    return result !== undefined && result !== 'fail';
  }).length;
  const proved = (proofs?.filter((p) => p.after?.verdict === 'ok').length ?? 0) + passed;
  const all = (proofs?.length ?? 0) + due.length;
  return proofs && proved === all ? mark('done', 'proven') : mark('part', `${proved} of ${all}`);
}

const logbook = ({ visits }: MarkInput): Mark =>
  visits.length > 0 ? mark('done', `${visits.length + 1} visits`) : mark('part', 'first visit');

export const STATION_MARKS: Readonly<Record<Station, (input: MarkInput) => Mark>> = {
  intake,
  rig: rigMark,
  readings: readingsMark,
  fault,
  options,
  sizing,
  build,
  prove,
  logbook,
};
