/**
 * Runs everything and counts. Called by `./surrik test` with the test cluster up (SURRIK_BASE and
 * SURRIK_DB_PORT set) and the application built. The last line is `N passed, N failed`.
 */
import { spawn, execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { TestServer } from './testServer';

/** `./surrik test unit src/core/job` runs the unit tests of a folder alone. */
const PARTS = ['static', 'unit', 'e2e'];
const only = new Set(process.argv.slice(2).filter((a) => PARTS.includes(a)));
const files = process.argv.slice(2).filter((a) => !PARTS.includes(a));
const want = (name: string) => only.size === 0 || only.has(name);
let passed = 0;
let failed = 0;
const started = Date.now();
mkdirSync('test-results', { recursive: true });

/** Its exit code. @param said takes what it says; without, that is shown as it comes. */
function run(command: string, args: string[], env: Record<string, string> = {}, said?: Buffer[]): Promise<number> {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      stdio: said ? ['ignore', 'pipe', 'pipe'] : 'inherit',
      env: { ...process.env, ...env },
    });
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (d: Buffer) => said?.push(d));
    child.on('error', () => resolve(1));
    child.on('close', (code) => resolve(code ?? 1));
  });
}

/** One after the other; two such rows run beside each other, so what they say is kept until they are done. */
async function check(...rows: [name: string, command: string, args: string[]][]): Promise<void> {
  for (const [name, command, args] of rows) {
    const said: Buffer[] = [];
    const code = await run(command, args, {}, said);
    console.log(`\n— ${name}\n${Buffer.concat(said).toString().trim()}`);
    if (code === 0) passed++;
    else {
      failed++;
      console.log(`${name} FAILED`);
    }
  }
}

interface BrowserSuite {
  suites?: BrowserSuite[];
  specs: {
    title: string;
    tests: { status: string; results: { attachments: { name: string; path?: string }[] }[] }[];
  }[];
}
interface BrowserReport {
  stats: { expected: number; unexpected: number; flaky: number };
  suites: BrowserSuite[];
}

/** What the page showed where a browser test failed, be it at its first try only: such a failure seldom comes twice. */
function tellFailures(suites: readonly BrowserSuite[]): void {
  for (const { specs, suites: inner } of suites) {
    tellFailures(inner ?? []);
    for (const { title, tests } of specs)
      for (const { status, results } of tests) {
        if (status !== 'flaky' && status !== 'unexpected') continue;
        console.log(`\n${status === 'flaky' ? 'PASSED ONLY AT THE SECOND TRY' : 'FAILED TWICE'}: ${title}`);
        for (const { name, path } of results.flatMap((r) => r.attachments))
          if (name === 'error-context' && path) console.log(readFileSync(path, 'utf8').slice(0, 9000));
      }
  }
}

const bin = (name: string) => `node_modules/.bin/${name}`;

if (want('static')) {
  await Promise.all([
    check(
      ['lint', bin('eslint'), ['.', '--max-warnings=0']],
      ['generated schemas', bin('tsx'), ['scripts/generate-schemas.ts', '--check']],
    ),
    check(
      ['types', bin('tsc'), ['--noEmit', '-p', '.']],
      ['formatting', bin('prettier'), ['--check', '--log-level', 'warn', '.']],
      ['arrows of the house', bin('depcruise'), ['src', 'db', '--output-type', 'err']],
      ['surrik is valid shell', 'bash', ['-c', 'for f in surrik scripts/sh/*.sh; do bash -n "$f" || exit; done']],
    ),
  ]);
}

if (want('unit')) {
  console.log('\n— unit, property, reference, integration');
  rmSync('test-results/vitest.json', { force: true });
  const code = await run(bin('vitest'), [
    'run',
    ...files,
    '--reporter=default',
    '--reporter=json',
    '--outputFile.json=test-results/vitest.json',
  ]);
  try {
    const result = JSON.parse(readFileSync('test-results/vitest.json', 'utf8')) as {
      numPassedTests: number;
      numFailedTests: number;
    };
    passed += result.numPassedTests;
    failed += result.numFailedTests;
    if (code !== 0 && result.numFailedTests === 0) failed++;
  } catch {
    failed++;
  }
}

if (want('e2e')) {
  console.log('\n— end to end');
  // Pages hold every answer of the server against its schema: one that strays fails its test.
  process.env['SURRIK_CHECK_ANSWERS'] = '1';
  const server = await TestServer.on('surrik_e2e');
  const play = async (...args: string[]) => {
    rmSync('test-results/e2e.json', { force: true });
    const code = await run(bin('playwright'), ['test', ...args], server.env);
    try {
      const report = JSON.parse(readFileSync('test-results/e2e.json', 'utf8')) as BrowserReport;
      const { stats } = report;
      passed += stats.expected + stats.flaky;
      failed += stats.unexpected;
      tellFailures(report.suites);
      if (code !== 0 && stats.unexpected === 0) failed++;
    } catch {
      failed++;
    }
  };
  await play('--grep-invert', '@after-restart|@alone', ...files);
  await server.stop();
  execFileSync('./surrik', ['restart-test-database'], { stdio: 'inherit' });
  await server.start();
  await play('--workers', '1', '--grep', '@after-restart|@alone');
  await server.stop();
}

console.log(`\n${Math.round((Date.now() - started) / 1000)} s in all`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
