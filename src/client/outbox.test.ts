/**
 * The outbox against a server that is slow, away, refuses, or forgets to answer: nothing is lost, nothing is
 * sent twice as two, order is kept, and what was sent is never edited.
 */
import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Outbox, waitingTargets } from './outbox';
import type { Command } from '../core/job/command';

type Reply = { status: number; body?: object } | 'down';
let sent: { id: string; baseSeq: number }[];
let replies: ((c: Command) => Reply)[];
let seq: number;
/** Commands of the test that runs: a box of an earlier one may still be trying. */
let own: Set<string>;

beforeEach(() => {
  sent = [];
  replies = [];
  seq = 0;
  own = new Set();
  vi.stubGlobal('indexedDB', new IDBFactory());
  vi.stubGlobal('fetch', (_url: string, init: { body: string }) => {
    const command = JSON.parse(init.body) as Command;
    if (!own.has(command.id)) return Promise.reject(new TypeError('of another test'));
    sent.push({ id: command.id, baseSeq: command.baseSeq });
    const reply = replies.shift()?.(command) ?? { status: 200, body: { id: command.id, seq: ++seq, again: false } };
    if (reply === 'down') return Promise.reject(new TypeError('failed to fetch'));
    return Promise.resolve({
      ok: reply.status < 400,
      status: reply.status,
      json: () => Promise.resolve(reply.body ?? {}),
    });
  });
});
afterEach(() => vi.unstubAllGlobals());

const command = (): Command => {
  const id = randomUUID();
  own.add(id);
  return {
    id,
    type: 'note.add',
    version: 1,
    baseSeq: 0,
    at: '2026-11-24T16:00:00.000Z',
    actor: 'A',
    payload: { id: randomUUID(), text: 'x' },
  } as Command;
};
const until = (condition: () => boolean) => vi.waitFor(() => expect(condition()).toBe(true), { timeout: 30_000 });

describe('the outbox', () => {
  it('sends in order and counts its own acknowledged entries as seen', async () => {
    const box = new Outbox(1, () => undefined);
    const [a, b, c] = [command(), command(), command()];
    for (const x of [a, b, c]) await box.add(x, 0);
    await until(() => sent.length === 3);
    expect(sent.map((s) => s.id)).toEqual([a.id, b.id, c.id]);
    expect(sent.map((s) => s.baseSeq)).toEqual([0, 1, 2]);
  });

  it('does not count a stranger’s entry as seen', async () => {
    const box = new Outbox(1, () => undefined);
    const [a, b] = [command(), command()];
    replies.push(() => ({ status: 200, body: { id: a.id, seq: 5, again: false } })); // four of somebody else's before it
    seq = 5;
    await box.add(a, 0);
    await until(() => sent.length === 1);
    await box.add(b, 0);
    await until(() => sent.length === 2);
    expect(sent[1]!.baseSeq).toBe(0);
  });

  it('keeps an entry through an outage and sends the very same content again', async () => {
    const box = new Outbox(1, () => undefined);
    replies.push(
      () => 'down',
      () => ({ status: 503 }),
    );
    const a = command();
    await box.add(a, 7);
    await until(() => sent.length === 3);
    expect(sent).toEqual([1, 2, 3].map(() => ({ id: a.id, baseSeq: 7 })));
    await until(() => box.snapshot()[0]?.status === 'sent');
    expect(box.trouble).toBeUndefined();
  });

  it('says why while the server is away, and holds later entries back', async () => {
    const box = new Outbox(1, () => undefined);
    replies.push(...Array.from({ length: 50 }, () => () => 'down' as const));
    await box.add(command(), 0);
    await box.add(command(), 0);
    await until(() => box.trouble !== undefined);
    expect(box.trouble).toContain('does not answer');
    expect(box.snapshot().map((e) => e.status)).toEqual(['waiting', 'waiting']);
    expect(new Set(sent.map((s) => s.id)).size).toBe(1);
  });

  it('keeps a refused entry with its reason until dismissed, and goes on with the next', async () => {
    const box = new Outbox(1, () => undefined);
    replies.push(() => ({
      status: 409,
      body: { error: { code: 'conflict', message: 'Meanwhile somebody decided.' } },
    }));
    const [a, b] = [command(), command()];
    await box.add(a, 0);
    await box.add(b, 0);
    await until(() => sent.length === 2);
    expect(box.snapshot().find((e) => e.command.id === a.id)).toMatchObject({
      status: 'refused',
      reason: 'Meanwhile somebody decided.',
    });
    await box.dismiss(a.id);
    expect(box.snapshot().some((e) => e.command.id === a.id)).toBe(false);
  });

  it('sets an entry aside that the server fails on again and again, and never holds up those behind it', async () => {
    const box = new Outbox(1, () => undefined);
    const [a, b] = [command(), command()];
    const fault = () => ({ status: 500, body: { error: { code: 'fault', message: 'fault 1234' } } });
    replies.push(fault, fault, fault);
    await box.add(a, 0);
    await box.add(b, 0);
    await until(() => box.snapshot().some((e) => e.command.id === b.id && e.status === 'sent'));
    expect(sent.map((s) => s.id)).toEqual([a.id, a.id, a.id, b.id]);
    expect(box.snapshot().find((e) => e.command.id === a.id)).toMatchObject({ status: 'aside', reason: 'fault 1234' });
    expect(box.trouble).toBeUndefined();
  });

  it('sets aside with it what depends on it, and sends all of it again in the old order', async () => {
    const box = new Outbox(1, () => undefined);
    const note = command();
    const made = (note.payload as { id: string }).id;
    const back = { ...command(), type: 'note.retract', payload: { id: made } } as Command;
    const other = command();
    const fault = () => ({ status: 500, body: { error: { code: 'fault', message: 'fault' } } });
    replies.push(fault, fault, fault);
    for (const c of [note, back, other]) await box.add(c, 0);
    await until(() => box.snapshot().some((e) => e.command.id === other.id && e.status === 'sent'));
    expect(sent.filter((s) => s.id === back.id)).toEqual([]);
    expect(box.snapshot().find((e) => e.command.id === back.id)).toMatchObject({
      status: 'aside',
      because: note.id,
    });
    await box.resend(note.id);
    await until(() => box.snapshot().every((e) => e.status === 'sent'));
    expect(sent.slice(-2).map((s) => s.id)).toEqual([note.id, back.id]);
  });

  it('keeps an entry of another person, and one the server does not know yet, to be sent again', async () => {
    const box = new Outbox(1, () => undefined);
    const [mine, newer] = [command(), command()];
    replies.push(
      () => ({ status: 403, body: { error: { code: 'other-person', message: 'Sign in as A.' } } }),
      () => ({ status: 409, body: { error: { code: 'newer-command', message: 'Not known yet.' } } }),
    );
    await box.add(mine, 0);
    await box.add(newer, 0);
    await until(() => box.snapshot().filter((e) => e.status === 'aside').length === 2);
    await box.resend(mine.id);
    await until(() => box.snapshot().find((e) => e.command.id === mine.id)!.status === 'sent');
    expect(box.snapshot().find((e) => e.command.id === newer.id)!.status).toBe('aside');
  });

  it('a session that ran out is no refusal: the entry waits for the next sign-in', async () => {
    const box = new Outbox(1, () => undefined);
    replies.push(() => ({ status: 401, body: { error: { code: 'signed-out', message: 'signed out' } } }));
    await box.add(command(), 0);
    await until(() => box.trouble !== undefined);
    expect(box.trouble).toContain('Sign in again');
    expect(box.snapshot()[0]!.status).toBe('waiting');
    box.retry();
    await until(() => box.snapshot()[0]!.status === 'sent');
  });

  it('shows an entry until the snapshot has it, and only then lets go', async () => {
    const box = new Outbox(1, () => undefined);
    await box.add(command(), 0);
    await until(() => box.snapshot()[0]!.status === 'sent');
    box.settle(0);
    expect(box.snapshot()).toHaveLength(1);
    box.settle(1);
    expect(box.snapshot()).toHaveLength(0);
  });

  it('left behind by a page, is known by its target, taken up by the next one, and then gone', async () => {
    const gone = new Outbox(7, () => undefined);
    replies.push(() => 'down');
    const a = command();
    await gone.add(a, 0);
    await until(() => gone.trouble !== undefined);
    expect(await waitingTargets()).toEqual([7]);
    const next = new Outbox(7, () => undefined);
    await next.start();
    await until(() => next.snapshot()[0]?.status === 'sent');
    expect(sent.map((s) => s.id)).toEqual([a.id, a.id]);
    await vi.waitFor(async () => expect(await waitingTargets()).toEqual([]));
  });

  it('counts as seen what the page before it sent: one’s own earlier entry is no conflict after a reload', async () => {
    const gone = new Outbox(8, () => undefined);
    const [a, b] = [command(), command()];
    replies.push(
      () => ({ status: 200, body: { id: a.id, seq: 1, again: false } }),
      () => 'down',
      ...Array.from({ length: 20 }, () => () => 'down' as const),
    );
    // The second is still as the person made it, before the first was acknowledged.
    await Promise.all([gone.add(a, 0), gone.add(b, 0)]);
    await until(() => sent.some((s) => s.id === b.id));
    replies = [];
    const next = new Outbox(8, () => undefined);
    await next.start();
    await until(() => next.snapshot().every((e) => e.status === 'sent'));
    expect(new Set(sent.filter((s) => s.id === b.id).map((s) => s.baseSeq))).toEqual(new Set([1]));
  });

  it('a page that goes before it heard the answer learns from the next what was its own', async () => {
    const gone = new Outbox(9, () => undefined);
    const [a, b] = [command(), command()];
    replies.push(...Array.from({ length: 20 }, () => () => 'down' as const));
    await gone.add(a, 0);
    await gone.add(b, 0);
    await until(() => gone.trouble !== undefined);
    // It had got there after all.
    replies = Array.from({ length: 20 }, () => (c: Command) => ({
      status: 200,
      body: { id: c.id, seq: c.id === a.id ? 4 : 9, again: c.id === a.id },
    }));
    const next = new Outbox(9, () => undefined);
    const left = (await next.start(), next.snapshot());
    expect(left.map((e) => e.command.id)).toEqual([a.id, b.id]);
    await until(() => sent.some((s) => s.id === b.id));
    // Seq 4 is not next to 0: strangers' changes lie between, and they are news.
    expect(sent.find((s) => s.id === b.id)!.baseSeq).toBe(0);
  });

  it('of somebody else waits for them: it is sent again, with what hangs on it, when a page is opened', async () => {
    const box = new Outbox(7, () => undefined);
    const theirs = command();
    const about = command();
    (about.payload as { text: string }).text = (theirs.payload as { id: string }).id;
    replies.push(() => ({ status: 403, body: { error: { code: 'other-person', message: 'Sign in as A.' } } }));
    await box.add(theirs, 0);
    await box.add(about, 0);
    await until(() => box.snapshot().every((e) => e.status === 'aside'));
    expect(sent).toHaveLength(1);
    expect(await waitingTargets()).toEqual([7]);
    // The right person has signed in: another page begins.
    const later = new Outbox(7, () => undefined);
    await later.start();
    await until(() => sent.length === 3);
    expect(sent.slice(1).map((s) => s.id)).toEqual([theirs.id, about.id]);
    await until(() => later.snapshot().every((e) => e.status === 'sent'));
  });

  it('tells how many entries the device has no room for, until they are safe', async () => {
    const box = new Outbox(8, () => undefined);
    const put = IDBObjectStore.prototype.put;
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
    try {
      replies.push(
        () => 'down',
        () => 'down',
      );
      await box.add(command(), 0);
      await box.add(command(), 0);
      expect(box.unsafe()).toBe(2);
    } finally {
      IDBObjectStore.prototype.put = put;
    }
    box.retry();
    await until(() => box.snapshot().every((e) => e.status === 'sent'));
    expect(box.unsafe()).toBe(0);
  });
});
