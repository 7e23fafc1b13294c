/** The client's calls: what an error says, what "nothing new" means, and what a malformed answer is. */
import { afterEach, describe, expect, it, vi } from 'vitest';
import { ApiError, fetchBoard, fetchOlder, fetchSnapshot, postCommand } from './api';
import { MalformedAnswer } from './checkedAnswers';

const board = {
  stamp: '3-9',
  shop: 'Shop',
  actor: 'Ana',
  tickets: [],
  counts: { waiting: 0, 'in-the-bay': 1, 'waiting-approval': 0, 'waiting-parts': 0, done: 2 },
};
let asked: string[] = [];

function serve(status: number, body?: unknown): void {
  vi.stubGlobal('fetch', (url: string) => {
    asked.push(url);
    return Promise.resolve({
      ok: status < 400,
      status,
      json: () => (body === undefined ? Promise.reject(new SyntaxError('no JSON')) : Promise.resolve(body)),
    });
  });
}
afterEach(() => {
  vi.unstubAllGlobals();
  asked = [];
});

describe('an answer', () => {
  it('is taken as it is agreed', async () => {
    serve(200, board);
    expect(await fetchBoard()).toEqual(board);
    expect(asked).toEqual(['/api/jobs']);
  });

  it('that strays is our fault, told with its place', async () => {
    serve(200, { ...board, counts: { waiting: 'none' } });
    await expect(fetchBoard()).rejects.toThrow(MalformedAnswer);
    await expect(fetchBoard()).rejects.toThrow(/boardPage .* \/counts/);
    serve(200, { ...board, tickets: [{ number: 7 }] });
    await expect(fetchOlder(1042)).rejects.toThrow(MalformedAnswer);
    serve(200, { id: 'x', seq: -1, again: false });
    await expect(postCommand(1042, {})).rejects.toThrow(MalformedAnswer);
  });

  it('of nothing new is the very object one has', async () => {
    serve(204);
    const has = { ...board, stamp: 'a b' } as never;
    expect(await fetchBoard(has)).toBe(has);
    expect(asked).toEqual(['/api/jobs?since=a%20b']);
    const snapshot = { stamp: '1' } as never;
    expect(await fetchSnapshot(1042, snapshot)).toBe(snapshot);
  });
});

describe('an error', () => {
  it('of the server is its code and its sentence', async () => {
    serve(409, { error: { code: 'conflict', message: 'Meanwhile Ben changed it.' } });
    const e = await fetchBoard().catch((x: unknown) => x);
    expect(e).toBeInstanceOf(ApiError);
    expect(e).toMatchObject({ status: 409, code: 'conflict', message: 'Meanwhile Ben changed it.' });
  });

  it('without a body is still a sentence', async () => {
    serve(502);
    await expect(fetchBoard()).rejects.toMatchObject({ status: 502, code: 'failed' });
  });

  it('of a server that does not answer says that nothing is lost', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('failed to fetch')));
    await expect(fetchBoard()).rejects.toMatchObject({ status: 0, code: 'unreachable', message: /kept here/ });
  });
});
