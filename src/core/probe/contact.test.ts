/** The trade's rule (common practice, no source): good to 2 mΩ, watch to 4, above replace; below 30 A say nothing. */
import { describe, expect, it } from 'vitest';
import { contactVerdict } from './contact';

describe('a contact', () => {
  it('is judged by its milliohms, and only with enough current', () => {
    expect(contactVerdict(0.056, 70)).toEqual({ milliohms: expect.closeTo(0.8, 6) as number, says: 'good' });
    expect(contactVerdict(0.2, 70).says).toBe('watch it');
    // The other form of the same rule: more than about 0.3 V at a working current means replace.
    expect(contactVerdict(0.3, 70).says).toBe('replace');
    expect(contactVerdict(-0.3, -70).says).toBe('replace');
    // On the edge it is still the better of the two; and 30 A is enough.
    expect(contactVerdict(0.2, 100).says).toBe('good');
    expect(contactVerdict(0.4, 100).says).toBe('watch it');
    expect(contactVerdict(0.4001, 100).says).toBe('replace');
    expect(contactVerdict(0.05, 30).says).toBe('good');
    expect(contactVerdict(0.05, 29.9).says).toBe('not enough current to judge');
    expect(contactVerdict(0.3, 12).says).toBe('not enough current to judge');
    expect(contactVerdict(0.3, 0)).toEqual({ milliohms: Infinity, says: 'not enough current to judge' });
  });
});
