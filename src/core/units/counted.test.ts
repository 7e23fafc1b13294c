/** A count with its noun, as people write it. */
import { describe, expect, it } from 'vitest';
import { counted } from './counted';

describe('a count in words', () => {
  it('has its noun in the singular for one alone', () => {
    expect(counted(1, 'photo')).toBe('1 photo');
    for (const n of [0, 2, 11, 21, 101]) expect(counted(n, 'log')).toBe(`${n} logs`);
  });

  it('keeps what stands before the noun as it is', () => {
    expect(counted(3, 'engine start')).toBe('3 engine starts');
  });
});
