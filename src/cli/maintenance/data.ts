/** A shop's data as a whole: listed, taken out in open formats, a customer out of it, a shop out of the database. */
import { writeFileSync } from 'node:fs';
import { strToU8, zipSync } from 'fflate';
import type { Knex } from 'knex';
import { csvRows } from '../../core/openFormats/csv';
import type { Actor } from '../../server/actor';
import { packJob } from '../../server/job/jobArchive';
import { jobTrail } from '../../server/job/trail';
import { loadShop } from '../../server/shop';
import { withShop } from '../../server/db';
import { asApp, asOwner } from './owner';

interface ShopRow {
  id: string;
  name: string;
  demo: boolean;
}

async function shopNamed(db: Knex, name: string): Promise<ShopRow> {
  const shops = (await db('shops').select('id', 'name', 'demo')) as ShopRow[];
  const found =
    name === '' && shops.filter((s) => !s.demo).length === 1
      ? shops.find((s) => !s.demo)
      : shops.find((s) => s.name === name);
  if (!found) throw new Error(`which shop? ${shops.map((s) => s.name).join(', ') || 'there is none'}`);
  return found;
}

export const listShops = (): Promise<void> =>
  asOwner(async (db) => {
    for (const { id, name, demo } of (await db('shops').orderBy('name').select('id', 'name', 'demo')) as ShopRow[]) {
      const { n } = (await db('jobs').where({ shop_id: id }).count('* as n').first()) as { n: string };
      console.log(`${name}${demo ? ' (demo)' : ''}: ${n} jobs`);
    }
  });

/** Everything of a shop in one zip: each job as a job file with its photos and logs, and tables of the rest. */
export async function exportShop(name = '', file = ''): Promise<void> {
  const shop = await asOwner((db) => shopNamed(db, name));
  const reader: Actor = { shopId: shop.id, sessionId: '', personId: '', name: 'export', role: 'owner' };
  const files: Record<string, Uint8Array> = {};
  const jobs = await asApp(async (db) => {
    const numbers = await withShop(
      db,
      shop.id,
      async (tx) => (await tx('jobs').orderBy('number').select('number')) as { number: number }[],
    );
    for (const { number } of numbers) {
      files[`jobs/${number}.zip`] = await packJob(db, reader, number);
      const trail = await jobTrail(db, reader, number);
      files[`jobs/${number}-trail.csv`] = strToU8(
        csvRows([
          ['number', 'received', 'entered', 'by', 'kind', 'content'],
          ...trail.map((l) => [l.seq, l.received, l.at, l.by, l.type, JSON.stringify(l.payload)]),
        ]),
      );
    }
    Object.assign(files, await withShop(db, shop.id, (tx) => tablesOf(tx, shop.name)));
    return numbers.length;
  });
  writeFileSync(file, zipSync(files, { level: 6 }), { mode: 0o600 });
  console.log(`written: ${file}, ${jobs} jobs of ${shop.name}`);
}

/** Settings, people and customers, as files. */
async function tablesOf(tx: Knex.Transaction, name: string): Promise<Record<string, Uint8Array>> {
  const { settings, instruments } = (await loadShop(tx)).shop;
  const table = (rows: readonly Record<string, unknown>[], columns: readonly string[]) =>
    strToU8(csvRows([columns, ...rows.map((r) => columns.map((c) => cellOf(r[c])))]));
  const people = ['handle', 'name', 'role', 'active', 'since'];
  const owners = ['rig', 'nickname', 'name', 'contact', 'identity'];
  return {
    'shop.json': strToU8(`${JSON.stringify({ name, settings, instruments }, null, 2)}\n`),
    'people.csv': table(await tx('people').orderBy('handle').select(people), people),
    'customers.csv': table(
      await tx('rigs as r')
        .leftJoin('customers as c', (on) => on.on('c.shop_id', 'r.shop_id').andOn('c.id', 'r.customer_id'))
        .orderBy('r.id')
        .select('r.id as rig', 'r.nickname', 'c.name', 'c.contact', 'r.identity'),
      owners,
    ),
  };
}

const cellOf = (value: unknown): string | number =>
  value === null || value === undefined
    ? ''
    : value instanceof Date
      ? value.toISOString()
      : typeof value === 'object'
        ? JSON.stringify(value)
        : typeof value === 'number'
          ? value
          : String(value as string | boolean);

/**
 * A customer's name, contact and vehicle out of the shop's tables and of the commands that carried them. Jobs stay, as
 * jobs of a rig whose owner is not known; what somebody wrote into a note is free text and is told to be looked at.
 */
export const eraseCustomer = (name = '', shopName = ''): Promise<void> =>
  asOwner(async (db) => {
    const shop = await shopNamed(db, shopName);
    const told = await db.transaction(async (tx) => {
      const customers = (await tx('customers').where({ shop_id: shop.id, name }).select('id')) as { id: string }[];
      if (customers.length === 0)
        throw new Error(`nobody is called "${name}" in ${shop.name}: the name as it stands under Intake is wanted`);
      if (customers.length > 1)
        throw new Error(
          `${customers.length} customers are called "${name}": give them different names under Intake first`,
        );
      const { id } = customers[0]!;
      const rigs = (
        (await tx('rigs').where({ shop_id: shop.id, customer_id: id }).select('id')) as { id: string }[]
      ).map((r) => r.id);
      const jobs = (await tx('jobs').where({ shop_id: shop.id }).whereIn('rig_id', rigs).select('id', 'number')) as {
        id: string;
        number: number;
      }[];
      await tx('rigs').where({ shop_id: shop.id }).whereIn('id', rigs).update({ customer_id: null, identity: '{}' });
      await tx('customers').where({ shop_id: shop.id, id }).delete();
      // A paper in the making holds the job: it is asked for again.
      await tx('runs').where({ shop_id: shop.id }).delete();
      await tx('commands')
        .where({ shop_id: shop.id, type: 'identity.set' })
        .whereIn(
          'job_id',
          jobs.map((j) => j.id),
        )
        .update({ payload: JSON.stringify({ was: {}, set: {} }) });
      const words = await tx('observations')
        .where({ shop_id: shop.id })
        .whereIn(
          'job_id',
          jobs.map((j) => j.id),
        )
        .whereRaw('position(lower(?) in lower(text)) > 0', [name])
        .count('* as n')
        .first();
      return { jobs: jobs.map((j) => j.number), notes: Number((words as { n: string }).n) };
    });
    console.log(`erased from ${shop.name}; jobs that stay: ${told.jobs.join(', ') || 'none'}`);
    if (told.notes > 0) console.log(`${told.notes} notes of these jobs hold the name: take them back by hand`);
    console.log('Backups made until now still hold it: they go in five weeks, or by hand.');
  });

/** Every row of a shop, whatever hangs on what: tables are tried until none is left that something else points at. */
export async function removeShop(tx: Knex.Transaction, shopId: string): Promise<void> {
  const { rows } = await tx.raw<{ rows: { table_name: string }[] }>(
    `SELECT table_name FROM information_schema.columns WHERE table_schema = 'public' AND column_name = 'shop_id'`,
  );
  let left = rows.map((r) => r.table_name);
  while (left.length > 0) {
    const stuck: string[] = [];
    for (const table of left)
      await tx
        .transaction((inner) => inner(table).where({ shop_id: shopId }).delete())
        .catch((e: { code?: string }) => {
          if (e.code !== '23503') throw e;
          stuck.push(table);
        });
    if (stuck.length === left.length) throw new Error(`these point at each other: ${stuck.join(', ')}`);
    left = stuck;
  }
  await tx('shops').where({ id: shopId }).delete();
}
