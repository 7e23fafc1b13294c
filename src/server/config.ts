/** What the server is told by its environment: written by the surrik command, never by hand. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

export interface ServerConfig {
  database: { host: string; port: number; name: string };
  appPassword: string;
  cookieSecret: string;
  /** True when served over TLS on an address other machines reach. */
  exposed: boolean;
}

/** Secrets file of an instance: KEY=value lines, mode 600. */
export function readSecrets(base: string): Record<string, string> {
  const text = readFileSync(join(base, 'secrets'), 'utf8');
  return Object.fromEntries(
    text
      .split('\n')
      .filter((line) => line.includes('='))
      .map((line) => [line.slice(0, line.indexOf('=')), line.slice(line.indexOf('=') + 1)]),
  );
}

function need(name: string): string {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set: start the server with ./surrik up`);
  return value;
}

export function serverConfig(): ServerConfig {
  const secrets = readSecrets(need('SURRIK_BASE'));
  const secret = (name: string) => {
    const value = secrets[name];
    if (!value) throw new Error(`${name} is missing from the instance's secrets file`);
    return value;
  };
  return {
    database: {
      host: '127.0.0.1',
      port: Number(need('SURRIK_DB_PORT')),
      name: process.env['SURRIK_DB_NAME'] ?? 'surrik',
    },
    appPassword: secret('APP_PASSWORD'),
    cookieSecret: secret('COOKIE_SECRET'),
    exposed: process.env['SURRIK_EXPOSED'] === '1',
  };
}
