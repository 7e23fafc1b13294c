/** What was seen and heard: a question answered yes or no, beside the notes. */
import type { Knex } from 'knex';

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE observations
      DROP CONSTRAINT observations_kind_check,
      ADD COLUMN what text,
      ADD COLUMN answer boolean,
      ADD CONSTRAINT observations_kind_check CHECK (kind IN ('note', 'seen')),
      ADD CONSTRAINT observations_seen_check CHECK ((kind = 'seen') = (what IS NOT NULL AND answer IS NOT NULL));
  `);
}

/** Refuses while answers stand: they would be lost. */
export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE observations
      DROP CONSTRAINT observations_seen_check,
      DROP CONSTRAINT observations_kind_check,
      DROP COLUMN what,
      DROP COLUMN answer,
      ADD CONSTRAINT observations_kind_check CHECK (kind IN ('note'));
  `);
}
