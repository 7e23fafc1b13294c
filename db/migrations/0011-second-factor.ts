/**
 * A second factor by codes of the time, with codes for the day the phone is lost; and a PIN with which one takes a
 * tablet over where one has signed in before.
 */
import type { Knex } from 'knex';

const TABLES = ['second_factors', 'recovery_codes', 'pins', 'device_people'] as const;

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE second_factors (
      shop_id uuid NOT NULL,
      person_id uuid NOT NULL,
      -- Sealed under a key of the instance: a dump alone opens nothing.
      secret_sealed text NOT NULL,
      on_since timestamptz,
      -- The last thirty seconds of which a code was taken: none is taken twice.
      last_step bigint NOT NULL DEFAULT 0,
      PRIMARY KEY (shop_id, person_id),
      FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
    );

    CREATE TABLE recovery_codes (
      shop_id uuid NOT NULL,
      person_id uuid NOT NULL,
      code_hash text NOT NULL CHECK (code_hash ~ '^[0-9a-f]{64}$'),
      gone_at timestamptz,
      PRIMARY KEY (shop_id, person_id, code_hash),
      FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
    );

    CREATE TABLE pins (
      shop_id uuid NOT NULL,
      person_id uuid NOT NULL,
      pin_hash text,
      PRIMARY KEY (shop_id, person_id),
      FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
    );

    -- Who has signed in on a device with all that is asked of them: there, and for as long, a PIN is enough.
    CREATE TABLE device_people (
      shop_id uuid NOT NULL,
      device_id uuid NOT NULL,
      person_id uuid NOT NULL,
      until timestamptz NOT NULL,
      wrong integer NOT NULL DEFAULT 0 CHECK (wrong >= 0),
      PRIMARY KEY (shop_id, device_id, person_id),
      FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
    );
    CREATE INDEX device_people_by_person ON device_people (shop_id, person_id);

    DROP FUNCTION sign_in_of(text);
    CREATE FUNCTION sign_in_of(wanted text)
      RETURNS TABLE (shop_id uuid, person_id uuid, password_hash text, demo boolean, second boolean)
      LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp AS $$
        SELECT p.shop_id, p.id, p.password_hash, s.demo, f.on_since IS NOT NULL
        FROM people p JOIN shops s ON s.id = p.shop_id
        LEFT JOIN second_factors f ON f.shop_id = p.shop_id AND f.person_id = p.id
        WHERE p.handle = wanted AND p.active
      $$;
    REVOKE ALL ON FUNCTION sign_in_of(text) FROM PUBLIC;
    GRANT EXECUTE ON FUNCTION sign_in_of(text) TO surrik_app;
  `);
  for (const table of TABLES)
    await knex.raw(`
      ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
      CREATE POLICY ${table}_of_shop ON ${table} USING (shop_id = current_shop()) WITH CHECK (shop_id = current_shop());
      GRANT SELECT, INSERT, UPDATE ON ${table} TO surrik_app;
    `);
}

/** Refuses while anybody's sign-in asks for a code: going back would let a password alone in. */
export async function down(knex: Knex): Promise<void> {
  if (await knex('second_factors').whereNotNull('on_since').first('person_id'))
    throw new Error('somebody signs in with a second factor: going back would let a password alone in');
  await knex.raw(`
    DROP FUNCTION sign_in_of(text);
    CREATE FUNCTION sign_in_of(wanted text)
      RETURNS TABLE (shop_id uuid, person_id uuid, password_hash text, demo boolean)
      LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp AS $$
        SELECT p.shop_id, p.id, p.password_hash, s.demo FROM people p JOIN shops s ON s.id = p.shop_id
        WHERE p.handle = wanted AND p.active
      $$;
    REVOKE ALL ON FUNCTION sign_in_of(text) FROM PUBLIC;
    GRANT EXECUTE ON FUNCTION sign_in_of(text) TO surrik_app;
    DROP TABLE device_people, pins, recovery_codes, second_factors;
  `);
}
