/** What was worked out before is told again, to the very same question alone; and nothing hangs on its being kept. */
import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { remembered as remember } from './remembered';

const fresh = async (): Promise<typeof remember> => {
  vi.resetModules();
  return (await import('./remembered')).remembered;
};
/** An answer is kept after it is told. */
const settle = () => new Promise((done) => setTimeout(done, 30));

beforeEach(() => void vi.stubGlobal('indexedDB', new IDBFactory()));
afterEach(() => vi.unstubAllGlobals());

describe('an answer', () => {
  it('is worked out once for a question, over pages too, and anew for any other', async () => {
    let worked = 0;
    const work = (answer: unknown) => () => (worked++, Promise.resolve(answer));
    const first = await fresh();
    expect(await first({ rig: 'A', volts: 12.4 }, work('one'))).toBe('one');
    await settle();
    const second = await fresh();
    expect(await second({ rig: 'A', volts: 12.4 }, work('two'))).toBe('one');
    expect(worked).toBe(1);
    for (const other of [{ rig: 'A', volts: 12.5 }, { rig: 'B', volts: 12.4 }, { rig: 'A' }, ['A', 12.4]])
      expect(await second(other, work(JSON.stringify(other)))).toBe(JSON.stringify(other));
    expect(worked).toBe(5);
  });

  it('of an earlier build is not told by a later one', async () => {
    vi.stubEnv('NEXT_PUBLIC_SURRIK_BUILD', 'one');
    expect(await (await fresh())('q', () => Promise.resolve('old'))).toBe('old');
    await settle();
    vi.stubEnv('NEXT_PUBLIC_SURRIK_BUILD', 'two');
    expect(await (await fresh())('q', () => Promise.resolve('new'))).toBe('new');
    vi.unstubAllEnvs();
  });

  it('is worked out again a moment later where the worker is to be warm, and nowhere else', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout'] });
    const remembered = await fresh();
    await remembered('q', () => 1);
    const again = vi.fn(() => 2);
    // It is kept after it was told: asked until it is.
    for (let k = 0; k < 50 && (await remembered('q', again)) !== 1; k++);
    expect(await remembered('q', again)).toBe(1);
    const before = again.mock.calls.length;
    await vi.advanceTimersByTimeAsync(1000);
    expect(again.mock.calls.length).toBe(before);
    expect(await remembered('q', again, true)).toBe(1);
    await vi.advanceTimersByTimeAsync(1000);
    expect(again.mock.calls.length).toBe(before + 1);
    vi.useRealTimers();
  });

  it('goes with the oldest where many are kept', async () => {
    const remembered = await fresh();
    for (let k = 0; k < 165; k++) {
      await remembered(k, () => Promise.resolve(`first ${k}`));
      await settle();
    }
    expect(await remembered(0, () => Promise.resolve('anew'))).toBe('anew');
    expect(await remembered(164, () => Promise.resolve('anew'))).toBe('first 164');
  });

  it('is worked out every time where the device keeps nothing, and a failure is told, never kept', async () => {
    vi.stubGlobal('indexedDB', {
      open: () => {
        throw new Error('forbidden');
      },
    });
    const remembered = await fresh();
    for (const n of [1, 2]) expect(await remembered('q', () => Promise.resolve(n))).toBe(n);
    vi.stubGlobal('indexedDB', new IDBFactory());
    const kept = await fresh();
    await expect(kept('bad', () => Promise.reject(new Error('no operating point')))).rejects.toThrow(
      'no operating point',
    );
    expect(await kept('bad', () => Promise.resolve('right'))).toBe('right');
  });
});
