/** Hears one channel of PostgreSQL for a whole process, and hears it again after its connection was lost. */
import pg from 'pg';
import { serverConfig } from '../config';
import { log } from '../log';

/** ms before one listens anew, doubled up to the last. */
const AGAIN_MS = [250, 8000] as const;

/** What is heard, and that one begins to hear: whatever was told before then was missed. */
interface Hears {
  notice(payload: string): void;
  begins(): void;
}

export class Ear {
  private client: pg.Client | undefined;
  private pause: number = AGAIN_MS[0];
  private closed = false;

  constructor(
    private readonly connect: () => pg.Client,
    private readonly channel: string,
    private readonly hears: Hears,
  ) {}

  /** Begins where it has not begun yet. */
  open(): void {
    if (this.client || this.closed) return;
    const client = this.connect();
    this.client = client;
    const lost = (err?: unknown) => {
      if (this.client !== client) return;
      this.client = undefined;
      client.end().catch(() => undefined);
      if (this.closed) return;
      log.warn({ err }, `${this.channel} is not heard just now`);
      setTimeout(() => this.open(), this.pause).unref();
      this.pause = Math.min(AGAIN_MS[1], this.pause * 2);
    };
    client.on('error', lost);
    client.on('end', () => lost());
    client.on('notification', ({ payload }) => this.hears.notice(payload ?? ''));
    client
      .connect()
      .then(() => client.query(`LISTEN ${this.channel}`))
      .then(() => {
        this.pause = AGAIN_MS[0];
        this.hears.begins();
      })
      .catch(lost);
  }

  async close(): Promise<void> {
    this.closed = true;
    const { client } = this;
    this.client = undefined;
    await client?.end().catch(() => undefined);
  }
}

/** A connection of the app role that is kept for hearing alone. @param name as the database lists it */
export function earOfApp(name: string): pg.Client {
  const { database, appPassword } = serverConfig();
  return new pg.Client({
    host: database.host,
    port: database.port,
    database: database.name,
    user: 'surrik_app',
    password: appPassword,
    keepAlive: true,
    application_name: name,
  });
}
