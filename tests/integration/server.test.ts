import { randomUUID } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoJobs } from '../../db/demo/jobs';
import { MIGRATIONS, migrationSource } from '../../db/migrations';
import type { Command, CommandType, Payload } from '../../src/core/job/command';
import type { Actor } from '../../src/server/actor';
import { submitCommand } from '../../src/server/job/commands';
import { withShop } from '../../src/server/db';
import { insertJob, loadJob } from '../../src/server/job/jobStore';
import { boardPage } from '../../src/server/job/board';
import { jobSnapshot } from '../../src/server/job/snapshot';
import { hashPassword } from '../../src/server/password';
import { actorOf, signIn, signOut } from '../../src/server/signIn';
import { testDatabase, whole, type TestDatabase } from './database';

let db: TestDatabase;
const shops = [randomUUID(), randomUUID()] as const;
const people: Actor[] = [];
const NOW = new Date('2026-11-24T16:00:00Z');

beforeAll(async () => {
  db = await testDatabase();
  const password_hash = await hashPassword('right horse');
  for (const [i, shop] of shops.entries()) {
    await db.owner('shops').insert({ id: shop, name: `Shop ${i}`, demo: i === 1 });
    for (const n of [0, 1]) {
      const person = {
        id: randomUUID(),
        handle: `tech${i}${n}`,
        name: `Technician ${i}${n}`,
        role: 'technician' as const,
      };
      await db.owner('people').insert({ shop_id: shop, ...person, password_hash });
      people.push({
        shopId: shop,
        sessionId: randomUUID(),
        personId: person.id,
        name: person.name,
        role: 'technician',
      });
    }
    for (const id of new Set(demoJobs(NOW).map((j) => j.rigId)))
      await db.owner('rigs').insert({ shop_id: shop, id, nickname: id });
    await db.owner.transaction(async (tx) => {
      for (const job of demoJobs(NOW)) await insertJob(tx, shop, randomUUID(), job);
    });
  }
});
afterAll(() => db.drop());

const [ana, ben, eve] = [0, 1, 2].map((i) => () => people[i]!) as [() => Actor, () => Actor, () => Actor];

function command<T extends CommandType>(actor: Actor, type: T, payload: Payload<T>, baseSeq = 0): Command {
  return { id: randomUUID(), type, version: 1, baseSeq, at: NOW.toISOString(), actor: actor.name, payload } as Command;
}
const reading = (actor: Actor, value: number) =>
  command(actor, 'reading.keep', {
    id: randomUUID(),
    state: 'idle',
    probe: 'link.coach-stud',
    ref: 'frame.bay-2',
    status: 'measured',
    value,
    unit: 'V',
    secondsInState: 190,
  });
const seqNow = async () => (await jobSnapshot(db.app, ana(), 1042)).seq;

describe('migrations', () => {
  it('of the folder and of the registry are the same, and run down and up again', async () => {
    const files = readdirSync('db/migrations')
      .filter((f) => /^\d{4}-.*\.ts$/.test(f))
      .map((f) => f.replace('.ts', ''));
    expect(MIGRATIONS.map(([name]) => name)).toEqual(files.sort());
    const scratch = await testDatabase();
    await scratch.owner.migrate.rollback({ migrationSource }, true);
    await scratch.owner.migrate.latest({ migrationSource });
    await scratch.drop();
  });
});

describe('shops', () => {
  it('see nothing of each other, whatever the query', async () => {
    const seen = await withShop(db.app, shops[0], (tx) => tx('people').select('name'));
    expect(seen.map((p) => (p as { name: string }).name).sort()).toEqual(['Technician 00', 'Technician 01']);
    // Every table there is, so that none that is added later is forgotten.
    const { rows } = await db.owner.raw<{ rows: { table: string; guarded: boolean }[] }>(
      `SELECT c.relname AS table, c.relrowsecurity AS guarded FROM pg_class c WHERE c.relkind ` +
        `IN ('r', 'p') AND c.relnamespace = current_schema()::regnamespace AND (c.relname = 'shops' OR ` +
        `EXISTS (SELECT 1 FROM pg_attribute a WHERE a.attrelid = c.oid AND a.attname = 'shop_id'))`,
    );
    expect(rows.map((r) => r.table)).toEqual(
      expect.arrayContaining([
        'shops',
        'people',
        'jobs',
        'revisions',
        'commands',
        'readings',
        'photo_files',
        'log_files',
        'shop_commands',
      ]),
    );
    expect(rows.filter((r) => !r.guarded)).toEqual([]);
    for (const { table } of rows) {
      expect(await db.app(table).select('*'), `${table} without a shop`).toEqual([]);
    }
    await expect(
      withShop(db.app, shops[0], (tx) => tx('customers').insert({ shop_id: shops[1], id: randomUUID(), name: 'x' })),
    ).rejects.toThrow(/row-level security/);
    const changed = await withShop(db.app, shops[0], (tx) =>
      tx('jobs').where({ shop_id: shops[1] }).update({ status: 'done' }),
    );
    expect(changed).toBe(0);
  });

  it('are kept apart by a role that cannot lift the rule', async () => {
    const { rows } = await db.owner.raw<{ rows: { rolsuper: boolean; rolbypassrls: boolean; rolcreatedb: boolean }[] }>(
      `SELECT rolsuper, rolbypassrls, rolcreatedb FROM pg_roles WHERE rolname = 'surrik_app'`,
    );
    expect(rows[0]).toEqual({ rolsuper: false, rolbypassrls: false, rolcreatedb: false });
    await expect(db.app.raw('ALTER TABLE jobs DISABLE ROW LEVEL SECURITY')).rejects.toThrow(/must be owner/);
    await expect(withShop(db.app, shops[0], (tx) => tx('commands').update({ type: 'x' }))).rejects.toThrow(
      /permission denied/,
    );
    await expect(withShop(db.app, shops[0], (tx) => tx('readings').delete())).rejects.toThrow(/permission denied/);
  });

  it('have constraints that make bad states impossible', async () => {
    const bad = (change: object) =>
      withShop(db.app, shops[0], async (tx) => {
        const row = (await tx('readings').first()) as Record<string, unknown>;
        await tx('readings').insert({ ...row, id: randomUUID(), position: 999, ...change });
      });
    await expect(bad({ value: null })).rejects.toThrow(/check/);
    await expect(bad({ value: 1e6 })).rejects.toThrow(/check/);
    await expect(bad({ unit: 'ohm' })).rejects.toThrow(/check/);
    await expect(bad({ job_id: randomUUID() })).rejects.toThrow(/foreign key/);
  });
});

describe('a job', () => {
  it('comes out of the tables as it went in', async () => {
    for (const job of demoJobs(NOW)) {
      const stored = await withShop(db.app, shops[1], (tx) => loadJob(tx, job.number));
      expect(stored!.job).toEqual(job);
    }
  });

  it('of another shop is not there', async () => {
    await expect(jobSnapshot(db.app, { ...ana(), shopId: randomUUID() }, 1042)).rejects.toMatchObject({ status: 404 });
  });

  it('stands on the board with its next step', async () => {
    const board = (await boardPage(db.app, ana()))!;
    expect(board.tickets.map((t) => [t.number, t.status])).toEqual(
      [...demoJobs(NOW)].sort((a, b) => b.number - a.number).map((j) => [j.number, j.status]),
    );
    expect(board.tickets.find((t) => t.number === 1042)!.next.station).toBe('Readings');
  });
});

describe('a command', () => {
  it('is taken in once; the same again is acknowledged again; other content under its id is refused', async () => {
    const c = reading(ana(), 12.31);
    const first = await submitCommand(db.app, ana(), 1042, c);
    const again = await submitCommand(db.app, ana(), 1042, structuredClone(c));
    expect(again).toEqual({ ...first, again: true });
    const other = structuredClone(c) as { payload: { value: number } };
    other.payload.value = 14;
    await expect(submitCommand(db.app, ana(), 1042, other)).rejects.toMatchObject({ status: 409, code: 'id-reused' });
    const { job } = await jobSnapshot(db.app, ana(), 1042);
    expect(job.readings.filter((r) => r.id === (c.payload as { id: string }).id).map((r) => r.value)).toEqual([12.31]);
  });

  it('sent twenty times at once changes the job once', async () => {
    const c = reading(ben(), 12.42);
    const before = await seqNow();
    const answers = await Promise.all(Array.from({ length: 20 }, () => submitCommand(db.app, ben(), 1042, c)));
    expect(new Set(answers.map((a) => a.seq)).size).toBe(1);
    expect(await seqNow()).toBe(before + 1);
  });

  it('readings of two people are both kept', async () => {
    const base = await seqNow();
    await Promise.all([
      submitCommand(db.app, ana(), 1042, { ...reading(ana(), 12.5), baseSeq: base }),
      submitCommand(db.app, ben(), 1042, { ...reading(ben(), 12.6), baseSeq: base }),
    ]);
    const { job } = await jobSnapshot(db.app, ana(), 1042);
    expect(job.readings.map((r) => r.value)).toEqual(expect.arrayContaining([12.5, 12.6]));
  });

  it('that decides what somebody else decided meanwhile is refused and names them', async () => {
    const base = await seqNow();
    const verdict = (name: string) => ({
      id: randomUUID(),
      fault: 'link.contact-open',
      name,
      repair: 'Replace',
      probability: 0.9,
      settled: true,
    });
    await submitCommand(db.app, ana(), 1042, command(ana(), 'verdict.declare', verdict('Contact burnt open'), base));
    await expect(
      submitCommand(db.app, ben(), 1042, command(ben(), 'verdict.declare', verdict('Fuse open'), base)),
    ).rejects.toMatchObject({
      status: 409,
      code: 'conflict',
      message: expect.stringContaining('Technician 00'),
    });
    const { job } = await jobSnapshot(db.app, ana(), 1042);
    expect(job.verdicts.map((v) => v.name)).toEqual(['Contact burnt open']);
  });

  it('of a bad shape, another person, a missing job: refused in words, nothing stored', async () => {
    const before = await seqNow();
    const bad = structuredClone(reading(ana(), 12)) as { payload: { value: unknown } };
    bad.payload.value = '12,60';
    await expect(submitCommand(db.app, ana(), 1042, bad)).rejects.toMatchObject({
      status: 400,
      message: expect.stringContaining('/payload/value'),
    });
    await expect(submitCommand(db.app, ana(), 1042, reading(ben(), 12))).rejects.toMatchObject({ status: 403 });
    await expect(submitCommand(db.app, ana(), 7, reading(ana(), 12))).rejects.toMatchObject({ status: 404 });
    const moon = structuredClone(reading(ana(), 12)) as { payload: { probe: string } };
    moon.payload.probe = 'moon.plus';
    await expect(submitCommand(db.app, ana(), 1042, moon)).rejects.toMatchObject({
      status: 409,
      message: expect.stringContaining('a probe of this rig'),
    });
    expect(await seqNow()).toBe(before);
  });

  it('whose connection is killed in the middle leaves nothing half done, and goes in when sent again', async () => {
    const before = await seqNow();
    const c = reading(ana(), 12.77);
    // A trigger that waits stands for the moment between two writes.
    await db.owner.raw(`
      CREATE FUNCTION wait_a_moment() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN PERFORM pg_sleep(3); RETURN NEW; END $$;
      CREATE TRIGGER slow BEFORE INSERT ON readings FOR EACH ROW EXECUTE FUNCTION wait_a_moment();
    `);
    const saving = submitCommand(db.app, ana(), 1042, c).then(
      () => 'saved',
      () => 'failed',
    );
    await new Promise((r) => setTimeout(r, 800));
    // The app's own role may end its own connections.
    await db.app.raw(
      `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE usename = 'surrik_app' AND datname = ? AND pid <> pg_backend_pid()`,
      [db.name],
    );
    expect(await saving).toBe('failed');
    await db.owner.raw('DROP TRIGGER slow ON readings; DROP FUNCTION wait_a_moment();');
    expect(await seqNow()).toBe(before);
    expect(await submitCommand(db.app, ana(), 1042, c)).toMatchObject({ again: false, seq: before + 1 });
  });
});

describe('signing in', () => {
  it('needs the right password, never says which was wrong, and ends when told to', async () => {
    const wrong = await signIn(db.app, 'tech00', 'wrong horse', { allowDemo: true, address: '10.0.0.1' }).catch(
      (e: Error) => e.message,
    );
    const nobody = await signIn(db.app, 'nobody', 'wrong horse', { allowDemo: true, address: '10.0.0.1' }).catch(
      (e: Error) => e.message,
    );
    expect(wrong).toBe(nobody);
    const session = await whole(signIn(db.app, ' Tech00 ', 'right horse', { allowDemo: true, address: '10.0.0.1' }));
    const actor = await actorOf(db.app, session);
    expect(actor).toMatchObject({ name: 'Technician 00', shopId: shops[0] });
    expect(await actorOf(db.app, { ...session, shopId: shops[1] })).toBeUndefined();
    await signOut(db.app, actor!);
    expect(await actorOf(db.app, session)).toBeUndefined();
  });

  it('refuses demo people when Surrik is exposed, and slows down guessing', async () => {
    await expect(
      signIn(db.app, 'tech10', 'right horse', { allowDemo: false, address: '10.0.0.1' }),
    ).rejects.toMatchObject({ status: 403 });
    let last: { status?: number } = {};
    for (let k = 0; k < 12; k++)
      last = (await signIn(db.app, 'guessed', `try ${k}`, { allowDemo: true, address: '10.0.0.1' }).catch(
        (e: object) => e,
      )) as {
        status?: number;
      };
    expect(last.status).toBe(429);
  });

  it('keeps only a memory-hard hash', async () => {
    const row = (await db.owner('people').first('password_hash')) as { password_hash: string };
    expect(row.password_hash).toMatch(/^\$argon2id\$/);
  });

  it('an inactive person is not let in', async () => {
    await db.owner('people').where({ handle: 'tech11' }).update({ active: false });
    await expect(
      signIn(db.app, 'tech11', 'right horse', { allowDemo: true, address: '10.0.0.1' }),
    ).rejects.toMatchObject({ status: 401 });
    expect(eve().name).toBe('Technician 10');
  });
});
