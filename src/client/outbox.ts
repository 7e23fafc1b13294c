'use client';
/**
 * Every change goes through here: kept on this device first, shown at once, sent in order, and only let go
 * when the server has acknowledged it and its snapshot shows it. A refused entry stays, with the reason,
 * until somebody dismisses it.
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
  status: 'waiting' | 'sent' | 'refused';
  /** Snapshot seq the person was looking at. */
  seen: number;
  /** baseSeq is fixed when it is first sent: after that the content may not change. */
  fixed: boolean;
  seq?: number;
  reason?: string;
}

type Listener = () => void;
const RETRY_MS = [500, 1000, 2000, 4000, 8000];

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

  constructor(
    readonly job: Target,
    private readonly onAcknowledged: () => void,
  ) {}

  private open(): Promise<IDBPDatabase | undefined> {
    this.db ??= (async () =>
      openDB('surrik-outbox', 1, {
        upgrade(db) {
          db.createObjectStore('entries', { keyPath: 'command.id' }).createIndex('job', 'job');
        },
      }))().catch(() => undefined); // no storage at all: kept in memory only
    return this.db;
  }

  /** Takes up what an earlier visit left unsent. */
  async start(): Promise<void> {
    const db = await this.open();
    const left = ((await db?.getAllFromIndex('entries', 'job', this.job)) ?? []) as Entry<C>[];
    const known = new Set(this.entries.map((e) => e.command.id));
    this.entries = [...left.filter((e) => !known.has(e.command.id)), ...this.entries].sort((a, b) => a.order - b.order);
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
    await (await this.open())?.put('entries', entry).catch(() => undefined);
  }

  async add(command: C, seen: number): Promise<void> {
    const order = Math.max(Date.now(), (this.entries.at(-1)?.order ?? 0) + 1);
    const entry: Entry<C> = { order, job: this.job, command, status: 'waiting', seen, fixed: false };
    this.entries.push(entry);
    this.changed();
    await this.store(entry);
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

  private async pump(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    try {
      for (;;) {
        const entry = this.entries.find((e) => e.status === 'waiting');
        if (!entry) break;
        if (!entry.fixed) {
          // Our own earlier entries are no news to us: count them as seen, but nothing beyond a stranger's.
          let base = entry.seen;
          while (this.ownSeqs.has(base + 1)) base++;
          entry.command = { ...entry.command, baseSeq: base };
          entry.fixed = true;
          await this.store(entry);
        }
        try {
          const ack = await postCommand(this.job, entry.command);
          this.ownSeqs.add(ack.seq);
          entry.status = 'sent';
          entry.seq = ack.seq;
          this.failures = 0;
          this.trouble = undefined;
          await (await this.open())?.delete('entries', entry.command.id).catch(() => undefined);
          this.onAcknowledged();
        } catch (e) {
          const error = e instanceof ApiError ? e : new ApiError(0, 'failed', String(e));
          if (error.status >= 400 && error.status < 500 && error.status !== 401 && error.status !== 429) {
            entry.status = 'refused';
            entry.reason = error.message;
            await this.store(entry);
            this.onAcknowledged();
          } else {
            this.trouble =
              error.status === 401
                ? 'You are signed out. Sign in again: what you entered is kept here.'
                : error.message;
            const wait = RETRY_MS[Math.min(this.failures, RETRY_MS.length - 1)]!;
            this.failures++;
            this.timer = setTimeout(() => void this.pump(), wait);
            break;
          }
        }
        this.changed();
      }
    } finally {
      this.sending = false;
      this.changed();
    }
  }
}
