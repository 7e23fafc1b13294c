import { describe, expect, it } from 'vitest';
import { Refused } from './actor';
import { binaryBody, fileHash, jobNumber, jsonBody, sameSite } from './http';

const ask = (headers: Record<string, string>, body: BodyInit = '{}') =>
  new Request('https://bay.lan/api/commands', { method: 'POST', headers, body });
const ours = {
  origin: 'https://bay.lan',
  host: 'bay.lan',
  'sec-fetch-site': 'same-origin',
  'content-type': 'application/json',
};
const refusal = async (work: () => unknown): Promise<Refused> => {
  try {
    await work();
  } catch (e) {
    if (e instanceof Refused) return e;
    throw e;
  }
  throw new Error('it was let through');
};

describe('a change over the web', () => {
  it('is taken from our own pages, and from programs that send no origin', () => {
    sameSite(ask(ours));
    sameSite(ask({ host: 'bay.lan', 'content-type': 'application/json; charset=utf-8' }));
    sameSite(ask({ ...ours, 'content-type': 'image/png' }), 'image/');
  });

  it.each([
    ['another site’s page', { ...ours, origin: 'https://elsewhere.example' }, 403],
    ['a page on another port', { ...ours, origin: 'https://bay.lan:8443' }, 403],
    ['a page of a neighbour domain', { ...ours, 'sec-fetch-site': 'same-site' }, 403],
    ['a form, which any site may send', { ...ours, 'content-type': 'application/x-www-form-urlencoded' }, 400],
    ['text, which any site may send', { ...ours, 'content-type': 'text/plain' }, 400],
  ] as const)('is refused from %s', async (_, headers, status) => {
    expect(await refusal(() => sameSite(ask(headers)))).toMatchObject({ status });
  });

  it('is JSON of bounded size', async () => {
    expect(await jsonBody(ask(ours, '{"a":1}'))).toEqual({ a: 1 });
    expect(await refusal(() => jsonBody(ask(ours, 'a=1')))).toMatchObject({ status: 400, code: 'not-json' });
    expect(await refusal(() => jsonBody(ask(ours, JSON.stringify('x'.repeat(300_000)))))).toMatchObject({
      status: 413,
    });
  });

  it('of bytes is read no further than its limit, whatever length it claims', async () => {
    expect(await binaryBody(ask(ours, Uint8Array.from([1, 2, 3])), 3)).toEqual(Buffer.from([1, 2, 3]));
    expect(
      await refusal(() => binaryBody(ask({ ...ours, 'content-length': '9000000' }, 'x'), 1_000_000)),
    ).toMatchObject({ status: 413 });
    let pulled = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull(c) {
        pulled++;
        c.enqueue(new Uint8Array(100_000));
      },
    });
    const request = new Request('https://bay.lan/api/jobs/1/logs', {
      method: 'POST',
      body: endless,
      duplex: 'half',
    } as RequestInit);
    expect(await refusal(() => binaryBody(request, 1_000_000))).toMatchObject({ status: 413 });
    expect(pulled).toBeLessThan(20);
  });

  it('names a kept file by its hash', async () => {
    expect(fileHash('0a'.repeat(32))).toBe('0a'.repeat(32));
    for (const text of ['', '0A'.repeat(32), '0a'.repeat(33), `${'0a'.repeat(31)}0\u0000`, '../secrets'])
      expect(await refusal(() => fileHash(text)), text).toMatchObject({ status: 404 });
  });

  it('names a job by its number', async () => {
    expect(jobNumber('1042')).toBe(1042);
    for (const text of [null, '', '0', '-1', '1e3', '01042', '1042; DROP TABLE jobs', '99999999'])
      expect(await refusal(() => jobNumber(text)), String(text)).toMatchObject({ status: 404 });
  });
});
