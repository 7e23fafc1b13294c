/** How far a build is: what is there, what is done, in which order. */
import type { Knex } from 'knex';

export async function up(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE jobs ADD COLUMN build jsonb');
}

/** Refuses while there is anything the older schema has no place for. */
export async function down(knex: Knex): Promise<void> {
  if (await knex('jobs').whereNotNull('build').first())
    throw new Error('jobs have builds under way: going back would lose what is done');
  await knex.raw('ALTER TABLE jobs DROP COLUMN build');
}
