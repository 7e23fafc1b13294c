'use client';
/**
 * What the server last said, kept on this device: a job can be worked on where there is no signal, after a reload and
 * days later. It belongs to whoever is signed in, and is forgotten when he signs out; what he entered is not (outbox.ts).
 */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { SCHEMA_VERSION } from '../core/job/schemaVersion';
import { ApiError } from './api';

interface Copy {
  key: string;
  value: unknown;
  /** When the server said it. */
  at: number;
  /** Of the shape it has: another Surrik may want another. */
  shape: number;
}
interface Copies extends DBSchema {
  copies: { key: string; value: Copy; indexes: { at: number } };
}

/** Raised where an answer of the server changes its shape, so that no page is given one it does not know. */
const SHAPE = SCHEMA_VERSION * 100 + 1;
/** Copies kept; the oldest go first. A job is some 100 kB. */
const MOST = 60;

const open = () =>
  openDB<Copies>('surrik-copies', 1, {
    upgrade: (db) => void db.createObjectStore('copies', { keyPath: 'key' }).createIndex('at', 'at'),
  });
let store: Promise<IDBPDatabase<Copies> | undefined> | undefined;
/** None where the device keeps nothing. */
const held = () => (store ??= (async () => open())().catch(() => undefined));

/** Counts how often all was forgotten: what was asked for before is not kept after. */
let forgotten = 0;
const told = new Map<string, { at: number; value: unknown; live: boolean }>();
const listeners = new Set<() => void>();

function say(key: string, entry: { at: number; value: unknown; live: boolean }): void {
  told.set(key, entry);
  for (const listener of listeners) listener();
}

/** When the server last said what stands under a key, and whether it still answers. */
export const heard = (key: string): { at: number; live: boolean } | undefined => told.get(key);
export const onHeard = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

async function keep(key: string, value: unknown, at: number): Promise<void> {
  const db = await held();
  if (!db) return;
  await db.put('copies', { key, value, at, shape: SHAPE });
  const keys = await db.getAllKeysFromIndex('copies', 'at');
  for (const old of keys.slice(0, Math.max(0, keys.length - MOST))) await db.delete('copies', old);
}

/** The copy under a key. */
export async function copyOf<T>(key: string): Promise<{ value: T; at: number } | undefined> {
  const kept = await (await held())?.get('copies', key).catch(() => undefined);
  return kept?.shape === SHAPE ? { value: kept.value as T, at: kept.at } : undefined;
}

/**
 * What the server says; where it does not answer, what it said last.
 * @param ask gives the same object where nothing changed: it is not kept again then
 * @throws what the server refused, and that it does not answer where there is no copy
 */
export async function fromServerOrCopy<T>(key: string, ask: () => Promise<T>): Promise<T> {
  const began = forgotten;
  try {
    const value = await ask();
    if (began !== forgotten) return value;
    const before = told.get(key);
    say(key, { at: Date.now(), value, live: true });
    if (before?.value !== value) keep(key, value, Date.now()).catch(() => undefined);
    return value;
  } catch (e) {
    // Signed out, or it is no more: what is here is not shown to whoever comes next.
    if (e instanceof ApiError && e.status === 401) await forgetCopies();
    if (!(e instanceof ApiError) || (e.status !== 0 && e.status !== 503)) throw e;
    const before = told.get(key);
    if (before) {
      say(key, { ...before, live: false });
      return before.value as T;
    }
    const copy = await copyOf<T>(key);
    if (!copy) throw e;
    say(key, { ...copy, live: false });
    return copy.value;
  }
}

/** Nothing of the server's is left on this device. What waits to be sent is. */
export async function forgetCopies(): Promise<void> {
  forgotten++;
  told.clear();
  await (await held())?.clear('copies').catch(() => undefined);
  if (typeof caches !== 'undefined') await caches.delete('surrik-photos').catch(() => undefined);
}
