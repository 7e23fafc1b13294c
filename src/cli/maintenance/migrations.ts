/** The shape of the data: what is pending, done, and known of a dump that was read back. */
import { MIGRATIONS, migrationSource } from '../../../db/migrations';
import { owner, asOwner } from './owner';

/** Migrations not yet run; one runner at a time. */
export async function migrate(checkOnly: boolean): Promise<void> {
  const { db } = owner();
  try {
    const [, pending] = (await db.migrate.list({ migrationSource })) as [unknown[], unknown[]];
    if (checkOnly) {
      console.log(pending.length);
      return;
    }
    await db.migrate.latest({ migrationSource });
    if (pending.length > 0) console.log(`migrated: ${pending.length} step${pending.length === 1 ? '' : 's'}`);
  } finally {
    await db.destroy();
  }
}

/** What a database that was read back holds, in words. Ends with 4 where a newer Surrik made it. */
export async function holds(): Promise<void> {
  await asOwner(async (db) => {
    const done = (await db('knex_migrations').select('name')) as { name: string }[];
    const known = new Set(MIGRATIONS.map(([name]) => name));
    const newer = done.filter((m) => !known.has(m.name));
    if (newer.length > 0) {
      console.error(`it has ${newer.map((m) => m.name).join(', ')}, which this Surrik does not know`);
      process.exitCode = 4;
      return;
    }
    const count = async (table: string) => Number(((await db(table).count('* as n').first()) as { n: string }).n);
    const [shops, jobs, readings, commands] = [
      await count('shops'),
      await count('jobs'),
      await count('readings'),
      await count('commands'),
    ];
    console.log(`${shops} shops, ${jobs} jobs, ${readings} readings, ${commands} entries`);
  });
}
