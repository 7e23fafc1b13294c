import { describe, expect, it } from 'vitest';
import { zoneOf } from './zones';

describe('a time zone by name', () => {
  it('is found by its name in any case, with blanks, or by a part only it has', () => {
    expect(zoneOf('America/Denver')).toBe('America/Denver');
    expect(zoneOf('america/los angeles ')).toBe('America/Los_Angeles');
    expect(zoneOf('denver')).toBe('America/Denver');
    expect(zoneOf('utc')).toBe('UTC');
  });

  it('is not guessed where several would do, or none', () => {
    for (const text of ['', ' ', 'america', 'nowhere']) expect(zoneOf(text), text).toBeUndefined();
  });

  it('finds every zone there is by its own name', () => {
    for (const z of Intl.supportedValuesOf('timeZone')) expect(zoneOf(z)).toBe(z);
  });
});
