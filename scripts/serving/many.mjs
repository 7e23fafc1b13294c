/**
 * Several app processes behind one port. The first holds the port and hands what comes to one after another; it serves
 * nothing itself. One that ends or falls silent is replaced while the others go on. None holds anything that another
 * would miss: sessions, tries, jobs and changes are in the database.
 */
import cluster from 'node:cluster';
import { AggregatorRegistry } from 'prom-client';

/** ms between two signs of life of an app process, and without one after which it is ended and replaced. */
const BEAT_MS = 1000;
const SILENT_MS = 15_000;
/** ms before another takes the place of one that ended: one that cannot begin is not begun a hundred times a second. */
const AGAIN_MS = 300;
/** ms for all to finish what they began. */
const FINISH_MS = 10_000;
const METRICS_MS = 3000;

/** Of an app process: says that it is alive, for as long as it is. */
export function beat() {
  if (!cluster.isWorker) return;
  const say = () => process.connected && process.send('alive');
  say();
  setInterval(say, BEAT_MS).unref();
}

/** Of an app process: the measures of all of them together, added up by the first. */
export function metricsOfAll() {
  return new Promise((done, fail) => {
    const timer = setTimeout(() => over(fail, new Error('the first process does not answer')), METRICS_MS);
    const over = (end, value) => {
      clearTimeout(timer);
      process.off('message', hear);
      end(value);
    };
    const hear = (m) => m?.surrikMetrics !== undefined && over(done, m.surrikMetrics);
    process.on('message', hear);
    process.send('metrics');
  });
}

/** Begins so many, and sees to it that there are as many until it is told to stop. */
export function serveMany(count, log) {
  const metrics = new AggregatorRegistry();
  const heard = new Map();
  let stopping = false;
  const begin = () => {
    const app = cluster.fork();
    heard.set(app.id, Date.now());
    app.on('message', (m) => {
      if (m === 'alive') heard.set(app.id, Date.now());
      if (m === 'metrics')
        metrics.clusterMetrics().then(
          (text) => app.isConnected() && app.send({ surrikMetrics: text }),
          (err) => log.warn({ err }, 'an app process said nothing of its measures'),
        );
    });
  };
  cluster.on('exit', (app, code, signal) => {
    heard.delete(app.id);
    if (stopping) {
      if (heard.size === 0) process.exit(0);
      return;
    }
    log.warn({ app: app.process.pid, code, signal }, 'an app process has ended: another takes its place');
    setTimeout(() => stopping || begin(), AGAIN_MS);
  });
  setInterval(() => {
    for (const app of Object.values(cluster.workers)) {
      if (Date.now() - (heard.get(app.id) ?? 0) < SILENT_MS) continue;
      log.warn({ app: app.process.pid }, 'an app process says nothing any more: it is replaced');
      app.process.kill('SIGCONT');
      app.process.kill('SIGKILL');
    }
  }, BEAT_MS).unref();
  const stop = () => {
    if (stopping) return;
    stopping = true;
    for (const app of Object.values(cluster.workers)) app.process.kill('SIGTERM');
    setTimeout(() => process.exit(0), FINISH_MS).unref();
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
  for (let k = 0; k < count; k++) begin();
}
