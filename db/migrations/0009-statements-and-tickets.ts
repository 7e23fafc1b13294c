/** What a verdict and an approval were made on; and the board's ticket of a job, written when the job is. */
import type { Knex } from 'knex';

export async function up(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE verdicts ADD COLUMN covers jsonb');
  await knex.raw('ALTER TABLE approvals ADD COLUMN covers jsonb');
  // NULL until the job is next written, or the board first asks for it.
  await knex.raw('ALTER TABLE jobs ADD COLUMN ticket jsonb');
  await knex.raw('CREATE INDEX jobs_by_rig ON jobs (shop_id, rig_id, number)');
}

/** Refuses while there is anything the older schema has no place for. */
export async function down(knex: Knex): Promise<void> {
  for (const table of ['verdicts', 'approvals'])
    if (await knex(table).whereNotNull('covers').first())
      throw new Error(`${table} say what they were made on: going back would lose it`);
  await knex.raw('DROP INDEX jobs_by_rig');
  await knex.raw('ALTER TABLE jobs DROP COLUMN ticket');
  await knex.raw('ALTER TABLE approvals DROP COLUMN covers');
  await knex.raw('ALTER TABLE verdicts DROP COLUMN covers');
}
