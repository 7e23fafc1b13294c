import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { validateJobDocument } from '../../src/core/openFormats/validate';
import { USUAL_MOTORHOME } from '../../src/core/rig/archetypes/motorhome';
import type { Actor } from '../../src/server/actor';
import { submitCommand } from '../../src/server/job/commands';
import { jobSnapshot } from '../../src/server/job/snapshot';
import { openJob } from '../../src/server/job/openJob';
import { testDatabase, type TestDatabase } from './database';

let db: TestDatabase;
const shop = randomUUID();
const actor: Actor = { shopId: shop, sessionId: randomUUID(), personId: randomUUID(), name: 'Ana', role: 'technician' };
const NOW = new Date('2026-11-25T16:00:00Z');
const request = (nickname: string, id = randomUUID()) => ({
  id,
  nickname,
  complaint: { codes: ['chassis-flat'], words: 'Start battery flat after a week.' },
  rig: { family: 'motorhome', choices: { ...USUAL_MOTORHOME, link: 'bidirectional', engineAt: 'front' } },
});

beforeAll(async () => {
  db = await testDatabase();
  await db.owner('shops').insert({ id: shop, name: 'Shop' });
  await db
    .owner('people')
    .insert({ shop_id: shop, id: actor.personId, handle: 'ana', name: 'Ana', role: 'technician', password_hash: 'x' });
});
afterAll(() => db.drop());

describe('opening a job', () => {
  it('gives a whole job of the chosen rig, and the same request again gives the same one', async () => {
    const wanted = request('Lark');
    const first = await openJob(db.app, actor, wanted, NOW);
    expect(await openJob(db.app, actor, wanted, NOW)).toEqual({ number: first.number, again: true });
    const { job } = await jobSnapshot(db.app, actor, first.number);
    expect(validateJobDocument(job)).toMatchObject({ ok: true });
    expect(job.complaint.codes).toEqual(['chassis-flat']);
    expect(job.revisions[0]!.doc.parts.find((p) => p.id === 'delay')!.kind).toBe('bidirectional-module');
  });

  it('gives two rigs of one name two ids, and jobs opened at once two numbers', async () => {
    const answers = await Promise.all(Array.from({ length: 6 }, () => openJob(db.app, actor, request('Wagtail'), NOW)));
    expect(new Set(answers.map((a) => a.number)).size).toBe(6);
    const ids = await Promise.all(answers.map(async (a) => (await jobSnapshot(db.app, actor, a.number)).job.rigId));
    expect(new Set(ids).size).toBe(6);
  });

  it('takes any name people write, and refuses a request of a bad shape in words', async () => {
    for (const name of ['Ärger & Söhne', '36', '…', 'x'.repeat(40)])
      expect((await openJob(db.app, actor, request(name), NOW)).again).toBe(false);
    await expect(openJob(db.app, actor, { ...request('Lark'), nickname: '' }, NOW)).rejects.toMatchObject({
      status: 400,
      message: expect.stringContaining('/nickname'),
    });
  });
});

describe('an edit of the rig', () => {
  it('by two people on the same part at once: the second is told, nothing is overwritten', async () => {
    const { number } = await openJob(db.app, actor, request('Plover'), NOW);
    const edit = (amps: number, baseSeq: number) => ({
      id: randomUUID(),
      type: 'part.edit',
      version: 1,
      baseSeq,
      at: NOW.toISOString(),
      actor: 'Ana',
      payload: {
        part: 'charger',
        was: { params: { limit: { value: 45, spread: 0.1, provenance: 'assumed' } } },
        set: { params: { limit: { value: amps, spread: 0.05, provenance: 'nameplate' } } },
        means: 'described-wrong',
      },
    });
    await submitCommand(db.app, actor, number, edit(55, 0));
    await expect(submitCommand(db.app, actor, number, edit(75, 0))).rejects.toMatchObject({
      status: 409,
      message: expect.stringContaining('this part'),
    });
    const { job } = await jobSnapshot(db.app, actor, number);
    expect(job.revisions[0]!.doc.parts.find((p) => p.id === 'charger')!.params['limit']!.value).toBe(55);
  });
});
