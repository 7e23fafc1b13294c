/** What of an outbox a page lays over the server's answer, and what it tells. */
import { describe, expect, it } from 'vitest';
import type { Entry } from './outbox';
import { notTaken, notYetIn } from './useOutbox';

const entry = (status: Entry['status'], seq?: number): Entry =>
  ({ status, command: { id: `${status} ${seq}` }, ...(seq === undefined ? {} : { seq }) }) as unknown as Entry;
const list = [entry('waiting'), entry('sent', 5), entry('sent', 7), entry('refused'), entry('aside')];

describe('entries', () => {
  it('not yet in the server’s answer are laid over it; what was not taken is not', () => {
    expect(notYetIn(list, 5).map((c) => c.id)).toEqual(['waiting undefined', 'sent 7']);
    expect(notYetIn(list, 7).map((c) => c.id)).toEqual(['waiting undefined']);
    expect(notYetIn(list, 0)).toHaveLength(3);
  });

  it('that were not taken are told, refused and set aside alike', () => {
    expect(notTaken(list).map((e) => e.status)).toEqual(['refused', 'aside']);
  });
});
