import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bayDay, type BaySpan } from './bayLoad';

const spans = fc.array(
  fc.record({
    id: fc.uuid(),
    bay: fc.constantFrom('A', 'B'),
    from: fc.integer({ min: 0, max: 1400 }),
    minutes: fc.integer({ min: 5, max: 600 }),
  }),
  { maxLength: 8 },
);

describe('a day in a bay', () => {
  it('adds up, and is over by what it has too much', () => {
    fc.assert(
      fc.property(spans, (list) => {
        const a = bayDay('A', list, { from: 8, to: 17 });
        const b = bayDay('B', list, { from: 8, to: 17 });
        expect(a.booked + b.booked).toBe(list.reduce((s, x) => s + x.minutes, 0));
        expect(a.over).toBe(Math.max(0, a.booked - 540));
      }),
    );
  });
  it('tells exactly the pairs that share a minute, minute by minute', () => {
    fc.assert(
      fc.property(spans, (list) => {
        const here = list.filter((s) => s.bay === 'A');
        const minutes = (s: BaySpan) => new Set(Array.from({ length: s.minutes }, (_, k) => s.from + k));
        const wanted = here.flatMap((x, i) =>
          here
            .slice(i + 1)
            .filter((y) => [...minutes(x)].some((m) => minutes(y).has(m)))
            .map((y) => [x.id, y.id].sort().join()),
        );
        expect(
          bayDay('A', list, { from: 8, to: 17 })
            .clashes.map((c) => [...c].sort().join())
            .sort(),
        ).toEqual(wanted.sort());
      }),
      { numRuns: 40 },
    );
  });
  it('knows a day off and hours outside', () => {
    const one = [{ id: 'x', bay: 'A', from: 7 * 60, minutes: 120 }];
    expect(bayDay('A', one, undefined)).toMatchObject({ open: 0, over: 120, outside: ['x'] });
    expect(bayDay('A', one, { from: 8, to: 17 }).outside).toEqual(['x']);
    expect(bayDay('A', one, { from: 7, to: 17 }).outside).toEqual([]);
  });
});
