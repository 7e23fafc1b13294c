/** What every entry of the catalogue of parts must keep to. */
import { describe, expect, it } from 'vitest';
import { ANCHORS } from '../../ui/strip/anchors';
import { is, isOneOf, PART_KIND_IDS, PART_KINDS, traitsOf } from './kinds';
import type { PartKindId } from './kinds';
import { METAL } from './part';

describe.each(PART_KIND_IDS.map((id) => [id] as const))('%s', (id: PartKindId) => {
  const kind = PART_KINDS.get(id)!;
  const terminals = kind.terminals.map((t) => t.id);

  it('names its terminals, parameters and elements once, and only nodes it has', () => {
    expect(new Set(terminals).size).toBe(terminals.length);
    const elements = kind.elements.map((e) => e.id);
    expect(new Set(elements).size).toBe(elements.length);
    const nodes = new Set([...terminals, ...(kind.inner ?? []), METAL]);
    for (const e of kind.elements) {
      const ends =
        'a' in e
          ? [e.a, e.b]
          : 'anode' in e
            ? [e.anode, e.cathode]
            : 'inPlus' in e
              ? [e.inPlus, e.inMinus, e.outPlus, e.outMinus]
              : [e.plus, e.minus];
      for (const end of ends) expect(nodes.has(end), `${e.id}: ${end}`).toBe(true);
    }
  });

  it('has usual values inside their own limits, with a spread', () => {
    for (const [name, p] of Object.entries(kind.params)) {
      expect(p.default.value, name).toBeGreaterThanOrEqual(p.min);
      expect(p.default.value, name).toBeLessThanOrEqual(p.max);
      expect(p.default.spread, name).toBeGreaterThanOrEqual(0);
      expect(['measured', 'nameplate', 'assumed'], name).toContain(p.default.provenance);
    }
  });

  it('is drawn with every terminal where the strip can find it', () => {
    const drawn = new Set(Object.keys(ANCHORS[id]));
    const line = kind.traits.line;
    for (const t of terminals) expect(drawn.has(t) || line?.includes(t), t).toBe(true);
    if (line) expect([drawn.has('left'), drawn.has('right')]).toEqual([true, true]);
  });

  it('has traits about things it has', () => {
    const { byVolts, line, passes, charger } = kind.traits;
    if (line) for (const t of line) expect(terminals).toContain(t);
    if (passes) expect(kind.elements.map((e) => e.id)).toContain(passes.element);
    if (byVolts) {
      const wiring = kind.controller!({
        options: { ...defaults(kind), ...(byVolts.when ? { [byVolts.when.option]: byVolts.when.is } : {}) },
        nominal: 12,
      })!;
      expect(Object.keys(wiring.senses)).toContain(byVolts.sense);
      for (const p of [byVolts.closes, byVolts.opens]) expect(Object.keys(kind.params)).toContain(p);
      expect(kind.params[byVolts.closes]!.default.value).toBeGreaterThan(kind.params[byVolts.opens]!.default.value);
      if (byVolts.when) expect(kind.options![byVolts.when.option]!.choices.map((c) => c.id)).toContain(byVolts.when.is);
    }
    if (charger) for (const t of ['input', 'output', 'ground']) expect(terminals).toContain(t);
    expect(kind.role === 'battery').toBe(kind.traits.battery === true);
  });

  it('has a price with its cheap end first, for the usual part and a large one', () => {
    for (const times of [1, 4]) {
      const params = Object.fromEntries(
        Object.entries(kind.params).map(([n, p]) => [n, { value: p.default.value * times }]),
      );
      const [lo, hi] = kind.price.dollars({ params });
      expect(lo).toBeGreaterThan(0);
      expect(hi).toBeGreaterThanOrEqual(lo);
    }
    expect(kind.price.minutes[0]).toBeLessThanOrEqual(kind.price.minutes[1]);
  });

  it('tells the owner whole sentences, with figures of its own', () => {
    for (const { says, option } of [...kind.owner.works, ...kind.owner.care]) {
      const value = (name: string) => {
        expect(Object.keys(kind.params)).toContain(name);
        return kind.params[name]!.default.value;
      };
      const text = typeof says === 'string' ? says : says({ name: 'The unit', value }, { temperature: 'F' });
      expect(text).toMatch(/^[A-Z].*\.$/s);
      expect(text).not.toMatch(/undefined|NaN|[{}]/);
      if (option) expect(kind.options?.[option.name]).toBeDefined();
    }
  });
});

const defaults = (kind: { options?: Readonly<Record<string, { default: string }>> }) =>
  Object.fromEntries(Object.entries(kind.options ?? {}).map(([name, spec]) => [name, spec.default]));

describe('asking for a trait', () => {
  it('finds what has it, and nothing in nothing', () => {
    expect(is({ kind: 'battery-bank' }, 'battery')).toBe(true);
    expect(is({ kind: 'alternator' }, 'battery')).toBe(false);
    expect(is(undefined, 'battery')).toBe(false);
    expect(isOneOf({ kind: 'link-fuse' }, ['breaker', 'fuse'])).toBe(true);
    expect(isOneOf({ kind: 'link-fuse' }, [])).toBe(false);
    expect(traitsOf({ kind: 'dual-charger' })).toMatchObject({ charger: true, panels: true, oneWay: true });
  });

  it('is refused for a kind nobody knows, by its name', () => {
    expect(() => traitsOf({ kind: 'flux-capacitor' })).toThrow(/flux-capacitor/);
  });
});
