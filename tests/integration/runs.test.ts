/** What takes a while, asked for by any process and worked off by any worker: turns, budgets, and workers that are lost. */
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import PgBoss from 'pg-boss';
import { readSecrets } from '../../src/server/config';
import { withShop } from '../../src/server/db';
import { Ear } from '../../src/server/live/ear';
import { Asking } from '../../src/server/runs/ask';
import { CALL, LIMITS, QUEUE, type RunLimits, type Token } from '../../src/server/runs/queue';
import { Working, type RunThread } from '../../src/server/runs/work';
import { hearing, testDatabase, type TestDatabase } from './database';

const SHOPS = ['a', 'b', 'c'].map((x) => `${x.repeat(8)}-0000-4000-8000-000000000000`);
const [A, B, C] = SHOPS as [string, string, string];
/** As a shop has them, but faster, so that no test waits for seconds. */
const QUICK: RunLimits = {
  ...LIMITS,
  budgetMs: 1500,
  beatMs: 60,
  silentMs: 500,
  againMs: 600,
  waiting: 4,
  patienceMs: 15_000,
};

let db: TestDatabase;
let boss: PgBoss;
beforeAll(async () => {
  db = await testDatabase();
  for (const [k, id] of SHOPS.entries()) await db.owner('shops').insert({ id, name: `Shop ${k}`, demo: false });
  boss = new PgBoss({
    host: '127.0.0.1',
    port: Number(process.env['SURRIK_DB_PORT']),
    database: db.name,
    user: 'surrik_app',
    password: readSecrets(process.env['SURRIK_BASE']!)['APP_PASSWORD']!,
    max: 3,
    migrate: false,
    schedule: false,
    supervise: false,
  });
  boss.on('error', () => undefined);
  await boss.start();
});
afterAll(async () => {
  await boss.stop({ graceful: false });
  await db.drop();
});
beforeEach(async () => {
  for (const shop of SHOPS) await withShop(db.app, shop, (tx) => tx('runs').delete());
  await db.owner.raw('DELETE FROM pgboss.job');
});

const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));
async function until(what: string, holds: () => Promise<boolean> | boolean): Promise<void> {
  for (const end = Date.now() + 20_000; Date.now() < end; await pause(20)) if (await holds()) return;
  throw new Error(`not in time: ${what}`);
}

const workshops: Workshop[] = [];
afterEach(async () => {
  for (const shop of workshops.splice(0)) await shop.close();
});

/** Threads that do what they are told, when they are told; what is asked for is a text, given back in capitals. */
class Workshop {
  readonly order: string[] = [];
  readonly threads: { over: boolean; die(): void }[] = [];
  private readonly open = new Map<string, { done(value: unknown): void; fail(why: Error): void }>();
  readonly working: Working;
  private going = true;
  private readonly slots: Promise<void>[] = [];

  constructor(slots: number, limits: RunLimits = QUICK) {
    workshops.push(this);
    this.working = new Working(db.app, boss, () => this.begin(), limits);
    for (let k = 0; k < slots; k++) this.slots.push(this.slot());
  }

  /** Takes tokens as a worker does, without its half second between two looks. */
  private async slot(): Promise<void> {
    while (this.going) {
      const [job] = await boss.fetch<Token>(QUEUE, { includeMetadata: true });
      if (!job) await pause(15);
      else {
        await this.working.work(job.data, job.priority);
        await boss.complete(QUEUE, job.id);
      }
    }
  }

  private begin(): RunThread {
    let die!: () => void;
    const ended = new Promise<never>((_, reject) => {
      die = () => {
        mine.over = true;
        reject(new Error('died'));
      };
    });
    ended.catch(() => undefined);
    const mine = { over: false, die: () => die() };
    this.threads.push(mine);
    return {
      ended,
      isOver: () => mine.over,
      end: () => void (mine.over = true),
      make: (_, [text]) =>
        new Promise((done, fail) => {
          this.order.push(String(text));
          this.open.set(String(text), { done, fail });
        }),
    };
  }

  async finish(text: string): Promise<void> {
    await until(`${text} is begun`, () => this.open.has(text));
    this.open.get(text)!.done(text.toUpperCase());
  }
  async fail(text: string, why: Error): Promise<void> {
    await until(`${text} is begun`, () => this.open.has(text));
    this.open.get(text)!.fail(why);
  }
  async close(): Promise<void> {
    this.going = false;
    // What was never finished would keep its slot.
    for (const { fail } of this.open.values()) fail(new Error('the workshop closes'));
    await Promise.all(this.slots);
  }
}

const asking = () =>
  new Asking(
    () => db.app,
    () => Promise.resolve(boss),
    QUICK,
  );
/** Asks one app process of many for a text in capitals. */
const ask = (shop: string, text: string, signal?: AbortSignal) => {
  const made = asking().ask(shop, 'checkJob', [text], signal) as unknown as Promise<string>;
  made.catch(() => undefined);
  return made;
};
const left = async (shop: string) =>
  (await withShop(db.app, shop, (tx) => tx('runs').select('id', 'state'))) as unknown[];

describe('what takes a while', () => {
  it('of one shop is made one after another, of two shops beside each other, and nothing of it stays', async () => {
    const shop = new Workshop(2);
    const first = ask(A, 'a1');
    await until('a1 is begun', () => shop.order.includes('a1'));
    const second = ask(A, 'a2');
    const other = ask(B, 'b1');
    await until('b1 is begun', () => shop.order.includes('b1'));
    await pause(400);
    expect(shop.order).toEqual(['a1', 'b1']);
    await shop.finish('a1');
    expect(await first).toBe('A1');
    await shop.finish('a2');
    await shop.finish('b1');
    expect([await second, await other]).toEqual(['A2', 'B1']);
    for (const s of SHOPS) expect(await left(s)).toEqual([]);
  });

  it('is told to workers at once, who need not look for it: by pg-boss’s own, with a minute between two looks', async () => {
    const made: string[] = [];
    const hand = await boss.work<Token>(QUEUE, { pollingIntervalSeconds: 60 }, ([job]) => {
      made.push(job!.data.shop);
      return withShop(db.app, job!.data.shop, (tx) =>
        tx('runs')
          .where({ id: job!.data.run })
          .update({ state: 'done', output: Buffer.from('"made"') }),
      );
    });
    const ear = new Ear(() => hearing(db), CALL, {
      notice: () => boss.notifyWorker(hand),
      begins: () => made.push('begun'),
    });
    ear.open();
    await until('one hears', () => made.length === 1);
    // It has looked once, and would look again in a minute.
    await pause(200);
    expect(await ask(A, 'a1')).toBe('made');
    expect(await ask(B, 'b1')).toBe('made');
    expect(made).toEqual(['begun', A, B]);
    await ear.close();
    await boss.offWork({ id: hand });
  });

  it('of one who asks for much lets another shop’s first go before their second', async () => {
    const many = [ask(A, 'a1'), ask(A, 'a2'), ask(A, 'a3')];
    await until('all of A wait', async () => (await left(A)).length === 3);
    const other = ask(B, 'b1');
    await until('B waits', async () => (await left(B)).length === 1);
    await pause(100);
    const shop = new Workshop(1);
    for (let k = 0; k < 4; k++) {
      await until(`the ${k + 1}th`, () => shop.order.length > k);
      await shop.finish(shop.order[k]!);
    }
    await Promise.all([...many, other]);
    expect(shop.order.indexOf('b1')).toBeLessThan(2);
  });

  it('that never ends is ended when its budget is spent; others are served meanwhile', async () => {
    const shop = new Workshop(2);
    const stuck = ask(A, 'endless');
    await until('it is begun', () => shop.order.includes('endless'));
    const other = ask(B, 'quick');
    await shop.finish('quick');
    expect(await other).toBe('QUICK');
    await expect(stuck).rejects.toMatchObject({ status: 503, code: 'out-of-time' });
    await until('its thread is ended', () => shop.threads[0]!.over);
    // What comes next gets a thread that works.
    const next = ask(A, 'next');
    await shop.finish('next');
    expect(await next).toBe('NEXT');
  });

  it('that nobody waits for is left: waiting or under way', async () => {
    const shop = new Workshop(1);
    const [going, queued] = [new AbortController(), new AbortController()];
    const a = ask(A, 'a1', going.signal);
    await until('a1 is begun', () => shop.order.includes('a1'));
    const b = ask(B, 'b1', queued.signal);
    await until('b1 waits', async () => (await left(B)).length === 1);
    queued.abort();
    await expect(b).rejects.toMatchObject({ name: 'AbortError' });
    going.abort();
    await expect(a).rejects.toMatchObject({ name: 'AbortError' });
    await until('its thread is ended', () => shop.threads[0]!.over);
    const c = ask(C, 'c1');
    await shop.finish('c1');
    expect(await c).toBe('C1');
    expect(shop.order).toEqual(['a1', 'c1']);
  });

  it('is refused where a shop has too much waiting, which stops no other shop', async () => {
    const many = [0, 1, 2, 3].map((k) => ask(A, `a${k}`));
    await until('they wait', async () => (await left(A)).length === 4);
    await expect(ask(A, 'late')).rejects.toMatchObject({ status: 429, code: 'busy' });
    const shop = new Workshop(1);
    const other = ask(B, 'b');
    for (let k = 0; k < 5; k++) {
      await until(`the ${k + 1}th`, () => shop.order.length > k);
      await shop.finish(shop.order[k]!);
    }
    expect(await Promise.all([...many, other])).toEqual(['A0', 'A1', 'A2', 'A3', 'B']);
  });

  it('fails with what its thread said; one that died is not asked again, one that threw is', async () => {
    const shop = new Workshop(1);
    const bad = ask(A, 'bad');
    await shop.fail('bad', new Error('no such font'));
    await expect(bad).rejects.toThrow('no such font');
    const dies = ask(A, 'dies');
    await until('it is begun', () => shop.order.includes('dies'));
    expect(shop.threads).toHaveLength(1);
    shop.threads[0]!.die();
    await expect(dies).rejects.toThrow('died');
    const next = ask(A, 'next');
    await shop.finish('next');
    await next;
    expect(shop.threads).toHaveLength(2);
  });

  it('is begun anew by another worker where the first falls silent, and is given up after the second', async () => {
    // One that takes a token and is never heard of again: it neither makes anything nor says that it lives.
    const vanish = async () => {
      await until('a token', async () => {
        const [job] = await boss.fetch<Token>(QUEUE);
        if (!job) return false;
        await withShop(db.app, job.data.shop, (tx) =>
          tx('runs')
            .where({ id: job.data.run })
            .update({ state: 'making', beat_at: tx.fn.now(), tries: tx.raw('tries + 1') as never }),
        );
        return true;
      });
    };
    const lost = ask(A, 'lost');
    await vanish();
    const shop = new Workshop(1);
    await shop.finish('lost');
    expect(await lost).toBe('LOST');
    await shop.close();
    const twice = ask(A, 'twice');
    await vanish();
    await vanish();
    const after = new Workshop(1);
    await expect(twice).rejects.toThrow(/more than once/);
    expect(after.order).toEqual([]);
  });

  it('that a process left behind when it ended keeps nobody out for longer than anybody waits', async () => {
    const old = (seconds: number) => db.app.raw(`now() - ? * interval '1 s'`, [seconds]);
    const rows = (seconds: number) =>
      withShop(db.app, A, (tx) =>
        tx('runs').insert(
          [0, 1, 2, 3].map((k) => ({
            shop_id: A,
            id: `${k}0000000-0000-4000-8000-000000000000`,
            kind: 'checkJob',
            input: Buffer.from('[]'),
            asked_at: old(seconds) as never,
          })),
        ),
      );
    await rows(QUICK.patienceMs / 1000);
    await expect(ask(A, 'kept out')).rejects.toMatchObject({ code: 'busy' });
    await withShop(db.app, A, (tx) => tx('runs').update({ asked_at: old((2 * QUICK.patienceMs) / 1000) as never }));
    const shop = new Workshop(1);
    const made = ask(A, 'let in');
    await shop.finish('let in');
    expect(await made).toBe('LET IN');
    expect(await left(A)).toEqual([]);
  });

  it('that no worker takes up is told so, and nothing of it stays', async () => {
    const nobody = new Asking(
      () => db.app,
      () => Promise.resolve(boss),
      { ...QUICK, patienceMs: 300 },
    );
    await expect(nobody.ask(A, 'checkJob', ['x'])).rejects.toMatchObject({ status: 503, code: 'no-worker' });
    expect(await left(A)).toEqual([]);
  });

  it('shows no shop what is another’s, and its queue holds nothing but where to look', async () => {
    const secret = ask(A, 'a secret');
    await until('it waits', async () => (await left(A)).length === 1);
    expect(await left(B)).toEqual([]);
    expect(await db.app('runs').select()).toEqual([]);
    const tokens = () => db.owner.raw<{ rows: { data: object }[] }>('SELECT data FROM pgboss.job');
    // The row is there before its token.
    await until('it is offered', async () => (await tokens()).rows.length > 0);
    const { rows } = await tokens();
    expect(rows.map((r) => Object.keys(r.data).sort())).toEqual([['run', 'shop']]);
    const shop = new Workshop(1);
    await shop.finish('a secret');
    expect(await secret).toBe('A SECRET');
  });
});
