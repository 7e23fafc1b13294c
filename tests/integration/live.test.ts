/** Changes told from one process to another by the database, and to the pages of the right shop alone. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Listener, readNotice, Teller, type Change } from '../../src/server/live/changes';
import { liveStream } from '../../src/server/live/stream';
import { hearing, testDatabase, type TestDatabase } from './database';

let db: TestDatabase;
beforeAll(async () => {
  db = await testDatabase();
});
afterAll(() => db.drop());

const [shop, other] = [randomUUID(), randomUUID()];
const connect = () => hearing(db);
const until = async (ready: () => boolean | Promise<boolean>, ms = 8000): Promise<void> => {
  for (let k = 0; !(await ready()); k++) {
    if (k * 20 > ms) throw new Error('not within its time');
    await new Promise((r) => setTimeout(r, 20));
  }
};

describe('a change', () => {
  it('is heard by every process, of one’s own shop, once for many of a moment', async () => {
    const [here, there] = [new Listener(connect), new Listener(connect)];
    const heard: Change[][] = [[], [], []];
    here.listen(shop, (c) => heard[0]!.push(c));
    const deaf = there.listen(shop, (c) => heard[1]!.push(c));
    there.listen(other, (c) => heard[2]!.push(c));
    // Listening has begun: who came before it may have missed something, and is told so.
    await until(() => heard.every((h) => h.length === 1));
    expect(heard.flat()).toEqual([{ look: true }, { look: true }, { look: true }]);
    const teller = new Teller(() => db.app);
    for (let k = 0; k < 20; k++) teller.tell(shop, { job: 1042 });
    teller.tell(shop, { shop: true });
    teller.tell(other, { job: 7 });
    await until(() => heard[0]!.length >= 3 && heard[1]!.length >= 3 && heard[2]!.length >= 2);
    for (const own of heard.slice(0, 2)) expect(own.slice(1)).toEqual([{ job: 1042 }, { shop: true }]);
    expect(heard[2]!.slice(1)).toEqual([{ job: 7 }]);
    deaf();
    teller.tell(shop, { job: 1 });
    await until(() => heard[0]!.length === 4);
    expect(heard[1]).toHaveLength(3);
    await Promise.all([here.close(), there.close()]);
  });

  it('is heard again after the connection was cut, and what came between is looked for', async () => {
    const listener = new Listener(connect);
    const heard: Change[] = [];
    listener.listen(shop, (c) => heard.push(c));
    await until(() => heard.length === 1);
    await db.app.raw(
      `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE application_name = 'heard by a test' AND datname = ?`,
      [db.name],
    );
    await until(() => heard.length === 2);
    expect(heard[1]).toEqual({ look: true });
    new Teller(() => db.app).tell(shop, { job: 5 });
    await until(() => heard.length === 3);
    expect(heard[2]).toEqual({ job: 5 });
    await listener.close();
  });

  it('in a notice that is none of ours is nothing', () => {
    for (const text of ['', shop, `${shop} `, `${shop} 1042; DROP`, `x ${shop} 1`, `${shop} 12345678`, 'shop 1'])
      expect(readNotice(text)).toBeUndefined();
    expect(readNotice(`${shop} 1042`)).toEqual({ shopId: shop, change: { job: 1042 } });
    expect(readNotice(`${shop} shop`)).toEqual({ shopId: shop, change: { shop: true } });
  });
});

describe('a stream to a page', () => {
  it('begins with a beat, says what changes, and ends with whoever reads it', async () => {
    let tell!: (c: Change) => void;
    let deaf = false;
    const gone = new AbortController();
    const stream = liveStream(
      (t) => {
        tell = t;
        return () => {
          deaf = true;
        };
      },
      () => Promise.resolve(true),
      gone.signal,
    );
    const reader = stream
      .pipeThrough(new TextDecoderStream() as never)
      .getReader() as ReadableStreamDefaultReader<string>;
    expect((await reader.read()).value).toContain('event: beat');
    tell({ job: 1042 });
    expect((await reader.read()).value).toBe('data: {"job":1042}\n\n');
    gone.abort();
    expect((await reader.read()).done).toBe(true);
    expect(deaf).toBe(true);
    // Told once more by whoever had it in hand: nothing breaks.
    tell({ job: 1 });
  });
});
