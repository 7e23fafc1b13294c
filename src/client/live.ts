'use client';
/**
 * Changes as they come. One page of a browser listens for all of them, as a browser has few connections to a server; the
 * others are told by it. Where nothing is heard, pages look now and then, as often as they did before.
 */
import { useEffect, useSyncExternalStore } from 'react';

export type Change = { job: number } | { shop: true } | { look: true };
type Told = { change: Change } | { live: boolean } | 'how is it?';

/** ms without a beat (the server's come every five seconds) after which one is not told any more. */
const SILENT_MS = 12_000;
/** ms before one listens anew. */
const AGAIN_MS = 2000;

let live = false;
const watchers = new Set<() => void>();
const hearers = new Set<(change: Change) => void>();
let begun = false;

function setLive(now: boolean): void {
  if (live === now) return;
  live = now;
  for (const w of watchers) w();
  // What came between is not known.
  hear({ look: true });
}
function hear(change: Change): void {
  for (const h of hearers) h(change);
}

/** Listens until its page goes. */
async function listenForAll(pages: BroadcastChannel): Promise<never> {
  const tell = (told: Told) => {
    pages.postMessage(told);
    take(told);
  };
  pages.onmessage = ({ data }: MessageEvent<Told>) => {
    if (data === 'how is it?') pages.postMessage({ live } satisfies Told);
  };
  for (;;) {
    await new Promise<void>((over) => {
      const source = new EventSource('/api/live');
      let timer: ReturnType<typeof setTimeout> | undefined;
      const end = () => {
        clearTimeout(timer);
        source.close();
        tell({ live: false });
        over();
      };
      const alive = () => {
        clearTimeout(timer);
        timer = setTimeout(end, SILENT_MS);
        tell({ live: true });
      };
      source.addEventListener('beat', alive);
      source.onmessage = ({ data }: MessageEvent<string>) => {
        alive();
        tell({ change: JSON.parse(data) as Change });
      };
      source.onerror = end;
      timer = setTimeout(end, SILENT_MS);
    });
    await new Promise((r) => setTimeout(r, AGAIN_MS));
  }
}

function take(told: Told): void {
  if (told === 'how is it?') return;
  if ('live' in told) setLive(told.live);
  else hear(told.change);
}

function begin(): void {
  if (begun || typeof EventSource === 'undefined' || !('locks' in navigator)) return;
  begun = true;
  const pages = new BroadcastChannel('surrik-changes');
  pages.onmessage = ({ data }: MessageEvent<Told>) => take(data);
  pages.postMessage('how is it?' satisfies Told);
  // Given to the next page when the one that has it goes.
  void navigator.locks.request('surrik-changes', () => listenForAll(pages));
}

/** Whether changes are told just now: one need not look so often. */
export function useLive(hears: (change: Change) => void): boolean {
  useEffect(() => {
    begin();
    hearers.add(hears);
    return () => void hearers.delete(hears);
  }, [hears]);
  return useSyncExternalStore(
    (w) => {
      watchers.add(w);
      return () => watchers.delete(w);
    },
    () => live,
    () => false,
  );
}
