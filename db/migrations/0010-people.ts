/**
 * Who works in a shop and what each may do; invitations that are used once; and tries at signing in, counted where every
 * process sees them.
 */
import type { Knex } from 'knex';

const ROLES = ['owner', 'lead', 'technician', 'apprentice', 'front-desk', 'viewer'];

export async function up(knex: Knex): Promise<void> {
  const list = ROLES.map((r) => `'${r}'`).join(', ');
  await knex.raw(`
    ALTER TABLE people DROP CONSTRAINT people_role_check;
    ALTER TABLE people ADD CONSTRAINT people_role_check CHECK (role IN (${list}));
    ALTER TABLE people ADD COLUMN since timestamptz NOT NULL DEFAULT now();
    -- Until now everyone could do everything: nobody loses a right, and each shop has somebody who may give them.
    UPDATE people SET role = 'lead' WHERE role = 'technician';
    UPDATE people p SET role = 'owner'
      WHERE p.role = 'lead' AND p.active
        AND NOT EXISTS (SELECT FROM people o WHERE o.shop_id = p.shop_id AND o.active AND o.role = 'lead' AND o.handle < p.handle);

    CREATE TABLE invitations (
      shop_id uuid NOT NULL,
      id uuid NOT NULL,
      person_id uuid NOT NULL,
      token_hash text NOT NULL UNIQUE CHECK (token_hash ~ '^[0-9a-f]{64}$'),
      made_at timestamptz NOT NULL DEFAULT now(),
      expires_at timestamptz NOT NULL,
      used_at timestamptz,
      PRIMARY KEY (shop_id, id),
      FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
    );
    ALTER TABLE invitations ENABLE ROW LEVEL SECURITY;
    CREATE POLICY invitations_of_shop ON invitations USING (shop_id = current_shop()) WITH CHECK (shop_id = current_shop());
    GRANT SELECT, INSERT, UPDATE ON invitations TO surrik_app;

    -- Who opens an invitation knows no shop yet: this one question may be asked without one.
    CREATE FUNCTION invitation_of(wanted text)
      RETURNS TABLE (shop_id uuid, id uuid, person_id uuid, name text, handle text, shop text)
      LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp AS $$
        SELECT i.shop_id, i.id, i.person_id, p.name, p.handle, s.name
        FROM invitations i
        JOIN people p ON p.shop_id = i.shop_id AND p.id = i.person_id
        JOIN shops s ON s.id = i.shop_id
        WHERE i.token_hash = wanted AND i.used_at IS NULL AND i.expires_at > now() AND p.active
      $$;
    REVOKE ALL ON FUNCTION invitation_of(text) FROM PUBLIC;
    GRANT EXECUTE ON FUNCTION invitation_of(text) TO surrik_app;

    -- What people did to people: kept as the commands of a job are.
    CREATE TABLE people_acts (
      shop_id uuid NOT NULL,
      id uuid NOT NULL,
      at timestamptz NOT NULL DEFAULT now(),
      by_id uuid NOT NULL,
      person_id uuid NOT NULL,
      act text NOT NULL CHECK (length(act) BETWEEN 1 AND 120),
      PRIMARY KEY (shop_id, id),
      FOREIGN KEY (shop_id, by_id) REFERENCES people (shop_id, id),
      FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id)
    );
    CREATE INDEX people_acts_by_time ON people_acts (shop_id, at);
    ALTER TABLE people_acts ENABLE ROW LEVEL SECURITY;
    CREATE POLICY people_acts_of_shop ON people_acts USING (shop_id = current_shop()) WITH CHECK (shop_id = current_shop());
    GRANT SELECT, INSERT ON people_acts TO surrik_app;

    -- Who is behind a session: asked at every request, in one step.
    CREATE FUNCTION actor_of(shop uuid, session uuid, person uuid)
      RETURNS TABLE (name text, role text)
      LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp AS $$
        SELECT p.name, p.role FROM sessions s JOIN people p ON p.shop_id = s.shop_id AND p.id = s.person_id
        WHERE s.shop_id = shop AND s.id = session AND p.id = person AND p.active
          AND s.ended_at IS NULL AND s.expires_at > now()
      $$;
    REVOKE ALL ON FUNCTION actor_of(uuid, uuid, uuid) FROM PUBLIC;
    GRANT EXECUTE ON FUNCTION actor_of(uuid, uuid, uuid) TO surrik_app;

    -- Keys are hashes of names and addresses: the table says nothing of anybody. The app reaches it by functions only.
    CREATE TABLE sign_in_tries (
      key text PRIMARY KEY CHECK (key ~ '^[0-9a-f]{64}$'),
      tries integer NOT NULL,
      last_at timestamptz NOT NULL DEFAULT now(),
      shut_until timestamptz NOT NULL DEFAULT '-infinity'
    );
    -- Counts a try under each key before it is looked at, so that many at once are counted too. Seconds to wait: 0 where it may go on.
    CREATE FUNCTION sign_in_try(keys text[], free integer[], longest integer)
      RETURNS integer LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
      DECLARE wait integer := 0; k integer; t integer; shut timestamptz;
      BEGIN
        DELETE FROM sign_in_tries WHERE last_at < now() - interval '1 day' AND shut_until < now();
        SELECT coalesce(max(ceil(extract(epoch FROM shut_until - now()))), 0)::integer INTO wait
          FROM sign_in_tries WHERE key = ANY (keys) AND shut_until > now();
        IF wait > 0 THEN RETURN wait; END IF;
        FOR k IN 1 .. array_length(keys, 1) LOOP
          INSERT INTO sign_in_tries AS s (key, tries) VALUES (keys[k], 1)
            ON CONFLICT (key) DO UPDATE SET tries = s.tries + 1, last_at = now()
            RETURNING tries, shut_until INTO t, shut;
          -- Two that came together: the second sees that the first has shut the door.
          IF shut > now() THEN wait := greatest(wait, ceil(extract(epoch FROM shut - now()))::integer); END IF;
          IF t >= free[k] THEN
            UPDATE sign_in_tries SET shut_until = now() + make_interval(secs => least(longest, 15 * power(2, least(t - free[k], 10))))
              WHERE key = keys[k];
          END IF;
        END LOOP;
        RETURN wait;
      END $$;
    -- It was the right person: what was counted of the name is forgotten, and of the address this one try.
    CREATE FUNCTION sign_in_succeeded(names text[], addresses text[])
      RETURNS void LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS $$
        DELETE FROM sign_in_tries WHERE key = ANY (names);
        UPDATE sign_in_tries SET tries = greatest(0, tries - 1) WHERE key = ANY (addresses);
      $$;
    REVOKE ALL ON FUNCTION sign_in_try(text[], integer[], integer) FROM PUBLIC;
    REVOKE ALL ON FUNCTION sign_in_succeeded(text[], text[]) FROM PUBLIC;
    GRANT EXECUTE ON FUNCTION sign_in_try(text[], integer[], integer) TO surrik_app;
    GRANT EXECUTE ON FUNCTION sign_in_succeeded(text[], text[]) TO surrik_app;
  `);
}

/** Refuses while there is anything the older schema has no place for. */
export async function down(knex: Knex): Promise<void> {
  if (await knex('people').whereIn('role', ['apprentice', 'viewer']).first('id'))
    throw new Error('there are apprentices or viewers: going back would let them do everything');
  await knex.raw(`
    DROP FUNCTION actor_of(uuid, uuid, uuid);
    DROP FUNCTION sign_in_succeeded(text[], text[]);
    DROP FUNCTION sign_in_try(text[], integer[], integer);
    DROP TABLE sign_in_tries;
    DROP FUNCTION invitation_of(text);
    DROP TABLE people_acts, invitations;
    ALTER TABLE people DROP COLUMN since;
    ALTER TABLE people DROP CONSTRAINT people_role_check;
    UPDATE people SET role = 'technician' WHERE role IN ('owner', 'lead');
    ALTER TABLE people ADD CONSTRAINT people_role_check CHECK (role IN ('technician', 'front-desk'));
  `);
}
