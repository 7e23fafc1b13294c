/** How the rig of a job is used, and which link was picked for it. */
import type { Knex } from 'knex';

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE jobs
      ADD COLUMN usage jsonb NOT NULL DEFAULT '{"scenarios": []}',
      ADD COLUMN choices jsonb NOT NULL DEFAULT '[]';
  `);
}

/** Refuses while there is anything the older schema has no place for. */
export async function down(knex: Knex): Promise<void> {
  if (
    await knex('jobs')
      .whereRaw(`jsonb_array_length(usage -> 'scenarios') > 0 OR jsonb_array_length(choices) > 0`)
      .first()
  )
    throw new Error('jobs have scenarios or picks: going back would lose what is in them');
  await knex.raw('ALTER TABLE jobs DROP COLUMN usage, DROP COLUMN choices');
}
