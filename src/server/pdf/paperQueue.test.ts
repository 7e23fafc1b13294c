/** Papers of many shops on few threads: nobody waits behind another shop, and nothing has no end. */
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import fc from 'fast-check';
import { Refused } from '../actor';
import { PaperQueue, type PaperLimits, type PaperThread } from './paperQueue';

interface Job {
  finish(value?: unknown): void;
  fail(why: Error): void;
}
type Api = (name: string) => Promise<unknown>;

/** Threads that do what they are told, when they are told. */
function workshop(limits: Partial<PaperLimits> = {}) {
  const begun = new Map<string, Job>();
  const order: string[] = [];
  const threads: { over: boolean; die(): void }[] = [];
  const begin = (): PaperThread<Api> => {
    let die = () => undefined as void;
    const ended = new Promise<never>((_, reject) => {
      die = () => {
        mine.over = true;
        reject(new Error('died'));
      };
    });
    ended.catch(() => undefined);
    const mine = { over: false, die: () => die() };
    threads.push(mine);
    return {
      ended,
      isOver: () => mine.over,
      end: () => {
        mine.over = true;
      },
      api: (name) =>
        new Promise((done, fail) => {
          order.push(name);
          begun.set(name, { finish: done, fail });
        }),
    };
  };
  const queue = new PaperQueue<Api>(begin, { threads: 2, budgetMs: 20_000, waiting: 3, ...limits });
  const ask = (shop: string, name: string, signal?: AbortSignal) => {
    const paper = queue.ask(shop, (api) => api(name), signal);
    paper.catch(() => undefined);
    return paper;
  };
  return { ask, begun, order, threads };
}
const settled = () => vi.advanceTimersByTimeAsync(0);

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe('papers in the making', () => {
  it('of one shop are made one after another, of two shops beside each other', async () => {
    const { ask, order, begun } = workshop();
    const first = ask('a', 'a1');
    void ask('a', 'a2');
    void ask('b', 'b1');
    await settled();
    expect(order).toEqual(['a1', 'b1']);
    begun.get('a1')!.finish('paper');
    expect(await first).toBe('paper');
    await settled();
    expect(order).toEqual(['a1', 'b1', 'a2']);
  });

  it('that never end are ended when their budget is spent; others are served meanwhile', async () => {
    const { ask, begun, threads } = workshop();
    const stuck = ask('a', 'endless');
    const other = ask('b', 'quick');
    begun.get('quick')!.finish(1);
    expect(await other).toBe(1);
    await vi.advanceTimersByTimeAsync(19_999);
    expect(threads[0]!.over).toBe(false);
    await vi.advanceTimersByTimeAsync(1);
    await expect(stuck).rejects.toMatchObject({ status: 503, code: 'out-of-time' });
    expect(threads[0]!.over).toBe(true);
    // What comes next gets a thread that works.
    const next = ask('a', 'next');
    await settled();
    begun.get('next')!.finish(2);
    expect(await next).toBe(2);
  });

  it('that nobody waits for are left: waiting or under way', async () => {
    const { ask, order, threads, begun } = workshop({ threads: 1 });
    const going = new AbortController();
    const queued = new AbortController();
    const a = ask('a', 'a1', going.signal);
    const b = ask('b', 'b1', queued.signal);
    const c = ask('c', 'c1');
    queued.abort();
    await expect(b).rejects.toMatchObject({ name: 'AbortError' });
    going.abort();
    await expect(a).rejects.toMatchObject({ name: 'AbortError' });
    expect(threads[0]!.over).toBe(true);
    await settled();
    expect(order).toEqual(['a1', 'c1']);
    begun.get('c1')!.finish('c');
    expect(await c).toBe('c');
    await expect(ask('d', 'd1', AbortSignal.abort())).rejects.toMatchObject({ name: 'AbortError' });
    expect(order).not.toContain('d1');
  });

  it('are refused where a shop has too many waiting, which stops no other shop', async () => {
    const { ask, order } = workshop();
    for (const k of [0, 1, 2, 3]) void ask('a', `a${k}`);
    const late = ask('a', 'a4');
    await expect(late).rejects.toBeInstanceOf(Refused);
    await expect(late).rejects.toMatchObject({ status: 429 });
    void ask('b', 'b0');
    await settled();
    expect(order).toEqual(['a0', 'b0']);
  });

  it('fail with what their thread said; one that died is not asked again, one that threw is', async () => {
    const { ask, begun, threads } = workshop({ threads: 1 });
    const bad = ask('a', 'bad');
    begun.get('bad')!.fail(new Error('no such font'));
    await expect(bad).rejects.toThrow('no such font');
    const dead = ask('a', 'dead');
    await settled();
    expect(threads).toHaveLength(1);
    threads[0]!.die();
    await expect(dead).rejects.toThrow('died');
    void ask('a', 'after');
    await settled();
    expect(threads).toHaveLength(2);
  });

  it('never leave a shop waiting behind another’s second paper, and never run more than there are threads', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.constantFrom('a', 'b', 'c', 'd'), { minLength: 1, maxLength: 20 }),
        fc.integer({ min: 1, max: 3 }),
        async (shops, threads) => {
          const { ask, begun, order } = workshop({ threads, waiting: 20 });
          shops.forEach((shop, k) => void ask(shop, `${shop}${k}`));
          const done = new Set<string>();
          while (done.size < shops.length) {
            await settled();
            const going = order.filter((name) => !done.has(name));
            expect(going.length).toBeLessThanOrEqual(threads);
            expect(new Set(going.map((n) => n[0])).size).toBe(going.length);
            begun.get(going[0]!)!.finish();
            done.add(going[0]!);
          }
          // Everyone has had one before anyone has had a third.
          const wanted = new Set(shops);
          const counts = new Map<string, number>();
          for (const name of order) {
            counts.set(name[0]!, (counts.get(name[0]!) ?? 0) + 1);
            if (counts.get(name[0]!) === 3) expect([...counts.keys()].sort()).toEqual([...wanted].sort());
          }
          expect(order).toHaveLength(shops.length);
        },
      ),
      { numRuns: 60 },
    );
  });
});
