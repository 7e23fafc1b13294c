/**
 * What a web worker offers, without a worker: comlink's `expose` is caught while the module is read. Test files that
 * share a process share what was caught: a module is read once.
 */
import { vi } from 'vitest';
import type { CoreApi } from '../src/workers/core.worker';
import type { LogApi } from '../src/workers/log.worker';
import type { OptionsApi } from '../src/workers/options.worker';

interface Apis {
  core: CoreApi;
  log: LogApi;
  options: OptionsApi;
}
const MODULES: Readonly<Record<keyof Apis, () => Promise<unknown>>> = {
  core: () => import('../src/workers/core.worker'),
  log: () => import('../src/workers/log.worker'),
  options: () => import('../src/workers/options.worker'),
};
const caught = ((globalThis as { workerApis?: Partial<Apis> }).workerApis ??= {});

/** The functions a worker exposes. */
export async function workerApi<K extends keyof Apis>(which: K): Promise<Apis[K]> {
  const known = caught[which];
  if (known) return known;
  const exposed: unknown[] = [];
  vi.doMock('comlink', () => ({
    expose: (api: unknown) => exposed.push(api),
    transfer: (value: unknown, list: unknown[]) => {
      if (!list.every((x) => x instanceof ArrayBuffer)) throw new Error('only buffers can be handed over');
      return value;
    },
  }));
  try {
    await MODULES[which]();
  } finally {
    vi.doUnmock('comlink');
  }
  if (exposed.length !== 1) throw new Error(`a worker exposes one object, this one ${exposed.length}`);
  return (caught[which] = exposed[0] as Apis[K]);
}
