'use client';
/** The Logbook's other side: history from the server, logs in a worker, mappings in the shop's settings. */
import { proxy, wrap, type Remote } from 'comlink';
import { useMemo } from 'react';
import type { ColumnMap } from '../core/recorderLog/readCsv';
import type { Settings } from '../core/shop/shop';
import type { LogbookSource } from '../ui/logbook/source';
import type { LogApi } from '../workers/log.worker';
import { fetchHistory, fetchLog, postLog, sendToShop } from './api';

let worker: { raw: Worker; api: Remote<LogApi> } | undefined;
const log = (): Remote<LogApi> => {
  if (!worker) {
    const raw = new Worker(new URL('../workers/log.worker.ts', import.meta.url), { type: 'module' });
    worker = { raw, api: wrap<LogApi>(raw) };
  }
  return worker.api;
};
/** Where nothing answers any more, whoever waits is told. */
let giveUp: ((reason: Error) => void) | undefined;

export function useLogbook(job: number, settings: Settings): LogbookSource {
  return useMemo(
    (): LogbookSource => ({
      history: async () => (await fetchHistory(job)).jobs,
      face: (file, zone) => log().face(file, zone),
      read: (file, face, map, context, progress) =>
        new Promise((resolve, reject) => {
          giveUp = reject;
          // How far it is comes by a port of its own: its last word may come after the answer, and is none any more.
          let over = false;
          const told = (...word: Parameters<typeof progress>) => {
            if (!over) progress(...word);
          };
          log()
            .read(file, face, map, context, proxy(told))
            .finally(() => (over = true))
            .then(resolve, reject);
        }),
      window: (from, to, buckets) => log().window(from, to, buckets),
      cancel() {
        worker?.raw.terminate();
        worker = undefined;
        giveUp?.(new Error('Stopped. The file is as it was; nothing was kept of it.'));
      },
      keepFile: async (file) =>
        postLog(job, await new Response(file.stream().pipeThrough(new CompressionStream('gzip'))).blob()),
      keptFile: async ({ name, file }) => new File([await fetchLog(job, file!.sha256)], name, { type: 'text/plain' }),
      remembered: (key) => settings.logMaps[key] as ColumnMap | undefined,
      remember(key, map) {
        if (JSON.stringify(settings.logMaps[key]) === JSON.stringify(map)) return;
        // A shop remembers the recorders it uses, not every file it saw.
        const kept = Object.entries(settings.logMaps).slice(-39);
        void sendToShop('settings.set', {
          was: { logMaps: settings.logMaps },
          set: { logMaps: { ...Object.fromEntries(kept), [key]: map } },
        }).catch(() => undefined);
      },
    }),
    [job, settings],
  );
}
