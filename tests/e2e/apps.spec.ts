/** Several app processes behind one port: any may end or hang, nobody is signed out, and each hears what another took in. */
import { randomUUID } from 'node:crypto';
import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { createServer, type AddressInfo } from 'node:net';
import { expect, freshJob, signIn, test } from './world';

let server: ChildProcess;
let url: string;

test.beforeAll(async () => {
  const port = await new Promise<number>((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port: free } = probe.address() as AddressInfo;
      probe.close(() => resolve(free));
    });
  });
  url = `http://127.0.0.1:${port}`;
  server = spawn('node', ['scripts/serve.mjs'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NODE_ENV: 'production', SURRIK_PORT: String(port), SURRIK_APPS: '2' },
  });
  await expect.poll(() => apps().length, { timeout: 20_000 }).toBe(2);
  await expect
    .poll(
      () =>
        fetch(`${url}/api/ready`).then(
          (r) => r.ok,
          () => false,
        ),
      { timeout: 30_000 },
    )
    .toBe(true);
});
test.afterAll(async () => {
  const ended = new Promise((r) => server.on('exit', r));
  server.kill('SIGTERM');
  await ended;
});

/** The processes that serve, by number. */
const apps = (): number[] => {
  try {
    return execFileSync('pgrep', ['-P', String(server.pid), '-f', 'serve.mjs'], { encoding: 'utf8' })
      .split('\n')
      .filter(Boolean)
      .map(Number);
  } catch {
    return [];
  }
};

test('both serve one shop: what one took in the other tells at once; one ends, one hangs, and the other goes on', async ({
  page,
}) => {
  test.setTimeout(120_000);
  await freshJob(3331);
  await signIn(page);
  const cookie = (await page.context().cookies()).map((c) => `${c.name}=${c.value}`).join('; ');
  const get = (path: string) => fetch(`${url}${path}`, { headers: { cookie, connection: 'close' } });
  const note = async () => {
    const { seq } = (await (await get('/api/jobs/3331/snapshot')).json()) as { seq: number };
    const id = randomUUID();
    const taken = await fetch(`${url}/api/commands?job=3331`, {
      method: 'POST',
      headers: { cookie, connection: 'close', 'content-type': 'application/json', origin: url },
      body: JSON.stringify({
        id,
        type: 'note.add',
        version: 1,
        baseSeq: seq,
        at: new Date().toISOString(),
        actor: 'Bay 2 technician',
        payload: { id, text: 'told' },
      }),
    });
    expect(taken.status).toBe(200);
  };
  // Streams of several connections, so of both processes: each tells what any took in.
  const gone = new AbortController();
  const streams = await Promise.all(
    Array.from({ length: 4 }, async () => {
      const response = await fetch(`${url}/api/live`, { headers: { cookie }, signal: gone.signal });
      const said = { text: '' };
      void (async () => {
        for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>)
          said.text += new TextDecoder().decode(chunk);
      })().catch(() => undefined);
      return said;
    }),
  );
  await expect.poll(() => streams.every((s) => s.text.includes('look'))).toBe(true);
  await note();
  await expect.poll(() => streams.every((s) => s.text.includes('{"job":3331}')), { timeout: 10_000 }).toBe(true);
  gone.abort();

  // What both measured is added up.
  const measured = await (await fetch(`${url}/metrics`)).text();
  expect(measured).toMatch(/surrik_request_seconds_count\{[^}]*kind="\/api\/commands"[^}]*\} 1\n/);

  const [first, second] = apps() as [number, number];
  process.kill(first, 'SIGKILL');
  // What it had in hand is cut, and asked for again; what comes next is answered by the other.
  const status = () =>
    get('/api/jobs').then(
      (r) => r.status,
      () => 0,
    );
  // Until its end is noticed, what is handed to it is cut too.
  const tenInARow = async () => {
    for (let k = 0; k < 10; k++) if ((await status()) !== 200) return false;
    return true;
  };
  await expect.poll(tenInARow, { timeout: 20_000 }).toBe(true);
  await expect.poll(() => apps().length, { timeout: 20_000 }).toBe(2);
  expect(apps()).not.toContain(first);
  // One that hangs is found by its silence.
  process.kill(second, 'SIGSTOP');
  await expect.poll(() => apps().includes(second), { timeout: 40_000, intervals: [1000] }).toBe(false);
  await expect.poll(() => apps().length, { timeout: 20_000 }).toBe(2);
  await note();
});
