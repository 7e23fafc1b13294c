/** A rig through all its jobs, the shop's search, and its calendar. */
import type { Knex } from 'knex';
import type { Booking, FollowUp, Job } from '../../core/job/job';
import { unstorableText } from '../../core/openFormats/storable';
import { Refused, type Actor } from '../actor';
import { withShop } from '../db';
import { loadJob } from './jobStore';
import { loadShop } from '../shop';

const MOST_JOBS = 60;

/** Every job of the rig this job is about, oldest first. */
export async function rigHistory(db: Knex, actor: Actor, number: number): Promise<{ jobs: Job[] }> {
  return withShop(db, actor.shopId, async (tx) => {
    const row = (await tx('jobs').where({ number }).first('rig_id')) as { rig_id: string } | undefined;
    if (!row) throw new Refused(404, 'no-job', `There is no job ${number} in this shop.`);
    const rows = (await tx('jobs')
      .where({ rig_id: row.rig_id })
      .orderBy('number', 'desc')
      .limit(MOST_JOBS)
      .select('number')) as { number: number }[];
    const jobs: Job[] = [];
    for (const r of rows.reverse()) jobs.push((await loadJob(tx, r.number))!.job);
    return { jobs };
  });
}

export interface Hit {
  job: number;
  rig: string;
  /** Where it was found. */
  where: string;
  words: string;
}

const MOST_HITS = 60;
export const SEARCH_LENGTH = 80;

/** Where a shop's text holds the words, newest job first. Each source of text is a row. */
const SOURCES: readonly { where: string; sql: string }[] = [
  {
    where: 'complaint',
    sql: 'SELECT j.id, j.complaint_words AS words FROM jobs j WHERE j.complaint_words ILIKE :like',
  },
  {
    where: 'told at intake',
    sql: `SELECT j.id, j.intake->>'told' AS words FROM jobs j WHERE j.intake->>'told' ILIKE :like`,
  },
  {
    where: 'whose rig',
    sql:
      "SELECT j.id, concat_ws(', ', r.nickname, r.identity->>'plate', r.identity->>'make', " +
      'c.name) AS words FROM jobs j JOIN rigs r ON r.shop_id = j.shop_id AND r.id = j.rig_id ' +
      "LEFT JOIN customers c ON c.shop_id = r.shop_id AND c.id = r.customer_id WHERE concat_ws(' " +
      "', r.nickname, r.identity->>'plate', r.identity->>'make', c.name) ILIKE :like",
  },
  {
    where: 'verdict',
    sql: 'SELECT v.job_id AS id, v.name AS words FROM verdicts v WHERE NOT v.withdrawn AND v.name ILIKE :like',
  },
  {
    where: 'repair',
    sql: 'SELECT r.job_id AS id, r.did AS words FROM repairs r WHERE NOT r.withdrawn AND r.did ILIKE :like',
  },
  {
    where: 'note',
    sql: 'SELECT o.job_id AS id, o.text AS words FROM observations o WHERE NOT o.retracted AND o.text ILIKE :like',
  },
  {
    where: 'photo',
    sql: 'SELECT p.job_id AS id, p.caption AS words FROM photos p WHERE NOT p.retracted AND p.caption ILIKE :like',
  },
  {
    where: 'picked',
    sql: `SELECT j.id, c->>'name' AS words FROM jobs j, jsonb_array_elements(j.choices) c WHERE c->>'name' ILIKE :like`,
  },
  {
    where: 'follow-up',
    sql: `SELECT j.id, f->>'what' AS words FROM jobs j, jsonb_array_elements(j.follow_ups) f WHERE f->>'what' ILIKE :like`,
  },
  {
    where: 'log',
    sql:
      `SELECT j.id, concat_ws(': ', l->>'name', l->'says'->>0) AS words FROM ` +
      `jobs j, jsonb_array_elements(j.logs) l WHERE l::text ILIKE :like`,
  },
  {
    where: 'part',
    sql:
      `SELECT r.job_id AS id, p->>'name' AS words FROM revisions r, ` +
      `jsonb_array_elements(r.doc->'parts') p WHERE NOT r.withdrawn AND p->>'name' ILIKE :like`,
  },
];

export async function searchShop(db: Knex, actor: Actor, words: string): Promise<{ hits: Hit[]; more: boolean }> {
  const text = words.trim().slice(0, SEARCH_LENGTH);
  // What no text can hold is found nowhere.
  if (text.length < 2 || unstorableText(text).length > 0) return { hits: [], more: false };
  const like = `%${text.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;
  return withShop(db, actor.shopId, async (tx) => {
    const union = SOURCES.map(
      (s) => `SELECT id, words, '${s.where}' AS place FROM (${s.sql}) q${s.where.replace(/\W/g, '')}`,
    ).join(' UNION ');
    const { rows } = (await tx.raw(
      `SELECT j.number AS job, r.nickname AS rig, f.place AS "where", f.words FROM ` +
        `(${union}) f JOIN jobs j ON j.id = f.id JOIN rigs r ON r.shop_id = j.shop_id ` +
        `AND r.id = j.rig_id ORDER BY j.number DESC, f.place LIMIT ${MOST_HITS + 1}`,
      { like },
    )) as { rows: Hit[] };
    return {
      hits: rows.slice(0, MOST_HITS).map((h) => ({ ...h, words: h.words.slice(0, 240) })),
      more: rows.length > MOST_HITS,
    };
  });
}

export interface ShopCalendar {
  bays: string[];
  hours: { from: number; to: number; days: number[] };
  bookings: (Booking & { job: number; rig: string; status: Job['status'] })[];
  followUps: (FollowUp & { job: number; rig: string })[];
  /** Open jobs with no time in a bay ahead of them. */
  unbooked: { job: number; rig: string; complaint: string; minutes?: number }[];
}

/** Everything that has a date: times in bays, follow-ups, and what still has none. */
export async function shopCalendar(db: Knex, actor: Actor, now: Date): Promise<ShopCalendar> {
  return withShop(db, actor.shopId, async (tx) => {
    const { shop } = await loadShop(tx);
    const rows = (await tx('jobs as j')
      .join('rigs as r', (on) => on.on('r.shop_id', 'j.shop_id').andOn('r.id', 'j.rig_id'))
      // A finished job without a date has no place here, and there are many of them.
      .whereRaw(`(j.status <> 'done' OR j.bookings <> '[]' OR j.follow_ups <> '[]')`)
      .orderBy('j.number')
      .select(
        'j.number',
        'j.status',
        'j.complaint_words',
        'j.bookings',
        'j.follow_ups',
        'j.choices',
        'r.nickname',
      )) as {
      number: number;
      status: Job['status'];
      complaint_words: string;
      bookings: Booking[];
      follow_ups: FollowUp[];
      choices: Job['choices'];
      nickname: string;
    }[];
    return {
      bays: shop.settings.bays,
      hours: shop.settings.hours,
      bookings: rows
        .flatMap((r) => r.bookings.map((b) => ({ ...b, job: r.number, rig: r.nickname, status: r.status })))
        .sort((a, b) => (a.start < b.start ? -1 : 1)),
      followUps: rows
        .flatMap((r) => r.follow_ups.map((f) => ({ ...f, job: r.number, rig: r.nickname })))
        .sort((a, b) => (a.due < b.due ? -1 : 1)),
      unbooked: rows
        .filter((r) => r.status !== 'done' && !r.bookings.some((b) => b.start >= now.toISOString()))
        .map((r) => {
          const minutes = r.choices.findLast((c) => !c.withdrawn)?.minutes;
          return {
            job: r.number,
            rig: r.nickname,
            complaint: r.complaint_words,
            ...(minutes ? { minutes: Math.round((minutes[0] + minutes[1]) / 2) } : {}),
          };
        }),
    };
  });
}
