/**
 * What exists still opens: databases, job files and zips that an earlier commit wrote (tests/fixtures), with the same
 * readings, verdicts and signatures. The fixtures are never written again.
 */
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { migrationSource } from '../../db/migrations';
import { DEMO_SHOP } from '../../db/demo/shop';
import { applyCommand } from '../../src/core/job/applyCommand';
import type { Command } from '../../src/core/job/command';
import { standingSignOff, type Job } from '../../src/core/job/job';
import { parseJobText, validateJobDocument } from '../../src/core/openFormats/validate';
import type { Actor } from '../../src/server/actor';
import { readSecrets } from '../../src/server/config';
import { connect } from '../../src/server/db';
import { boardPage } from '../../src/server/job/board';
import { submitCommand } from '../../src/server/job/commands';
import { importJob, packJob } from '../../src/server/job/jobArchive';
import { jobSnapshot } from '../../src/server/job/snapshot';
import { testDatabase, type TestDatabase } from './database';

const FIXTURES = join(import.meta.dirname, '../fixtures');
const COMMITS = readdirSync(FIXTURES, { withFileTypes: true }).flatMap((e) => (e.isDirectory() ? [e.name] : []));

interface Snapshot {
  seq: number;
  job: Job;
  identity: object;
}

describe.each(COMMITS)('what commit %s wrote', (commit) => {
  const file = (name: string) => join(FIXTURES, commit, name);
  const snapshots = JSON.parse(readFileSync(file('snapshots.json'), 'utf8')) as Record<string, Snapshot>;
  const name = `surrik_old_${commit}_${process.pid}`;
  let root: Knex;
  let owner: Knex;
  let app: Knex;
  let fresh: TestDatabase;
  let actor: Actor;

  beforeAll(async () => {
    const base = process.env['SURRIK_BASE']!;
    const port = Number(process.env['SURRIK_DB_PORT']);
    const secrets = readSecrets(base);
    const at = (database: string, user: string, key: string) =>
      connect({ host: '127.0.0.1', port, name: database }, user, secrets[key]!);
    root = at('postgres', 'surrik_owner', 'OWNER_PASSWORD');
    await root.raw(`CREATE DATABASE ${name}`);
    const bin = readdirSync('/usr/lib/postgresql').sort((a, b) => Number(b) - Number(a))[0]!;
    execFileSync(
      `/usr/lib/postgresql/${bin}/bin/pg_restore`,
      ['-h', '127.0.0.1', '-p', String(port), '-U', 'surrik_owner', '-d', name, '--no-owner', file('shop.dump')],
      { env: { ...process.env, PGPASSWORD: secrets['OWNER_PASSWORD']! } },
    );
    owner = at(name, 'surrik_owner', 'OWNER_PASSWORD');
    await owner.migrate.latest({ migrationSource });
    app = at(name, 'surrik_app', 'APP_PASSWORD');
    const person = (await owner('people').where({ shop_id: DEMO_SHOP.id, handle: 'bay2' }).first()) as {
      id: string;
      name: string;
    };
    actor = {
      shopId: DEMO_SHOP.id,
      sessionId: randomUUID(),
      personId: person.id,
      name: person.name,
      role: 'technician',
    };
    fresh = await testDatabase();
    await fresh.owner('shops').insert({ id: DEMO_SHOP.id, name: 'Another machine' });
    await fresh.owner('people').insert({
      shop_id: DEMO_SHOP.id,
      id: actor.personId,
      handle: 'bay2',
      name: actor.name,
      role: 'technician',
      password_hash: 'x',
    });
  });
  afterAll(async () => {
    await app.destroy();
    await owner.destroy();
    await fresh.drop();
    await root.raw(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
    await root.destroy();
  });

  it.each(Object.keys(snapshots).map((n) => [Number(n)]))('job %i comes out of its database as it was', async (n) => {
    const now = await jobSnapshot(app, actor, n);
    const then = snapshots[n]!;
    expect(now.job).toEqual(then.job);
    expect(now.seq).toBe(then.seq);
    expect(now.identity).toEqual(then.identity);
  });

  it('stands on the board, every job of it, though tickets were not kept then', async () => {
    const board = (await boardPage(app, actor))!;
    expect(board.tickets.map((t) => t.number).sort()).toEqual(Object.keys(snapshots).map(Number).sort());
    expect(board.tickets.find((t) => t.number === 1042)).toMatchObject({ status: 'done', next: { station: 'Done' } });
  });

  it('is signed still, takes what a signed record takes, and nothing else', async () => {
    const { job, seq } = await jobSnapshot(app, actor, 1042);
    const signed = standingSignOff(job)!;
    expect(signed.words).toBe('Repaired and proved.');
    const command = (type: string, payload: object): Command =>
      ({
        id: randomUUID(),
        type,
        version: 1,
        baseSeq: seq,
        at: '2026-12-02T10:00:00Z',
        actor: actor.name,
        payload,
      }) as unknown as Command;
    expect(applyCommand(job, command('note.add', { id: randomUUID(), text: 'x' }))).toMatchObject({ ok: false });
    const later = { id: randomUUID(), due: '2027-06-01', what: 'Look again', by: actor.name };
    await submitCommand(app, actor, 1042, command('followUp.set', { set: later }));
    const reopen = { id: signed.id, reason: 'One figure was misread.', revision: randomUUID() };
    await submitCommand(app, actor, 1042, { ...command('record.reopen', reopen), baseSeq: seq + 1 });
    const opened = (await jobSnapshot(app, actor, 1042)).job;
    expect(standingSignOff(opened)).toBeUndefined();
    expect(opened.readings).toEqual(job.readings);
  });

  it('its job file is read, whole', () => {
    const text = readFileSync(file('job-1042.surrik.json'), 'utf8');
    const parsed = parseJobText(text);
    const checked = parsed.ok ? validateJobDocument(parsed.value) : parsed;
    expect(checked.ok ? [] : checked.error).toEqual([]);
    expect(checked.ok && checked.value).toEqual(snapshots['1042']!.job);
  });

  it('its zip is taken in on another machine, with the same readings, verdicts and signature, and goes out again', async () => {
    const { number, again } = await importJob(fresh.app, actor, readFileSync(file('job-1042.surrik.zip')));
    expect(again).toBe(false);
    const { job } = await jobSnapshot(fresh.app, actor, number);
    const then = snapshots['1042']!.job;
    for (const list of ['readings', 'observations', 'verdicts', 'approvals', 'repairs', 'checks'] as const)
      expect(job[list], list).toEqual(then[list]);
    // Who signed there is told as what the file says.
    expect(job.signOffs).toEqual(then.signOffs!.map((s) => ({ ...s, elsewhere: true })));
    expect(job.revisions).toEqual(then.revisions);
    // The same file again is known again, and so is what this version packs of it.
    expect((await importJob(fresh.app, actor, readFileSync(file('job-1042.surrik.zip')))).again).toBe(true);
    expect((await importJob(fresh.app, actor, await packJob(fresh.app, actor, number))).again).toBe(true);
  });
});
