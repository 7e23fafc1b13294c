/**
 * Asks for what takes a while, and waits for it: a row in the database that any worker of any machine may take up. Who
 * has gone takes the row with them, which is what its worker looks for.
 */
import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import type { Knex } from 'knex';
import { Refused } from '../actor';
import { appDb, withShop } from '../db';
import { log } from '../log';
import { queueOf } from './connection';
import {
  CALL,
  LIMITS,
  QUEUE,
  oneAtATime,
  packed,
  unpacked,
  type Made,
  type Problem,
  type RunKind,
  type RunLimits,
  type Token,
  type Tokens,
} from './queue';
import type { Makers } from './thread';

/** ms between two looks at whether it is done: first, longest, and how they grow. */
const LOOK_MS = { first: 40, most: 300, grows: 1.3 } as const;
/** Times the longest anybody waits, after which what was asked for was left by a process that ended: it counts no more. */
const LEFT_AFTER = 1.2;

export class Asking {
  constructor(
    private readonly db: () => Knex,
    private readonly queue: () => Promise<Tokens>,
    private readonly limits: RunLimits = LIMITS,
  ) {}

  /**
   * What a worker makes of it, once it is this shop's turn.
   * @param signal of the request: who has gone is worked for no longer
   * @throws Refused `busy` where too many of the shop wait, `out-of-time` where its budget was spent, `no-worker` where
   * none took it up; AbortError where `signal` said that nobody waits; else what the worker said
   */
  async ask<K extends RunKind>(
    shopId: string,
    kind: K,
    args: Parameters<Makers[K]>,
    signal?: AbortSignal,
  ): Promise<Made<K>> {
    signal?.throwIfAborted();
    const token: Token = { shop: shopId, run: randomUUID() };
    const before = await withShop(this.db(), shopId, async (tx) => {
      await oneAtATime(tx, shopId);
      await tx('runs')
        .whereRaw(`asked_at < now() - ? * interval '1 ms'`, [LEFT_AFTER * this.limits.patienceMs])
        .delete();
      const [{ count }] = (await tx('runs').whereIn('state', ['waiting', 'making']).count()) as [{ count: string }];
      if (Number(count) >= this.limits.waiting)
        throw new Refused(429, 'busy', `${count} papers of this shop are waiting already. Try again in a moment.`);
      await tx('runs').insert({ shop_id: shopId, id: token.run, kind, input: packed(args) });
      return Number(count);
    });
    try {
      return await this.wait(token, kind, before, signal);
    } finally {
      // Done with, or nobody waits any more: a worker that still makes it finds it gone.
      await withShop(this.db(), shopId, (tx) => tx('runs').where({ id: token.run }).delete()).catch((err: unknown) =>
        log.warn({ err }, 'a run was not cleared away'),
      );
    }
  }

  private async wait<K extends RunKind>(token: Token, kind: K, before: number, signal?: AbortSignal): Promise<Made<K>> {
    // The more of its shop stand before it, the later: so shops take turns.
    const offer = async () => {
      await (await this.queue()).send(QUEUE, token, { priority: -before });
      // Unheard, it is found all the same, half a second later.
      await this.db()
        .raw('SELECT pg_notify(?, ?)', [CALL, ''])
        .catch((err: unknown) => log.warn({ err }, 'workers were not called'));
    };
    await offer();
    const from = Date.now();
    let offered = from;
    for (let ms: number = LOOK_MS.first; ; ms = Math.min(LOOK_MS.most, ms * LOOK_MS.grows)) {
      await pause(ms, undefined, signal ? { signal } : {});
      const row = await withShop(this.db(), token.shop, (tx) =>
        tx('runs')
          .where({ id: token.run })
          .first<{ state: string; output: Buffer | null; problem: Problem | null; held: boolean } | undefined>(
            'state',
            'output',
            'problem',
            tx.raw(`coalesce(beat_at > now() - ? * interval '1 ms', false) AS held`, [this.limits.silentMs]),
          ),
      );
      if (!row) throw new Error('a run was cleared away while somebody waited for it');
      if (row.state === 'done') return unpacked(kind, row.output!);
      if (row.state === 'failed') throw told(row.problem!);
      if (Date.now() - from > this.limits.patienceMs)
        throw new Refused(
          503,
          'no-worker',
          'Nothing here takes this up just now. Nothing of the job is lost: try again in a minute.',
        );
      if (!row.held && Date.now() - offered > this.limits.againMs) {
        await offer();
        offered = Date.now();
      }
    }
  }
}

const told = ({ status, code, message }: Problem): Error =>
  status !== undefined && code !== undefined ? new Refused(status, code, message) : new Error(message);

// Each route of the built application has its own copy of this module; the connection is one a process.
const shared = globalThis as { surrikTokens?: Promise<Tokens> };

const asking = new Asking(
  appDb,
  () =>
    (shared.surrikTokens ??= queueOf({ max: 2, supervise: false })
      .start()
      .catch((e: unknown) => {
        delete shared.surrikTokens;
        throw e;
      })),
);

/** Asks for something of a shop, and waits for it. As `Asking.ask`. */
export const onRun = <K extends RunKind>(
  shopId: string,
  kind: K,
  args: Parameters<Makers[K]>,
  signal?: AbortSignal,
): Promise<Made<K>> => asking.ask(shopId, kind, args, signal);
