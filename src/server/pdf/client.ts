/** Papers, seen from the server: made on threads of their own, each begun when it is first needed. */
import { Worker } from 'node:worker_threads';
import { wrap, type Remote } from 'comlink';
import nodeEndpoint from 'comlink/dist/umd/node-adapter';
import { PaperQueue, type PaperThread } from './paperQueue';
import type { PaperApi } from './worker';

/** A second shop never waits for the first; a paper takes one to two seconds, the longest on a slow machine some six. */
const LIMITS = { threads: 2, budgetMs: 20_000, waiting: 10 } as const;

type Papers = Remote<PaperApi>;
// Each route of the built application has its own copy of this module; the queue is one.
const shared = globalThis as { surrikPapers?: PaperQueue<Papers> };

function begin(): PaperThread<Papers> {
  const worker = new Worker(new URL('./worker.ts', import.meta.url));
  // A thread that waits must not keep a server that stops.
  worker.unref();
  let over = false;
  const ended = new Promise<never>((_, reject) => {
    const ends = (reason: Error) => {
      over = true;
      reject(reason);
    };
    worker.on('error', ends);
    worker.on('exit', (code) => ends(new Error(`a papers’ thread ended with ${code}`)));
  });
  // Told to whoever waits; with nobody waiting there is nobody to tell.
  ended.catch(() => undefined);
  return {
    api: wrap<PaperApi>(nodeEndpoint(worker)),
    ended,
    isOver: () => over,
    end: () => {
      over = true;
      void worker.terminate();
    },
  };
}

/**
 * Asks for a paper of a shop.
 * @param signal of the request: who has gone is waited for no longer
 * @throws as PaperQueue.ask; asked again after a thread ended it is begun anew
 */
export const onPaper = <T>(shop: string, ask: (api: Papers) => Promise<T>, signal?: AbortSignal): Promise<T> =>
  (shared.surrikPapers ??= new PaperQueue(begin, LIMITS)).ask(shop, ask, signal);
