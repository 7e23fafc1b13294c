/**
 * Works off what was asked for: one of a shop at a time, so that no shop ever waits behind another's. What is made has a
 * budget: once it is spent its thread is ended, which nothing else was waiting for. While it is made it says so; a worker
 * that falls silent is taken for lost, and another begins anew: what is made depends on nothing but what was asked.
 */
import type { Knex } from 'knex';
import { withShop } from '../db';
import { Refused } from '../actor';
import {
  QUEUE,
  oneAtATime,
  packed,
  type Problem,
  type RunKind,
  type RunLimits,
  type Token,
  type Tokens,
} from './queue';

export interface RunThread {
  make(kind: RunKind | 'warm', args: unknown[]): Promise<unknown>;
  /** Never fulfilled; rejected when the thread ends. */
  ended: Promise<never>;
  isOver(): boolean;
  end(): void;
}

/** ms after which a shop that has one in the making is looked at again. */
const TURN_MS = 300;

interface Taken {
  kind: RunKind;
  input: Buffer;
}

export class Working {
  private readonly idle: RunThread[] = [];

  constructor(
    private readonly db: Knex,
    private readonly queue: Tokens,
    private readonly begin: () => RunThread,
    private readonly limits: RunLimits,
  ) {}

  /** Does what a token points at, or puts it back where its shop has one in the making. */
  async work(token: Token, priority = 0): Promise<void> {
    const taken = await this.take(token);
    if (taken === 'busy')
      await this.queue.send(QUEUE, token, { priority: priority - 1, startAfter: `${TURN_MS} milliseconds` });
    else if (taken) await this.make(token, taken);
  }

  /** A thread that is begun before the first is asked for. */
  keep(thread: RunThread): void {
    this.idle.push(thread);
  }

  private take({ shop, run }: Token): Promise<Taken | 'busy' | undefined> {
    return withShop(this.db, shop, async (tx) => {
      await oneAtATime(tx, shop);
      const held = tx.raw(`coalesce(state = 'making' AND beat_at > now() - ? * interval '1 ms', false) AS held`, [
        this.limits.silentMs,
      ]);
      const rows = await tx('runs')
        .whereIn('state', ['waiting', 'making'])
        .select<{ id: string; tries: number; held: boolean }[]>('id', 'tries', held);
      const own = rows.find((r) => r.id === run);
      if (!own || own.held) return undefined;
      if (rows.some((r) => r.held)) return 'busy';
      if (own.tries >= this.limits.tries) {
        const problem: Problem = { message: 'what was to make this ended while it did, more than once' };
        await tx('runs')
          .where({ id: run })
          .update({ state: 'failed', problem: JSON.stringify(problem) });
        return undefined;
      }
      const [taken] = await tx('runs')
        .where({ id: run })
        .update({ state: 'making', beat_at: tx.fn.now(), tries: own.tries + 1 })
        .returning<Taken[]>(['kind', 'input']);
      return taken;
    });
  }

  private async make(token: Token, { kind, input }: Taken): Promise<void> {
    while (this.idle.at(-1)?.isOver()) this.idle.pop();
    const thread = this.idle.pop() ?? this.begin();
    let cut!: (why: Error) => void;
    const cutShort = new Promise<never>((_, reject) => (cut = reject));
    cutShort.catch(() => undefined);
    const seconds = this.limits.budgetMs / 1000;
    const budget = setTimeout(
      () =>
        cut(
          new Refused(
            503,
            'out-of-time',
            `This took longer than ${seconds} s and was stopped. Nothing of the job is lost: try again.`,
          ),
        ),
      this.limits.budgetMs,
    );
    const beat = setInterval(
      () => void this.stillWanted(token).then((wanted) => wanted || cut(gone())),
      this.limits.beatMs,
    );
    try {
      const made = await Promise.race([
        thread.make(kind, JSON.parse(input.toString()) as unknown[]),
        thread.ended,
        cutShort,
      ]);
      await this.end(token, { state: 'done', output: packed(made) });
    } catch (e) {
      const { message, name } = e as Error;
      const problem: Problem = e instanceof Refused ? { message, status: e.status, code: e.code } : { message };
      if (name !== 'AbortError') await this.end(token, { state: 'failed', problem: JSON.stringify(problem) });
      // What was cut still runs there. One whose work threw goes on.
      if (e instanceof Refused || name === 'AbortError') thread.end();
    } finally {
      clearTimeout(budget);
      clearInterval(beat);
      if (!thread.isOver()) this.idle.push(thread);
    }
  }

  /** Says that it is in the making; whether anybody still waits for it. A database that is away is no answer. */
  private stillWanted({ shop, run }: Token): Promise<boolean> {
    return withShop(this.db, shop, (tx) =>
      tx('runs').where({ id: run, state: 'making' }).update({ beat_at: tx.fn.now() }),
    ).then(
      (rows) => rows > 0,
      () => true,
    );
  }

  private async end({ shop, run }: Token, row: Record<string, unknown>): Promise<void> {
    await withShop(this.db, shop, (tx) => tx('runs').where({ id: run, state: 'making' }).update(row));
  }
}

const gone = () => new DOMException('Nobody waits for it any more.', 'AbortError');
