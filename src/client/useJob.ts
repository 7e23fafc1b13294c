'use client';
/** A job as this person sees it: the server's snapshot with what is still on its way laid over it. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo, useState } from 'react';
import type { Command, CommandType, Payload } from '../core/job/command';
import type { Identity } from '../core/job/identity';
import type { Job } from '../core/job/job';
import { notAllowed } from '../core/job/allowed';
import { applyCommand, definitionOf, inverseOf } from '../core/job/applyCommand';
import { fingerprint } from '../core/job/fingerprint';
import type { Shop } from '../core/shop/shop';
import type { JobSnapshot, Visit } from '../server/job/snapshot';
import { clockAhead, fetchSnapshot, type ApiError } from './api';
import { fromServerOrCopy } from './deviceCopy';
import { useLive, type Change } from './live';
import type { Entry } from './outbox';
import { useSilentSince } from './useHeard';
import { jobKey } from './useOffline';
import type { WaitingPhoto } from './photoBox';
import { notTaken, notYetIn, useOutbox, usePhotos } from './useOutbox';

export interface JobView {
  job: Job | undefined;
  shop: Shop | undefined;
  identity: Identity;
  visits: readonly Visit[];
  buildPace: JobSnapshot['buildPace'];
  actor: string;
  /** Why this person may not give a command, in a sentence; undefined where he may. */
  whyNot(type: CommandType, payload?: unknown): string | undefined;
  /** What was tried and is not this person’s to do, until it was seen. */
  denied: string | undefined;
  seenDenied(): void;
  error: ApiError | null;
  /** When what is shown was said, in ms, while the server does not answer. */
  silentSince: number | undefined;
  waiting: number;
  /** ms this device's clock is ahead of the server's. */
  clockAhead: number;
  /** Of those, the ones this device has no room for. */
  unsafe: number;
  refused: Entry<Command>[];
  trouble: string | undefined;
  send<T extends CommandType>(type: T, payload: Payload<T>): void;
  /** Takes back this person's last command of this visit. */
  undo(): void;
  /** The command `undo` would take back. */
  undoable: CommandType | undefined;
  dismiss(id: string): void;
  /** Sends what was set aside once more; of what somebody else decided meanwhile, one's own in its place. */
  resend(id: string): void;
  /** Keeps a photo on this device until it is with the job. Rejects where there is no room for it. */
  keepPhoto(file: Blob, caption: string, step?: string): Promise<void>;
  photos: readonly WaitingPhoto[];
  dismissPhoto(id: string): void;
}

/** ms between two looks for another person's work: where nobody tells of it, and where somebody does. */
const REFRESH_MS = 1500;
const REFRESH_TOLD_MS = 15_000;
const NOTHING: Identity = {};
const NO_PACE: JobSnapshot['buildPace'] = {};

interface Done {
  before: Job;
  command: Command;
}

export function useJob(number: number): JobView {
  const client = useQueryClient();
  const told = useLive(
    useCallback(
      (change: Change) => {
        // What shows here of the rig's other jobs can wait until one looks again.
        if ('job' in change && change.job !== number) return;
        void client.invalidateQueries({ queryKey: ['job', number] });
      },
      [client, number],
    ),
  );
  const query = useQuery({
    queryKey: ['job', number],
    queryFn: ({ client }) =>
      fromServerOrCopy(jobKey(number), () => fetchSnapshot(number, client.getQueryData(['job', number]))),
    refetchInterval: told ? REFRESH_TOLD_MS : REFRESH_MS,
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

  const silentSince = useSilentSince(jobKey(number));
  const [denied, setDenied] = useState<string>();
  const whyNot = (type: CommandType, payload: unknown = {}): string | undefined =>
    data && view
      ? notAllowed(data.actor, view.job, { type, payload } as Command, data.shop.settings.signing)
      : undefined;

  const { box: photoBox, photos } = usePhotos(number);
  const refused = notTaken(entries);
  // What was refused changed nothing: there is nothing to take back.
  const undoable = done.filter((d) => !refused.some((e) => e.command.id === d.command.id));
  const post = (type: CommandType, payload: unknown): Command | undefined => {
    if (!data || !view) return undefined;
    const no = whyNot(type, payload);
    setDenied(no);
    if (no !== undefined) return undefined;
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
    whyNot,
    denied,
    seenDenied: () => setDenied(undefined),
    error: query.error as ApiError | null,
    silentSince,
    waiting: entries.filter((e) => e.status === 'waiting').length,
    clockAhead: clockAhead(),
    unsafe: box.unsafe(),
    refused,
    trouble: box.trouble,
    send(type, payload) {
      const command = post(type, payload);
      if (command && view) setDone((list) => [...list, { before: view.job, command }]);
    },
    undo() {
      const last = undoable.at(-1);
      if (!last) return;
      setDone(undoable.slice(0, -1));
      // One that is still on this device is not sent.
      if (photos.some((p) => p.id === last.command.id)) return void photoBox?.dismiss(last.command.id);
      const back = inverseOf(last.before, last.command, () => crypto.randomUUID());
      if (back) post(back.type, back.payload);
    },
    undoable: undoable.at(-1)?.command.type,
    dismiss: (id) => void box.dismiss(id),
    resend(id) {
      const entry = entries.find((e) => e.command.id === id);
      if (!entry?.conflict) return void box.resend(id);
      // Entered anew, by somebody who has seen theirs.
      void box.dismiss(id);
      const { covers: _, ...payload } = entry.command.payload as { covers?: unknown };
      post(entry.command.type, payload);
    },
    photos,
    dismissPhoto(id) {
      setDone((list) => list.filter((d) => d.command.id !== id));
      void photoBox?.dismiss(id);
    },
    async keepPhoto(file, caption, step) {
      if (!data || !view || !photoBox) return;
      const no = whyNot('photo.keep');
      setDenied(no);
      if (no !== undefined) return;
      const id = crypto.randomUUID();
      await photoBox.add({
        id,
        job: number,
        actor: data.actor.name,
        caption,
        ...(step === undefined ? {} : { step }),
        at: new Date().toISOString(),
        file,
        seen: data.seq,
      });
      // For the undo: what it takes back is known by its id alone.
      const command = { id, type: 'photo.keep', payload: { id } } as Command;
      setDone((list) => [...list, { before: view.job, command }]);
    },
  };
}
