/** The papers' thread, seen from the server: started when first asked, and anew after it died. */
import { Worker } from 'node:worker_threads';
import { wrap, type Remote } from 'comlink';
import nodeEndpoint from 'comlink/dist/umd/node-adapter';
import type { PaperApi } from './worker';

interface Thread {
  api: Remote<PaperApi>;
  /** Never fulfilled; rejected when the thread ends. */
  ended: Promise<never>;
}

// Each route of the built application has its own copy of this module; the thread is one.
const shared = globalThis as { surrikPapers?: Thread | undefined };

function thread(): Thread {
  if (shared.surrikPapers) return shared.surrikPapers;
  const worker = new Worker(new URL('./worker.ts', import.meta.url));
  // A thread that waits must not keep a server that stops.
  worker.unref();
  const ended = new Promise<never>((_, reject) => {
    const over = (reason: Error) => {
      shared.surrikPapers = undefined;
      reject(reason);
    };
    worker.on('error', over);
    worker.on('exit', (code) => over(new Error(`the papers’ thread ended with ${code}`)));
  });
  // Told to whoever waits; with nobody waiting there is nobody to tell.
  ended.catch(() => undefined);
  return (shared.surrikPapers = { api: wrap<PaperApi>(nodeEndpoint(worker)), ended });
}

/** Asks the papers' thread. @throws what it threw, or that it ended before it answered: asked again it starts anew. */
export async function onPaper<T>(ask: (api: Remote<PaperApi>) => Promise<T>): Promise<T> {
  const { api, ended } = thread();
  return Promise.race([ask(api), ended]);
}
