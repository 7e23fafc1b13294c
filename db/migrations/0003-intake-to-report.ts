/** Intake, approvals, photos, instruments, identity of rigs, and what a shop sets for itself. */
import type { Knex } from 'knex';

const TABLES = ['approvals', 'photos', 'photo_files', 'shop_commands'] as const;

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE shops
      ADD COLUMN settings jsonb,
      ADD COLUMN instruments jsonb NOT NULL DEFAULT '[]',
      ADD COLUMN seq integer NOT NULL DEFAULT 0 CHECK (seq >= 0);

    ALTER TABLE rigs ADD COLUMN identity jsonb NOT NULL DEFAULT '{}';

    ALTER TABLE jobs
      ADD COLUMN intake jsonb NOT NULL DEFAULT '{"facts": [], "usage": {}, "told": ""}',
      ADD COLUMN came_back jsonb,
      ADD COLUMN instruments jsonb NOT NULL DEFAULT '[]',
      ADD COLUMN meter text;

    -- An answer is one of the question's, no longer yes or no only; a question may be about one wire.
    ALTER TABLE observations
      ADD COLUMN answered jsonb,
      DROP CONSTRAINT observations_seen_check;
    ALTER TABLE observations ALTER COLUMN answer TYPE text USING CASE answer WHEN true THEN 'yes' WHEN false THEN 'no' END;
    ALTER TABLE observations RENAME COLUMN answered TO "values";
    UPDATE observations SET what = 'wedge.boost' WHERE what = 'wedge';
    UPDATE observations SET what = 'boost-fuse-seen-blown.boost' WHERE what = 'boost-fuse-seen-blown';
    UPDATE observations SET what = 'link-fuse-seen-blown.link-fuse' WHERE what = 'link-fuse-seen-blown';
    UPDATE observations SET what = 'bad-end.coach-negative' WHERE what = 'coach-ground-corroded';
    ALTER TABLE observations ADD CONSTRAINT observations_seen_check CHECK ((kind = 'seen') = (what IS NOT NULL AND answer IS NOT NULL));

    -- A meter is now an instrument's id; what was free text before names none.
    UPDATE readings SET meter = NULL WHERE meter !~ '^[a-z][a-z0-9-]{0,39}$';

    CREATE TABLE approvals (
      shop_id uuid NOT NULL,
      job_id uuid NOT NULL,
      id uuid NOT NULL,
      position integer NOT NULL,
      verdict_id uuid NOT NULL,
      up_to double precision NOT NULL CHECK (up_to BETWEEN 0 AND 1000000),
      currency text NOT NULL CHECK (currency ~ '^[A-Z]{3}$'),
      who text NOT NULL CHECK (length(who) BETWEEN 1 AND 80),
      how text NOT NULL CHECK (how IN ('in-person', 'phone', 'message', 'signed')),
      note text,
      at timestamptz NOT NULL,
      by_name text NOT NULL,
      withdrawn boolean NOT NULL DEFAULT false,
      PRIMARY KEY (shop_id, job_id, id),
      UNIQUE (shop_id, job_id, position),
      FOREIGN KEY (shop_id, job_id, verdict_id) REFERENCES verdicts (shop_id, job_id, id)
    );
    CREATE UNIQUE INDEX one_standing_approval ON approvals (shop_id, job_id, verdict_id) WHERE NOT withdrawn;

    CREATE TABLE photo_files (
      shop_id uuid NOT NULL,
      job_id uuid NOT NULL,
      sha256 text NOT NULL CHECK (sha256 ~ '^[0-9a-f]{64}$'),
      width integer NOT NULL CHECK (width > 0),
      height integer NOT NULL CHECK (height > 0),
      content bytea NOT NULL,
      received_at timestamptz NOT NULL DEFAULT now(),
      PRIMARY KEY (shop_id, job_id, sha256),
      FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id)
    );

    CREATE TABLE photos (
      shop_id uuid NOT NULL,
      job_id uuid NOT NULL,
      id uuid NOT NULL,
      position integer NOT NULL,
      sha256 text NOT NULL,
      width integer NOT NULL,
      height integer NOT NULL,
      bytes integer NOT NULL,
      caption text NOT NULL CHECK (length(caption) <= 160),
      at timestamptz NOT NULL,
      by_name text NOT NULL,
      retracted boolean NOT NULL DEFAULT false,
      PRIMARY KEY (shop_id, job_id, id),
      UNIQUE (shop_id, job_id, position),
      FOREIGN KEY (shop_id, job_id, sha256) REFERENCES photo_files (shop_id, job_id, sha256)
    );

    CREATE TABLE shop_commands (
      shop_id uuid NOT NULL REFERENCES shops,
      seq integer NOT NULL CHECK (seq > 0),
      id uuid NOT NULL,
      type text NOT NULL,
      version integer NOT NULL,
      base_seq integer NOT NULL CHECK (base_seq >= 0),
      at timestamptz NOT NULL,
      received_at timestamptz NOT NULL DEFAULT now(),
      person_id uuid NOT NULL,
      matters text[] NOT NULL,
      payload jsonb NOT NULL,
      content_hash text NOT NULL,
      PRIMARY KEY (shop_id, seq),
      UNIQUE (shop_id, id),
      FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
    );
  `);
  for (const table of TABLES) {
    await knex.raw(`
      ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
      CREATE POLICY ${table}_of_shop ON ${table} USING (shop_id = current_shop()) WITH CHECK (shop_id = current_shop());
      GRANT SELECT, INSERT, UPDATE ON ${table} TO surrik_app;
    `);
  }
  await knex.raw(`
    REVOKE UPDATE ON shop_commands, photo_files FROM surrik_app;
    GRANT UPDATE (settings, instruments, seq) ON shops TO surrik_app;
  `);
}

/** Refuses while there is anything the older schema has no place for. */
export async function down(knex: Knex): Promise<void> {
  for (const table of ['approvals', 'photos', 'shop_commands']) {
    if (await knex(table).first()) throw new Error(`${table} is not empty: going back would lose what is in it`);
  }
  await knex.raw(`
    ALTER TABLE observations DROP CONSTRAINT observations_seen_check;
    ALTER TABLE observations DROP COLUMN "values";
    ALTER TABLE observations ALTER COLUMN answer TYPE boolean USING (answer = 'yes');
    ALTER TABLE observations ADD CONSTRAINT observations_seen_check CHECK ((kind = 'seen') = (what IS NOT NULL AND answer IS NOT NULL));
    DROP TABLE photos, photo_files, approvals, shop_commands;
    ALTER TABLE jobs DROP COLUMN intake, DROP COLUMN came_back, DROP COLUMN instruments, DROP COLUMN meter;
    ALTER TABLE rigs DROP COLUMN identity;
    REVOKE UPDATE (settings, instruments, seq) ON shops FROM surrik_app;
    ALTER TABLE shops DROP COLUMN settings, DROP COLUMN instruments, DROP COLUMN seq;
  `);
}
