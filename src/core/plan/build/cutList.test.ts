/** What is cut: only what is new, long enough, labelled at both ends. */
import { describe, expect, it } from 'vitest';
import type { Rig } from '../../rig/schema';
import { motorhomeOf } from '../../../../tests/motorhomes';
import { cutList, sameWire, SERVICE_LOOP_METRES } from './cutList';

const rig = motorhomeOf();
const edited = (id: string, change: Partial<Rig['conductors'][number]>): Rig => ({
  ...rig,
  conductors: rig.conductors.map((c) => (c.id === id ? { ...c, ...change } : c)),
});
const heavy = rig.conductors.find((c) => c.use === 'feed' && ['2/0', '1/0', '2', '4'].includes(c.gauge))!;

describe('a cut list', () => {
  it('is empty where nothing changes, and asks only for what did', () => {
    expect(cutList(rig, rig)).toEqual([]);
    const list = cutList(rig, edited(heavy.id, { gauge: '4/0' }));
    expect(list.map((c) => [c.id, c.gauge, c.replaces])).toEqual([[heavy.id, '4/0', true]]);
  });

  it('has a hand’s breadth of slack at each end, rounded up to the centimetre: never short', () => {
    for (const length of [0.3, 1, 2.345, 7.1234, 12]) {
      const [cut] = cutList(rig, edited(heavy.id, { gauge: '4/0', length }));
      expect(cut!.length).toBeGreaterThanOrEqual(length + 0.3 - 1e-9);
      expect(cut!.length).toBeLessThan(length + 0.3 + 0.0101);
      expect(Math.abs(cut!.length * 100 - Math.round(cut!.length * 100))).toBeLessThan(1e-6);
    }
    expect(SERVICE_LOOP_METRES).toBe(0.15);
  });

  it('leaves a cable alone that is moved by less than a hand, not one that is moved by more', () => {
    expect(sameWire(heavy, { ...heavy, length: heavy.length + 0.09 })).toBe(true);
    expect(sameWire(heavy, { ...heavy, length: heavy.length - 0.11 })).toBe(false);
    for (const end of ['from', 'to'] as const)
      for (const key of ['part', 'terminal'] as const)
        expect(sameWire(heavy, { ...heavy, [end]: { ...heavy[end], [key]: 'elsewhere' } })).toBe(false);
  });

  it('has feeds first, then returns, then control wires; the longest of each first', () => {
    const list = cutList({ ...rig, conductors: [] }, rig);
    const order = { feed: 0, return: 1, control: 2 } as Record<string, number>;
    expect(list.length).toBe(rig.conductors.length);
    expect(list.every((c) => !c.replaces)).toBe(true);
    const uses = new Set(list.map((c) => c.use));
    expect(uses.size).toBeGreaterThan(2);
    for (let i = 1; i < list.length; i++) {
      const [a, b] = [list[i - 1]!, list[i]!];
      const [p, q] = [order[a.use] ?? 2, order[b.use] ?? 2];
      expect(p).toBeLessThanOrEqual(q);
      if (p === q) expect(a.length).toBeGreaterThanOrEqual(b.length);
    }
  });

  it('names where each end goes and what comes from the other side, so that a label reads on its own', () => {
    for (const cut of cutList({ ...rig, conductors: [] }, rig)) {
      const [a, b] = cut.ends;
      // A bolt of the frame is named once, by where it is.
      const here = (e: typeof a) =>
        rig.grounds.some((g) => g.id === e.at.part) ? e.terminal : `${e.part} ${e.terminal}`;
      expect(a.label).toBe(`${here(a)} ← ${b.part}`);
      expect(b.label).toBe(`${here(b)} ← ${a.part}`);
      for (const end of cut.ends) {
        expect(end.part).not.toBe('');
        // A name, never an id.
        expect(end.label).not.toMatch(/undefined|[a-z]-[a-z]+\.[a-z]/);
        if (rig.grounds.some((g) => g.id === end.at.part)) expect(end.made).toContain('bare metal');
        else if (cut.use === 'control') expect(end.made).toBe('sealed crimp');
      }
    }
  });

  it('asks for a larger lug and wider sleeve the thicker the cable', () => {
    const at = (gauge: '8' | '2' | '4/0') => cutList(rig, edited(heavy.id, { gauge, length: 99 }))[0]!;
    expect(at('8').shrink).toBeLessThan(at('2').shrink);
    expect(at('2').shrink).toBeLessThan(at('4/0').shrink);
  });
});
