/**
 * `./surrik up` as a shop runs it, with its parts killed and stopped under it: it always ends with a server that has its
 * database, on the port it had, and `down` leaves nothing behind.
 */
import { execFile, spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { resolve } from 'node:path';
import { promisify } from 'node:util';
import { DEMO_PEOPLE, DEMO_SHOP } from '../../db/demo/shop';
import { readSecrets } from '../../src/server/config';
import { connect } from '../../src/server/db';
import { Ledger } from '../ledger';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';

const run = promisify(execFile);
const base =
  process.getuid?.() === 0 ? `/var/lib/surrik/watch-test-${process.pid}` : resolve(`.data/watch-test-${process.pid}`);
// A server that hangs is given up after three silent seconds here; a shop's has fifteen.
const env = { ...process.env, SURRIK_BASE: base, SURRIK_DB_PORT_FROM: '56510', SURRIK_ANSWER_WITHIN: '1' };
delete (env as Record<string, unknown>)['SURRIK_DB_NAME'];
delete (env as Record<string, unknown>)['SURRIK_DB_PORT'];
let port = 0;
const watches: ChildProcess[] = [];
const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));

const surrik = async (...args: string[]) =>
  run('./surrik', args, { env, timeout: 120_000 }).then(
    ({ stdout }) => stdout.trim(),
    (e: { stdout: string; stderr: string }) => `failed: ${e.stdout}${e.stderr}`,
  );
/** Begins to watch; what it says is kept. */
function up(): { said(): string } {
  const child = spawn('./surrik', ['up', '--port', String(port)], { env, stdio: ['ignore', 'pipe', 'pipe'] });
  watches.push(child);
  let text = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (d: Buffer) => (text += String(d)));
  return { said: () => text };
}
const asked = (path: string) =>
  fetch(`http://127.0.0.1:${port}${path}`, { signal: AbortSignal.timeout(3000) }).then(
    async (r) => (await r.json()) as Record<string, unknown>,
    () => undefined,
  );
async function until(what: string, holds: () => Promise<boolean> | boolean, seconds = 60): Promise<void> {
  for (const end = Date.now() + seconds * 1000; Date.now() < end; await pause(200)) if (await holds()) return;
  throw new Error(`not within ${seconds} s: ${what}`);
}
const isReady = async () => (await asked('/api/ready'))?.['ready'] === true;

const environ = (pid: string) => {
  try {
    return readFileSync(`/proc/${pid}/environ`, 'utf8').split('\0');
  } catch {
    return [];
  }
};
const commandOf = (pid: string) => {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ');
  } catch {
    return '';
  }
};
const running = (command: string) =>
  readdirSync('/proc')
    .filter((d) => /^\d+$/.test(d) && commandOf(d).startsWith(command))
    .filter((d) => environ(d).includes(`SURRIK_BASE=${base}`))
    .map(Number);
/** Processes that serve this instance, and those that take up what takes a while. */
const servers = () => running('node scripts/serve.mjs');
const workers = () => running('node .build/worker.mjs');
const postmaster = () => Number(readFileSync(`${base}/pg/postmaster.pid`, 'utf8').split('\n')[0]);
const databasePort = () => readFileSync(`${base}/db-port`, 'utf8').trim();

let ledger: Ledger;
let cookie: string;
const owned = () =>
  connect(
    { host: '127.0.0.1', port: Number(databasePort()), name: 'surrik' },
    'surrik_owner',
    readSecrets(base)['OWNER_PASSWORD']!,
  );

beforeAll(async () => {
  mkdirSync(base, { recursive: true });
  port = await new Promise<number>((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port: free } = probe.address() as AddressInfo;
      probe.close(() => done(free));
    });
  });
  const first = up();
  await until('the first start', () => first.said().includes('Surrik is at'), 240);
  // Readings are entered all the while, and an account is kept of what was acknowledged.
  const db = owned();
  const person = { shopId: DEMO_SHOP.id, personId: DEMO_PEOPLE[1].id, name: DEMO_PEOPLE[1].name };
  cookie = await Ledger.signIn(db, person, readSecrets(base)['COOKIE_SECRET']!);
  await db.destroy();
  ledger = new Ledger(`http://127.0.0.1:${port}`, 1042, person, cookie);
  ledger.begin(2);
});
afterAll(async () => {
  await surrik('down');
  for (const child of watches) child.kill('SIGKILL');
  rmSync(base, { recursive: true, force: true });
});

describe('a server that is watched over', () => {
  it('has its data when `up` says where it is, and a second `up` leaves it alone', async () => {
    expect(await isReady()).toBe(true);
    expect(await asked('/api/health')).toEqual({ surrik: true, data: true });
    const [before] = servers();
    expect(await surrik('up', '--port', String(port))).toContain(`already running: http://127.0.0.1:${port}`);
    expect(servers()).toEqual([before]);
  });

  it('killed, comes back by itself', async () => {
    const [before] = servers();
    process.kill(before!, 'SIGKILL');
    await until('another server', async () => servers().some((p) => p !== before) && (await isReady()));
    expect(servers()).toHaveLength(1);
  });

  it('has its database again after that was killed, on the port it had', async () => {
    const [was, old] = [databasePort(), postmaster()];
    process.kill(old, 'SIGKILL');
    await until(
      'another database',
      async () => existsSync(`${base}/pg/postmaster.pid`) && postmaster() !== old && (await isReady()),
    );
    expect(databasePort()).toBe(was);
  });

  it('has both again where the database is killed while its server is only starting', async () => {
    const [before] = servers();
    process.kill(before!, 'SIGKILL');
    // The new one is there and does not answer yet.
    await until('another server', () => servers().some((p) => p !== before));
    const old = postmaster();
    process.kill(old, 'SIGKILL');
    await until(
      'another database and its server',
      async () => existsSync(`${base}/pg/postmaster.pid`) && postmaster() !== old && (await isReady()),
    );
    expect(servers()).toHaveLength(1);
  });

  it('tells that its data is out of reach while it is, without hanging itself', async () => {
    const old = postmaster();
    process.kill(old, 'SIGSTOP');
    try {
      // Connections that are open live on in their own processes; a new one is what hangs.
      for (const pid of readdirSync('/proc').filter((d) => commandOf(d).startsWith('postgres: surrik_app')))
        if (readFileSync(`/proc/${pid}/status`, 'utf8').includes(`PPid:\t${old}\n`))
          process.kill(Number(pid), 'SIGKILL');
      await until('the server says so', async () => (await asked('/api/health'))?.['data'] === false, 20);
    } finally {
      process.kill(old, 'SIGCONT');
    }
    await until('it has its data again', isReady);
  });

  it('that hangs is replaced, and `up` ends with one that works', async () => {
    const [before] = servers();
    process.kill(before!, 'SIGSTOP');
    expect(await surrik('up', '--port', String(port))).toContain('already running');
    expect(await isReady()).toBe(true);
    expect(servers()).toHaveLength(1);
    expect(servers()).not.toContain(before);
  });

  it('makes papers again after its worker was killed, and after it was stopped', async () => {
    for (const signal of ['SIGKILL', 'SIGSTOP'] as const) {
      const [before] = workers();
      process.kill(before!, signal);
      await until(`another worker after ${signal}`, () => workers().length === 1 && !workers().includes(before!));
      // On a slow machine the first one may run out of its time while everything is read: it is asked again, as it says.
      const paper = async () => {
        const response = await fetch(`http://127.0.0.1:${port}/api/jobs/1042/report.pdf`, { headers: { cookie } });
        expect([200, 503]).toContain(response.status);
        return (
          Buffer.from(await response.arrayBuffer())
            .subarray(0, 5)
            .toString() === '%PDF-'
        );
      };
      await until('a paper', paper, 180);
    }
  });

  it('finishes what it began when it is asked to stop: no connection is cut', async () => {
    const ends = Array.from({ length: 40 }, () =>
      fetch(`http://127.0.0.1:${port}/sign-in`).then(
        async (r) => ((await r.text()).length > 0 ? r.status : 0),
        (e: Error & { cause?: { code?: string } }) => e.cause?.code ?? e.message,
      ),
    );
    await pause(30);
    const [before] = servers();
    process.kill(before!, 'SIGTERM');
    const told = await Promise.all(ends);
    // Answered, asked to come again, or never let in.
    for (const end of told) expect([200, 503, 'ECONNREFUSED']).toContain(end);
    expect(told).toContain(200);
    await until('another server', async () => servers().some((p) => p !== before) && (await isReady()));
  });

  it('nobody watches any more is ended by the next `up`, which serves in its place', async () => {
    const watch = Number(readFileSync(`${base}/up.pid`, 'utf8').split(' ')[0]);
    const [before] = servers();
    process.kill(watch, 'SIGKILL');
    const next = up();
    await until('the next start', () => next.said().includes('Surrik is at'));
    expect(servers()).toHaveLength(1);
    expect(servers()).not.toContain(before);
    expect(await isReady()).toBe(true);
    await until('one worker', () => workers().length === 1);
  });

  it('has lost and doubled nothing it ever acknowledged', async () => {
    // On a slow machine the restarts leave room for few: it goes on until there is something to lose.
    await until('enough is acknowledged', () => ledger.acknowledged.size > 20);
    await ledger.end();
    const db = owned();
    const wrong = await ledger.differences(db);
    await db.destroy();
    expect(wrong).toEqual([]);
  });

  it('keeps its log over all of it: lines with their times, and what was mended', () => {
    const lines = readFileSync(`${base}/app.log`, 'utf8')
      .split('\n')
      .filter((l) => l.startsWith('{'))
      .map((l) => JSON.parse(l) as { time: string; msg: string });
    for (const { time } of lines) expect(new Date(time).getTime()).toBeGreaterThan(0);
    const said = lines.map((l) => l.msg).join('\n');
    for (const what of [
      'the server has ended',
      'the database does not answer',
      'has not answered for a while',
      'SIGTERM',
    ])
      expect(said).toContain(what);
  });

  it('is gone after `down`, a stopped process with it', async () => {
    process.kill(servers()[0]!, 'SIGSTOP');
    process.kill(workers()[0]!, 'SIGSTOP');
    expect(await surrik('down')).toBe('stopped');
    expect(servers()).toEqual([]);
    expect(workers()).toEqual([]);
    expect(existsSync(`${base}/pg/postmaster.pid`)).toBe(false);
    expect(await surrik('down')).toBe('nothing was running');
  });
});
