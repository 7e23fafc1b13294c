/**
 * Who is served when, where papers are made: each shop has a row of its own, the rows take turns, and a shop has one
 * paper in the making at a time, so that no shop ever waits behind another's. A paper has a budget: once it is spent its
 * thread is ended, which nothing else was waiting for.
 */
import { Refused } from '../actor';

export interface PaperThread<Api> {
  api: Api;
  /** Never fulfilled; rejected when the thread ends. */
  ended: Promise<never>;
  isOver(): boolean;
  end(): void;
}

export interface PaperLimits {
  /** Threads at once. */
  threads: number;
  /** ms one paper may take. */
  budgetMs: number;
  /** Papers of one shop that may wait. */
  waiting: number;
}

interface Asked<Api> {
  run(thread: PaperThread<Api>): Promise<unknown>;
  signal: AbortSignal | undefined;
  done(value: unknown): void;
  fail(why: Error): void;
}

const gone = () => new DOMException('Nobody waits for it any more.', 'AbortError');

export class PaperQueue<Api> {
  private readonly rows = new Map<string, Asked<Api>[]>();
  private readonly making = new Set<string>();
  private readonly idle: PaperThread<Api>[] = [];
  private running = 0;

  constructor(
    private readonly begin: () => PaperThread<Api>,
    private readonly limits: PaperLimits,
  ) {}

  /**
   * What `work` makes on a thread, once it is this shop's turn.
   * @throws Refused `busy` where too many wait, `out-of-time` where the budget was spent; AbortError where `signal` said
   * that nobody waits; and what the thread threw
   */
  ask<T>(shop: string, work: (api: Api) => Promise<T>, signal?: AbortSignal): Promise<T> {
    const row = this.rows.get(shop) ?? [];
    if (row.length >= this.limits.waiting)
      return Promise.reject(
        new Refused(429, 'busy', `${row.length} papers of this shop are waiting already. Try again in a moment.`),
      );
    if (signal?.aborted) return Promise.reject(gone());
    return new Promise<T>((done, fail) => {
      const asked: Asked<Api> = {
        run: (thread) => work(thread.api),
        signal,
        done: done as (value: unknown) => void,
        fail,
      };
      row.push(asked);
      this.rows.set(shop, row);
      signal?.addEventListener('abort', () => this.leave(shop, asked), { once: true });
      this.next();
    });
  }

  private leave(shop: string, asked: Asked<Api>): void {
    const row = this.rows.get(shop);
    const at = row?.indexOf(asked) ?? -1;
    if (!row || at < 0) return; // it is being made: its run sees to it
    row.splice(at, 1);
    if (row.length === 0) this.rows.delete(shop);
    asked.fail(gone());
  }

  /** Gives free threads to the shops that wait, the one that waited longest first. */
  private next(): void {
    for (const [shop, row] of this.rows) {
      if (this.running >= this.limits.threads) return;
      if (this.making.has(shop)) continue;
      const asked = row.shift()!;
      // Behind all others: who has much to ask does not come first again.
      this.rows.delete(shop);
      if (row.length > 0) this.rows.set(shop, row);
      this.running++;
      this.making.add(shop);
      void this.make(asked).finally(() => {
        this.running--;
        this.making.delete(shop);
        this.next();
      });
    }
  }

  private async make(asked: Asked<Api>): Promise<void> {
    while (this.idle.at(-1)?.isOver()) this.idle.pop();
    const thread = this.idle.pop() ?? this.begin();
    let timer: ReturnType<typeof setTimeout> | undefined;
    let stop: (() => void) | undefined;
    const cut = new Promise<never>((_, reject) => {
      timer = setTimeout(
        () =>
          reject(
            new Refused(
              503,
              'out-of-time',
              `This took longer than ${this.limits.budgetMs / 1000} s and was stopped. Nothing of the job is lost: try again.`,
            ),
          ),
        this.limits.budgetMs,
      );
      stop = () => reject(gone());
      asked.signal?.addEventListener('abort', stop, { once: true });
    });
    try {
      asked.done(await Promise.race([asked.run(thread), thread.ended, cut]));
    } catch (e) {
      asked.fail(e as Error);
      // What was cut still runs there. One whose work threw goes on.
      if (e instanceof Refused || (e as Error).name === 'AbortError') thread.end();
    } finally {
      clearTimeout(timer);
      if (stop) asked.signal?.removeEventListener('abort', stop);
      if (!thread.isOver()) this.idle.push(thread);
    }
  }
}
