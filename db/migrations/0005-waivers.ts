/** Design rules somebody has set aside on a job, with the reason. */
import type { Knex } from 'knex';

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`ALTER TABLE jobs ADD COLUMN waivers jsonb NOT NULL DEFAULT '[]'`);
}

/** Refuses while there is anything the older schema has no place for. */
export async function down(knex: Knex): Promise<void> {
  if (await knex('jobs').whereRaw('jsonb_array_length(waivers) > 0').first())
    throw new Error('jobs have waivers: going back would lose their reasons');
  await knex.raw('ALTER TABLE jobs DROP COLUMN waivers');
}
