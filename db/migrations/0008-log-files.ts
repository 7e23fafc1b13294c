/** Recorders' logs kept whole beside what was read out of them, packed with gzip. */
import type { Knex } from 'knex';

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE log_files (
      shop_id uuid NOT NULL,
      job_id uuid NOT NULL,
      sha256 text NOT NULL CHECK (sha256 ~ '^[0-9a-f]{64}$'),
      bytes integer NOT NULL CHECK (bytes > 0),
      packed bytea NOT NULL,
      received_at timestamptz NOT NULL DEFAULT now(),
      PRIMARY KEY (shop_id, job_id, sha256),
      FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id)
    );
    -- What is packed already is not packed again.
    ALTER TABLE log_files ALTER COLUMN packed SET STORAGE EXTERNAL;
    ALTER TABLE log_files ENABLE ROW LEVEL SECURITY;
    CREATE POLICY log_files_of_shop ON log_files USING (shop_id = current_shop()) WITH CHECK (shop_id = current_shop());
    GRANT SELECT, INSERT ON log_files TO surrik_app;
  `);
}

/** Refuses while there is anything the older schema has no place for. */
export async function down(knex: Knex): Promise<void> {
  if (await knex('log_files').first('sha256')) throw new Error('logs are kept: going back would lose them');
  await knex.raw('DROP TABLE log_files');
}
