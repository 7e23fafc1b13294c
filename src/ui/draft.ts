'use client';
/**
 * What is being written: it outlives a reload, another station and a dialog closed by mistake, in this tab alone, until
 * it was sent or somebody else signs in.
 */
import { useCallback, useMemo, useSyncExternalStore } from 'react';

const PREFIX = 'surrik-draft/';
/** Where the browser keeps nothing, as in a private window that forbids it. */
const memory = new Map<string, string>();
const listeners = new Set<() => void>();

function read(key: string): string | null {
  try {
    return sessionStorage.getItem(key) ?? memory.get(key) ?? null;
  } catch {
    return memory.get(key) ?? null;
  }
}

function write(key: string, value: string | null): void {
  try {
    if (value === null) sessionStorage.removeItem(key);
    else sessionStorage.setItem(key, value);
    memory.delete(key);
  } catch {
    if (value === null) memory.delete(key);
    else memory.set(key, value);
  }
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/**
 * @param name of what is written, with the job's number where it belongs to one
 * @param initial what stands there before anybody wrote; keep it the same from one drawing to the next
 * @returns what stands there, a way to change it, and one to forget it once it was sent
 */
export function useDraft<T>(name: string, initial: T): readonly [T, (next: T) => void, () => void] {
  const key = PREFIX + name;
  const kept = useSyncExternalStore(
    subscribe,
    () => read(key),
    () => null,
  );
  const value = useMemo(() => (kept === null ? initial : (JSON.parse(kept) as T)), [kept, initial]);
  const set = useCallback((next: T) => write(key, JSON.stringify(next)), [key]);
  const forget = useCallback(() => write(key, null), [key]);
  return [value, set, forget];
}

/** Another person sits down: what the one before was writing is not theirs. */
export function forgetDrafts(): void {
  memory.clear();
  try {
    for (const key of Object.keys(sessionStorage)) if (key.startsWith(PREFIX)) sessionStorage.removeItem(key);
  } catch {
    // Nothing is kept, so nothing is to be forgotten.
  }
  for (const listener of listeners) listener();
}
