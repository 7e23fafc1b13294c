/** Serving tablets: over TLS only, for our own names only, without the demo people. */
import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { request as https } from 'node:https';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { demoPassword } from './world';

// One server for the file: run in parallel, each test would set up its own, and in a worker that has already put one away.
test.describe.configure({ mode: 'default' });

let folder: string;
let server: ChildProcess;
let port = 0;

test.beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'surrik-tls-'));
  execFileSync(
    'openssl',
    [
      'req',
      '-x509',
      '-newkey',
      'rsa:2048',
      '-nodes',
      '-days',
      '2',
      '-subj',
      '/CN=surrik.test',
      '-addext',
      'subjectAltName=DNS:surrik.test,IP:127.0.0.2',
      '-keyout',
      join(folder, 'key.pem'),
      '-out',
      join(folder, 'cert.pem'),
    ],
    { stdio: 'ignore' },
  );
  port = await new Promise<number>((resolve) => {
    const probe = createServer().listen(0, '127.0.0.2', () => {
      const { port: free } = probe.address() as AddressInfo;
      probe.close(() => resolve(free));
    });
  });
  server = spawn('node', ['scripts/serve.mjs'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      SURRIK_EXPOSED: '1',
      SURRIK_LISTEN: '127.0.0.2',
      SURRIK_PORT: String(port),
      SURRIK_CERT: join(folder, 'cert.pem'),
      SURRIK_KEY: join(folder, 'key.pem'),
      SURRIK_HOSTS: 'bay.lan',
    },
  });
  await expect
    .poll(
      () =>
        ask('surrik.test', '/api/health').then(
          (r) => r.status,
          () => 0,
        ),
      { timeout: 20_000 },
    )
    .toBe(200);
});
test.afterAll(() => {
  server.kill('SIGTERM');
  rmSync(folder, { recursive: true, force: true });
});

function ask(host: string, path: string): Promise<{ status: number; headers: Record<string, unknown>; body: string }> {
  return new Promise((resolve, reject) => {
    const r = https(
      { host: '127.0.0.2', port, path, headers: { host: `${host}:${port}` }, rejectUnauthorized: false },
      (response) => {
        let body = '';
        response.on('data', (d: Buffer) => (body += d.toString()));
        response.on('end', () => resolve({ status: response.statusCode!, headers: response.headers, body }));
      },
    );
    r.on('error', reject);
    r.end();
  });
}

test('answers its own names and no other', async () => {
  for (const host of ['surrik.test', 'bay.lan', '127.0.0.2'])
    expect((await ask(host, '/api/health')).status, host).toBe(200);
  for (const host of ['elsewhere.example', 'surrik.test.elsewhere.example', ''])
    expect((await ask(host, '/api/health')).status, host).toBe(421);
  expect((await ask('surrik.test', '/sign-in')).headers['strict-transport-security']).toBeDefined();
});

test('the demo people cannot sign in over the network', async ({ browser }) => {
  const page = await browser.newPage({ ignoreHTTPSErrors: true });
  await page.goto(`https://127.0.0.2:${port}/sign-in`);
  await page.getByLabel('Name').fill('bay2');
  await page.getByLabel('Password').fill(demoPassword());
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.locator('[role=alert].alert')).toContainText('Demo people cannot sign in over the network');
  expect(await page.context().cookies()).not.toContainEqual(expect.objectContaining({ name: 'surrik', secure: false }));
  await page.close();
});

test('without a certificate only this machine is served', () => {
  const run = (...args: string[]) => {
    try {
      execFileSync('./surrik', ['up', ...args], { encoding: 'utf8', stdio: 'pipe' });
      return '';
    } catch (e) {
      return String((e as { stderr: string }).stderr);
    }
  };
  expect(run('--listen', '192.0.2.7')).toContain('needs --cert F and --key F');
  expect(run('--listen', 'my machine')).toContain('wants an address');
  expect(run('--cert', '/nowhere/cert.pem')).toContain('wants a certificate file');
});
