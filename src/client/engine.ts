'use client';
/** The one door to the core's heavy half: a proxy to the worker. */
import { wrap, type Remote } from 'comlink';
import type { Rig } from '../core/rig/schema';
import { seedFrom as textHash } from '../core/units/rng';
import type { CoreApi, NamedRig } from '../workers/core.worker';

export type { NamedRig, RigTable, StateBands } from '../workers/core.worker';

/** A revision's rig for the worker. An edit keeps the revision's id, so the document itself is part of the name. */
export const namedRig = (revision: { id: string; doc: Rig }): NamedRig => ({
  key: `${revision.id} ${textHash(JSON.stringify(revision.doc))}`,
  doc: revision.doc,
});

let proxy: Remote<CoreApi> | undefined;

export function engine(): Remote<CoreApi> {
  proxy ??= wrap<CoreApi>(new Worker(new URL('../workers/core.worker.ts', import.meta.url), { type: 'module' }));
  return proxy;
}
