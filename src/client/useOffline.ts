'use client';
/** The program on this device: its service worker put in, a newer one told, and the open jobs fetched beforehand. */
import { useEffect, useState } from 'react';
import type { BoardPage } from '../server/job/board';
import { fetchSnapshot } from './api';
import { copyOf, fromServerOrCopy } from './deviceCopy';

const WORKER = '/service-worker.js';

/** Whether a newer program waits, and what takes it over: the page is opened anew with it. */
export function useNewerProgram(): (() => void) | undefined {
  const [waiting, setWaiting] = useState<ServiceWorker>();
  useEffect(() => {
    if (!('serviceWorker' in navigator) || process.env.NODE_ENV !== 'production') return;
    let alive = true;
    const look = (registration: ServiceWorkerRegistration) => {
      // The first one takes nobody's place.
      if (alive && registration.waiting && navigator.serviceWorker.controller) setWaiting(registration.waiting);
    };
    navigator.serviceWorker
      .register(WORKER)
      .then((registration) => {
        look(registration);
        registration.addEventListener('updatefound', () => {
          const coming = registration.installing;
          coming?.addEventListener('statechange', () => coming.state === 'installed' && look(registration));
        });
      })
      // Where it may not be (no certificate the browser trusts) all works as before, with a server.
      .catch(() => undefined);
    return () => {
      alive = false;
    };
  }, []);
  return (
    waiting &&
    (() => {
      navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true });
      waiting.postMessage('take over');
    })
  );
}

/** Jobs of the board that are fetched beforehand, and ms between two of them: the page is not to feel it. */
const AHEAD = 20;
const PAUSE_MS = 400;

/** Keeps the open jobs of the board on this device, the ones in a bay first, each again when it has changed. */
export function useJobsAhead(board: BoardPage): void {
  useEffect(() => {
    let alive = true;
    const wanted = board.tickets
      .filter((t) => t.status !== 'done')
      .sort((a, b) => Number(b.status === 'in-the-bay') - Number(a.status === 'in-the-bay'))
      .slice(0, AHEAD);
    void (async () => {
      for (const { number, changedAt } of wanted) {
        const copy = await copyOf(jobKey(number));
        if (copy && copy.at > new Date(changedAt).getTime()) continue;
        await new Promise((r) => setTimeout(r, PAUSE_MS));
        if (!alive) return;
        const got = await fromServerOrCopy(jobKey(number), () => fetchSnapshot(number)).then(
          () => true,
          () => false,
        );
        if (!got) return;
      }
    })();
    return () => {
      alive = false;
    };
  }, [board]);
}

/** What a job's copy is kept under. */
export const jobKey = (number: number): string => `job ${number}`;
