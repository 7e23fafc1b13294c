/**
 * Runs everything and counts. Called by `./surrik test` with the test cluster up (SURRIK_BASE and
 * SURRIK_DB_PORT set) and the application built. The last line is `N passed, N failed`.
 */
import { spawn, execFileSync } from 'node:child_process';
import { createServer } from 'node:net';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import knexModule from 'knex';

const only = new Set(process.argv.slice(2));
const want = (name) => only.size === 0 || only.has(name);
let passed = 0;
let failed = 0;
const started = Date.now();
mkdirSync('test-results', { recursive: true });

function run(command, args, env = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { stdio: 'inherit', env: { ...process.env, ...env } });
    child.on('exit', (code) => resolve(code ?? 1));
  });
}

async function check(name, command, args) {
  console.log(`\n— ${name}`);
  const code = await run(command, args);
  if (code === 0) passed++;
  else {
    failed++;
    console.log(`${name} FAILED`);
  }
}

const bin = (name) => `node_modules/.bin/${name}`;

if (want('static')) {
  await check('lint', bin('eslint'), ['.', '--max-warnings=0']);
  await check('arrows of the house', bin('depcruise'), ['src', 'db', '--output-type', 'err']);
  await check('types', bin('tsc'), ['--noEmit', '-p', '.']);
  await check('generated schemas', bin('tsx'), ['scripts/generate-schemas.ts', '--check']);
  await check('surrik is valid shell', 'bash', ['-n', 'surrik']);
}

if (want('unit')) {
  console.log('\n— unit, property, reference, integration');
  rmSync('test-results/vitest.json', { force: true });
  const code = await run(bin('vitest'), ['run', '--reporter=default', '--reporter=json', '--outputFile.json=test-results/vitest.json']);
  try {
    const result = JSON.parse(readFileSync('test-results/vitest.json', 'utf8'));
    passed += result.numPassedTests;
    failed += result.numFailedTests;
    if (code !== 0 && result.numFailedTests === 0) failed++;
  } catch {
    failed++;
  }
}

const freePort = () =>
  new Promise((resolve) => {
    const server = createServer();
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });

function secret(name) {
  return new RegExp(`^${name}=(.*)$`, 'm').exec(readFileSync(`${process.env.SURRIK_BASE}/secrets`, 'utf8'))[1];
}

if (want('e2e')) {
  console.log('\n— end to end');
  const name = 'surrik_e2e';
  const root = knexModule({
    client: 'pg',
    connection: { host: '127.0.0.1', port: Number(process.env.SURRIK_DB_PORT), user: 'surrik_owner', password: secret('OWNER_PASSWORD'), database: 'postgres' },
  });
  await root.raw(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
  await root.raw(`CREATE DATABASE ${name}`);
  await root.destroy();
  const port = await freePort();
  const env = { SURRIK_DB_NAME: name, E2E_URL: `http://127.0.0.1:${port}` };
  for (const task of ['migrate', 'seed']) execFileSync('node', ['.build/maintain.mjs', task], { stdio: 'inherit', env: { ...process.env, ...env } });

  let server;
  const start = async () => {
    server = spawn('node', ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', String(port)], { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, ...env } });
    for (let k = 0; k < 150; k++) {
      const up = await fetch(`${env.E2E_URL}/api/health`).then((r) => r.ok, () => false);
      if (up) return;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error('the server did not answer within 15 s');
  };
  const stop = () =>
    new Promise((resolve) => {
      const old = server;
      const kill = setTimeout(() => old.kill('SIGKILL'), 4000);
      old.on('exit', () => (clearTimeout(kill), resolve()));
      old.kill('SIGTERM');
    });
  const play = async (...args) => {
    rmSync('test-results/e2e.json', { force: true });
    const code = await run(bin('playwright'), ['test', ...args], env);
    try {
      const { stats } = JSON.parse(readFileSync('test-results/e2e.json', 'utf8'));
      passed += stats.expected;
      failed += stats.unexpected + stats.flaky;
      if (code !== 0 && stats.unexpected === 0) failed++;
    } catch {
      failed++;
    }
  };
  await start();
  await play('--grep-invert', '@after-restart');
  await stop();
  execFileSync('./surrik', ['restart-test-database'], { stdio: 'inherit' });
  await start();
  await play('--grep', '@after-restart');
  await stop();
}

console.log(`\n${Math.round((Date.now() - started) / 1000)} s in all`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
