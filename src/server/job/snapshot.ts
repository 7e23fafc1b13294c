/** What the screens of one job read. */
import type { Knex } from 'knex';
import type { Job } from '../../core/job/job';
import { buildPace, type BuildPace } from '../../core/plan/build/buildPace';
import type { ApiAnswer } from '../../core/openFormats/answers';
import { Refused, type Actor } from '../actor';
import { withShop } from '../db';
import { loadIdentity } from '../identity';
import { loadJob } from './jobStore';
import { loadShop } from '../shop';

export type JobSnapshot = ApiAnswer<'jobSnapshot'>;
export type Visit = JobSnapshot['visits'][number];

/** What a page of the job shows. */
export const jobSnapshot = async (db: Knex, actor: Actor, number: number): Promise<JobSnapshot> =>
  (await newerSnapshot(db, actor, number, undefined))!;

/**
 * The same where there is something newer.
 * @param since stamp of the snapshot the asker has: undefined is answered where nothing of it changed
 */
export async function newerSnapshot(
  db: Knex,
  actor: Actor,
  number: number,
  since: string | undefined,
): Promise<JobSnapshot | undefined> {
  return withShop(db, actor.shopId, async (tx) => {
    const counted = await stampOf(tx, number);
    if (counted === undefined) throw new Refused(404, 'no-job', `There is no job ${number} in this shop.`);
    // What one may do shows on the page: whose role was changed gets another.
    const stamp = `${counted}-${actor.role}`;
    if (since === stamp) return undefined;
    const stored = (await loadJob(tx, number))!;
    const { shop } = await loadShop(tx);
    return {
      stamp,
      seq: stored.seq,
      job: stored.job,
      actor: { name: actor.name, role: actor.role },
      shop,
      identity: await loadIdentity(tx, stored.job.rigId),
      visits: await visitsOf(tx, stored.job),
      buildPace: await shopBuildPace(tx),
    };
  });
}

/** Counts the changes of the job, of the rig's other jobs and of the shop's settings: no two snapshots share one. */
async function stampOf(tx: Knex.Transaction, number: number): Promise<string | undefined> {
  const { rows } = (await tx.raw(
    `SELECT j.seq, (SELECT count(*) + coalesce(sum(o.seq), 0) FROM jobs o WHERE o.rig_id = j.rig_id) AS rig,
            (SELECT s.seq FROM shops s WHERE s.id = j.shop_id) AS shop
     FROM jobs j WHERE j.number = ?`,
    [number],
  )) as { rows: { seq: number; rig: string; shop: number }[] };
  const row = rows[0];
  return row && `${row.seq}-${row.rig}-${row.shop}`;
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
