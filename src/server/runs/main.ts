/** One worker: takes up what was asked for on any app process, on any machine that reaches the database. */
import { closeSync, openSync, utimesSync } from 'node:fs';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { wrap } from 'comlink';
import nodeEndpoint from 'comlink/dist/umd/node-adapter';
import { serverConfig } from '../config';
import { connect } from '../db';
import { log } from '../log';
import { queueOf } from './connection';
import { Ear, earOfApp } from '../live/ear';
import { CALL, LIMITS, QUEUE, type Token } from './queue';
import type { Makers } from './thread';
import { Working, type RunThread } from './work';

/** In the making at once: a second shop never waits for the first. */
const AT_ONCE = 2;
const ALIVE_MS = 1000;
/** s between two looks where nobody calls. */
const LOOK_S = 0.5;
/** ms for what is being made when it is asked to stop; what is not done then, another begins anew. */
const FINISH_MS = 8000;

function begin(): RunThread {
  const worker = new Worker(new URL('./thread.mjs', import.meta.url));
  let over = false;
  const ended = new Promise<never>((_, reject) => {
    const ends = (reason: Error) => {
      over = true;
      reject(reason);
    };
    worker.on('error', ends);
    worker.on('exit', (code) => ends(new Error(`what makes papers ended with ${code}`)));
  });
  // Told to whoever waits; with nobody waiting there is nobody to tell.
  ended.catch(() => undefined);
  const makers = wrap<Makers>(nodeEndpoint(worker)) as unknown as Record<
    string,
    (...args: unknown[]) => Promise<unknown>
  >;
  return {
    make: (kind, args) => makers[kind]!(...args),
    ended,
    isOver: () => over,
    end: () => {
      over = true;
      void worker.terminate();
    },
  };
}

const { database, appPassword } = serverConfig();
const db = connect(database, 'surrik_app', appPassword);
const boss = queueOf({
  max: 3,
  maintenanceIntervalSeconds: 5,
  archiveCompletedAfterSeconds: 60,
  deleteAfterMinutes: 5,
});
await boss.start();
const working = new Working(db, boss, begin, LIMITS);
// Warmed before the first is asked for: the library, its fonts and the core take a second or two to read. One that is
// asked for meanwhile waits for it, which is sooner than to warm another.
const first = begin();
working.keep(first);
first.make('warm', []).catch((err: unknown) => log.warn({ err }, 'the PDF library could not be read beforehand'));
const hands: string[] = [];
for (let k = 0; k < AT_ONCE; k++)
  hands.push(
    await boss.work<Token>(QUEUE, { pollingIntervalSeconds: LOOK_S, includeMetadata: true }, async ([job]) => {
      try {
        await working.work(job!.data, job!.priority);
      } catch (err) {
        log.warn({ err }, 'a run was not worked off');
        throw err;
      }
    }),
  );
const look = () => hands.forEach((hand) => boss.notifyWorker(hand));
const ear = new Ear(() => earOfApp('surrik calls'), CALL, { notice: look, begins: look });
ear.open();
log.info('a worker is ready');

// Whoever watches sees by this that it is alive, and not merely there.
const name = process.env['SURRIK_WORKER'];
if (name !== undefined) {
  const file = join(process.env['SURRIK_BASE']!, `worker.${name}`);
  closeSync(openSync(file, 'a', 0o600));
  setInterval(() => utimesSync(file, new Date(), new Date()), ALIVE_MS).unref();
}

let stopping = false;
const stop = (signal: string) => {
  if (stopping) return;
  stopping = true;
  log.info(`${signal}: the worker finishes what it makes`);
  setTimeout(() => process.exit(0), FINISH_MS + 1000).unref();
  void ear.close();
  void boss.stop({ graceful: true, timeout: FINISH_MS }).then(() => process.exit(0));
};
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
