/**
 * Every table goes by shop first: its key begins with it, what it refers to is of the same shop, and row security shows
 * one shop. So rows of a shop can stand together on one machine of many, and a table that was forgotten fails here.
 */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { testDatabase, type TestDatabase } from './database';

let db: TestDatabase;
let tables: string[];
beforeAll(async () => {
  db = await testDatabase();
  tables = (
    await db
      .owner('information_schema.tables')
      .where({ table_schema: 'public', table_type: 'BASE TABLE' })
      .orderBy('table_name')
      .pluck<string[]>('table_name')
  ).filter((t) => !t.startsWith('knex_'));
});
afterAll(() => db.drop());

/** What is asked before any shop is known, each with why; everything else is of a shop. */
const OF_NO_SHOP: Readonly<Record<string, string>> = {
  shops: 'the shops themselves: its own id is the key',
  sign_in_tries: 'counts under hashes of names and addresses, before anybody is known',
};
/** What the app may take out again, each with why. */
const HELD_FOR_A_MOMENT: Readonly<Record<string, string>> = {
  runs: 'what was asked of a worker, for as long as somebody waits for it',
};
/** Unique over all shops: what one signs in or is invited by, before a shop is known. */
const UNIQUE_EVERYWHERE = new Set([
  'people_handle_key',
  'invitations_token_hash_key',
  'sign_in_tries_pkey',
  'shops_pkey',
]);

interface Index {
  table: string;
  name: string;
  columns: string[];
  unique: boolean;
}
const indexes = async (): Promise<Index[]> =>
  (
    await db.owner.raw<{ rows: Index[] }>(`
      SELECT t.relname AS "table", i.relname AS name, x.indisunique AS "unique",
        ARRAY(SELECT a.attname::text FROM unnest(x.indkey) WITH ORDINALITY k(n, o)
              JOIN pg_attribute a ON a.attrelid = t.oid AND a.attnum = k.n ORDER BY o) AS columns
      FROM pg_index x JOIN pg_class t ON t.oid = x.indrelid JOIN pg_class i ON i.oid = x.indexrelid
      JOIN pg_namespace s ON s.oid = t.relnamespace
      WHERE s.nspname = 'public' AND t.relname NOT LIKE 'knex_%'`)
  ).rows;

describe('a table', () => {
  it('is of a shop, or says why it is not', async () => {
    const withShop = await db
      .owner('information_schema.columns')
      .where({ table_schema: 'public', column_name: 'shop_id', is_nullable: 'NO' })
      .pluck<string[]>('table_name');
    expect(tables.length).toBeGreaterThan(15);
    for (const t of tables) expect(withShop.includes(t), t).toBe(!(t in OF_NO_SHOP));
    for (const t of Object.keys(OF_NO_SHOP)) expect(tables).toContain(t);
  });

  it('is looked up by its shop first, and is unique within it', async () => {
    for (const { table, name, columns, unique } of await indexes()) {
      if (UNIQUE_EVERYWHERE.has(name)) continue;
      expect(columns[0], `${table}: ${name}${unique ? ', unique' : ''}`).toBe('shop_id');
    }
    const names = (await indexes()).map((i) => i.name);
    for (const name of UNIQUE_EVERYWHERE) expect(names).toContain(name);
  });

  it('refers to what is of the same shop', async () => {
    const { rows } = await db.owner.raw<{ rows: { name: string; of: string; to: string; columns: string[] }[] }>(`
      SELECT c.conname AS name, c.conrelid::regclass::text AS of, c.confrelid::regclass::text AS to,
        ARRAY(SELECT a.attname::text FROM unnest(c.conkey) k JOIN pg_attribute a ON a.attrelid = c.conrelid AND a.attnum = k) AS columns
      FROM pg_constraint c JOIN pg_namespace s ON s.oid = c.connamespace
      WHERE c.contype = 'f' AND s.nspname = 'public'`);
    expect(rows.length).toBeGreaterThan(15);
    for (const { name, columns } of rows) expect(columns, name).toContain('shop_id');
  });

  it('that grows for ever lies in parts by shop, which the app reaches as a whole only', async () => {
    const { rows } = await db.owner.raw<{ rows: { whole: string; by: string; parts: string }[] }>(`
      SELECT t.relname AS whole, pg_get_partkeydef(t.oid) AS by,
        (SELECT count(*) FROM pg_inherits i WHERE i.inhparent = t.oid) AS parts
      FROM pg_class t JOIN pg_namespace s ON s.oid = t.relnamespace
      WHERE s.nspname = 'public' AND t.relkind = 'p' ORDER BY 1`);
    expect(rows).toEqual(['commands', 'log_files'].map((whole) => ({ whole, by: 'HASH (shop_id)', parts: '16' })));
    await expect(db.app.raw('SELECT 1 FROM parts.commands_0')).rejects.toThrow('permission denied');
    // A shop's rows are looked for in one part: the others are not opened.
    const { rows: plan } = await db.app.transaction(async (tx) => {
      await tx.raw(`SELECT set_config('surrik.shop', ?, true)`, ['11111111-1111-4111-8111-111111111111']);
      return tx.raw<{ rows: { 'QUERY PLAN': string }[] }>('EXPLAIN (ANALYZE, COSTS OFF) SELECT seq FROM commands');
    });
    expect(plan.map((r) => r['QUERY PLAN']).join('\n')).toContain('Subplans Removed: 15');
  });

  it('shows one shop to the app, which may take nothing out', async () => {
    const { rows } = await db.owner.raw<{ rows: { name: string; secured: boolean; deletes: boolean }[] }>(`
      SELECT t.relname AS name, t.relrowsecurity AS secured,
        has_table_privilege('surrik_app', t.oid, 'DELETE, TRUNCATE') AS deletes
      FROM pg_class t JOIN pg_namespace s ON s.oid = t.relnamespace
      WHERE s.nspname = 'public' AND t.relkind IN ('r', 'p') AND t.relname NOT LIKE 'knex_%'`);
    for (const { name, secured, deletes } of rows) {
      expect(deletes, name).toBe(name in HELD_FOR_A_MOMENT);
      if (name !== 'sign_in_tries') expect(secured, name).toBe(true);
    }
    // What is not secured is not reached at all.
    await expect(db.app('sign_in_tries').first()).rejects.toThrow('permission denied');
    expect(await db.app('people').select('id')).toEqual([]);
  });
});
