'use client';
/** The one door to the core's heavy half: a proxy to the worker. */
import { wrap, type Remote } from 'comlink';
import type { CoreApi } from '../workers/core.worker';

export type { NamedRig, RigTable } from '../workers/core.worker';

let proxy: Remote<CoreApi> | undefined;

export function engine(): Remote<CoreApi> {
  proxy ??= wrap<CoreApi>(new Worker(new URL('../workers/core.worker.ts', import.meta.url), { type: 'module' }));
  return proxy;
}
