/**
 * What takes a while (papers, checks of files that come in): asked for in a table, worked off by workers anywhere. The
 * table is the shop's, under its row security; the queue beside it holds tokens that say only where to look.
 */
import type { Knex } from 'knex';
import PgBoss from 'pg-boss';
import { QUEUE } from '../../src/server/runs/queue';

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE runs (
      shop_id uuid NOT NULL REFERENCES shops (id),
      id uuid NOT NULL,
      kind text NOT NULL CHECK (kind ~ '^[a-z][A-Za-z]{1,30}$'),
      input bytea NOT NULL,
      state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'making', 'done', 'failed')),
      tries integer NOT NULL DEFAULT 0,
      asked_at timestamptz NOT NULL DEFAULT now(),
      beat_at timestamptz,
      output bytea,
      problem jsonb,
      PRIMARY KEY (shop_id, id)
    );
    CREATE INDEX runs_by_state ON runs (shop_id, state);
    ALTER TABLE runs ENABLE ROW LEVEL SECURITY;
    CREATE POLICY runs_of_shop ON runs USING (shop_id = current_shop()) WITH CHECK (shop_id = current_shop());
    GRANT SELECT, INSERT, UPDATE, DELETE ON runs TO surrik_app;
  `);
  // The package's own plan of its schema, inside the transaction we are in.
  await knex.raw(PgBoss.getConstructionPlans('pgboss').replace(/^\s*(BEGIN|COMMIT);\s*$/gm, ''));
  await knex.raw('SELECT pgboss.create_queue(?, ?)', [
    QUEUE,
    JSON.stringify({ policy: 'standard', retryLimit: 2, expireInSeconds: 30, retentionMinutes: 60 }),
  ]);
  await knex.raw(`
    REVOKE ALL ON FUNCTION pgboss.create_queue(text, json), pgboss.delete_queue(text) FROM PUBLIC;
    GRANT USAGE ON SCHEMA pgboss TO surrik_app;
    GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA pgboss TO surrik_app;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP SCHEMA pgboss CASCADE; DROP TABLE runs;');
}
