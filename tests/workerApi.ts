/** What a web worker offers, without a worker: comlink's `expose` is caught while the module is read. */
import { vi } from 'vitest';

/** Reads a worker's module and returns the functions it exposes. @param load `() => import('…/x.worker')` */
export async function workerApi<T>(load: () => Promise<unknown>): Promise<T> {
  const exposed: unknown[] = [];
  vi.doMock('comlink', () => ({
    expose: (api: unknown) => exposed.push(api),
    transfer: (value: unknown, list: unknown[]) => {
      if (!list.every((x) => x instanceof ArrayBuffer)) throw new Error('only buffers can be handed over');
      return value;
    },
  }));
  try {
    await load();
  } finally {
    vi.doUnmock('comlink');
  }
  if (exposed.length !== 1) throw new Error(`a worker exposes one object, this one ${exposed.length}`);
  return exposed[0] as T;
}
