/**
 * `./surrik trials kills [N] [seed]`: a shop's server as `up` runs it, its parts killed at random while readings are entered,
 * against an account of its own (tests/ledger.ts): nothing acknowledged may be lost or doubled.
 */
import { execFileSync, spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { resolve } from 'node:path';
import { demoJobAs } from '../db/demo/copies';
import { DEMO_PEOPLE, DEMO_SHOP } from '../db/demo/shop';
import { seededRng } from '../src/core/units/rng';
import { readSecrets } from '../src/server/config';
import { connect } from '../src/server/db';
import { insertJob } from '../src/server/job/jobStore';
import { Ledger } from '../tests/ledger';

const kills = Number(process.argv[2] ?? 40);
/** Kills to a job: one with thousands of readings would be another test. */
const ROUND = 50;
const rng = seededRng(Number(process.argv[3] ?? 1));
const base = process.getuid?.() === 0 ? `/var/lib/surrik/kills-${process.pid}` : resolve(`.data/kills-${process.pid}`);
const env = { ...process.env, SURRIK_BASE: base, SURRIK_DB_PORT_FROM: '58310' };
mkdirSync(base, { recursive: true });
const port = await new Promise<number>((done) => {
  const probe = createServer().listen(0, '127.0.0.1', () => {
    const { port: free } = probe.address() as AddressInfo;
    probe.close(() => done(free));
  });
});
const url = `http://127.0.0.1:${port}`;
const pause = (ms: number) => new Promise((r) => setTimeout(r, ms));
const text = (path: string) => {
  try {
    return readFileSync(path, 'utf8');
  } catch {
    return '';
  }
};
const ready = () =>
  fetch(`${url}/api/ready`, { signal: AbortSignal.timeout(3000) }).then(
    (r) => r.ok,
    () => false,
  );
async function whenReady(seconds: number): Promise<number> {
  const began = Date.now();
  while (Date.now() - began < seconds * 1000) {
    if (await ready()) return Date.now() - began;
    await pause(200);
  }
  throw new Error(`not ready within ${seconds} s`);
}

const watch = spawn('./surrik', ['up', '--port', String(port)], { env, stdio: ['ignore', 'ignore', 'inherit'] });
try {
  await whenReady(300);
  const secrets = readSecrets(base);
  const db = () =>
    connect(
      { host: '127.0.0.1', port: Number(text(`${base}/db-port`)), name: 'surrik' },
      'surrik_owner',
      secrets['OWNER_PASSWORD']!,
    );
  const bay2 = DEMO_PEOPLE[1];
  const person = { shopId: DEMO_SHOP.id, personId: bay2.id, name: bay2.name };
  let owner = db();
  const cookie = await Ledger.signIn(owner, person, secrets['COOKIE_SECRET']!);
  await owner.destroy();

  const ours = (script: string) => () =>
    readdirSync('/proc').filter(
      (d) =>
        /^\d+$/.test(d) &&
        text(`/proc/${d}/cmdline`).startsWith(`node\0${script}`) &&
        text(`/proc/${d}/environ`).includes(`SURRIK_BASE=${base}\0`),
    );
  const postmaster = () => text(`${base}/pg/postmaster.pid`).split('\n')[0]!;
  const backends = () =>
    readdirSync('/proc').filter((d) => text(`/proc/${d}/status`).includes(`PPid:\t${postmaster()}\n`));
  const victims = {
    server: ours('scripts/serve.mjs'),
    worker: ours('.build/worker.mjs'),
    postmaster: () => [postmaster()],
    backend: backends,
  };
  const kinds = Object.keys(victims) as (keyof typeof victims)[];
  const counts: Record<string, number> = {};
  let longest = 0;
  const wrong: string[] = [];
  let acknowledged = 0;
  let done = 0;
  /** Kills so many while readings are entered into a job of their own, then holds the database against the account. */
  async function round(job: number, many: number): Promise<void> {
    owner = db();
    await owner.transaction((tx) => insertJob(tx, DEMO_SHOP.id, randomUUID(), demoJobAs(job)));
    await owner.destroy();
    const ledger = new Ledger(url, job, person, cookie);
    ledger.begin(4);
    for (let k = 0; k < many; k++) await kill();
    await ledger.end();
    owner = db();
    wrong.push(...(await ledger.differences(owner)));
    await owner.destroy();
    acknowledged += ledger.acknowledged.size;
    done += many;
    if (kills > ROUND) console.log(`${done} of ${kills}: ${acknowledged} acknowledged, ${wrong.length} wrong`);
  }
  async function kill(): Promise<void> {
    await pause(500 + 2500 * rng.uniform());
    const kind = kinds[Math.floor(kinds.length * rng.uniform())]!;
    const pids = victims[kind]().filter((p) => p !== '');
    if (pids.length === 0) return;
    try {
      process.kill(Number(pids[Math.floor(pids.length * rng.uniform())]), 'SIGKILL');
    } catch {
      return; // it ended by itself
    }
    counts[kind] = (counts[kind] ?? 0) + 1;
    longest = Math.max(longest, await whenReady(120));
  }
  for (let k = 0; k < kills; k += ROUND) await round(30_000 + k, Math.min(ROUND, kills - k));
  const told = Object.entries(counts).map(([kind, n]) => `${n} of ${kind}`);
  console.log(`kills: ${told.join(', ')}; longest until ready again ${(longest / 1000).toFixed(1)} s`);
  console.log(`acknowledged: ${acknowledged}; lost, doubled or changed: ${wrong.length}`);
  for (const line of wrong.slice(0, 20)) console.log(`  ${line}`);
  process.exitCode = wrong.length === 0 ? 0 : 1;
} finally {
  execFileSync('./surrik', ['down'], { env, stdio: 'ignore' });
  watch.kill('SIGKILL');
  rmSync(base, { recursive: true, force: true });
}
