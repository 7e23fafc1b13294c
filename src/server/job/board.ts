/** The job board: one query a page, tickets as they were written with their jobs. */
import type { Knex } from 'knex';
import type { Job } from '../../core/job/job';
import type { ApiAnswer } from '../../core/openFormats/answers';
import { Refused, type Actor } from '../actor';
import { withShop } from '../db';
import { loadJob } from './jobStore';
import { ticketOf, type Ticket } from './ticket';

export type BoardPage = ApiAnswer<'boardPage'>;
export type BoardTicket = BoardPage['tickets'][number];

/** Open jobs on a board; a shop has as many bays as it has, and more than this is no board. */
const MOST_OPEN = 300;
/** Finished jobs on a page. */
const DONE_A_PAGE = 20;
/** Jobs of before tickets were kept, given theirs at one look at the board. */
const TICKETS_AT_ONCE = 200;

interface Row {
  number: number;
  status: Job['status'];
  complaint_words: string;
  ticket: Ticket | null;
}

/** Jobs that were written before tickets were: theirs are made when the board first needs them. */
async function writeMissingTickets(tx: Knex.Transaction): Promise<void> {
  const rows = (await tx('jobs')
    .whereNull('ticket')
    .orderBy('number', 'desc')
    .limit(TICKETS_AT_ONCE)
    .select('number')) as { number: number }[];
  for (const { number } of rows) {
    const { job } = (await loadJob(tx, number))!;
    await tx('jobs')
      .where({ number })
      .update({ ticket: JSON.stringify(ticketOf(job)) });
  }
}

const stampOf = async (tx: Knex.Transaction): Promise<string> => {
  const { rows } = (await tx.raw('SELECT count(*) AS jobs, coalesce(sum(seq), 0) AS changes FROM jobs')) as {
    rows: { jobs: string; changes: string }[];
  };
  return `${rows[0]!.jobs}-${rows[0]!.changes}`;
};

/**
 * Open jobs and the newest finished ones; or, with `olderThan`, the next page of finished ones.
 * @param since stamp of what the asker has: undefined is answered where nothing changed
 */
export async function boardPage(
  db: Knex,
  actor: Actor,
  asked: { olderThan?: number; since?: string } = {},
): Promise<BoardPage | undefined> {
  return withShop(db, actor.shopId, async (tx) => {
    const stamp = await stampOf(tx);
    if (asked.since === stamp) return undefined;
    await writeMissingTickets(tx);
    const columns = ['number', 'status', 'complaint_words', 'ticket'] as const;
    const done = tx('jobs')
      .where({ status: 'done' })
      .modify((q) => void (asked.olderThan !== undefined && q.where('number', '<', asked.olderThan)))
      .orderBy('number', 'desc')
      .limit(DONE_A_PAGE + 1)
      .select(...columns);
    const open = tx('jobs')
      .whereNot({ status: 'done' })
      .orderBy('number', 'desc')
      .limit(MOST_OPEN)
      .select(...columns);
    const finished = (await done) as Row[];
    const rows = asked.olderThan === undefined ? [...((await open) as Row[]), ...finished] : finished;
    const counts = (await tx('jobs').groupBy('status').select('status').count('* as n')) as {
      status: Job['status'];
      n: string;
    }[];
    const shown = rows.filter((r) => r !== finished[DONE_A_PAGE]);
    const last = finished[DONE_A_PAGE - 1];
    return {
      stamp,
      shop: ((await tx('shops').first('name')) as { name: string }).name,
      actor: actor.name,
      tickets: shown
        .sort((a, b) => b.number - a.number)
        .map((r) => ({ ...r.ticket!, number: r.number, complaint: r.complaint_words, status: r.status })),
      counts: {
        ...{ waiting: 0, 'in-the-bay': 0, 'waiting-approval': 0, 'waiting-parts': 0, done: 0 },
        ...Object.fromEntries(counts.map((c) => [c.status, Number(c.n)])),
      },
      ...(finished.length > DONE_A_PAGE && last ? { olderThan: last.number } : {}),
    };
  });
}

/** A page number of the board as it stands in an address. */
export function boardQuery(url: string): { olderThan?: number; since?: string } {
  const query = new URL(url, 'http://here').searchParams;
  const before = query.get('before');
  const since = query.get('since');
  if (before !== null && !/^[1-9]\d{0,6}$/.test(before))
    throw new Refused(400, 'bad-page', 'A page of the board begins at the number of a job.');
  return {
    ...(before === null ? {} : { olderThan: Number(before) }),
    ...(since === null ? {} : { since }),
  };
}
