'use client';
/** The comparison of links for a job: workers of its own, with progress and cancel. */
import { proxy, wrap, type Remote } from 'comlink';
import { useMemo } from 'react';
import type { Job } from '../core/job/job';
import type { Settings } from '../core/shop/shop';
import type { Sampled } from '../core/plan/sensitivity';
import type { Scenario } from '../core/simulate/scenarioSchema';
import type { OptionsSource } from '../ui/options/source';
import type { OptionsApi } from '../workers/options.worker';

/** Two cores of a tablet; a third worker would only take from the page. */
const WORKERS = 2;
const SAMPLES_AT_ONCE = 4;

const begin = () => new Worker(new URL('../workers/options.worker.ts', import.meta.url), { type: 'module' });

let pool: Remote<OptionsApi>[] | undefined;
const workers = (): Remote<OptionsApi>[] => (pool ??= Array.from({ length: WORKERS }, () => wrap<OptionsApi>(begin())));

/**
 * A worker of its own for runs that can be stopped at any instant: it is ended for it, so nothing else may be waiting on
 * it. Runs reject with AbortError where they were stopped.
 */
function stoppable() {
  let held: { worker: Worker; api: Remote<OptionsApi> } | undefined;
  const hold = () => {
    const worker = begin();
    // One wrapper for as long as the worker lives: one that is collected takes the worker's ear with it.
    return { worker, api: wrap<OptionsApi>(worker) };
  };
  return <T>(run: (worker: Remote<OptionsApi>) => Promise<T>, signal: AbortSignal | undefined): Promise<T> => {
    const mine = (held ??= hold());
    return new Promise<T>((done, fail) => {
      const stop = () => {
        mine.worker.terminate();
        if (held === mine) held = undefined;
        fail(new DOMException('Stopped.', 'AbortError'));
      };
      if (signal?.aborted) return stop();
      signal?.addEventListener('abort', stop, { once: true });
      run(mine.api)
        .then(done, fail)
        .finally(() => signal?.removeEventListener('abort', stop));
    });
  };
}
const compared = stoppable();
const asked = stoppable();

async function sampled(
  job: Job,
  ids: readonly string[],
  scenarios: readonly Scenario[],
  samples: number,
  seed: number,
  told: (share: number) => void,
  signal: AbortSignal,
): Promise<Sampled[]> {
  const batches = ids.flatMap((id) =>
    Array.from({ length: Math.ceil(samples / SAMPLES_AT_ONCE) }, (_, b) => ({
      id,
      which: Array.from(
        { length: Math.min(SAMPLES_AT_ONCE, samples - b * SAMPLES_AT_ONCE) },
        (__, i) => b * SAMPLES_AT_ONCE + i,
      ),
    })),
  );
  const drawn: Sampled[] = [];
  let next = 0;
  let done = 0;
  const work = async (worker: Remote<OptionsApi>) => {
    while (next < batches.length && !signal.aborted) {
      const { id, which } = batches[next++]!;
      drawn.push(...(await worker.sample(job, id, scenarios, samples, seed, which)));
      told(++done / batches.length);
    }
  };
  await Promise.all(workers().map(work));
  signal.throwIfAborted();
  return drawn;
}

export function useOptions(job: Job, settings: Settings): OptionsSource {
  const { labourPerHour, partsTimes } = settings;
  return useMemo(
    (): OptionsSource => ({
      list: () => workers()[0]!.list(job),
      compare: (ids, scenarios, told, signal) =>
        compared((w) => w.compare(job, ids, scenarios, { labourPerHour, partsTimes }, proxy(told)), signal),
      async spread(ids, scenarios, samples, told, signal) {
        const seed = 1;
        const drawn = await sampled(job, ids, scenarios, samples, seed, told, signal);
        return workers()[0]!.spreads(job, ids, drawn, samples, seed);
      },
      size: (asks, doc) => workers()[1]!.size(job, asks, doc),
      build: () => workers()[1]!.build(job),
      tow: (jurisdiction) => workers()[0]!.tow(job, jurisdiction),
      ask: (question, signal) => asked((w) => w.ask(job, question), signal),
    }),
    [job, labourPerHour, partsTimes],
  );
}
