/** From proof to history: checks, signatures, follow-ups, bookings, changes of plan, logs, the hunt for a drain. */
import type { Knex } from 'knex';

export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `ALTER TABLE jobs ADD COLUMN checks jsonb NOT NULL DEFAULT '[]', ADD COLUMN sign_offs ` +
      `jsonb NOT NULL DEFAULT '[]', ADD COLUMN follow_ups jsonb NOT NULL DEFAULT '[]', ADD ` +
      `COLUMN bookings jsonb NOT NULL DEFAULT '[]', ADD COLUMN plan_changes jsonb NOT NULL ` +
      `DEFAULT '[]', ADD COLUMN logs jsonb NOT NULL DEFAULT '[]', ADD COLUMN hunt jsonb`,
  );
  await knex.raw('ALTER TABLE revisions ADD COLUMN reason text');
  await knex.raw('ALTER TABLE photos ADD COLUMN step text');
}

/** Refuses while there is anything the older schema has no place for. */
export async function down(knex: Knex): Promise<void> {
  if (
    await knex('jobs')
      .whereRaw(
        'jsonb_array_length(checks) + jsonb_array_length(sign_offs) + ' +
          'jsonb_array_length(follow_ups) + jsonb_array_length(bookings) + ' +
          'jsonb_array_length(plan_changes) + jsonb_array_length(logs) > 0 OR hunt IS NOT NULL',
      )
      .first()
  )
    throw new Error('jobs have checks, signatures, follow-ups, bookings or logs: going back would lose them');
  if (await knex('photos').whereNotNull('step').first())
    throw new Error('photos belong to steps of a build: going back would lose which');
  await knex.raw('ALTER TABLE photos DROP COLUMN step');
  await knex.raw('ALTER TABLE revisions DROP COLUMN reason');
  await knex.raw(
    'ALTER TABLE jobs DROP COLUMN checks, DROP COLUMN sign_offs, DROP COLUMN follow_ups, ' +
      'DROP COLUMN bookings, DROP COLUMN plan_changes, DROP COLUMN logs, DROP COLUMN hunt',
  );
}
