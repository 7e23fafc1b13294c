/** Connections to this instance: the surrik command tells where. */
import type { Knex } from 'knex';
import { readSecrets } from '../../server/config';
import { connect } from '../../server/db';

function connection(role: 'surrik_owner' | 'surrik_app'): { db: Knex; secrets: Record<string, string> } {
  const base = process.env['SURRIK_BASE'];
  const port = Number(process.env['SURRIK_DB_PORT']);
  if (!base || !port) throw new Error('SURRIK_BASE and SURRIK_DB_PORT are not set: use ./surrik');
  const secrets = readSecrets(base);
  const name = process.env['SURRIK_DB_NAME'] ?? 'surrik';
  const password = secrets[role === 'surrik_owner' ? 'OWNER_PASSWORD' : 'APP_PASSWORD'] ?? '';
  return { db: connect({ host: '127.0.0.1', port, name }, role, password), secrets };
}

/** As the owner of the data, which no wall between shops holds. */
export const owner = () => connection('surrik_owner');

/** Work on the data as its owner; the connection is closed after it. */
export async function asOwner<T>(work: (db: Knex, secrets: Record<string, string>) => Promise<T>): Promise<T> {
  const { db, secrets } = owner();
  try {
    return await work(db, secrets);
  } finally {
    await db.destroy();
  }
}

/** Work as the app's role, which sees the one shop a transaction names: what is taken out passes the same walls. */
export async function asApp<T>(work: (db: Knex) => Promise<T>): Promise<T> {
  const { db } = connection('surrik_app');
  try {
    return await work(db);
  } finally {
    await db.destroy();
  }
}
