/** The server's small edges that need no database: its configuration, what is an outage, a calendar file, passwords. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import ICAL from 'ical.js';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { calendarFile } from './calendarFile';
import { readSecrets, serverConfig } from './config';
import { isOutage } from './failure';
import { DECOY_HASH, hashPassword, passwordFits } from './password';

describe('what the server is told', () => {
  let base: string;
  beforeEach(() => {
    base = mkdtempSync(join(tmpdir(), 'surrik-config-'));
    vi.stubEnv('SURRIK_BASE', base);
    vi.stubEnv('SURRIK_DB_PORT', '5555');
    vi.stubEnv('SURRIK_DB_NAME', '');
  });
  afterEach(() => {
    rmSync(base, { recursive: true, force: true });
    vi.unstubAllEnvs();
  });
  const secrets = (text: string) => writeFileSync(join(base, 'secrets'), text);

  it('is read from the instance’s own file: everything behind the first sign of equality', () => {
    secrets('APP_PASSWORD=a=b=c\n\n# a remark\nCOOKIE_SECRET=xyz\n');
    expect(readSecrets(base)).toMatchObject({ APP_PASSWORD: 'a=b=c', COOKIE_SECRET: 'xyz' });
    expect(serverConfig()).toMatchObject({
      database: { host: '127.0.0.1', port: 5555 },
      appPassword: 'a=b=c',
      cookieSecret: 'xyz',
      exposed: false,
    });
  });

  it('missing, says what is missing and how to start it', () => {
    secrets('APP_PASSWORD=a\n');
    expect(() => serverConfig()).toThrow('COOKIE_SECRET is missing');
    vi.stubEnv('SURRIK_DB_PORT', '');
    secrets('APP_PASSWORD=a\nCOOKIE_SECRET=b\n');
    expect(() => serverConfig()).toThrow('./surrik up');
  });

  it('is exposed only where that was said', () => {
    secrets('APP_PASSWORD=a\nCOOKIE_SECRET=b\n');
    for (const [value, exposed] of [
      ['1', true],
      ['0', false],
      ['yes', false],
    ] as const) {
      vi.stubEnv('SURRIK_EXPOSED', value);
      expect(serverConfig().exposed, value).toBe(exposed);
    }
  });
});

describe('an outage', () => {
  const error = (code: string | undefined, message = 'x', name = 'Error') =>
    Object.assign(new Error(message), code === undefined ? {} : { code }, { name });

  it('is what PostgreSQL and the network say of themselves: sent again it may go through', () => {
    for (const code of ['08006', '53300', '57P01', '58030', '40001', '40P01', '55P03', 'ECONNREFUSED', 'EPIPE'])
      expect(isOutage(error(code)), code).toBe(true);
    expect(isOutage(error(undefined, 'x', 'KnexTimeoutError'))).toBe(true);
    expect(isOutage(error(undefined, 'Connection terminated unexpectedly'))).toBe(true);
  });

  it('is none of our own faults: those are told, not tried for ever', () => {
    for (const code of ['23505', '23503', '42P01', '22P02', 'ERR_INVALID_ARG_TYPE'])
      expect(isOutage(error(code)), code).toBe(false);
    expect(isOutage(new TypeError('undefined is not a function'))).toBe(false);
    expect(isOutage('ECONNREFUSED')).toBe(false);
    expect(isOutage(undefined)).toBe(false);
  });
});

describe('a calendar file', () => {
  const booking = {
    id: 'b1',
    job: 1042,
    rig: 'Heron',
    bay: 'Bay 2',
    start: '2026-11-30T14:00:00Z',
    minutes: 90,
    by: 'Lead',
  };
  const followUp = {
    id: 'f1',
    job: 1009,
    rig: 'Heron, again; twice',
    what: 'Load test, coach bank',
    due: '2027-01-15',
  };
  const read = (text: string) =>
    new ICAL.Component(ICAL.parse(text) as never).getAllSubcomponents('vevent').map((e) => new ICAL.Event(e));
  const file = (only?: number, followUps: object[] = [followUp]) =>
    calendarFile('Shop', { bookings: [booking], followUps } as never, new Date('2026-11-28T10:00:00Z'), only);

  it('has each booking at its hour, in its bay, as long as it lasts', () => {
    const [event] = read(file(1042));
    expect(event!.summary).toBe('1042 Heron');
    expect(event!.location).toBe('Bay 2');
    expect(event!.startDate.toJSDate().toISOString()).toBe('2026-11-30T14:00:00.000Z');
    expect(event!.duration.toSeconds()).toBe(90 * 60);
  });

  it('has each follow-up on its day, whole, its commas and semicolons with it', () => {
    const [event] = read(file(1009));
    expect(event!.summary).toBe('Heron, again; twice: Load test, coach bank');
    expect(event!.startDate.isDate).toBe(true);
    expect(event!.startDate.toString()).toBe('2027-01-15');
  });

  it('leaves out what is done, and what is of another job', () => {
    expect(read(file())).toHaveLength(2);
    expect(read(file(undefined, [{ ...followUp, done: '2026-11-01T00:00:00Z' }]))).toHaveLength(1);
    expect(read(file(7))).toHaveLength(0);
  });
});

describe('a password', () => {
  it('fits its own hash and no other, and is hashed with a salt of its own', async () => {
    const [a, b] = await Promise.all([hashPassword('bay door 7'), hashPassword('bay door 7')]);
    expect(a).not.toBe(b);
    expect(a).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
    expect(await passwordFits(a, 'bay door 7')).toBe(true);
    expect(await passwordFits(a, 'bay door 8')).toBe(false);
    expect(await passwordFits(await DECOY_HASH, 'bay door 7')).toBe(false);
  });
});
