/** What a job brings to the comparison of links: its rig, the fault found in it, how it is used. */
import type { Complaint } from '../parts/complaints';
import { RULE_SETS, USUAL_JURISDICTION } from '../codes';
import { cited } from '../codes/ruleSet';
import type { Jurisdiction } from '../units/preferences';
import { houseBankOf } from '../rig/value';
import { rigFaults } from '../diagnose/faults';
import { NOTHING_WRONG } from '../diagnose/catalogue/nothingWrong';
import { buildPlan, type JobBuild } from '../plan/build/build';
import { candidatesOf, type Candidate, type FoundFault } from '../plan/candidates';

import { usualScenarios } from '../plan/usualScenarios';
import type { Scenario } from '../simulate/scenarioSchema';
import { checkDesign } from '../rules/check';
import type { TowReport } from '../rules/tow/report';
import { auditTow } from '../rules/tow/audit';
import { towOf } from '../rules/tow/usual';
import { towVehicle } from '../compile/tow/vehicle';
import type { JobFinding, Sized } from '../rules/sized';
import { sizeRig, type SizingAsks } from '../size/sizing';
import {
  currentRevision,
  buildOf,
  proposedRevision,
  standingChoice,
  standingVerdict,
  standingWaivers,
  type Job,
  type Revision,
} from '../job/job';

/** The fault declared on the rig as it stands; none once it is repaired, or where nothing is wrong. */
export function foundFault(job: Job): FoundFault | undefined {
  const verdict = standingVerdict(job);
  const now = currentRevision(job);
  if (!verdict || verdict.epoch !== now.epoch || verdict.fault === NOTHING_WRONG.id) return undefined;
  const fault = rigFaults(now.doc).find((f) => f.id === verdict.fault);
  return (
    fault && {
      name: verdict.name,
      repair: verdict.repair,
      effects: fault.effects,
      minutes: fault.minutes ?? [0, 0],
      parts: fault.parts ?? [0, 0],
    }
  );
}

/** The ways of linking this job's batteries. */
export const jobCandidates = (job: Job): Candidate[] => candidatesOf(currentRevision(job).doc, foundFault(job));

/** Complaints that tell of standing, by themselves. */
const TELL_OF_STANDING: readonly string[] = ['chassis-flat', 'both-flat'] satisfies Complaint[];
const standing = (job: Job) =>
  job.complaint.codes.some((c) => TELL_OF_STANDING.includes(c)) ? { storedMonths: 1 } : {};

/** The job's own scenarios; usual ones, from what was told at intake, until somebody has set them. */
export function jobScenarios(job: Job): Scenario[] {
  if (job.usage.scenarios.length > 0) return job.usage.scenarios;
  return usualScenarios(
    { ...standing(job), ...job.intake.usage, storedPluggedIn: job.intake.facts.includes('stored-plugged-in') },
    houseBankOf(currentRevision(job).doc)?.id,
  );
}

/** The rig whose copper is sized: the pick that stands, else the rig as it is. */
export function sizedRevision(job: Job): Revision {
  const choice = standingChoice(job);
  return job.revisions.find((r) => r.id === choice?.revision && !r.withdrawn) ?? currentRevision(job);
}

/** Sizes a revision on the job's use, and runs the design rules over it. */
export function sizeJob(job: Job, revision: Revision = sizedRevision(job), asks?: SizingAsks): Sized {
  const sizing = sizeRig(revision.doc, jobScenarios(job), asks);
  const waivers = standingWaivers(job);
  const findings = checkDesign(revision.doc, sizing).map((f): JobFinding => {
    const w = waivers.find((x) => x.rule === f.rule && x.at === f.at);
    return w ? { ...f, waiver: { id: w.id, reason: w.reason, by: w.by } } : f;
  });
  return { ...sizing, findings, ...(revision.kind === 'proposed' ? { revision: revision.id } : {}) };
}

/** Audits the tow interface of a revision, as described or as drawn and usual; undefined where it has none. */
export function auditJob(
  job: Job,
  revision: Revision = sizedRevision(job),
  jurisdiction: Jurisdiction = USUAL_JURISDICTION,
): TowReport | undefined {
  const rules = RULE_SETS[jurisdiction];
  const parent = revision.kind === 'proposed' ? job.revisions.find((r) => r.id === revision.parent) : undefined;
  const tow = towOf(revision.doc, parent?.doc.tow, rules);
  const vehicle = towVehicle(revision.doc);
  if (!tow || !vehicle) return undefined;
  return {
    tow,
    described: revision.doc.tow !== undefined,
    ...(vehicle.accessory ? { metresToStart: vehicle.accessory.metresToStart } : {}),
    audit: auditTow(tow, vehicle, rules),
    breakaway: `${rules.breakaway.says} ${cited(rules.breakaway.from)}.`,
    ...(revision.kind === 'proposed' ? { revision: revision.id } : {}),
  };
}

/** The plan of the pick that stands: from the rig it was drawn for to the rig it proposes; undefined without one. */
export function buildJob(job: Job): JobBuild | undefined {
  const choice = standingChoice(job);
  const proposed = proposedRevision(job);
  const from = job.revisions.find((r) => r.id === proposed?.parent);
  if (!choice || !proposed || !from) return undefined;
  return {
    candidate: choice.candidate,
    revision: proposed.id,
    plan: buildPlan(from.doc, proposed.doc, buildOf(job, choice.candidate).order),
  };
}
