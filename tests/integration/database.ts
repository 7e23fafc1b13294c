/** A database of its own for a test file, on the cluster that ./surrik test starts. */
import { readSecrets } from '../../src/server/config';
import { connect } from '../../src/server/db';
import { migrationSource } from '../../db/migrations';
import type { Knex } from 'knex';
import pg from 'pg';
import type { SignedIn, signIn } from '../../src/server/signIn';

export interface TestDatabase {
  name: string;
  owner: Knex;
  app: Knex;
  drop(): Promise<void>;
}

export async function testDatabase(): Promise<TestDatabase> {
  const base = process.env['SURRIK_BASE'];
  const port = Number(process.env['SURRIK_DB_PORT']);
  if (!base || !port) throw new Error('no test cluster: run these through ./surrik test');
  const secrets = readSecrets(base);
  const at = (name: string) => ({ host: '127.0.0.1', port, name });
  const name = `surrik_it_${process.pid}_${Math.floor(process.uptime() * 1e6)}`;
  const root = connect(at('postgres'), 'surrik_owner', secrets['OWNER_PASSWORD']!);
  await root.raw(`CREATE DATABASE ${name}`);
  const owner = connect(at(name), 'surrik_owner', secrets['OWNER_PASSWORD']!);
  await owner.migrate.latest({ migrationSource });
  const app = connect(at(name), 'surrik_app', secrets['APP_PASSWORD']!);
  return {
    name,
    owner,
    app,
    async drop() {
      await app.destroy();
      await owner.destroy();
      // The server ends a closed connection's process in its own time; the owner may not end the app's.
      for (let k = 0; ; k++) {
        try {
          await root.raw(`DROP DATABASE IF EXISTS ${name}`);
          break;
        } catch (e) {
          if (k === 40) throw e;
          await new Promise((r) => setTimeout(r, 100));
        }
      }
      await root.destroy();
    },
  };
}

/** A connection of the app role that a test hears by. */
export const hearing = (db: TestDatabase): pg.Client =>
  new pg.Client({
    host: '127.0.0.1',
    port: Number(process.env['SURRIK_DB_PORT']),
    database: db.name,
    user: 'surrik_app',
    password: readSecrets(process.env['SURRIK_BASE']!)['APP_PASSWORD']!,
    application_name: 'heard by a test',
  });

/** A sign-in that asks for nothing more. */
export async function whole(result: ReturnType<typeof signIn>): Promise<SignedIn> {
  const signedIn = await result;
  if ('half' in signedIn) throw new Error('a code is asked for');
  return signedIn;
}
