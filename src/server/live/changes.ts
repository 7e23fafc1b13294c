/**
 * What changed, told by PostgreSQL to every process of every machine, and by each to whoever looks. It is told after the
 * change is stored, by itself: a NOTIFY inside the transaction would make all commits wait for one another. What is lost
 * on the way is found by looking now and then, as before.
 */
import pg from 'pg';
import type { Knex } from 'knex';
import { serverConfig } from '../config';
import { log } from '../log';

const CHANNEL = 'surrik_changes';
/** ms in which changes of the same thing are told once. */
const GATHER_MS = 40;
/** ms before one listens anew, doubled up to the last. */
const AGAIN_MS = [250, 8000] as const;

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
  private client: pg.Client | undefined;
  private pause: number = AGAIN_MS[0];
  private closed = false;

  constructor(private readonly connect: () => pg.Client) {}

  /** @returns what ends it */
  listen(shopId: string, hear: Hear): () => void {
    const own = this.hearers.get(shopId) ?? new Set();
    own.add(hear);
    this.hearers.set(shopId, own);
    if (!this.client && !this.closed) this.open();
    return () => {
      own.delete(hear);
      if (own.size === 0 && this.hearers.get(shopId) === own) this.hearers.delete(shopId);
    };
  }

  private open(): void {
    const client = this.connect();
    this.client = client;
    const lost = (err?: unknown) => {
      if (this.client !== client) return;
      this.client = undefined;
      client.end().catch(() => undefined);
      if (this.closed) return;
      log.warn({ err }, 'changes are not heard just now');
      setTimeout(() => this.client || this.closed || this.open(), this.pause).unref();
      this.pause = Math.min(AGAIN_MS[1], this.pause * 2);
    };
    client.on('error', lost);
    client.on('end', () => lost());
    client.on('notification', ({ payload }) => {
      const notice = readNotice(payload ?? '');
      if (notice) for (const hear of this.hearers.get(notice.shopId) ?? []) hear(notice.change);
    });
    client
      .connect()
      .then(() => client.query(`LISTEN ${CHANNEL}`))
      .then(() => {
        this.pause = AGAIN_MS[0];
        // Whatever happened before now was not heard.
        for (const own of this.hearers.values()) for (const hear of own) hear({ look: true });
      })
      .catch(lost);
  }

  async close(): Promise<void> {
    this.closed = true;
    this.hearers.clear();
    const { client } = this;
    this.client = undefined;
    await client?.end().catch(() => undefined);
  }
}

// Each route of the built application has its own copy of this module; teller and listener are one a process.
const shared = globalThis as { surrikTeller?: Teller; surrikListener?: Listener };

/** Tells every process that something of a shop changed. Never throws, never waits. */
export const tellChange = (db: () => Knex, shopId: string, change: Exclude<Change, { look: true }>): void =>
  (shared.surrikTeller ??= new Teller(db)).tell(shopId, change);

/** Hears what changes in a shop. @returns what ends it */
export const hearChanges = (shopId: string, hear: Hear): (() => void) =>
  (shared.surrikListener ??= new Listener(connectApp)).listen(shopId, hear);

function connectApp(): pg.Client {
  const { database, appPassword } = serverConfig();
  return new pg.Client({
    host: database.host,
    port: database.port,
    database: database.name,
    user: 'surrik_app',
    password: appPassword,
    keepAlive: true,
    application_name: 'surrik changes',
  });
}
