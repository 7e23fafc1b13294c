'use client';
/**
 * Photos on their way: kept on this device first, their files sent one after another, each then named by a command of
 * whoever took it (outbox.ts). A bay without signal loses no photo.
 */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { ApiError, postPhoto } from './api';
import type { Command } from '../core/job/command';

export interface WaitingPhoto {
  id: string;
  job: number;
  /** Who took it. */
  actor: string;
  caption: string;
  step?: string;
  at: string;
  file: Blob;
  /** Newest change its taker had seen. */
  seen: number;
  /** Why the server will not have it; it is sent no more. */
  refused?: string;
}
interface Photos extends DBSchema {
  photos: { key: string; value: WaitingPhoto };
}

const open = () =>
  openDB<Photos>('surrik-photos-waiting', 1, {
    upgrade: (db) => void db.createObjectStore('photos', { keyPath: 'id' }),
  });
const RETRY_MS = [1000, 3000, 8000, 20_000];

export class PhotoBox {
  private waiting: readonly WaitingPhoto[] = [];
  private readonly listeners = new Set<() => void>();
  private store: Promise<IDBPDatabase<Photos> | undefined> | undefined;
  private sending = false;
  private failures = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** @param enter keeps the command that names a photo whose file is there */
  constructor(private readonly enter: (photo: WaitingPhoto, command: Command) => Promise<void>) {}

  private held(): Promise<IDBPDatabase<Photos> | undefined> {
    return (this.store ??= (async () => open())().catch(() => undefined));
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };
  /** Same array until something changes. */
  snapshot = (): readonly WaitingPhoto[] => this.waiting;

  private change(next: readonly WaitingPhoto[]): void {
    this.waiting = next;
    for (const listener of this.listeners) listener();
  }

  /** Takes up what an earlier page left. */
  async start(): Promise<void> {
    const left = (await (await this.held())?.getAll('photos').catch(() => [])) ?? [];
    const known = new Set(this.waiting.map((p) => p.id));
    this.change([...this.waiting, ...left.filter((p) => !known.has(p.id))].sort((a, b) => a.at.localeCompare(b.at)));
    void this.drain();
  }

  /** @throws where the device has no room for it: then nobody keeps it */
  async add(photo: WaitingPhoto): Promise<void> {
    const db = await this.held();
    try {
      if (!db) throw new Error('nothing is kept here');
      await db.put('photos', photo);
    } catch {
      throw new Error('This device has no room for the photo. Make room, or send it from where there is a signal.');
    }
    this.change([...this.waiting, photo]);
    void this.drain();
  }

  async dismiss(id: string): Promise<void> {
    this.change(this.waiting.filter((p) => p.id !== id));
    await (await this.held())?.delete('photos', id).catch(() => undefined);
  }

  /** Tries again at once, for instance when the network is back. */
  retry = (): void => {
    clearTimeout(this.timer);
    this.failures = 0;
    void this.drain();
  };

  private async drain(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    try {
      for (;;) {
        const photo = this.waiting.find((p) => p.refused === undefined);
        if (!photo || !(await this.send(photo))) return;
      }
    } finally {
      this.sending = false;
    }
  }

  /** Sends one. False where the rest has to wait. */
  private async send(photo: WaitingPhoto): Promise<boolean> {
    try {
      const { sha256, width, height, bytes } = await postPhoto(photo.job, photo.file);
      const { id, caption, step } = photo;
      // The same id each time: sent twice, it is one photo.
      await this.enter(photo, {
        id,
        type: 'photo.keep',
        version: 1,
        baseSeq: photo.seen,
        at: photo.at,
        actor: photo.actor,
        payload: { id, sha256, width, height, bytes, caption, ...(step === undefined ? {} : { step }) },
      } as Command);
      await this.dismiss(id);
      this.failures = 0;
      return true;
    } catch (e) {
      const status = e instanceof ApiError ? e.status : 0;
      if (status === 0 || status === 401 || status === 429 || status >= 500) {
        this.timer = setTimeout(() => void this.drain(), RETRY_MS[Math.min(this.failures++, RETRY_MS.length - 1)]);
        return false;
      }
      const refused: WaitingPhoto = { ...photo, refused: (e as Error).message };
      this.change(this.waiting.map((p) => (p.id === photo.id ? refused : p)));
      await (await this.held())?.put('photos', refused).catch(() => undefined);
      return true;
    }
  }
}
