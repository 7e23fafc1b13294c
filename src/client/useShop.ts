'use client';
/** The shop's settings as this person sees them, with what is still on its way laid over. */
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import type { Pace } from '../core/diagnose/pace';
import { reduceShop, type Settings, type SettingsChange, type Shop } from '../core/shop/shop';
import type { ShopCommand, ShopCommandType, ShopPayload } from '../core/shop/shopSchema';
import type { Role } from '../core/people/roles';
import { fetchShop, type ApiError } from './api';
import { fromServerOrCopy } from './deviceCopy';
import type { Entry } from './outbox';
import { notTaken, notYetIn, useOutbox } from './useOutbox';

export interface ShopView {
  shop: Shop | undefined;
  actor: string;
  role: Role;
  /** What the shop's own rounds say of its minutes. */
  pace: readonly Pace[];
  error: ApiError | null;
  refused: Entry<ShopCommand>[];
  trouble: string | undefined;
  send<T extends ShopCommandType>(type: T, payload: ShopPayload<T>): void;
  /** Sets fields of the settings; its inverse is kept for undo. */
  set(change: SettingsChange): void;
  undo(): void;
  canUndo: boolean;
  dismiss(id: string): void;
  /** Sends what was set aside once more. */
  resend(id: string): void;
}

export function useShop(): ShopView {
  const query = useQuery({
    queryKey: ['shop'],
    queryFn: () => fromServerOrCopy('shop', fetchShop),
    refetchInterval: 5000,
  });
  const data = query.data;
  const { box, entries } = useOutbox<ShopCommand>('shop', data?.seq);
  const [done, setDone] = useState<readonly ShopCommand[]>([]);
  const shop = useMemo(
    () => (data ? notYetIn(entries, data.seq).reduce(reduceShop, data.shop) : undefined),
    [data, entries],
  );

  const post = (type: ShopCommandType, payload: unknown): ShopCommand | undefined => {
    if (!data) return undefined;
    const command = {
      id: crypto.randomUUID(),
      type,
      version: 1,
      baseSeq: data.seq,
      at: new Date().toISOString(),
      actor: data.actor.name,
      payload,
    } as ShopCommand;
    void box.add(command, data.seq);
    return command;
  };
  const send: ShopView['send'] = (type, payload) => {
    const command = post(type, payload);
    if (command) setDone((list) => [...list, command]);
  };
  return {
    shop,
    actor: data?.actor.name ?? '',
    role: data?.actor.role ?? 'viewer',
    pace: data?.pace ?? [],
    error: query.error as ApiError | null,
    refused: notTaken(entries),
    trouble: box.trouble,
    send,
    set(change) {
      if (!shop) return;
      const was = Object.fromEntries(
        Object.keys(change).map((k) => [k, shop.settings[k as keyof Settings]]),
      ) as SettingsChange;
      send('settings.set', { was, set: change });
    },
    undo() {
      const last = done.at(-1);
      if (!last) return;
      if (last.type === 'settings.set') post('settings.set', { was: last.payload.set, set: last.payload.was });
      // An instrument that was not there before is retired: its readings name it.
      else
        post('instrument.set', {
          was: last.payload.set,
          set: last.payload.was ?? { ...last.payload.set, retired: true },
        });
      setDone(done.slice(0, -1));
    },
    canUndo: done.length > 0,
    dismiss: (id) => void box.dismiss(id),
    resend: (id) => void box.resend(id),
  };
}
