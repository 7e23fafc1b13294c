/** A shop's data as a whole: taken out, a customer erased, the demo removed. Done as the surrik command does it. */
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { demoJobs } from '../../db/demo/jobs';
import { DEMO_SHOP } from '../../db/demo/shop';
import { eraseCustomer, exportShop, listShops } from '../../src/cli/maintenance/data';
import { removeDemo, seedDemo } from '../../src/cli/maintenance/demo';
import type { Actor } from '../../src/server/actor';
import { withShop } from '../../src/server/db';
import { submitCommand } from '../../src/server/job/commands';
import { importJob } from '../../src/server/job/jobArchive';
import { insertJob } from '../../src/server/job/jobStore';
import { jobSnapshot } from '../../src/server/job/snapshot';
import { testDatabase, type TestDatabase } from './database';

let db: TestDatabase;
const shop = randomUUID();
const other = randomUUID();
const lead = (shopId: string): Actor => ({
  shopId,
  sessionId: randomUUID(),
  personId: randomUUID(),
  name: 'Lead',
  role: 'lead',
});
const [ana, eve] = [lead(shop), lead(other)];
const folder = mkdtempSync(join(tmpdir(), 'surrik-data-'));
const said: string[] = [];
const job = demoJobs(new Date('2026-11-24T16:00:00Z')).find((j) => j.number === 1042)!;

beforeAll(async () => {
  db = await testDatabase();
  vi.stubEnv('SURRIK_DB_NAME', db.name);
  vi.spyOn(console, 'log').mockImplementation((line: string) => void said.push(line));
  await seedDemo();
  for (const [actor, name] of [
    [ana, 'Lagoon'],
    [eve, 'Elsewhere'],
  ] as const) {
    await db.owner('shops').insert({ id: actor.shopId, name });
    await db.owner('people').insert({
      shop_id: actor.shopId,
      id: actor.personId,
      handle: name.toLowerCase(),
      name: 'Lead',
      role: 'lead',
      password_hash: 'x',
    });
    await withShop(db.owner, actor.shopId, async (tx) => {
      await tx('rigs').insert({ shop_id: actor.shopId, id: job.rigId, nickname: 'Heron' });
      await insertJob(tx, actor.shopId, randomUUID(), job);
    });
    let seq = 0;
    for (const [type, payload] of [
      ['identity.set', { was: {}, set: { customer: 'Robin Example', contact: '555 0100', plate: 'LGN 42' } }],
      ['note.add', { id: randomUUID(), text: 'robin example waits for a call' }],
    ] as const)
      await submitCommand(db.app, actor, 1042, {
        id: randomUUID(),
        type,
        version: 1,
        baseSeq: seq++,
        at: '2026-11-24T17:00:00.000Z',
        actor: 'Lead',
        payload,
      });
  }
});
afterAll(async () => {
  vi.restoreAllMocks();
  vi.unstubAllEnvs();
  rmSync(folder, { recursive: true, force: true });
  await db.drop();
});

/** All that is in the database, as text. */
async function everything(of?: string): Promise<string> {
  const { rows } = await db.owner.raw<{ rows: { table_name: string }[] }>(
    `SELECT table_name FROM information_schema.columns WHERE table_schema = 'public' AND column_name = 'shop_id'`,
  );
  const texts = await Promise.all(
    rows.map(async ({ table_name: t }) =>
      JSON.stringify(await db.owner(t).modify((q) => void (of && q.where({ shop_id: of })))),
    ),
  );
  return texts.join('\n');
}

describe('everything of a shop', () => {
  it('is listed, and goes out in one file that another Surrik takes in job by job', async () => {
    await listShops();
    expect(said.join('\n')).toMatch(/Lagoon: 1 jobs/);
    expect(said.join('\n')).toContain(`${DEMO_SHOP.name} (demo)`);
    const file = join(folder, 'lagoon.zip');
    await exportShop('Lagoon', file);
    const files = unzipSync(readFileSync(file));
    expect(Object.keys(files).sort()).toEqual([
      'customers.csv',
      'jobs/1042-trail.csv',
      'jobs/1042.zip',
      'people.csv',
      'shop.json',
    ]);
    expect(strFromU8(files['customers.csv']!)).toContain('Robin Example,555 0100');
    expect(strFromU8(files['jobs/1042-trail.csv']!)).toContain('note.add');
    expect(strFromU8(files['people.csv']!)).not.toMatch(/argon2|password|,x\b/);
    // The other shop has a job of these ids of its own: it is taken in where it never was.
    const fresh: Actor = lead(randomUUID());
    await db.owner('shops').insert({ id: fresh.shopId, name: 'Fresh' });
    const taken = await importJob(db.app, fresh, files['jobs/1042.zip']!);
    expect((await jobSnapshot(db.app, fresh, taken.number)).job.readings).toEqual(
      (await jobSnapshot(db.app, ana, 1042)).job.readings,
    );
    expect(await everything(shop)).not.toContain('Elsewhere');
  });

  it('wants a shop that there is', async () => {
    await expect(exportShop('Nowhere', join(folder, 'x.zip'))).rejects.toThrow('which shop?');
  });
});

describe('a customer who wants to be forgotten', () => {
  it('is, in this shop, in the tables and in what was entered; the job stays, and notes with the name are told', async () => {
    said.length = 0;
    // A paper in the making holds the whole job.
    const run = { kind: 'report', input: Buffer.from('Robin Example') };
    for (const shop_id of [shop, other]) await db.owner('runs').insert({ ...run, shop_id, id: randomUUID() });
    await eraseCustomer('Robin Example', 'Lagoon');
    expect(await db.owner('runs').pluck('shop_id')).toEqual([other]);
    const left = await everything(shop);
    expect(left).not.toMatch(/Robin Example|555 0100|LGN 42/);
    expect(said.join('\n')).toContain('jobs that stay: 1042');
    expect(said.join('\n')).toContain('1 notes of these jobs hold the name');
    expect((await jobSnapshot(db.app, ana, 1042)).identity).toEqual({});
    expect((await jobSnapshot(db.app, eve, 1042)).identity).toMatchObject({ customer: 'Robin Example' });
    await expect(eraseCustomer('Robin Example', 'Lagoon')).rejects.toThrow('nobody is called');
  });
});

describe('the demo', () => {
  it('goes for good, with everything that hangs on it; other shops stay as they are', async () => {
    const before = [await everything(shop), await everything(other)];
    await removeDemo();
    expect(await db.owner('shops').where({ demo: true })).toEqual([]);
    expect(await everything()).not.toContain(DEMO_SHOP.id);
    expect([await everything(shop), await everything(other)]).toEqual(before);
    await expect(removeDemo()).rejects.toThrow('no demo');
  });
});
