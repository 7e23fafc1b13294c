'use client';
/** One outbox a target, whoever asks for it: waiting entries, and what became of them. */
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useSyncExternalStore } from 'react';
import type { Command } from '../core/job/command';
import type { ShopCommand } from '../core/shop/shopSchema';
import { Outbox, type Entry, type Target } from './outbox';

const boxes = new Map<Target, Outbox<Command | ShopCommand>>();
const EMPTY: readonly Entry[] = [];

export interface Boxed<C extends Command | ShopCommand> {
  box: Outbox<C>;
  entries: readonly Entry<C>[];
}

/** `queryKey` is asked again when something was acknowledged; `seq` is the newest change its answer shows. */
export function useOutbox<C extends Command | ShopCommand>(
  target: Target,
  queryKey: readonly unknown[],
  seq: number | undefined,
): Boxed<C> {
  const client = useQueryClient();
  const [first, second] = queryKey;
  const box = useMemo(() => {
    let existing = boxes.get(target);
    if (!existing) {
      existing = new Outbox(
        target,
        () => void client.invalidateQueries({ queryKey: second === undefined ? [first] : [first, second] }),
      );
      boxes.set(target, existing);
    }
    return existing;
  }, [target, client, first, second]);
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
