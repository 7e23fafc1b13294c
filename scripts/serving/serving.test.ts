/** The doors of the server and what it keeps of a request. */
import type { IncomingMessage } from 'node:http';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hostsOf, turnedAway } from './doors.mjs';
import { kindOf, measures } from './measures.mjs';

const hosts = hostsOf('192.168.1.20', undefined, ' Surrik.Shop.LAN ,');
const ask = (more: Partial<Pick<IncomingMessage, 'method' | 'url'>> & { headers?: Record<string, string> } = {}) => ({
  method: 'GET',
  url: '/jobs/1042',
  ...more,
  headers: { host: '192.168.1.20:4310', ...more.headers },
});
const status = (request: ReturnType<typeof ask>) => turnedAway(request, hosts)?.[0];

describe('the doors', () => {
  it('are open to our own names, whatever their port and letters', () => {
    for (const host of [
      '127.0.0.1',
      'localhost:4310',
      '[::1]:4310',
      '192.168.1.20',
      'surrik.shop.lan:4310',
      'SURRIK.shop.lan',
    ])
      expect(status(ask({ headers: { host } })), host).toBeUndefined();
    expect(hostsOf('fe80::1', undefined).has('[fe80::1]')).toBe(true);
    expect(hostsOf('0.0.0.0', undefined).has('0.0.0.0')).toBe(false);
  });

  it.each([
    ['another name that points at us', { headers: { host: 'evil.example' } }, 421],
    ['no host at all', { headers: { host: '' } }, 421],
    ['a whole address, as to a proxy', { url: 'http://evil.example/' }, 400],
    ['two slashes, which a browser reads as another host', { url: '//evil.example/x' }, 400],
    ['a method nobody here uses', { method: 'TRACE' }, 405],
    ['a form of another site', { method: 'POST', url: '/sign-in', headers: { origin: 'https://evil.example' } }, 403],
    ['a form of a page without an origin', { method: 'POST', url: '/sign-in', headers: { origin: 'null' } }, 403],
    ['a form of another port', { method: 'POST', url: '/sign-in', headers: { origin: 'http://192.168.1.20:1' } }, 403],
  ] as const)('are shut to %s', (_, request, wanted) => {
    expect(status(ask(request))).toBe(wanted);
  });

  it('let our own forms in, and programs, whose routes look for themselves', () => {
    const origin = 'http://192.168.1.20:4310';
    expect(status(ask({ method: 'POST', url: '/sign-in', headers: { origin } }))).toBeUndefined();
    expect(status(ask({ method: 'POST', url: '/sign-in' }))).toBeUndefined();
    expect(status(ask({ method: 'POST', url: '/api/commands', headers: { origin: 'null' } }))).toBeUndefined();
  });

  it('believe nobody who speaks for a proxy, or says where they are: the one who is there is told to what counts tries', () => {
    const headers = {
      'x-forwarded-host': 'evil.example',
      forwarded: 'host=evil.example',
      'x-surrik-address': '10.0.0.9',
      accept: '*/*',
    };
    const request = { ...ask({ headers }), socket: { remoteAddress: '192.168.1.77' } };
    expect(turnedAway(request, hosts)).toBeUndefined();
    expect(request.headers).toEqual({
      host: '192.168.1.20:4310',
      accept: '*/*',
      'x-surrik-address': '192.168.1.77',
    });
  });
});

describe('what is kept of a request', () => {
  it('is its kind: no number, search, token or name', () => {
    expect(kindOf('/api/jobs/1042/photos/0a1b2c?x=Smith')).toBe('/api/jobs/:n/photos/:id');
    expect(kindOf('/_next/static/chunks/abc.js')).toBe('/_next');
    expect(kindOf('/wp-login.php')).toBe('other');
    expect(kindOf('/')).toBe('/');
  });

  it('never holds what a stranger wrote, and is one of few', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        expect(kindOf(`/api/${text}`)).toMatch(/^\/api(\/([a-z][a-z.-]*|:n|:id|))*$/);
        expect(kindOf(`/${text}/secret`)).not.toMatch(/secret.*secret/);
      }),
    );
  });

  it('is one line and one time, with the status, told apart where the asker left', async () => {
    const lines: object[] = [];
    const kept = measures({ info: (o: object) => lines.push(o) });
    const answered = (url: string, statusCode: number, writableFinished: boolean) => {
      let close = () => undefined as void;
      kept.follow(
        { method: 'GET', url },
        { statusCode, writableFinished, once: (_: string, f: () => void) => (close = f) },
      );
      close();
    };
    answered('/api/jobs/1042/snapshot', 200, true);
    answered('/api/jobs/7/report.pdf', 200, false);
    answered('/api/health', 200, true);
    answered('/api/health', 503, true);
    expect(lines).toMatchObject([
      { kind: '/api/jobs/:n/snapshot', job: 1042, status: 200 },
      { kind: '/api/jobs/:n/report.pdf', cut: true },
      { kind: '/api/health', status: 503 },
    ]);
    const text = await kept.text();
    expect(text).toContain('surrik_request_seconds_count{method="GET",kind="/api/jobs/:n/snapshot",status="200"} 1');
    expect(text).toContain('surrik_request_seconds_count{method="GET",kind="/api/jobs/:n/report.pdf",status="cut"} 1');
    expect(text).toContain('process_cpu_seconds_total');
  });
});
