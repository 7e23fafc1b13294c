/** What the screens read: the board and one job. */
import type { Knex } from 'knex';
import type { Job } from '../core/job/job';
import { currentRevision, madeBy, presentVerdict, standingChoice, standingReadings } from '../core/job/job';
import { buildPace, type BuildPace } from '../core/plan/build/buildPace';
import { Refused, type Actor } from './actor';
import { withShop } from './db';
import type { Identity } from '../core/job/identity';
import type { Shop } from '../core/shop/shop';
import { loadIdentity } from './identity';
import { loadJob } from './jobStore';
import { loadShop } from './shop';

export interface JobSnapshot {
  seq: number;
  job: Job;
  actor: { name: string };
  shop: Shop;
  /** Whose rig it is; never part of the job's document. */
  identity: Identity;
  /** Other jobs of this rig, newest first. */
  visits: Visit[];
  /** What the shop's own builds say of its minutes. */
  buildPace: BuildPace;
}

export interface Visit {
  number: number;
  at: string;
  status: Job['status'];
  complaint: string;
  verdict?: string;
}

export interface BoardTicket {
  number: number;
  rig: string;
  kind: string;
  complaint: string;
  status: Job['status'];
  changedAt: string;
  by: string;
  next: { station: string; words: string };
}

export async function jobSnapshot(db: Knex, actor: Actor, number: number): Promise<JobSnapshot> {
  return withShop(db, actor.shopId, async (tx) => {
    const stored = await loadJob(tx, number);
    if (!stored) throw new Refused(404, 'no-job', `There is no job ${number} in this shop.`);
    const { shop } = await loadShop(tx);
    return {
      seq: stored.seq,
      job: stored.job,
      actor: { name: actor.name },
      shop,
      identity: await loadIdentity(tx, stored.job.rigId),
      visits: await visitsOf(tx, stored.job),
      buildPace: await shopBuildPace(tx),
    };
  });
}

/** Builds older than these say little of today's shop. */
const RECENT_BUILDS = 60;

async function shopBuildPace(tx: Knex.Transaction): Promise<BuildPace> {
  const rows = (await tx('jobs')
    .whereNotNull('build')
    .orderBy('number', 'desc')
    .limit(RECENT_BUILDS)
    .select('build')) as { build: NonNullable<Job['build']> }[];
  return buildPace(rows.map((r) => r.build.done));
}

/** Other jobs of the same rig. */
async function visitsOf(tx: Knex.Transaction, job: Job): Promise<Visit[]> {
  const rows = (await tx('jobs as j')
    .where('j.rig_id', job.rigId)
    .whereNot('j.number', job.number)
    .orderBy('j.number', 'desc')
    .limit(50)
    .select(
      'j.number',
      'j.status',
      'j.complaint_words',
      tx('revisions as r').whereRaw('r.job_id = j.id').min('r.at').as('at'),
      tx('verdicts as v')
        .whereRaw('v.job_id = j.id AND NOT v.withdrawn')
        .orderBy('v.position', 'desc')
        .limit(1)
        .select('v.name')
        .as('verdict'),
    )) as { number: number; status: Job['status']; complaint_words: string; at: Date; verdict: string | null }[];
  return rows.map((r) => ({
    number: r.number,
    at: r.at.toISOString(),
    status: r.status,
    complaint: r.complaint_words,
    ...(r.verdict ? { verdict: r.verdict } : {}),
  }));
}

/** What is to be done next on a job, from its record alone. */
function nextStep(job: Job): BoardTicket['next'] {
  const revision = currentRevision(job);
  const verdict = presentVerdict(job);
  const made = madeBy(job);
  if (job.status === 'done')
    return {
      station: 'Done',
      words:
        made === 'build'
          ? (standingChoice(job)?.name ?? 'built')
          : (job.verdicts.findLast((v) => !v.withdrawn)?.repair ?? 'nothing was wrong'),
    };
  if (made && !verdict)
    return { station: 'Prove', words: `${standingReadings(job, revision.epoch).length} taken after the ${made}` };
  if (verdict) return { station: 'Fault', words: verdict.repair };
  const count = standingReadings(job, revision.epoch).length;
  return { station: 'Readings', words: count === 0 ? 'take the first reading' : `${count} taken so far` };
}

/** When somebody last did something about the job. */
function lastTouched(job: Job): string {
  const times = [
    ...job.revisions.map((r) => r.at),
    ...job.readings.map((r) => r.takenAt),
    ...job.observations.map((o) => o.at),
    ...job.verdicts.map((v) => v.at),
    ...job.repairs.map((r) => r.at),
  ];
  return times.sort().pop()!;
}

export async function jobBoard(
  db: Knex,
  actor: Actor,
): Promise<{ shop: string; actor: string; tickets: BoardTicket[] }> {
  return withShop(db, actor.shopId, async (tx) => {
    const rows = (await tx('jobs').orderBy('number', 'desc').select('number')) as { number: number }[];
    const tickets: BoardTicket[] = [];
    for (const row of rows) {
      const { job } = (await loadJob(tx, row.number))!;
      const doc = currentRevision(job).doc;
      tickets.push({
        number: job.number,
        rig: doc.name,
        kind: doc.kind,
        complaint: job.complaint.words,
        status: job.status,
        changedAt: lastTouched(job),
        by: job.readings.at(-1)?.by ?? 'No one yet',
        next: nextStep(job),
      });
    }
    const shop = (await tx('shops').first('name')) as { name: string };
    return { shop: shop.name, actor: actor.name, tickets };
  });
}
