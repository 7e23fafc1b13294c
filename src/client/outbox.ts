'use client';
/**
 * Every change goes through here: kept on this device first, shown at once, sent in order, and only let go
 * when the server has acknowledged it and its snapshot shows it. A refused entry stays, with the reason,
 * until somebody dismisses it. One that the server fails on, or does not know yet, is set aside with what depends
 * on it, and can be sent again: it never holds up those behind it.
 */
import { openDB, type IDBPDatabase } from 'idb';
import type { Command } from '../core/job/command';
import type { ShopCommand } from '../core/shop/shopSchema';
import { ApiError, postCommand } from './api';

/** What a command changes: a job by its number, or the shop. */
export type Target = number | 'shop';

export interface Entry<C extends Command | ShopCommand = Command | ShopCommand> {
  order: number;
  job: Target;
  command: C;
  status: 'waiting' | 'sent' | 'refused' | 'aside';
  /** How often the server itself failed on it. */
  faults?: number;
  /** Snapshot seq the person was looking at. */
  seen: number;
  /** baseSeq is fixed when it is first sent: after that the content may not change. */
  fixed: boolean;
  seq?: number;
  reason?: string;
  /** Somebody else decided the same matter meanwhile: a person chooses between the two. */
  conflict?: boolean;
  /** The entry it was set aside with, if it was not for itself. */
  because?: string;
  /** It waits for the one who made it: sent again when a page is opened, in case he is signed in now. */
  forAnother?: boolean;
}

/** The store of all outboxes of this device. */
const openStore = (): Promise<IDBPDatabase> =>
  openDB('surrik-outbox', 1, {
    upgrade(db) {
      db.createObjectStore('entries', { keyPath: 'command.id' }).createIndex('job', 'job');
    },
  });

/** Targets an earlier page left entries for that nobody has sent yet. None where the device keeps nothing. */
export async function waitingTargets(): Promise<Target[]> {
  const db = await (async () => openStore())().catch(() => undefined);
  const entries = ((await db?.getAll('entries')) ?? []) as Entry[];
  db?.close();
  return [...new Set(entries.flatMap((e) => (e.status === 'waiting' || e.forAnother ? [e.job] : [])))];
}

type Listener = () => void;
const RETRY_MS = [500, 1000, 2000, 4000, 8000];
/** Times a fault of the server is met with the same entry before the entry is set aside. */
const MAX_FAULTS = 3;

/** What the answer to an entry means for it. */
type Fate = 'retry' | 'signed-out' | 'fault' | 'aside' | 'refused';

function fateOf({ status, code }: ApiError): Fate {
  if (status === 401) return 'signed-out';
  // Nobody answered, or the server said that it cannot just now.
  if (status === 0 || status === 429 || status === 502 || status === 503 || status === 504) return 'retry';
  if (status >= 500) return 'fault';
  // Right as it is, but not for this person or this server.
  return code === 'other-person' || code === 'newer-command' ? 'aside' : 'refused';
}

const UUID = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g;
/** Ids a command makes or speaks of. */
const idsIn = (command: { payload: unknown }): string[] => JSON.stringify(command.payload).match(UUID) ?? [];

export class Outbox<C extends Command | ShopCommand> {
  private entries: Entry<C>[] = [];
  private readonly listeners = new Set<Listener>();
  private db: Promise<IDBPDatabase | undefined> | undefined;
  private sending = false;
  private failures = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly ownSeqs = new Set<number>();
  /** Why the last attempt did not get through, while it has not. */
  trouble: string | undefined;
  /** Ids the device has no room for: they are in this page alone, and go with it. */
  private readonly unkept = new Set<string>();

  constructor(
    readonly job: Target,
    private readonly onAcknowledged: () => void,
  ) {}

  private open(): Promise<IDBPDatabase | undefined> {
    this.db ??= (async () => openStore())().catch(() => undefined); // no storage at all: kept in memory only
    return this.db;
  }

  /** Takes up what an earlier visit left unsent. */
  async start(): Promise<void> {
    const db = await this.open();
    const left = ((await db?.getAllFromIndex('entries', 'job', this.job)) ?? []) as Entry<C>[];
    const known = new Set(this.entries.map((e) => e.command.id));
    this.entries = [...left.filter((e) => !known.has(e.command.id)), ...this.entries].sort((a, b) => a.order - b.order);
    for (const entry of this.entries) if (entry.forAnother) this.wait(entry);
    this.changed();
    void this.pump();
  }

  subscribe = (listener: Listener): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Same array until something changes. */
  snapshot = (): readonly Entry<C>[] => this.entries;

  private changed(): void {
    this.entries = [...this.entries];
    for (const listener of this.listeners) listener();
  }

  private async store(entry: Entry<C>): Promise<void> {
    const db = await this.open();
    const kept = await db?.put('entries', entry).then(
      () => true,
      () => false,
    );
    if (kept) this.unkept.delete(entry.command.id);
    else this.unkept.add(entry.command.id);
  }

  /** Entries that wait in this page alone, since the device has no room or keeps nothing. */
  unsafe = (): number => this.entries.filter((e) => e.status === 'waiting' && this.unkept.has(e.command.id)).length;

  /** Back in its place among those that wait. */
  private wait(entry: Entry<C>): void {
    entry.status = 'waiting';
    delete entry.faults;
    delete entry.because;
    delete entry.reason;
    delete entry.forAnother;
  }

  async add(command: C, seen: number): Promise<void> {
    const order = Math.max(Date.now(), (this.entries.at(-1)?.order ?? 0) + 1);
    const entry: Entry<C> = { order, job: this.job, command, status: 'waiting', seen, fixed: false };
    this.countOwn(entry);
    this.entries.push(entry);
    this.changed();
    await this.store(entry);
    if (this.unkept.has(command.id)) this.changed();
    void this.pump();
  }

  async dismiss(id: string): Promise<void> {
    this.entries = this.entries.filter((e) => e.command.id !== id);
    this.changed();
    await (await this.open())?.delete('entries', id).catch(() => undefined);
  }

  /** Lets go of what the server's snapshot now shows. */
  settle(seq: number): void {
    const done = this.entries.filter((e) => e.status === 'sent' && e.seq !== undefined && e.seq <= seq);
    if (done.length === 0) return;
    this.entries = this.entries.filter((e) => !done.includes(e));
    this.changed();
  }

  /** Tries again at once, for instance when the network is back. */
  retry = (): void => {
    clearTimeout(this.timer);
    this.failures = 0;
    void this.pump();
  };

  /** Sends an entry that was set aside once more, in its old place, with what was set aside because of it. */
  async resend(id: string): Promise<void> {
    for (const entry of this.entries) {
      if (entry.status !== 'aside' || (entry.command.id !== id && entry.because !== id)) continue;
      this.wait(entry);
      await this.store(entry);
    }
    this.changed();
    this.retry();
  }

  /** Sets an entry aside, and every later one that speaks of something it makes. */
  private async setAside(entry: Entry<C>, reason: string, forAnother: boolean): Promise<void> {
    entry.status = 'aside';
    entry.reason = reason;
    if (forAnother) entry.forAnother = true;
    await this.store(entry);
    const ids = new Set(idsIn(entry.command));
    for (const later of this.entries) {
      if (later.status !== 'waiting' || later.order <= entry.order) continue;
      const theirs = idsIn(later.command);
      if (!theirs.some((x) => ids.has(x))) continue;
      for (const x of theirs) ids.add(x);
      later.status = 'aside';
      later.because = entry.command.id;
      if (forAnother) later.forAnother = true;
      later.reason = 'It belongs to an entry that was not taken.';
      await this.store(later);
    }
  }

  /** Our own earlier entries are no news to us: counted as seen, but nothing beyond a stranger's. Whether that changed it. */
  private countOwn(entry: Entry<C>): boolean {
    const before = entry.seen;
    while (this.ownSeqs.has(entry.seen + 1)) entry.seen++;
    return entry.seen !== before;
  }

  private async pump(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    try {
      for (;;) {
        const entry = this.entries.find((e) => e.status === 'waiting');
        if (!entry || !(await this.send(entry))) break;
        this.changed();
      }
    } finally {
      this.sending = false;
      this.changed();
    }
  }

  /** Sends one entry. False where the rest has to wait. */
  private async send(entry: Entry<C>): Promise<boolean> {
    if (!entry.fixed) {
      this.countOwn(entry);
      entry.command = { ...entry.command, baseSeq: entry.seen };
      entry.fixed = true;
      await this.store(entry);
    }
    try {
      const ack = await postCommand(this.job, entry.command);
      this.ownSeqs.add(ack.seq);
      // Before this entry is let go of: should the page go away now, those that wait still know it was ours.
      for (const later of this.entries)
        if (later.status === 'waiting' && !later.fixed && this.countOwn(later)) await this.store(later);
      entry.status = 'sent';
      entry.seq = ack.seq;
      this.failures = 0;
      this.trouble = undefined;
      this.unkept.delete(entry.command.id);
      await (await this.open())?.delete('entries', entry.command.id).catch(() => undefined);
      this.onAcknowledged();
      return true;
    } catch (e) {
      const error = e instanceof ApiError ? e : new ApiError(0, 'failed', String(e));
      const fate = fateOf(error);
      if (fate === 'refused') {
        entry.status = 'refused';
        entry.reason = error.message;
        if (error.code === 'conflict') entry.conflict = true;
        await this.store(entry);
        this.onAcknowledged();
        return true;
      }
      if (fate === 'fault') entry.faults = (entry.faults ?? 0) + 1;
      if (fate === 'aside' || (entry.faults ?? 0) >= MAX_FAULTS) {
        await this.setAside(entry, error.message, error.code === 'other-person');
        this.failures = 0;
        this.trouble = undefined;
        this.onAcknowledged();
        return true;
      }
      this.trouble =
        fate === 'signed-out' ? 'You are signed out. Sign in again: what you entered is kept here.' : error.message;
      const wait = RETRY_MS[Math.min(this.failures, RETRY_MS.length - 1)]!;
      this.failures++;
      this.timer = setTimeout(() => void this.pump(), wait);
      return false;
    }
  }
}
