/** Backup and restore by the command itself, proven by restoring into a scratch cluster and comparing every row. */
import { execFile } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { resolve } from 'node:path';
import { promisify } from 'node:util';
import type { Knex } from 'knex';
import { afterAll, describe, expect, it } from 'vitest';
import { readSecrets } from '../../src/server/config';
import { connect } from '../../src/server/db';
import { passwordFits } from '../../src/server/password';

const run = promisify(execFile);
// As root the database runs as its own user, which must be able to get to its folder.
const home =
  process.getuid?.() === 0 ? `/var/lib/surrik/backup-test-${process.pid}` : resolve(`.data/backup-test-${process.pid}`);
const base = (name: string) => `${home}/${name}`;
mkdirSync(home, { recursive: true });
afterAll(async () => {
  for (const name of ['from', 'into', 'third']) await surrik(name, 'down');
  rmSync(home, { recursive: true, force: true });
});

async function surrik(instance: string, ...args: string[]): Promise<{ code: number; out: string }> {
  try {
    const { stdout } = await run('./surrik', args, {
      env: { ...process.env, SURRIK_BASE: base(instance), SURRIK_DB_PORT_FROM: '56310' },
      timeout: 120_000,
    });
    return { code: 0, out: stdout };
  } catch (e) {
    const x = e as { code: number; stdout: string; stderr: string };
    return { code: x.code, out: x.stdout + x.stderr };
  }
}

/** `backup` and `restore` leave no database running that they started: this one is started for the look. */
async function onDatabase<T>(instance: string, work: (db: Knex) => Promise<T>): Promise<T> {
  const bin = (await run('bash', ['-c', 'ls -d /usr/lib/postgresql/*/bin | sort -V | tail -1'])).stdout.trim();
  const root = process.getuid?.() === 0;
  const as = (args: string[]) =>
    root ? run('runuser', ['-u', 'postgres', '--', ...args], { cwd: '/' }) : run(args[0]!, args.slice(1), { cwd: '/' });
  const port = readFileSync(`${base(instance)}/db-port`, 'utf8').trim();
  const folder = ['-D', `${base(instance)}/pg`];
  await as([`${bin}/pg_ctl`, ...folder, '-w', '-l', `${base(instance)}/postgres.log`, '-o', `-p ${port}`, 'start']);
  let db: Knex | undefined;
  try {
    db = connect(
      { host: '127.0.0.1', port: Number(port), name: 'surrik' },
      'surrik_owner',
      readSecrets(base(instance))['OWNER_PASSWORD']!,
    );
    return await work(db);
  } finally {
    await db?.destroy();
    await as([`${bin}/pg_ctl`, ...folder, '-m', 'fast', '-w', 'stop']);
  }
}

/** Every row of every table of an instance, in one text per table. */
const everything = (instance: string): Promise<Record<string, string>> =>
  onDatabase(instance, async (db) => {
    const { rows } = await db.raw<{ rows: { tablename: string }[] }>(
      "SELECT tablename FROM pg_tables WHERE schemaname = 'public' ORDER BY 1",
    );
    const out: Record<string, string> = {};
    for (const { tablename } of rows) {
      const { rows: lines } = await db.raw<{ rows: { line: string }[] }>(
        `SELECT t::text AS line FROM "${tablename}" t ORDER BY 1`,
      );
      out[tablename] = lines.map((l) => l.line).join('\n');
    }
    return out;
  });

describe('backup and restore', () => {
  it('bring back every row into a cluster that never saw them, and refuse what is damaged or in the way', async () => {
    const added = await surrik('from', 'person', 'add', 'ana', 'Ana, bay 3', 'Shop of the lagoon');
    expect(added.out).toMatch(/Ana, bay 3 of Shop of the lagoon signs in as ana with [a-z0-9]{5}(-[a-z0-9]{5}){3}/);
    const password = /with (\S+)/.exec(added.out)![1]!;
    expect((await surrik('from', 'person', 'add', 'ana', 'Another')).out).toContain('ana is taken');
    expect((await surrik('from', 'person', 'add', 'ben', 'Ben')).code).toBe(0);

    const dump = `${home}/shop.dump`;
    expect(await surrik('from', 'backup', dump)).toMatchObject({ code: 0 });
    expect(statSync(dump).mode & 0o077).toBe(0);
    const [sum] = readFileSync(`${dump}.sha256`, 'utf8').split(' ');
    expect(createHash('sha256').update(readFileSync(dump)).digest('hex')).toBe(sum);
    expect((await surrik('from', 'backup', dump)).out).toContain('exists already');

    // One byte turned round: the checksum tells, nothing is made.
    const bad = Buffer.from(readFileSync(dump));
    bad[bad.length >> 1] = bad[bad.length >> 1]! ^ 0xff;
    writeFileSync(`${home}/bad.dump`, bad);
    copyFileSync(`${dump}.sha256`, `${home}/bad.dump.sha256`);
    writeFileSync(`${home}/bad.dump.sha256`, `${sum}  bad.dump\n`);
    expect((await surrik('into', 'restore', `${home}/bad.dump`)).out).toContain('not what its checksum says');
    expect(existsSync(`${base('into')}/pg`)).toBe(false);

    expect(await surrik('into', 'restore', dump)).toMatchObject({ code: 0 });
    const [was, is] = [await everything('from'), await everything('into')];
    expect(was['people']).toContain('Ben');
    expect(is).toEqual(was);
    const hash = /(\$argon2id\$[^,"]*(?:,[^,"]*)*)/.exec(
      is['people']!.split('\n').find((l) => l.includes('Ana'))!,
    )?.[1];
    expect(await passwordFits(hash!.replace(/"?,t\)?$/, ''), password)).toBe(true);

    expect((await surrik('into', 'restore', dump)).out).toContain('holds data already');
  });

  it('refuse what cannot be read back, and what a newer Surrik made, before anything is touched', async () => {
    const dump = `${home}/shop.dump`;
    const said = await surrik('from', 'backup', 'verify', dump);
    expect(said.out).toMatch(/read back into a cluster of its own: 1 shops, 0 jobs, 0 readings, 0 entries/);
    // Cut short, and without a checksum that would tell.
    writeFileSync(`${home}/cut.dump`, readFileSync(dump).subarray(0, statSync(dump).size - 900));
    await onDatabase('from', (db) =>
      db('knex_migrations').insert({ name: '0999-comets', batch: 9, migration_time: new Date() }),
    );
    await surrik('from', 'backup', `${home}/newer.dump`);
    await onDatabase('from', (db) => db('knex_migrations').where({ name: '0999-comets' }).delete());
    const newer = await surrik('third', 'restore', `${home}/newer.dump`);
    expect(newer.out).toContain('made by a newer Surrik');
    expect(newer.out).toContain('nothing was changed');
    const cut = await surrik('third', 'restore', `${home}/cut.dump`);
    expect(cut.code).not.toBe(0);
    expect(cut.out).toContain('nothing was changed');
    // Nothing of either stands in the way of the right one.
    expect((await surrik('third', 'restore', dump)).out).toMatch(/restored into .*: 1 shops/);
    expect(readdirSync(base('third')).filter((f) => f.startsWith('scratch'))).toEqual([]);
  });

  it('kept day by day are read back, and thinned to a week of days and five of weeks', async () => {
    const kept = `${base('from')}/backups`;
    mkdirSync(kept, { recursive: true });
    const day = (ago: number) => new Date(Date.now() - ago * 86_400_000).toISOString().slice(0, 10).replaceAll('-', '');
    for (let ago = 1; ago <= 60; ago++) {
      writeFileSync(`${kept}/${day(ago)}T030000Z.dump`, 'old');
      writeFileSync(`${kept}/${day(ago)}T030000Z.dump.sha256`, 'old');
    }
    const told = await surrik('from', 'backup', 'keep');
    expect(told.out).toMatch(/kept: .*\.dump, read back \(1 shops/);
    const left = readdirSync(kept)
      .filter((f) => f.endsWith('.dump'))
      .map((f) => f.slice(0, 8));
    for (let ago = 0; ago < 7; ago++) expect(left).toContain(day(ago));
    const older = left.filter((d) => d < day(6));
    expect(older.length).toBeGreaterThanOrEqual(4);
    expect(older.length).toBeLessThanOrEqual(5);
    for (const d of older) expect(d > day(35)).toBe(true);
    expect(readdirSync(kept).filter((f) => f.endsWith('.sha256'))).toHaveLength(left.length);
  });
});
