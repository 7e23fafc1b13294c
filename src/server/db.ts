/** Connections. The app role sees nothing until a transaction names its shop. */
import knexModule, { type Knex } from 'knex';
import pg from 'pg';
import { serverConfig } from './config';

// A DATE stays the text it is: no time zone may move it.
pg.types.setTypeParser(1082, (v: string) => v);

const holder = globalThis as { surrikDb?: Knex };

/** The app role's pool, one a process (kept on globalThis: the bundler may load this module twice). */
export function appDb(): Knex {
  holder.surrikDb ??= connect(serverConfig().database, 'surrik_app', serverConfig().appPassword);
  return holder.surrikDb;
}

export function connect(database: { host: string; port: number; name: string }, user: string, password: string): Knex {
  return knexModule({
    client: 'pg',
    connection: { host: database.host, port: database.port, database: database.name, user, password },
    pool: { min: 0, max: 8 },
    acquireConnectionTimeout: 8000,
  });
}

/** Runs `work` in a transaction that sees one shop. */
export function withShop<T>(db: Knex, shopId: string, work: (tx: Knex.Transaction) => Promise<T>): Promise<T> {
  return db.transaction(async (tx) => {
    await tx.raw(`SELECT set_config('surrik.shop', ?, true)`, [shopId]);
    return work(tx);
  });
}
