/** Photos on their way: kept first, sent in order, once, for whoever took them. */
import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Command } from '../core/job/command';
import { PhotoBox, type WaitingPhoto } from './photoBox';

let replies: (() => { status: number; message?: string } | 'down')[];
let posted: string[];
let entered: Command[];

beforeEach(() => {
  replies = [];
  posted = [];
  entered = [];
  vi.stubGlobal('indexedDB', new IDBFactory());
  vi.stubGlobal('fetch', async (url: string, init: { body: Blob }) => {
    posted.push(`${url} ${await init.body.text()}`);
    const reply = replies.shift()?.() ?? { status: 200 };
    if (reply === 'down') throw new TypeError('failed to fetch');
    return {
      ok: reply.status < 400,
      status: reply.status,
      json: () =>
        Promise.resolve(
          reply.status < 400
            ? { sha256: 'a'.repeat(64), width: 4, height: 3, bytes: 9 }
            : { error: { code: 'x', message: reply.message ?? 'no' } },
        ),
    };
  });
});
afterEach(() => vi.unstubAllGlobals());

const photo = (id: string, more: Partial<WaitingPhoto> = {}): WaitingPhoto => ({
  id,
  job: 1042,
  actor: 'Ana',
  caption: `photo ${id}`,
  at: `2026-11-24T16:00:0${id}.000Z`,
  file: new Blob([`picture ${id}`], { type: 'image/png' }),
  seen: 7,
  ...more,
});
const box = () =>
  new PhotoBox((_, command) => {
    entered.push(command);
    return Promise.resolve();
  });
const until = (holds: () => boolean) => vi.waitFor(() => expect(holds()).toBe(true), { timeout: 10_000 });

describe('photos on their way', () => {
  it('go in the order they were taken, then their commands, as of who took them and when', async () => {
    const b = box();
    await b.add(photo('1'));
    await b.add(photo('2', { step: 'isolate' }));
    await until(() => b.snapshot().length === 0);
    expect(posted).toEqual(['/api/jobs/1042/photos picture 1', '/api/jobs/1042/photos picture 2']);
    expect(entered.map((c) => [c.id, c.actor, c.at, c.baseSeq])).toEqual([
      ['1', 'Ana', '2026-11-24T16:00:01.000Z', 7],
      ['2', 'Ana', '2026-11-24T16:00:02.000Z', 7],
    ]);
    expect(entered[1]!.payload).toMatchObject({ id: '2', sha256: 'a'.repeat(64), caption: 'photo 2', step: 'isolate' });
  });

  it('wait where there is no signal, over a closed page, and go once', async () => {
    replies.push(() => 'down');
    const b = box();
    await b.add(photo('1'));
    await until(() => posted.length === 1);
    expect(b.snapshot().map((p) => p.id)).toEqual(['1']);
    // The page is closed before it could try again; another opens.
    const later = box();
    await later.start();
    await until(() => later.snapshot().length === 0);
    await until(() => entered.length > 0);
    // Should both have sent it, it is one photo: the same id.
    expect(new Set(entered.map((c) => c.id))).toEqual(new Set(['1']));
  });

  it('that the server will not have are told with their reason, and hold up no other', async () => {
    replies.push(() => ({ status: 400, message: 'This is no picture.' }));
    const b = box();
    await b.add(photo('1'));
    await b.add(photo('2'));
    await until(() => entered.length === 1);
    expect(b.snapshot()).toMatchObject([{ id: '1', refused: 'This is no picture.' }]);
    // It stays so until somebody has seen it.
    const later = box();
    await later.start();
    expect(later.snapshot()).toMatchObject([{ id: '1', refused: 'This is no picture.' }]);
    await later.dismiss('1');
    const last = box();
    await last.start();
    expect(last.snapshot()).toEqual([]);
  });

  it('are refused at once where the device has no room: nobody is told that they are kept', async () => {
    const put = IDBObjectStore.prototype.put;
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
    try {
      const b = box();
      await expect(b.add(photo('1'))).rejects.toThrow('no room');
      expect(b.snapshot()).toEqual([]);
    } finally {
      IDBObjectStore.prototype.put = put;
    }
  });
});
