/** Everything that was given on a job, in the order the server took it: who, when by their device, when by ours. */
import type { Knex } from 'knex';
import { undoWords } from '../../core/job/applyCommand';
import { Refused, type Actor } from '../actor';
import { withShop } from '../db';

export interface TrailLine {
  seq: number;
  type: string;
  words: string;
  by: string;
  /** By the device. */
  at: string;
  /** By the server. */
  received: string;
  payload: unknown;
}

export async function jobTrail(db: Knex, actor: Actor, number: number): Promise<TrailLine[]> {
  return withShop(db, actor.shopId, async (tx) => {
    const job = (await tx('jobs').where({ number }).first('id')) as { id: string } | undefined;
    if (!job) throw new Refused(404, 'no-job', `There is no job ${number} in this shop.`);
    const rows = (await tx('commands as c')
      .join('people as p', (on) => on.on('p.shop_id', 'c.shop_id').andOn('p.id', 'c.person_id'))
      .where({ 'c.shop_id': actor.shopId, 'c.job_id': job.id })
      .orderBy('c.seq')
      .select('c.seq', 'c.type', 'p.name as by', 'c.at', 'c.received_at', 'c.payload')) as {
      seq: number;
      type: string;
      by: string;
      at: Date;
      received_at: Date;
      payload: unknown;
    }[];
    return rows.map(({ at, received_at: received, ...r }) => ({
      ...r,
      // Named for an undo: here it is one of many.
      words: undoWords(r.type).replace(/^the last /, 'the '),
      at: at.toISOString(),
      received: received.toISOString(),
    }));
  });
}
