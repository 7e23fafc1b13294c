/** What is different between two rigs, and carrying a change over to one that was edited since. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { motorhomeOf } from '../../../tests/motorhomes';
import { LINK_CHOICES } from '../rig/archetypes/choices';
import { checkRig } from '../rig/check';
import type { Rig } from '../rig/schema';
import { carryOver, differences } from './difference';

const links = LINK_CHOICES.map((l) => l.id);
const two = fc.tuple(fc.constantFrom(...links), fc.constantFrom(...links));
const ids = (rig: Rig) => [...rig.parts, ...rig.conductors, ...rig.grounds, ...rig.bonds].map((x) => x.id).sort();
/** A rig that somebody edited after it was drawn: a longer cable, a better battery, a note. */
const edited = (rig: Rig): Rig => ({
  ...rig,
  parts: rig.parts.map((p) =>
    p.id === 'chassis-bank'
      ? { ...p, note: 'looks new', params: { ...p.params, capacity: { ...p.params['capacity']!, value: 131 } } }
      : p,
  ),
  conductors: rig.conductors.map((c) => (c.use === 'return' ? { ...c, length: c.length + 1.5 } : c)),
});

describe('differences', () => {
  it('are none between a rig and itself, whatever its keys’ order of lists', () => {
    for (const link of links) {
      const rig = motorhomeOf({ link });
      expect(differences(rig, rig)).toEqual([]);
      expect(differences(rig, structuredClone(rig))).toEqual([]);
    }
  });

  it('there and back are the same pieces: what comes one way goes the other', () => {
    fc.assert(
      fc.property(two, ([a, b]) => {
        const [from, to] = [motorhomeOf({ link: a }), motorhomeOf({ link: b })];
        const on = differences(from, to);
        const back = differences(to, from);
        const of = (list: typeof on, kind: string) =>
          list
            .filter((d) => d.kind === kind)
            .map((d) => `${d.what} ${d.id}`)
            .sort();
        expect(of(on, 'added')).toEqual(of(back, 'removed'));
        expect(of(on, 'removed')).toEqual(of(back, 'added'));
        expect(of(on, 'altered')).toEqual(of(back, 'altered'));
      }),
      { numRuns: 40 },
    );
  });

  it('say what goes before what comes, parts before the rest, and by name', () => {
    const list = differences(motorhomeOf({ link: 'ignition-delay' }), motorhomeOf({ link: 'dcdc' }));
    expect(list.length).toBeGreaterThan(3);
    const kinds = list.filter((d) => d.what === 'part').map((d) => d.kind);
    expect(kinds.lastIndexOf('removed')).toBeLessThan(kinds.indexOf('added'));
    const whats = list.map((d) => d.what);
    expect(whats.lastIndexOf('part')).toBeLessThan(whats.indexOf('conductor'));
    for (const d of list) {
      expect(d.says).toMatch(/taken out$|: fitted, |: run$|: becomes /);
      expect(d.says.startsWith(d.id)).toBe(false);
    }
  });

  it('see a note, a number and a length', () => {
    const rig = motorhomeOf();
    const found = differences(rig, edited(rig));
    expect(found.every((d) => d.kind === 'altered')).toBe(true);
    expect(found.find((d) => d.id === 'chassis-bank')!.says).toMatch(
      /^Chassis bank.*: becomes Chassis bank, looks new$/,
    );
  });
});

describe('carrying a change over', () => {
  it('to the very rig it was drawn from is that change', () => {
    fc.assert(
      fc.property(two, ([a, b]) => {
        const [from, to] = [motorhomeOf({ link: a }), motorhomeOf({ link: b })];
        const carried = carryOver(from, from, to);
        expect(ids(carried)).toEqual(ids(to));
        for (const c of to.conductors) expect(carried.conductors.find((x) => x.id === c.id)).toEqual(c);
      }),
      { numRuns: 40 },
    );
  });

  it('leaves alone what somebody edited and the change does not touch', () => {
    const [from, to] = [motorhomeOf({ link: 'ignition-delay' }), motorhomeOf({ link: 'dcdc' })];
    const carried = carryOver(edited(from), from, to);
    expect(carried.parts.find((p) => p.id === 'chassis-bank')).toMatchObject({ note: 'looks new' });
    const same = from.conductors.filter((c) => {
      const after = to.conductors.find((x) => x.id === c.id);
      return c.use === 'return' && after && JSON.stringify(after) === JSON.stringify(c);
    });
    expect(same.length).toBeGreaterThan(1);
    for (const c of same) expect(carried.conductors.find((x) => x.id === c.id)!.length).toBeCloseTo(c.length + 1.5, 9);
  });

  it('keeps what somebody added, and adds nothing twice', () => {
    const [from, to] = [motorhomeOf({ link: 'ignition-delay' }), motorhomeOf({ link: 'dcdc' })];
    const own = { ...from.conductors[0]!, id: 'own-wire', name: 'Own wire' };
    const carried = carryOver({ ...from, conductors: [...from.conductors, own] }, from, to);
    expect(carried.conductors.filter((c) => c.id === 'own-wire')).toHaveLength(1);
    const again = carryOver(carried, from, to);
    expect(ids(again)).toEqual(ids(carried));
  });

  it('retires the probes of what goes, never gives a label twice, and leaves a sound document', () => {
    fc.assert(
      fc.property(two, ([a, b]) => {
        const [from, to] = [motorhomeOf({ link: a }), motorhomeOf({ link: b })];
        const carried = carryOver(from, from, to);
        expect(checkRig(carried)).toEqual([]);
        const labels = carried.probes.map((p) => p.label);
        expect(new Set(labels).size).toBe(labels.length);
        // A label, once given, is that point's for good.
        for (const p of from.probes) expect(carried.probes.find((x) => x.key === p.key)!.label).toBe(p.label);
        const gone = from.probes.filter(
          (p) =>
            !to.parts.some((x) => p.key.startsWith(`${x.id}.`)) &&
            !to.conductors.some((x) => p.key.startsWith(`${x.id}.`)) &&
            !to.grounds.some((x) => p.key.startsWith(`${x.id}.`)),
        );
        for (const p of gone) expect(carried.probes.find((x) => x.key === p.key)!.retired).toBe(true);
      }),
      { numRuns: 40 },
    );
  });
});
