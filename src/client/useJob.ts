'use client';
/** A job as this person sees it: the server's snapshot with what is still on its way laid over it. */
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import type { Command, CommandType, Payload } from '../core/job/command';
import type { Identity } from '../core/job/identity';
import type { Job } from '../core/job/job';
import { applyCommand, definitionOf, inverseOf } from '../core/job/applyCommand';
import { fingerprint } from '../core/job/fingerprint';
import type { Shop } from '../core/shop/shop';
import type { JobSnapshot, Visit } from '../server/job/snapshot';
import { fetchSnapshot, type ApiError } from './api';
import type { Entry } from './outbox';
import { notTaken, notYetIn, useOutbox } from './useOutbox';

export interface JobView {
  job: Job | undefined;
  shop: Shop | undefined;
  identity: Identity;
  visits: readonly Visit[];
  buildPace: JobSnapshot['buildPace'];
  actor: string;
  error: ApiError | null;
  waiting: number;
  refused: Entry<Command>[];
  trouble: string | undefined;
  send<T extends CommandType>(type: T, payload: Payload<T>): void;
  /** Takes back this person's last command of this visit. */
  undo(): void;
  /** The command `undo` would take back. */
  undoable: CommandType | undefined;
  dismiss(id: string): void;
  /** Sends what was set aside once more. */
  resend(id: string): void;
}

/** How often another person's work is looked for. */
const REFRESH_MS = 1500;
const NOTHING: Identity = {};
const NO_PACE: JobSnapshot['buildPace'] = {};

interface Done {
  before: Job;
  command: Command;
}

export function useJob(number: number): JobView {
  const query = useQuery({
    queryKey: ['job', number],
    queryFn: ({ client }) => fetchSnapshot(number, client.getQueryData(['job', number])),
    refetchInterval: REFRESH_MS,
    retry: (count, error) => (error as ApiError).status === 0 && count < 2,
  });
  const data = query.data;
  const { box, entries } = useOutbox<Command>(number, data?.seq);
  const [done, setDone] = useState<readonly Done[]>([]);

  const view = useMemo(() => {
    if (!data) return undefined;
    let { job, identity } = data;
    for (const command of notYetIn(entries, data.seq)) {
      const next = applyCommand(job, command);
      if (!next.ok) continue;
      job = next.value;
      if (command.type === 'identity.set') identity = command.payload.set;
    }
    return { job, identity };
  }, [data, entries]);

  const refused = notTaken(entries);
  // What was refused changed nothing: there is nothing to take back.
  const undoable = done.filter((d) => !refused.some((e) => e.command.id === d.command.id));
  const post = (type: CommandType, payload: unknown): Command | undefined => {
    if (!data || !view) return undefined;
    // A statement says what it was made on: what this device shows, own entries on their way included.
    const spoken = definitionOf(type)?.speaksFor;
    const covers = spoken && { seq: data.seq, hash: fingerprint(view.job, spoken) };
    const command = {
      id: crypto.randomUUID(),
      type,
      version: 1,
      baseSeq: data.seq,
      at: new Date().toISOString(),
      actor: data.actor.name,
      payload: covers ? { ...(payload as object), covers } : payload,
    } as Command;
    void box.add(command, data.seq);
    return command;
  };

  return {
    job: view?.job,
    shop: data?.shop,
    identity: view?.identity ?? NOTHING,
    visits: data?.visits ?? [],
    buildPace: data?.buildPace ?? NO_PACE,
    actor: data?.actor.name ?? '',
    error: query.error as ApiError | null,
    waiting: entries.filter((e) => e.status === 'waiting').length,
    refused,
    trouble: box.trouble,
    send(type, payload) {
      const command = post(type, payload);
      if (command && view) setDone((list) => [...list, { before: view.job, command }]);
    },
    undo() {
      const last = undoable.at(-1);
      if (!last) return;
      const back = inverseOf(last.before, last.command, () => crypto.randomUUID());
      if (back) post(back.type, back.payload);
      setDone(undoable.slice(0, -1));
    },
    undoable: undoable.at(-1)?.command.type,
    dismiss: (id) => void box.dismiss(id),
    resend: (id) => void box.resend(id),
  };
}
