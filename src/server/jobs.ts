/** What the screens read: the board and one job. */
import type { Knex } from 'knex';
import type { Job } from '../core/formats/job';
import { currentRevision, standingReadings } from '../core/formats/job';
import { Refused, type Actor } from './actor';
import { withShop } from './db';
import { loadJob } from './jobStore';

export interface JobSnapshot {
  seq: number;
  job: Job;
  actor: { name: string };
  shop: { name: string };
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
    const shop = (await tx('shops').first('name')) as { name: string };
    return { seq: stored.seq, job: stored.job, actor: { name: actor.name }, shop };
  });
}

/** What is to be done next on a job, from its record alone. */
function nextStep(job: Job): BoardTicket['next'] {
  const revision = currentRevision(job);
  const verdict = job.verdicts.find((v) => !v.withdrawn);
  const repaired = job.repairs.some((r) => !r.withdrawn);
  if (job.status === 'done') return { station: 'Done', words: verdict?.repair ?? 'nothing was wrong' };
  if (repaired) return { station: 'Prove', words: `${standingReadings(job, revision.epoch).length} taken after the repair` };
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

export async function jobBoard(db: Knex, actor: Actor): Promise<{ shop: string; actor: string; tickets: BoardTicket[] }> {
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
