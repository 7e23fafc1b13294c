/** Checks beside the readings, signatures, why a signed record was opened again, which step a photo shows. */
import type { Knex } from 'knex';

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`ALTER TABLE jobs ADD COLUMN checks jsonb NOT NULL DEFAULT '[]', ADD COLUMN sign_offs jsonb NOT NULL DEFAULT '[]'`);
  await knex.raw('ALTER TABLE revisions ADD COLUMN reason text');
  await knex.raw('ALTER TABLE photos ADD COLUMN step text');
}

/** Refuses while there is anything the older schema has no place for. */
export async function down(knex: Knex): Promise<void> {
  if (await knex('jobs').whereRaw('jsonb_array_length(checks) + jsonb_array_length(sign_offs) > 0').first()) throw new Error('jobs have checks or signatures: going back would lose them');
  if (await knex('photos').whereNotNull('step').first()) throw new Error('photos belong to steps of a build: going back would lose which');
  await knex.raw('ALTER TABLE photos DROP COLUMN step');
  await knex.raw('ALTER TABLE revisions DROP COLUMN reason');
  await knex.raw('ALTER TABLE jobs DROP COLUMN checks, DROP COLUMN sign_offs');
}
