/**
 * How often somebody asked for something dear in the last while: counted here, so that every app process counts together.
 * Nothing is lost with it: it is not written through to the log of the database.
 */
import type { Knex } from 'knex';

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE UNLOGGED TABLE turns (
      shop_id uuid NOT NULL REFERENCES shops (id),
      person_id uuid NOT NULL,
      door text NOT NULL,
      began_at timestamptz NOT NULL DEFAULT now(),
      taken integer NOT NULL DEFAULT 1,
      PRIMARY KEY (shop_id, person_id, door),
      FOREIGN KEY (shop_id, person_id) REFERENCES people (shop_id, id) ON DELETE CASCADE
    );
    ALTER TABLE turns ENABLE ROW LEVEL SECURITY;
    CREATE POLICY turns_of_shop ON turns USING (shop_id = current_shop());
    GRANT SELECT ON turns TO surrik_app;
    -- Takes a turn at a door and gives the seconds to wait, none where it may be taken. A while begins with its first turn.
    CREATE FUNCTION take_turn(shop uuid, person uuid, at_door text, most integer, while_s integer)
      RETURNS integer LANGUAGE sql SECURITY DEFINER SET search_path = public, pg_temp AS $$
        INSERT INTO turns AS t (shop_id, person_id, door) VALUES (shop, person, at_door)
          ON CONFLICT (shop_id, person_id, door) DO UPDATE SET
            taken = CASE WHEN t.began_at <= now() - make_interval(secs => while_s) THEN 1 ELSE least(t.taken, most) + 1 END,
            began_at = CASE WHEN t.began_at <= now() - make_interval(secs => while_s) THEN now() ELSE t.began_at END
          RETURNING CASE WHEN taken <= most THEN 0
            ELSE greatest(1, ceil(extract(epoch FROM began_at + make_interval(secs => while_s) - now()))::integer) END
      $$;
    REVOKE ALL ON FUNCTION take_turn(uuid, uuid, text, integer, integer) FROM PUBLIC;
    GRANT EXECUTE ON FUNCTION take_turn(uuid, uuid, text, integer, integer) TO surrik_app;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP FUNCTION take_turn(uuid, uuid, text, integer, integer); DROP TABLE turns;');
}
