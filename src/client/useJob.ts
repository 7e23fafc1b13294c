'use client';
/** A job as this person sees it: the server's snapshot with what is still on its way laid over it. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useSyncExternalStore } from 'react';
import type { Command, CommandType, Payload } from '../core/formats/command';
import type { Job } from '../core/formats/job';
import { reduceJob } from '../core/formats/reduce';
import { fetchSnapshot, type ApiError } from './api';
import { Outbox, type Entry } from './outbox';

const boxes = new Map<number, Outbox>();
const EMPTY: readonly Entry[] = [];

export interface JobView {
  job: Job | undefined;
  shop: string;
  actor: string;
  error: ApiError | null;
  waiting: number;
  refused: Entry[];
  trouble: string | undefined;
  send<T extends CommandType>(type: T, payload: Payload<T>): void;
  dismiss(id: string): void;
}

/** How often another person's work is looked for. */
const REFRESH_MS = 2000;

export function useJob(number: number): JobView {
  const client = useQueryClient();
  const query = useQuery({
    queryKey: ['job', number],
    queryFn: () => fetchSnapshot(number),
    refetchInterval: REFRESH_MS,
    retry: (count, error) => (error as ApiError).status === 0 && count < 2,
  });
  const box = useMemo(() => {
    let existing = boxes.get(number);
    if (!existing) {
      existing = new Outbox(number, () => void client.invalidateQueries({ queryKey: ['job', number] }));
      boxes.set(number, existing);
    }
    return existing;
  }, [number, client]);
  useEffect(() => {
    void box.start();
    window.addEventListener('online', box.retry);
    return () => window.removeEventListener('online', box.retry);
  }, [box]);
  const entries = useSyncExternalStore(box.subscribe, box.snapshot, () => EMPTY);
  const data = query.data;
  useEffect(() => {
    if (data) box.settle(data.seq);
  }, [data, box]);

  const job = useMemo(() => {
    if (!data) return undefined;
    let view = data.job;
    for (const e of entries) {
      if (e.status === 'refused' || (e.seq !== undefined && e.seq <= data.seq)) continue;
      const next = reduceJob(view, e.command);
      if (next.ok) view = next.value;
    }
    return view;
  }, [data, entries]);

  return {
    job,
    shop: data?.shop.name ?? '',
    actor: data?.actor.name ?? '',
    error: query.error as ApiError | null,
    waiting: entries.filter((e) => e.status === 'waiting').length,
    refused: entries.filter((e) => e.status === 'refused'),
    trouble: box.trouble,
    send(type, payload) {
      if (!data) return;
      const command = {
        id: crypto.randomUUID(),
        type,
        version: 1,
        baseSeq: data.seq,
        at: new Date().toISOString(),
        actor: data.actor.name,
        payload,
      } as Command;
      void box.add(command, data.seq);
    },
    dismiss: (id) => void box.dismiss(id),
  };
}
