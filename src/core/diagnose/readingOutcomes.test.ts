/** What a reading may come out as: stretches that do not overlap, each with whom it leaves, as often as it says. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRng } from '../units/rng';
import { leading, readingOutcomes, type Expected } from './readingOutcomes';

const one = (name: string, weight: number, mean: number, sd = 0.02): Expected => ({ name, weight, mean, sd });
const list = fc.array(
  fc.record({
    name: fc.constantFrom('a', 'b', 'c', 'd', 'e'),
    weight: fc.double({ min: 0.01, max: 1, noNaN: true }),
    mean: fc.double({ min: -20, max: 20, noNaN: true }),
    sd: fc.double({ min: 0.002, max: 8, noNaN: true }),
  }),
  { minLength: 1, maxLength: 12 },
);

describe('outcomes of a reading', () => {
  it('are one where nothing is told apart, one each where everything is', () => {
    expect(readingOutcomes([one('a', 0.6, 12.5), one('b', 0.4, 12.5)])).toMatchObject([
      { names: ['a', 'b'], probability: expect.closeTo(1, 2) },
    ]);
    const apart = readingOutcomes([one('a', 0.2, 0), one('b', 0.5, 12.5), one('c', 0.3, 14)]);
    expect(apart.map((o) => o.names)).toEqual([['b'], ['c'], ['a']]);
    expect(apart.map((o) => o.probability)).toEqual([0.5, 0.3, 0.2].map((p) => expect.closeTo(p, 2)));
    expect(apart[0]!.lo).toBeCloseTo(12.46, 1);
    expect(apart[0]!.hi).toBeCloseTo(12.54, 1);
  });

  it('tell a sharp one apart from a wide one around it, and leave the wide one on both sides', () => {
    const found = readingOutcomes([one('sharp', 0.5, 0, 0.01), one('wide', 0.5, 0, 5)]);
    expect(found).toHaveLength(3);
    expect(found[0]!.names[0]).toBe('sharp');
    expect(found[0]!.hi - found[0]!.lo).toBeLessThan(0.2);
    for (const o of found.slice(1)) expect(o.names).toEqual(['wide']);
    expect(found[1]!.probability + found[2]!.probability).toBeCloseTo(0.5, 1);
  });

  it('speak of the others where many small ones share what is not named', () => {
    const many = Array.from({ length: 8 }, (_, k) => one(`small ${k}`, 0.06, 12.5));
    expect(readingOutcomes([one('big', 0.52, 12.5), ...many])).toMatchObject([{ names: ['big'], others: true }]);
    expect(readingOutcomes([one('big', 0.9, 12.5), one('small', 0.1, 12.5)])[0]).not.toHaveProperty('others');
    expect(leading(new Map(), 0)).toEqual({ names: [] });
  });

  it('do not overlap, are all of it, and are each worth a line', () => {
    fc.assert(
      fc.property(list, (expected) => {
        // Some of it is with suspects nobody tells of.
        const told = 0.8;
        const all = expected.reduce((s, e) => s + e.weight, 0);
        const found = readingOutcomes(expected.map((e) => ({ ...e, weight: (told * e.weight) / all })));
        const sum = found.reduce((s, o) => s + o.probability, 0);
        expect(sum).toBeGreaterThan(0.97 * told);
        expect(sum).toBeLessThan(1.03 * told);
        const inOrder = [...found].sort((a, b) => a.lo - b.lo);
        inOrder.forEach((o, k) => {
          expect(o.hi).toBeGreaterThan(o.lo);
          if (k > 0) expect(o.lo).toBeGreaterThanOrEqual(inOrder[k - 1]!.hi);
          if (found.length > 1) expect(o.probability).toBeGreaterThan(0.0199);
          expect(o.names.length).toBeGreaterThan(0);
        });
        found.forEach((o, k) => k > 0 && expect(o.probability).toBeLessThanOrEqual(found[k - 1]!.probability));
      }),
      { numRuns: 200 },
    );
  });

  it('come out as often as they say, with whom they name: readings drawn from the suspects themselves', () => {
    const expected = [
      one('a', 0.35, 12.4, 0.05),
      one('b', 0.25, 12.5, 0.15),
      one('c', 0.25, 13.6, 0.2),
      one('d', 0.15, 0, 0.01),
    ];
    const found = readingOutcomes(expected);
    const rng = seededRng(9);
    const draws = 20_000;
    const counts = found.map(() => ({ all: 0, named: 0 }));
    for (let n = 0; n < draws; n++) {
      let u = rng.uniform();
      const from = expected.find((e) => (u -= e.weight) < 0) ?? expected.at(-1)!;
      const read = from.mean + from.sd * rng.normal();
      const at = found.findIndex((o) => read >= o.lo && read <= o.hi);
      if (at < 0) continue;
      counts[at]!.all++;
      if (found[at]!.names.includes(from.name)) counts[at]!.named++;
    }
    found.forEach((o, k) => {
      expect(counts[k]!.all / draws).toBeGreaterThan(0.9 * o.probability);
      expect(counts[k]!.all / draws).toBeLessThan(1.03 * o.probability);
      expect(counts[k]!.named / counts[k]!.all).toBeGreaterThan(0.7);
    });
  });
});
