/** What a change costs: nothing for nothing, more for more, and never less for thicker or longer copper. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { motorhomeOf } from '../../../tests/motorhomes';
import { LINK_CHOICES } from '../rig/archetypes/choices';
import { partKind, PART_KIND_IDS } from '../parts/kinds';
import type { Rig } from '../rig/schema';
import { AWG_GAUGES } from '../units/wire';
import { changeCost } from './prices';

const rig = motorhomeOf();
const heavy = rig.conductors.find((c) => c.use === 'feed')!;
const wired = (change: Partial<Rig['conductors'][number]>): Rig => ({
  ...rig,
  conductors: rig.conductors.map((c) => (c.id === heavy.id ? { ...c, ...change } : c)),
});

describe('a change', () => {
  it('of nothing costs nothing', () => {
    expect(changeCost(rig, rig)).toEqual({ minutes: [0, 0], parts: [0, 0] });
    // A wire that is as good as the same length is the same wire.
    expect(changeCost(rig, wired({ length: heavy.length + 0.4 }))).toEqual({ minutes: [0, 0], parts: [0, 0] });
  });

  it('has a least and a most, whatever is changed into whatever', () => {
    for (const { id: a } of LINK_CHOICES)
      for (const { id: b } of LINK_CHOICES) {
        const { minutes, parts } = changeCost(motorhomeOf({ link: a }), motorhomeOf({ link: b }));
        expect(minutes[0]).toBeLessThanOrEqual(minutes[1]);
        expect(parts[0]).toBeLessThanOrEqual(parts[1]);
        expect(minutes[0] > 0, `${a} to ${b}`).toBe(a !== b);
      }
  });

  it('of a cable costs more the thicker and the longer it is', () => {
    fc.assert(
      fc.property(
        fc.nat(AWG_GAUGES.length - 2),
        fc.double({ min: 1, max: 12, noNaN: true }),
        fc.double({ min: 0.5, max: 5, noNaN: true }),
        (g, length, more) => {
          // Put into a rig that had none: always all new.
          const none = { ...rig, conductors: rig.conductors.filter((c) => c.id !== heavy.id) };
          const cost = (gauge: (typeof AWG_GAUGES)[number], metres: number) =>
            changeCost(none, wired({ gauge, length: metres }));
          const thin = cost(AWG_GAUGES[g]!, length);
          const thick = cost(AWG_GAUGES[g + 1]!, length);
          const long = cost(AWG_GAUGES[g]!, length + more);
          for (const k of [0, 1] as const) {
            expect(thick.parts[k]).toBeGreaterThan(thin.parts[k]);
            expect(long.parts[k]).toBeGreaterThan(thin.parts[k]);
            expect(long.minutes[k]).toBeGreaterThan(thin.minutes[k]);
            expect(thick.minutes[k]).toBeCloseTo(thin.minutes[k], 9);
          }
        },
      ),
    );
  });

  it('of 4/0 cable is of the order shops pay: some 30 dollars a metre with its lugs, from memory', () => {
    const none = { ...rig, conductors: rig.conductors.filter((c) => c.id !== heavy.id) };
    const { parts } = changeCost(none, wired({ gauge: '4/0', length: 10 }));
    expect(parts[0] / 10).toBeGreaterThan(20);
    expect(parts[1] / 10).toBeLessThan(60);
  });

  it('that takes a part out costs a few minutes and no part', () => {
    const without = { ...rig, parts: rig.parts.filter((p) => p.id !== 'delay') };
    expect(changeCost(rig, without)).toEqual({ minutes: [10, 20], parts: [0, 0] });
  });

  it('that fits a part is that part’s price and minutes', () => {
    const without = { ...rig, parts: rig.parts.filter((p) => p.id !== 'delay') };
    const delay = rig.parts.find((p) => p.id === 'delay')!;
    const { price } = partKind(delay.kind);
    expect(changeCost(without, rig)).toEqual({ minutes: [...price.minutes], parts: [...price.dollars(delay)] });
  });
});

describe('every kind of part', () => {
  it.each([...PART_KIND_IDS])('%s has a price and minutes in the order of the trade', (id) => {
    const kind = partKind(id);
    const params = Object.fromEntries(Object.entries(kind.params).map(([k, p]) => [k, p.default]));
    const part = { id: 'x', kind: id, params, options: {} } as never as Rig['parts'][number];
    const [from, to] = kind.price.dollars(part);
    expect(from).toBeGreaterThanOrEqual(0);
    expect(from).toBeLessThanOrEqual(to);
    expect(to).toBeLessThan(10_000);
    expect(kind.price.minutes[0]).toBeLessThanOrEqual(kind.price.minutes[1]);
    expect(kind.price.minutes[1]).toBeLessThanOrEqual(600);
  });
});
