/**
 * Recorders' logs as they came, packed by the device that read them. What arrives is unpacked only as it
 * streams by, to be counted, hashed and found to be text: a bomb stops at the limit, in no more memory than a chunk.
 */
import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import { createGunzip } from 'node:zlib';
import { LOG_LIMIT_BYTES } from '../../core/recorderLog/readLog';
import { mayOrRefuse, Refused, type Actor } from '../actor';
import { withShop } from '../db';

/** Packed logs of one job, together. A million rows of four columns pack into about a third of it. */
export const LOGS_LIMIT_BYTES = 24 * 1024 * 1024;
const MB = 1024 * 1024;

export interface StoredLog {
  sha256: string;
  /** Unpacked. */
  bytes: number;
}

/** What a packed log is. Refuses what is no gzip, what unpacks to too much, and what is no text. */
export async function checkedLog(packed: Uint8Array): Promise<StoredLog> {
  const hash = createHash('sha256');
  let bytes = 0;
  const gunzip = createGunzip();
  gunzip.end(packed);
  try {
    for await (const chunk of gunzip as AsyncIterable<Buffer>) {
      bytes += chunk.length;
      if (bytes > LOG_LIMIT_BYTES)
        throw new Refused(
          413,
          'too-large',
          `The log unpacks to more than ${LOG_LIMIT_BYTES / MB} MB: nothing of it was kept.`,
        );
      if (chunk.includes(0)) throw new Refused(400, 'not-a-log', 'This is no text: nothing of it was kept.');
      hash.update(chunk);
    }
  } catch (e) {
    if (e instanceof Refused) throw e;
    throw new Refused(400, 'not-packed', 'The log did not arrive whole: nothing of it was kept. Keep it again.');
  }
  if (bytes === 0) throw new Refused(400, 'empty', 'The log is empty.');
  return { sha256: hash.digest('hex'), bytes };
}

/** Keeps a job's log. The command that makes it part of the record follows. */
export async function storeLog(db: Knex, actor: Actor, jobNumber: number, packed: Uint8Array): Promise<StoredLog> {
  mayOrRefuse(actor, 'work');
  const log = await checkedLog(packed);
  return withShop(db, actor.shopId, async (tx) => {
    // The job's row is held, so that two at once cannot both find room.
    const job = (await tx('jobs').where({ number: jobNumber }).forUpdate().first('id')) as { id: string } | undefined;
    if (!job) throw new Refused(404, 'no-job', `There is no job ${jobNumber} in this shop.`);
    if (await logReceived(tx, { shop_id: actor.shopId, job_id: job.id }, log.sha256)) return log;
    const { sum } = (await tx('log_files')
      .where({ shop_id: actor.shopId, job_id: job.id })
      .select(tx.raw('coalesce(sum(length(packed)), 0)::float8 AS sum'))
      .first()) as { sum: number };
    if (sum + packed.length > LOGS_LIMIT_BYTES)
      throw new Refused(
        413,
        'too-large',
        `A job keeps at most ${LOGS_LIMIT_BYTES / MB} MB of packed logs; this one has ` +
          `${(packed.length / MB).toFixed(1)} MB and ${(sum / MB).toFixed(1)} MB are there. Export a shorter stretch.`,
      );
    await insertLog(tx, actor.shopId, job.id, log, packed);
    return log;
  });
}

export async function insertLog(
  tx: Knex.Transaction,
  shopId: string,
  jobId: string,
  log: StoredLog,
  packed: Uint8Array,
): Promise<void> {
  await tx('log_files')
    .insert({ shop_id: shopId, job_id: jobId, ...log, packed: Buffer.from(packed) })
    .onConflict(['shop_id', 'job_id', 'sha256'])
    .ignore();
}

/** A log, packed as it came. */
export async function packedLog(db: Knex, actor: Actor, jobNumber: number, sha256: string): Promise<Buffer> {
  return withShop(db, actor.shopId, async (tx) => {
    const row = (await tx('log_files as f')
      .join('jobs as j', (on) => on.on('j.shop_id', 'f.shop_id').andOn('j.id', 'f.job_id'))
      .where({ 'f.shop_id': actor.shopId, 'j.number': jobNumber, 'f.sha256': sha256 })
      .first('f.packed')) as { packed: Buffer } | undefined;
    if (!row) throw new Refused(404, 'no-log', 'There is no such log in this job.');
    return row.packed;
  });
}

/** Whether the file a `log.set` names was received for this job. */
export async function logReceived(
  tx: Knex.Transaction,
  job: { shop_id: string; job_id: string },
  sha256: string,
): Promise<boolean> {
  return (
    (await tx('log_files')
      .where({ ...job, sha256 })
      .first('sha256')) !== undefined
  );
}
