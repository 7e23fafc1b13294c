/**
 * What changed, told by PostgreSQL to every process of every machine, and by each to whoever looks. It is told after the
 * change is stored, by itself: a NOTIFY inside the transaction would make all commits wait for one another. What is lost
 * on the way is found by looking now and then, as before.
 */
import type pg from 'pg';
import type { Knex } from 'knex';
import { log } from '../log';
import { Ear, earOfApp } from './ear';

const CHANNEL = 'surrik_changes';
/** ms in which changes of the same thing are told once. */
const GATHER_MS = 40;

/** A job by its number, or what the shop sets for itself. `look`: something may have been missed. */
export type Change = { job: number } | { shop: true } | { look: true };
type Hear = (change: Change) => void;

/** What stands in a notice: at most 8,000 bytes, which a shop and a number never are. */
const written = (shopId: string, change: Exclude<Change, { look: true }>): string =>
  `${shopId} ${'job' in change ? change.job : 'shop'}`;

/** @returns undefined where it is none of ours */
export function readNotice(text: string): { shopId: string; change: Change } | undefined {
  const match = /^([0-9a-f-]{36}) (shop|\d{1,7})$/.exec(text);
  if (!match) return undefined;
  return { shopId: match[1]!, change: match[2] === 'shop' ? { shop: true } : { job: Number(match[2]) } };
}

/** Tells changes: gathered for a moment, so that twenty readings of a second are few notices. */
export class Teller {
  private waiting = new Set<string>();
  private timer: NodeJS.Timeout | undefined;

  constructor(private readonly db: () => Knex) {}

  tell(shopId: string, change: Exclude<Change, { look: true }>): void {
    this.waiting.add(written(shopId, change));
    this.timer ??= setTimeout(() => void this.send(), GATHER_MS);
  }

  private async send(): Promise<void> {
    const notices = [...this.waiting];
    this.waiting = new Set();
    this.timer = undefined;
    try {
      await this.db().raw('SELECT pg_notify(?, n) FROM unnest(?::text[]) AS n', [CHANNEL, notices] as never);
    } catch (err) {
      // Whoever looks now and then finds it.
      log.warn({ err }, 'a change was not told');
    }
  }
}

/** Listens once for the whole process, and passes on what is of each one's shop. */
export class Listener {
  private readonly hearers = new Map<string, Set<Hear>>();
  private readonly ear: Ear;

  constructor(connect: () => pg.Client) {
    this.ear = new Ear(connect, CHANNEL, {
      notice: (payload) => {
        const notice = readNotice(payload);
        if (notice) for (const hear of this.hearers.get(notice.shopId) ?? []) hear(notice.change);
      },
      begins: () => {
        for (const own of this.hearers.values()) for (const hear of own) hear({ look: true });
      },
    });
  }

  /** @returns what ends it */
  listen(shopId: string, hear: Hear): () => void {
    const own = this.hearers.get(shopId) ?? new Set();
    own.add(hear);
    this.hearers.set(shopId, own);
    this.ear.open();
    return () => {
      own.delete(hear);
      if (own.size === 0 && this.hearers.get(shopId) === own) this.hearers.delete(shopId);
    };
  }

  async close(): Promise<void> {
    this.hearers.clear();
    await this.ear.close();
  }
}

// Each route of the built application has its own copy of this module; teller and listener are one a process.
const shared = globalThis as { surrikTeller?: Teller; surrikListener?: Listener };

/** Tells every process that something of a shop changed. Never throws, never waits. */
export const tellChange = (db: () => Knex, shopId: string, change: Exclude<Change, { look: true }>): void =>
  (shared.surrikTeller ??= new Teller(db)).tell(shopId, change);

/** Hears what changes in a shop. @returns what ends it */
export const hearChanges = (shopId: string, hear: Hear): (() => void) =>
  (shared.surrikListener ??= new Listener(() => earOfApp('surrik changes'))).listen(shopId, hear);
