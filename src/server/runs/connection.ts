/** The queue of this instance, as the app role: its schema is made by migrations, and nothing is scheduled in it. */
import PgBoss from 'pg-boss';
import { serverConfig } from '../config';
import { log } from '../log';

/** @returns one that is not started yet */
export function queueOf(
  options: Pick<PgBoss.ConstructorOptions, 'max' | 'supervise'> & PgBoss.MaintenanceOptions,
): PgBoss {
  const { database, appPassword } = serverConfig();
  const boss = new PgBoss({
    host: database.host,
    port: database.port,
    database: database.name,
    user: 'surrik_app',
    password: appPassword,
    application_name: 'surrik queue',
    migrate: false,
    schedule: false,
    ...options,
  });
  boss.on('error', (err) => log.warn({ err }, 'the queue'));
  return boss;
}
