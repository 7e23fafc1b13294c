'use client';
/** One outbox a target, whoever asks for it: waiting entries, and what became of them. */
import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useSyncExternalStore } from 'react';
import type { Command } from '../core/job/command';
import type { ShopCommand } from '../core/shop/shopSchema';
import { PhotoBox, type WaitingPhoto } from './photoBox';
import { Outbox, waitingTargets, type Entry, type Target } from './outbox';

const boxes = new Map<Target, Outbox<Command | ShopCommand>>();
const EMPTY: readonly Entry[] = [];

export interface Boxed<C extends Command | ShopCommand> {
  box: Outbox<C>;
  entries: readonly Entry<C>[];
}

/** What a target's page asks the server for; asked again when something was acknowledged. */
const queryKey = (target: Target): readonly unknown[] => (target === 'shop' ? ['shop'] : ['job', target]);

function boxOf(target: Target, client: QueryClient): Outbox<Command | ShopCommand> {
  let box = boxes.get(target);
  if (!box) {
    box = new Outbox(target, () => void client.invalidateQueries({ queryKey: queryKey(target) }));
    boxes.set(target, box);
  }
  return box;
}

/**
 * Sends what an earlier page left, whatever page one is on now: a change made in the shop's settings or on one job must
 * not wait until somebody opens those again.
 */
export function useSendingWhatWaits(): void {
  const client = useQueryClient();
  useEffect(() => {
    photoBox(client);
    void waitingTargets().then((targets) => targets.forEach((t) => void boxOf(t, client).start()));
  }, [client]);
}

let photos: PhotoBox | undefined;
/** The one box of photos on this page; what it keeps goes on as commands of their jobs. */
function photoBox(client: QueryClient): PhotoBox {
  if (!photos) {
    photos = new PhotoBox((photo, command) => boxOf(photo.job, client).add(command, photo.seen));
    void photos.start();
    window.addEventListener('online', photos.retry);
  }
  return photos;
}
const NO_PHOTOS: readonly WaitingPhoto[] = [];

/** Photos of a job that are on their way, and the box they are in. */
export function usePhotos(job: number): { box: PhotoBox | undefined; photos: readonly WaitingPhoto[] } {
  const client = useQueryClient();
  const box = typeof window === 'undefined' ? undefined : photoBox(client);
  const all = useSyncExternalStore(box?.subscribe ?? never, box?.snapshot ?? none, none);
  return { box, photos: useMemo(() => all.filter((p) => p.job === job), [all, job]) };
}
const never = () => () => undefined;
const none = () => NO_PHOTOS;

/** `seq` is the newest change the page's answer shows. */
export function useOutbox<C extends Command | ShopCommand>(target: Target, seq: number | undefined): Boxed<C> {
  const client = useQueryClient();
  const box = useMemo(() => boxOf(target, client), [target, client]);
  useEffect(() => {
    void box.start();
    window.addEventListener('online', box.retry);
    return () => window.removeEventListener('online', box.retry);
  }, [box]);
  const entries = useSyncExternalStore(box.subscribe, box.snapshot, () => EMPTY);
  useEffect(() => {
    if (seq !== undefined) box.settle(seq);
  }, [seq, box]);
  return { box: box as unknown as Outbox<C>, entries: entries as readonly Entry<C>[] };
}

/** What did not get to the server and will not by itself: refused, or set aside. */
export const notTaken = <C extends Command | ShopCommand>(entries: readonly Entry<C>[]): Entry<C>[] =>
  entries.filter((e) => e.status === 'refused' || e.status === 'aside');

/** Entries the snapshot does not show yet; what was not taken is left out. */
export const notYetIn = <C extends Command | ShopCommand>(entries: readonly Entry<C>[], seq: number): C[] =>
  entries
    .filter((e) => e.status !== 'refused' && e.status !== 'aside' && !(e.seq !== undefined && e.seq <= seq))
    .map((e) => e.command);
