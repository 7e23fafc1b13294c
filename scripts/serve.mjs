/**
 * Serves the built application. Told by the environment, which the surrik command sets: SURRIK_LISTEN, SURRIK_PORT,
 * SURRIK_HOSTS (names separated by commas), SURRIK_CERT and SURRIK_KEY (files; both or none), SURRIK_APPS (processes
 * behind the port; one where it is not said).
 */
import cluster from 'node:cluster';
import { pino, stdTimeFunctions } from 'pino';

const apps = Number(process.env.SURRIK_APPS ?? 1);
if (apps > 1 && cluster.isPrimary) {
  const { serveMany } = await import('./serving/many.mjs');
  serveMany(apps, pino({ base: null, timestamp: stdTimeFunctions.isoTime }));
} else await import('./serving/one.mjs');
