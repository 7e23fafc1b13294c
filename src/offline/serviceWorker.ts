/// <reference lib="webworker" />
/**
 * What lets the program open without a server: its code and its shell on the device, and the photos one has seen. What
 * the server says of jobs is kept by the page (client/deviceCopy.ts), and what is entered by the outbox: nothing of that
 * passes through here. A new version waits until it is asked for, or until no page is open: a page never loses the code
 * it was opened with.
 */
import { CacheableResponsePlugin } from 'workbox-cacheable-response';
import { clientsClaim, setCacheNameDetails } from 'workbox-core';
import { ExpirationPlugin } from 'workbox-expiration';
import { addRoute, cleanupOutdatedCaches, matchPrecache, precache } from 'workbox-precaching';
import { registerRoute } from 'workbox-routing';
import { CacheFirst } from 'workbox-strategies';
import { SHELL, shellFor } from './shell';

declare const self: ServiceWorkerGlobalScope & { __FILES: { url: string; revision: string | null }[] };

setCacheNameDetails({ prefix: 'surrik' });
cleanupOutdatedCaches();
precache(self.__FILES);
clientsClaim();

// A worker learns from its own address what it is to load, and has the address of the answer: an answer that was kept
// under a shorter one is made anew, so that it has the one that was asked for.
registerRoute(
  ({ request, sameOrigin }) => sameOrigin && request.destination === 'worker',
  async ({ request, url }) => {
    const kept = await matchPrecache(url.pathname);
    return kept ? new Response(kept.body, { status: kept.status, headers: kept.headers }) : fetch(request);
  },
);
addRoute({ directoryIndex: null as never, cleanURLs: false });

/** ms a page may take: with a bad signal the shell is there sooner. */
const PAGE_WITHIN_MS = 5000;

registerRoute(
  ({ request }) => request.mode === 'navigate',
  async ({ request, url }) => {
    if (url.pathname === SHELL) return (await matchPrecache(SHELL)) ?? fetch(request);
    const late = new AbortController();
    const timer = setTimeout(() => late.abort(), PAGE_WITHIN_MS);
    try {
      const response = await fetch(request, { signal: late.signal });
      if (response.status < 502 || response.status > 504) return response;
    } catch {
      // No answer, or none in time.
    } finally {
      clearTimeout(timer);
    }
    return Response.redirect(shellFor(url), 302);
  },
);

// Named by their content: once seen, never asked for again.
registerRoute(
  ({ url }) => /^\/api\/jobs\/\d+\/photos\/[0-9a-f]{64}$/.test(url.pathname),
  new CacheFirst({
    cacheName: 'surrik-photos',
    // The library's own types leave open what it never leaves out.
    plugins: [
      new CacheableResponsePlugin({ statuses: [200] }),
      new ExpirationPlugin({ maxEntries: 400, purgeOnQuotaError: true }),
    ] as never,
  }),
);

self.addEventListener('message', (event: ExtendableMessageEvent) => {
  if (event.data === 'take over') void self.skipWaiting();
});
