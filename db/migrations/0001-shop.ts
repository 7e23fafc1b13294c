/**
 * The first schema: a shop's people, customers, rigs, jobs and everything kept about a job.
 *
 * Every table carries shop_id, every reference carries it too, and row-level security lets the app role see
 * one shop at a time: the one named by the transaction's `surrik.shop`. The app role has no way round it.
 */
import type { Knex } from 'knex';

const TABLES = [
  'people',
  'sessions',
  'customers',
  'rigs',
  'jobs',
  'revisions',
  'commands',
  'readings',
  'observations',
  'verdicts',
  'repairs',
] as const;

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE FUNCTION current_shop() RETURNS uuid LANGUAGE sql STABLE AS
      $$ SELECT nullif(current_setting('surrik.shop', true), '')::uuid $$;

    CREATE TABLE shops (
      id uuid PRIMARY KEY,
      name text NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
      demo boolean NOT NULL DEFAULT false,
      created_at timestamptz NOT NULL DEFAULT now()
    );

    CREATE TABLE people (
      shop_id uuid NOT NULL REFERENCES shops,
      id uuid NOT NULL,
      handle text NOT NULL UNIQUE CHECK (handle ~ '^[a-z0-9][a-z0-9._@-]{1,59}$'),
      name text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
      role text NOT NULL CHECK (role IN ('technician', 'front-desk')),
      password_hash text NOT NULL,
      active boolean NOT NULL DEFAULT true,
      PRIMARY KEY (shop_id, id)
    );

    CREATE TABLE sessions (
      shop_id uuid NOT NULL,
      id uuid NOT NULL,
      person_id uuid NOT NULL,
      created_at timestamptz NOT NULL DEFAULT now(),
      expires_at timestamptz NOT NULL,
      ended_at timestamptz,
      PRIMARY KEY (shop_id, id),
      FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id),
      CHECK (expires_at > created_at)
    );

    CREATE TABLE customers (
      shop_id uuid NOT NULL REFERENCES shops,
      id uuid NOT NULL,
      name text NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
      contact text NOT NULL DEFAULT '',
      PRIMARY KEY (shop_id, id)
    );

    CREATE TABLE rigs (
      shop_id uuid NOT NULL REFERENCES shops,
      id text NOT NULL CHECK (id ~ '^[a-z][a-z0-9-]{0,59}$'),
      nickname text NOT NULL CHECK (length(nickname) BETWEEN 1 AND 60),
      customer_id uuid,
      PRIMARY KEY (shop_id, id),
      FOREIGN KEY (shop_id, customer_id) REFERENCES customers (shop_id, id)
    );

    CREATE TABLE jobs (
      shop_id uuid NOT NULL,
      id uuid NOT NULL,
      number integer NOT NULL CHECK (number > 0),
      rig_id text NOT NULL,
      status text NOT NULL CHECK (status IN ('waiting', 'in-the-bay', 'waiting-approval', 'waiting-parts', 'done')),
      complaint_codes text[] NOT NULL DEFAULT '{}',
      complaint_words text NOT NULL DEFAULT '',
      rig_state text NOT NULL,
      rig_state_since timestamptz NOT NULL,
      black_lead text NOT NULL,
      seq integer NOT NULL DEFAULT 0 CHECK (seq >= 0),
      changed_at timestamptz NOT NULL DEFAULT now(),
      PRIMARY KEY (shop_id, id),
      UNIQUE (shop_id, number),
      FOREIGN KEY (shop_id, rig_id) REFERENCES rigs (shop_id, id)
    );
    CREATE INDEX jobs_by_status ON jobs (shop_id, status, number);

    CREATE TABLE revisions (
      shop_id uuid NOT NULL,
      job_id uuid NOT NULL,
      id uuid NOT NULL,
      position integer NOT NULL,
      kind text NOT NULL CHECK (kind IN ('as-found', 'proposed', 'as-built')),
      parent_id uuid,
      epoch integer NOT NULL CHECK (epoch >= 0),
      at timestamptz NOT NULL,
      withdrawn boolean NOT NULL DEFAULT false,
      doc jsonb NOT NULL,
      PRIMARY KEY (shop_id, job_id, id),
      UNIQUE (shop_id, job_id, position),
      FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
      FOREIGN KEY (shop_id, job_id, parent_id) REFERENCES revisions (shop_id, job_id, id)
    );

    CREATE TABLE commands (
      shop_id uuid NOT NULL,
      job_id uuid NOT NULL,
      seq integer NOT NULL CHECK (seq > 0),
      id uuid NOT NULL,
      type text NOT NULL,
      version integer NOT NULL,
      base_seq integer NOT NULL CHECK (base_seq >= 0),
      at timestamptz NOT NULL,
      received_at timestamptz NOT NULL DEFAULT now(),
      person_id uuid NOT NULL,
      matter text,
      payload jsonb NOT NULL,
      content_hash text NOT NULL,
      PRIMARY KEY (shop_id, job_id, seq),
      UNIQUE (shop_id, id),
      FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
      FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
    );
    CREATE INDEX commands_by_matter ON commands (shop_id, job_id, matter, seq) WHERE matter IS NOT NULL;

    CREATE TABLE readings (
      shop_id uuid NOT NULL,
      job_id uuid NOT NULL,
      id uuid NOT NULL,
      position integer NOT NULL,
      epoch integer NOT NULL,
      state text NOT NULL,
      probe text NOT NULL,
      ref text,
      status text NOT NULL CHECK (status IN ('measured', 'overload', 'cannot-reach')),
      value double precision CHECK (value BETWEEN -2000 AND 2000),
      unit text NOT NULL CHECK (unit IN ('V', 'A')),
      seconds_in_state double precision NOT NULL CHECK (seconds_in_state >= 0),
      meter text,
      taken_at timestamptz NOT NULL,
      received_at timestamptz NOT NULL DEFAULT now(),
      by_name text NOT NULL,
      retracted boolean NOT NULL DEFAULT false,
      PRIMARY KEY (shop_id, job_id, id),
      UNIQUE (shop_id, job_id, position),
      FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id),
      CHECK ((status = 'measured') = (value IS NOT NULL))
    );
    CREATE INDEX readings_by_probe ON readings (shop_id, probe, state, taken_at);

    CREATE TABLE observations (
      shop_id uuid NOT NULL,
      job_id uuid NOT NULL,
      id uuid NOT NULL,
      position integer NOT NULL,
      epoch integer NOT NULL,
      kind text NOT NULL CHECK (kind IN ('note')),
      text text NOT NULL CHECK (length(text) BETWEEN 1 AND 2000),
      at timestamptz NOT NULL,
      by_name text NOT NULL,
      retracted boolean NOT NULL DEFAULT false,
      PRIMARY KEY (shop_id, job_id, id),
      UNIQUE (shop_id, job_id, position),
      FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id)
    );

    CREATE TABLE verdicts (
      shop_id uuid NOT NULL,
      job_id uuid NOT NULL,
      id uuid NOT NULL,
      position integer NOT NULL,
      epoch integer NOT NULL,
      fault text NOT NULL,
      name text NOT NULL,
      repair text NOT NULL,
      probability double precision NOT NULL CHECK (probability BETWEEN 0 AND 1),
      settled boolean NOT NULL,
      at timestamptz NOT NULL,
      by_name text NOT NULL,
      withdrawn boolean NOT NULL DEFAULT false,
      PRIMARY KEY (shop_id, job_id, id),
      UNIQUE (shop_id, job_id, position),
      FOREIGN KEY (shop_id, job_id) REFERENCES jobs (shop_id, id)
    );
    CREATE UNIQUE INDEX one_standing_verdict ON verdicts (shop_id, job_id, epoch) WHERE NOT withdrawn;

    CREATE TABLE repairs (
      shop_id uuid NOT NULL,
      job_id uuid NOT NULL,
      id uuid NOT NULL,
      position integer NOT NULL,
      verdict_id uuid NOT NULL,
      revision_id uuid NOT NULL,
      did text NOT NULL CHECK (length(did) BETWEEN 1 AND 400),
      at timestamptz NOT NULL,
      by_name text NOT NULL,
      withdrawn boolean NOT NULL DEFAULT false,
      PRIMARY KEY (shop_id, job_id, id),
      UNIQUE (shop_id, job_id, position),
      FOREIGN KEY (shop_id, job_id, verdict_id) REFERENCES verdicts (shop_id, job_id, id),
      FOREIGN KEY (shop_id, job_id, revision_id) REFERENCES revisions (shop_id, job_id, id)
    );
    CREATE UNIQUE INDEX one_standing_repair ON repairs (shop_id, job_id, verdict_id) WHERE NOT withdrawn;
  `);

  for (const table of TABLES) {
    await knex.raw(`
      ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
      CREATE POLICY ${table}_of_shop ON ${table} USING (shop_id = current_shop()) WITH CHECK (shop_id = current_shop());
      GRANT SELECT, INSERT, UPDATE ON ${table} TO surrik_app;
    `);
  }
  await knex.raw(`
    ALTER TABLE shops ENABLE ROW LEVEL SECURITY;
    CREATE POLICY own_shop ON shops USING (id = current_shop());
    GRANT SELECT ON shops TO surrik_app;
    -- What was said is never unsaid: commands are only ever added.
    REVOKE UPDATE ON commands FROM surrik_app;

    -- Before sign-in no shop is known: this one question may be asked without one.
    CREATE FUNCTION sign_in_of(wanted text)
      RETURNS TABLE (shop_id uuid, person_id uuid, password_hash text, demo boolean)
      LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp AS $$
        SELECT p.shop_id, p.id, p.password_hash, s.demo FROM people p JOIN shops s ON s.id = p.shop_id
        WHERE p.handle = wanted AND p.active
      $$;
    REVOKE ALL ON FUNCTION sign_in_of(text) FROM PUBLIC;
    GRANT EXECUTE ON FUNCTION sign_in_of(text) TO surrik_app;
    GRANT EXECUTE ON FUNCTION current_shop() TO surrik_app;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP FUNCTION sign_in_of(text);
    DROP TABLE repairs, verdicts, observations, readings, commands, revisions, jobs, rigs, customers, sessions, people, shops;
    DROP FUNCTION current_shop();
  `);
}
