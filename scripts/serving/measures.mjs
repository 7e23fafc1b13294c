/**
 * What is kept of every request: a line in the log, and a time in the metrics, both without names, searches or tokens.
 * Metrics are in the Prometheus text format (its documentation, "Exposition formats").
 */
import cluster from 'node:cluster';
import { AggregatorRegistry, collectDefaultMetrics, Histogram, Registry } from 'prom-client';
import { metricsOfAll } from './many.mjs';

/** First parts of the addresses there are; any other is somebody trying. */
const KNOWN = new Set([
  '',
  'api',
  'jobs',
  'sign-in',
  'shop',
  'people',
  'calendar',
  'calculators',
  'metrics',
  'me',
  'switch',
  'invitation',
]);
const QUIET = /^\/(_next|fonts|icon|favicon|api\/(health|ready|metrics))/;

/** The address with everything that names one thing left out: what is left is a kind of request. */
export function kindOf(url) {
  const path = url.split('?', 1)[0];
  if (path.startsWith('/_next/')) return '/_next';
  const parts = path.split('/').slice(1);
  if (!KNOWN.has(parts[0])) return 'other';
  return `/${parts
    .slice(0, 5)
    .map((p) => (/^\d+$/.test(p) ? ':n' : /^[a-z][a-z.-]{0,19}$/.test(p) || p === '' ? p : ':id'))
    .join('/')}`;
}

/** Streams last as long as their page: their times say nothing. */
const STREAM = /^\/api\/live\b/;

export function measures(log) {
  const registry = new Registry();
  if (cluster.isWorker) {
    // The first process asks every one, and adds up what they say.
    new AggregatorRegistry();
    AggregatorRegistry.setRegistries([registry]);
  }
  collectDefaultMetrics({ register: registry });
  const seconds = new Histogram({
    name: 'surrik_request_seconds',
    help: 'Time to a request’s whole answer.',
    labelNames: ['method', 'kind', 'status'],
    buckets: [0.01, 0.03, 0.1, 0.3, 1, 3, 10, 30],
    registers: [registry],
  });
  return {
    text: () => (cluster.isWorker ? metricsOfAll() : registry.metrics()),
    type: registry.contentType,
    /** Begins with the request, and is done with its answer or its end. */
    follow(request, response) {
      if (STREAM.test(request.url)) return;
      const began = process.hrtime.bigint();
      const kind = kindOf(request.url);
      const quiet = QUIET.test(request.url);
      const job = /^\/(?:api\/)?jobs\/(\d{1,7})\b/.exec(request.url)?.[1];
      response.once('close', () => {
        const took = Number(process.hrtime.bigint() - began) / 1e9;
        const cut = !response.writableFinished;
        seconds.observe({ method: request.method, kind, status: cut ? 'cut' : String(response.statusCode) }, took);
        if (quiet && response.statusCode < 500) return;
        log.info(
          {
            method: request.method,
            kind,
            ...(job ? { job: Number(job) } : {}),
            status: response.statusCode,
            ms: Math.round(took * 1000),
            ...(cut ? { cut: true } : {}),
          },
          'request',
        );
      });
    },
  };
}
