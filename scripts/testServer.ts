/**
 * The built application on a database of its own in the test cluster: what end-to-end tests and the page
 * bench drive. The surrik command has the cluster up and sets SURRIK_BASE and SURRIK_DB_PORT.
 */
import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import knexModule from 'knex';

/** A value of the instance's secrets file. */
export function secret(name: string): string {
  const text = readFileSync(`${process.env['SURRIK_BASE']}/secrets`, 'utf8');
  const value = new RegExp(`^${name}=(.*)$`, 'm').exec(text)?.[1];
  if (value === undefined) throw new Error(`${name} is missing from the secrets of ${process.env['SURRIK_BASE']}`);
  return value;
}

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const server = createServer();
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => resolve(port));
    });
  });

/** Asks a process to end, and makes it. */
const ended = (old: ChildProcess | undefined): Promise<void> =>
  new Promise((resolve) => {
    if (!old || old.exitCode !== null) return resolve();
    const kill = setTimeout(() => old.kill('SIGKILL'), 4000);
    old.on('exit', () => {
      clearTimeout(kill);
      resolve();
    });
    old.kill('SIGTERM');
  });

export class TestServer {
  private process: ChildProcess | undefined;
  private worker: ChildProcess | undefined;

  private constructor(
    readonly url: string,
    private readonly port: number,
    /** What a client of this server needs in its environment. */
    readonly env: Record<string, string>,
  ) {}

  /** Makes the database anew, migrated and with the demo in it, and serves it on a free port. */
  static async on(database: string): Promise<TestServer> {
    const root = knexModule({
      client: 'pg',
      connection: {
        host: '127.0.0.1',
        port: Number(process.env['SURRIK_DB_PORT']),
        user: 'surrik_owner',
        password: secret('OWNER_PASSWORD'),
        database: 'postgres',
      },
    });
    await root.raw(`DROP DATABASE IF EXISTS ${database} WITH (FORCE)`);
    await root.raw(`CREATE DATABASE ${database}`);
    await root.destroy();
    const port = await freePort();
    const url = `http://127.0.0.1:${port}`;
    const server = new TestServer(url, port, { SURRIK_DB_NAME: database, E2E_URL: url });
    for (const task of ['migrate', 'seed'])
      execFileSync('node', ['.build/maintain.mjs', task], { stdio: 'inherit', env: { ...process.env, ...server.env } });
    await server.start();
    return server;
  }

  async start(): Promise<void> {
    this.process = spawn('node', ['scripts/serve.mjs'], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, ...this.env, NODE_ENV: 'production', SURRIK_PORT: String(this.port) },
    });
    this.worker = spawn('node', ['.build/worker.mjs'], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, ...this.env, NODE_ENV: 'production' },
    });
    for (let k = 0; k < 150; k++) {
      const up = await fetch(`${this.url}/api/health`).then(
        (r) => r.ok,
        () => false,
      );
      if (up) return;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error('the server did not answer within 15 s');
  }

  async stop(): Promise<void> {
    await Promise.all([ended(this.process), ended(this.worker)]);
  }
}
