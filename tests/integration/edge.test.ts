/** The board, the snapshot and failures: what is asked again costs little, and what fails says whose fault it is. */
import { randomUUID } from 'node:crypto';
import { gzipSync, strToU8 } from 'fflate';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { demoJobs } from '../../db/demo/jobs';
import { validateCommand, validateJobDocument } from '../../src/core/openFormats/validate';
import validators from '../../src/core/openFormats/answerValidators';
import type { Job } from '../../src/core/job/job';
import { Refused, type Actor } from '../../src/server/actor';
import { withShop } from '../../src/server/db';
import { isOutage } from '../../src/server/failure';
import { log } from '../../src/server/log';
import { failureResponse } from '../../src/server/http';
import { boardPage, boardQuery } from '../../src/server/job/board';
import { submitCommand } from '../../src/server/job/commands';
import { rigHistory, searchShop } from '../../src/server/job/history';
import { importJob, packJob } from '../../src/server/job/jobArchive';
import { insertJob } from '../../src/server/job/jobStore';
import { packedLog, storeLog } from '../../src/server/job/logs';
import { jobTrail } from '../../src/server/job/trail';
import { jobSnapshot, newerSnapshot } from '../../src/server/job/snapshot';
import { shopSnapshot } from '../../src/server/shop';
import { testDatabase, type TestDatabase } from './database';

const NOW = new Date('2026-11-24T16:00:00Z');
const shop = randomUUID();
const ana: Actor = { shopId: shop, sessionId: randomUUID(), personId: randomUUID(), name: 'Ana', role: 'technician' };
let db: TestDatabase;
const jobs = demoJobs(NOW);

const renumbered = (job: Job, number: number): Job =>
  JSON.parse(
    JSON.stringify({ ...job, number }).replace(
      /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g,
      (id) => `${id.slice(0, 28)}${String(number).padStart(8, '0')}`,
    ),
  ) as Job;

beforeAll(async () => {
  db = await testDatabase();
  await db.owner('shops').insert({ id: shop, name: 'Shop' });
  await db
    .owner('people')
    .insert({ shop_id: shop, id: ana.personId, handle: 'ana', name: 'Ana', role: 'technician', password_hash: 'x' });
  await withShop(db.owner, shop, async (tx) => {
    for (const job of jobs) {
      await tx('rigs').insert({ shop_id: shop, id: job.rigId, nickname: 'N' }).onConflict(['shop_id', 'id']).ignore();
      await insertJob(tx, shop, randomUUID(), job);
    }
  });
});
afterAll(() => db.drop());

const note = (_job: number, seq: number, text = 'x') => ({
  id: randomUUID(),
  type: 'note.add',
  version: 1,
  baseSeq: seq,
  at: '2026-11-24T17:00:00.000Z',
  actor: 'Ana',
  payload: { id: randomUUID(), text },
});

describe('what is asked again and again', () => {
  it('a snapshot answers nothing until something of it changed, then the whole', async () => {
    const first = await jobSnapshot(db.app, ana, 1042);
    expect(await newerSnapshot(db.app, ana, 1042, first.stamp)).toBeUndefined();
    await submitCommand(db.app, ana, 1042, note(1042, first.seq));
    const second = await newerSnapshot(db.app, ana, 1042, first.stamp);
    expect(second!.seq).toBe(first.seq + 1);
    expect(second!.stamp).not.toBe(first.stamp);
    // Another job of the same rig is one of its visits.
    await submitCommand(db.app, ana, 1009, note(1009, (await jobSnapshot(db.app, ana, 1009)).seq));
    expect(await newerSnapshot(db.app, ana, 1042, second!.stamp)).toBeDefined();
  });

  it('the board answers nothing until a job changed, and then shows it', async () => {
    const first = (await boardPage(db.app, ana))!;
    expect(await boardPage(db.app, ana, { since: first.stamp })).toBeUndefined();
    const { seq } = await jobSnapshot(db.app, ana, 1042);
    await submitCommand(db.app, ana, 1042, {
      ...note(1042, seq),
      type: 'job.set-status',
      payload: { status: 'waiting-parts' },
    });
    const second = (await boardPage(db.app, ana, { since: first.stamp }))!;
    expect(second.tickets.find((t) => t.number === 1042)!.status).toBe('waiting-parts');
    expect(second.counts['waiting-parts']).toBe((first.counts['waiting-parts'] ?? 0) + 1);
  });

  it('every answer is as agreed', async () => {
    const agreed = (name: keyof typeof validators, answer: unknown) => {
      const plain = JSON.parse(JSON.stringify(answer)) as unknown;
      const ok = validators[name](plain);
      expect(ok ? [] : validators[name].errors, name).toEqual([]);
    };
    agreed('boardPage', await boardPage(db.app, ana));
    agreed('shopSnapshot', await shopSnapshot(db.app, ana));
    for (const { number } of jobs) agreed('jobSnapshot', await jobSnapshot(db.app, ana, number));
    agreed('rigHistory', await rigHistory(db.app, ana, 1042));
    const { seq } = await jobSnapshot(db.app, ana, 1042);
    agreed('acknowledged', await submitCommand(db.app, ana, 1042, note(1042, seq)));
    expect(validators.boardPage({ ...(await boardPage(db.app, ana)), tickets: [{}] })).toBe(false);
  });

  it('the board has pages of finished jobs, none twice and none left out, and tickets of jobs of before', async () => {
    const done = jobs.find((j) => j.status === 'done')!;
    await withShop(db.owner, shop, async (tx) => {
      for (let n = 3001; n <= 3055; n++) await insertJob(tx, shop, randomUUID(), renumbered(done, n));
      // As they stood before tickets were kept.
      await tx('jobs').where('number', '>', 3000).update({ ticket: null });
    });
    const first = (await boardPage(db.app, ana))!;
    const seen = first.tickets.filter((t) => t.status === 'done').map((t) => t.number);
    for (let before = first.olderThan; before !== undefined;) {
      const page = (await boardPage(db.app, ana, { olderThan: before }))!;
      expect(page.tickets.every((t) => t.status === 'done' && t.number < before!)).toBe(true);
      seen.push(...page.tickets.map((t) => t.number));
      before = page.olderThan;
    }
    expect(seen).toHaveLength(first.counts.done);
    expect(new Set(seen).size).toBe(seen.length);
    expect(first.tickets.every((t) => t.rig.length > 0 && t.next.words.length > 0)).toBe(true);
  });

  it('refuses a page that begins at no job', () => {
    expect(() => boardQuery('http://x/api/jobs?before=abc')).toThrow(/number of a job/);
    expect(boardQuery('http://x/api/jobs?before=1042&since=3-9')).toEqual({ olderThan: 1042, since: '3-9' });
    expect(boardQuery('/api/jobs')).toEqual({});
  });

  it('what no text can hold is found nowhere', async () => {
    expect((await searchShop(db.app, ana, 'coach')).hits.length).toBeGreaterThan(0);
    for (const words of ['coach\u0000', '\ud800coach'])
      expect(await searchShop(db.app, ana, words)).toEqual({ hits: [], more: false });
  });

  it('what lies in parts by shop is asked for by its shop', async () => {
    const asked: string[] = [];
    const listen = ({ sql }: { sql: string }) => void asked.push(sql);
    db.app.on('query', listen);
    const { seq } = await jobSnapshot(db.app, ana, 1042);
    await submitCommand(db.app, ana, 1042, note(1042, seq));
    await submitCommand(db.app, ana, 1042, {
      ...note(1042, seq + 1),
      type: 'job.set-status',
      payload: { status: 'in-the-bay' },
    });
    await jobTrail(db.app, ana, 1042);
    await packJob(db.app, ana, 1042);
    await packedLog(db.app, ana, 1042, 'a'.repeat(64)).catch(() => undefined);
    await storeLog(db.app, ana, 1042, gzipSync(strToU8('time,V\n2026-01-01 10:00,12.4\n')));
    db.app.removeListener('query', listen);
    const inParts = asked.filter((sql) => /from "(commands|log_files)"/.test(sql));
    expect(inParts.length).toBeGreaterThan(6);
    for (const sql of inParts) expect(sql).toMatch(/"shop_id" = \$\d/);
  });

  it('a command writes only the columns it changed', async () => {
    const { seq } = await jobSnapshot(db.app, ana, 1042);
    const asked: string[] = [];
    const listen = ({ sql }: { sql: string }) => void asked.push(sql);
    db.app.on('query', listen);
    await submitCommand(db.app, ana, 1042, note(1042, seq));
    db.app.removeListener('query', listen);
    const update = asked.filter((s) => s.startsWith('update "jobs"'));
    expect(update).toHaveLength(1);
    expect([...update[0]!.matchAll(/"(\w+)" = /g)].map((m) => m[1]).sort()).toEqual(
      ['changed_at', 'id', 'seq', 'ticket'].sort(),
    );
  });
});

describe('a failure', () => {
  const body = async (e: unknown) => {
    const r = failureResponse(e);
    return {
      status: r.status,
      ...((await r.json()) as { error: { code: string; message: string; id?: string } }).error,
    };
  };

  it('of ours is a 500 under an id, with the stack in the log; it is no outage', async () => {
    const said = vi.spyOn(log, 'error').mockImplementation(() => undefined);
    const told = await body(new TypeError('x is undefined'));
    expect(told).toMatchObject({ status: 500, code: 'fault' });
    expect(told.message).toContain(told.id);
    const [line] = said.mock.calls[0] as unknown as [{ fault: string; err: Error }];
    expect(line.fault).toBe(told.id);
    expect(line.err.stack).toContain('edge.test');
    said.mockRestore();
  });

  it.each([
    ['the database is not there', Object.assign(new Error('connect ECONNREFUSED'), { code: 'ECONNREFUSED' })],
    ['it is shutting down', Object.assign(new Error('terminating connection'), { code: '57P01' })],
    ['its disk is full', Object.assign(new Error('could not extend file'), { code: '53100' })],
    ['two transactions met', Object.assign(new Error('deadlock detected'), { code: '40P01' })],
    [
      'the pool is full',
      Object.assign(new Error('Knex: Timeout acquiring a connection'), { name: 'KnexTimeoutError' }),
    ],
    ['the connection went away', new Error('Connection terminated unexpectedly')],
  ])('because %s is an outage: 503', async (_, e) => {
    const said = vi.spyOn(log, 'error').mockImplementation(() => undefined);
    expect(isOutage(e)).toBe(true);
    expect(await body(e)).toMatchObject({ status: 503, code: 'unavailable' });
    said.mockRestore();
  });

  it.each([
    ['a broken constraint', Object.assign(new Error('duplicate key'), { code: '23505' })],
    ['a value the column cannot hold', Object.assign(new Error('out of range'), { code: '22003' })],
    ['a syntax error', Object.assign(new Error('syntax error'), { code: '42601' })],
    ['no error at all', 'x'],
  ])('for %s is no outage', (_, e) => expect(isOutage(e)).toBe(false));

  it('that is a refusal keeps its status and names every issue', async () => {
    const told = failureResponse(new Refused(400, 'invalid', 'no', [{ pointer: '/a', found: '1', wanted: '2' }]));
    expect(told.status).toBe(400);
    expect(await told.json()).toEqual({
      error: { code: 'invalid', message: 'no', issues: [{ pointer: '/a', found: '1', wanted: '2' }] },
    });
  });
});

describe('what the schema accepts the database accepts', () => {
  const invalid = (c: object) => {
    const r = validateCommand(c);
    return r.ok ? undefined : r.error[0]!.pointer;
  };

  it.each([
    ['a NUL', (c: ReturnType<typeof note>) => ({ ...c, payload: { ...c.payload, text: 'a\0b' } }), '/payload/text'],
    ['half a character', (c) => ({ ...c, payload: { ...c.payload, text: 'a\ud800b' } }), '/payload/text'],
    ['the 30th of February', (c) => ({ ...c, at: '2026-02-30T10:00:00Z' }), '/at'],
    ['the 31st of June', (c) => ({ ...c, at: '2026-06-31T10:00:00Z' }), '/at'],
    ['hour 25', (c) => ({ ...c, at: '2026-06-01T25:00:00Z' }), '/at'],
    ['the year 0', (c) => ({ ...c, at: '0000-06-01T10:00:00Z' }), '/at'],
    ['an integer too large', (c) => ({ ...c, baseSeq: 2 ** 31 }), '/baseSeq'],
  ] as [string, (c: ReturnType<typeof note>) => object, string][])(
    '%s is refused at the edge, with its place',
    (_, spoil, at) => {
      expect(invalid(note(1042, 0))).toBeUndefined();
      expect(invalid(spoil(note(1042, 0)))).toBe(at);
    },
  );

  it('a whole emoji is text like any other', async () => {
    const { seq } = await jobSnapshot(db.app, ana, 1042);
    await submitCommand(db.app, ana, 1042, note(1042, seq, 'hot 🔥 stud'));
    const { job } = await jobSnapshot(db.app, ana, 1042);
    expect(job.observations.at(-1)!.text).toBe('hot 🔥 stud');
  });

  const done = jobs.find((j) => j.verdicts.length > 0)!;
  const second = { ...done.verdicts[0]!, id: randomUUID() };
  it.each([
    ['a rig id with a space', { ...done, rigId: 'Heron A' }, '/rigId'],
    ['a second standing verdict of one epoch', { ...done, verdicts: [...done.verdicts, second] }, '/verdicts/1'],
    [
      'a repair of an unknown revision',
      { ...done, repairs: [{ ...done.repairs[0]!, revision: randomUUID() }] },
      '/repairs/0/revision',
    ],
    [
      'a revision of an unknown parent',
      { ...done, revisions: done.revisions.map((r) => ({ ...r, parent: randomUUID() })) },
      '/revisions/0/parent',
    ],
    [
      'a reading twice',
      { ...done, readings: [...done.readings, done.readings[0]!] },
      `/readings/${done.readings.length}/id`,
    ],
  ])('a job with %s is refused by the format, with its place, and so by the import', async (_, job, at) => {
    const checked = validateJobDocument(JSON.parse(JSON.stringify(job)));
    expect(checked.ok ? [] : checked.error.map((i) => i.pointer)).toContain(at);
    await expect(importJob(db.app, ana, new TextEncoder().encode(JSON.stringify(job)))).rejects.toMatchObject({
      status: 400,
      code: 'invalid',
    });
  });

  it('all that is wrong with a document is said at once', () => {
    const bad = { ...done, number: 'x', rigId: '', status: 'gone', blackLead: 7 };
    const checked = validateJobDocument(JSON.parse(JSON.stringify(bad)));
    expect(checked.ok ? [] : checked.error.map((i) => i.pointer).sort()).toEqual(
      ['/blackLead', '/number', '/rigId', '/status'].sort(),
    );
  });
});
