/** What the server last said, kept on the device. */
import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiError } from './api';

const away = () => Promise.reject(new ApiError(0, 'unreachable', 'no answer'));
/** A page of its own: what an earlier one knew is on the device alone. */
const page = async () => {
  vi.resetModules();
  const api = await import('./api');
  const copies = await import('./deviceCopy');
  const gone = (status: number) => () => Promise.reject(new api.ApiError(status, 'x', 'no answer'));
  return { ...copies, gone };
};
const kept = async (copies: Awaited<ReturnType<typeof page>>, key: string, value: unknown) =>
  vi.waitFor(async () => expect((await copies.copyOf(key))?.value).toEqual(value));

beforeEach(() => void vi.stubGlobal('indexedDB', new IDBFactory()));

describe('a copy on the device', () => {
  it('is shown where the server is silent, on a page opened later too, and told as old', async () => {
    const first = await page();
    await first.fromServerOrCopy('job 1', () => Promise.resolve({ seq: 7 }));
    await kept(first, 'job 1', { seq: 7 });
    expect(first.heard('job 1')).toMatchObject({ live: true });
    const later = await page();
    expect(later.heard('job 1')).toBeUndefined();
    expect(await later.fromServerOrCopy('job 1', later.gone(0))).toEqual({ seq: 7 });
    expect(later.heard('job 1')).toMatchObject({ live: false });
    expect(await later.fromServerOrCopy('job 1', () => Promise.resolve({ seq: 9 }))).toEqual({ seq: 9 });
    expect(later.heard('job 1')).toMatchObject({ live: true });
  });

  it('is the newest thing heard, and the same object while nothing changes', async () => {
    const copies = await page();
    const said = { seq: 1 };
    await copies.fromServerOrCopy('job 1', () => Promise.resolve(said));
    expect(await copies.fromServerOrCopy('job 1', copies.gone(503))).toBe(said);
    let listened = 0;
    const stop = copies.onHeard(() => listened++);
    await copies.fromServerOrCopy('job 1', () => Promise.resolve(said));
    stop();
    expect(listened).toBe(1);
  });

  it('is no answer to what the server refuses, and none where there is none', async () => {
    const copies = await page();
    await copies.fromServerOrCopy('job 1', () => Promise.resolve({ seq: 1 }));
    await expect(copies.fromServerOrCopy('job 1', copies.gone(404))).rejects.toMatchObject({ status: 404 });
    await expect(copies.fromServerOrCopy('job 2', copies.gone(0))).rejects.toMatchObject({ status: 0 });
  });

  it('is gone for whoever comes next: signed out by hand, or found out by the server', async () => {
    const copies = await page();
    for (const end of [
      () => copies.forgetCopies(),
      () => copies.fromServerOrCopy('shop', copies.gone(401)).catch(() => undefined),
    ]) {
      await copies.fromServerOrCopy('job 1', () => Promise.resolve({ seq: 1 }));
      await kept(copies, 'job 1', { seq: 1 });
      await end();
      expect(await copies.copyOf('job 1')).toBeUndefined();
      await expect(copies.fromServerOrCopy('job 1', copies.gone(0))).rejects.toMatchObject({ status: 0 });
    }
  });

  it('is not kept of what was asked before all was forgotten', async () => {
    const copies = await page();
    let answer = (_: number) => undefined as void;
    const late = copies.fromServerOrCopy('board', () => new Promise<number>((done) => (answer = done)));
    await copies.forgetCopies();
    answer(1);
    expect(await late).toBe(1);
    await new Promise((r) => setTimeout(r, 50));
    expect(await copies.copyOf('board')).toBeUndefined();
  });

  it('is one of a bounded number: the oldest go first', async () => {
    const copies = await page();
    for (let k = 0; k < 65; k++) {
      await copies.fromServerOrCopy(`job ${k}`, () => Promise.resolve(k));
      await kept(copies, `job ${k}`, k);
    }
    await vi.waitFor(async () => expect(await copies.copyOf('job 0')).toBeUndefined());
    expect((await copies.copyOf('job 64'))?.value).toBe(64);
  });

  it('costs nothing where the device keeps nothing', async () => {
    vi.stubGlobal('indexedDB', {
      open: () => {
        throw new DOMException('no', 'SecurityError');
      },
    });
    const copies = await page();
    expect(await copies.fromServerOrCopy('job 1', () => Promise.resolve(1))).toBe(1);
    expect(await copies.fromServerOrCopy('job 1', copies.gone(0))).toBe(1);
    await expect(copies.fromServerOrCopy('job 2', away)).rejects.toThrow();
  });
});
