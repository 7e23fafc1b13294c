/** Heavy runs: every feed in exactly one, each in one line from end to end. */
import { EVERY_RIG } from '../../../tests/everyRig';
import { describe, expect, it } from 'vitest';
import { partKind } from '../parts/kinds';
import { returnOf, returnsOf, runsOf, straightMetres } from './runs';

const key = (e: { part: string; terminal: string }) => `${e.part}.${e.terminal}`;

describe.each(EVERY_RIG)('%s', (_, rig) => {
  const runs = runsOf(rig);

  it('has every feed in exactly one run', () => {
    const feeds = rig.conductors.filter((c) => c.use === 'feed').map((c) => c.id);
    expect(runs.flatMap((r) => r.conductors.map((c) => c.id)).sort()).toEqual([...feeds].sort());
    expect(new Set(runs.map((r) => r.id)).size).toBe(runs.length);
  });

  it('joins the conductors of a run end to end, through one part between each two', () => {
    for (const run of runs) {
      expect(run.inline.length).toBe(run.conductors.length - 1);
      run.inline.forEach((part, i) => {
        const [a, b] = [run.conductors[i]!, run.conductors[i + 1]!];
        const at = (c: typeof a) => [c.from, c.to].filter((e) => e.part === part.id).map(key);
        expect(at(a).length, `${run.id}: ${part.id}`).toBeGreaterThan(0);
        expect(at(b).length, `${run.id}: ${part.id}`).toBeGreaterThan(0);
        // In at one stud, out at another.
        expect(at(a)).not.toEqual(at(b));
        expect(['inline', 'link']).toContain(partKind(part.kind).role);
      });
      const ends = [run.conductors[0]!, run.conductors.at(-1)!].flatMap((c) => [key(c.from), key(c.to)]);
      expect(ends).toContain(key(run.from));
      expect(ends).toContain(key(run.to));
      expect(key(run.from)).not.toBe(key(run.to));
    }
  });

  it('is named after its longest conductor, whose id it has', () => {
    for (const run of runs) {
      const longest = Math.max(...run.conductors.map((c) => c.length));
      const named = run.conductors.find((c) => c.id === run.id)!;
      expect(named.length).toBe(longest);
      expect(run.name).toBe(named.name);
    }
  });

  it('does not change with the order wires are listed in', () => {
    const turned = runsOf({ ...rig, conductors: [...rig.conductors].reverse() });
    const sets = (list: typeof runs) =>
      list
        .map((r) =>
          r.conductors
            .map((c) => c.id)
            .sort()
            .join(),
        )
        .sort();
    expect(sets(turned)).toEqual(sets(runs));
  });

  it('comes back by returns only, at the parts it ends on', () => {
    for (const run of runs)
      for (const c of returnsOf(rig, run)) {
        expect(c.use).toBe('return');
        const ends = [run.from, run.to].flatMap((e) => returnOf(rig, e) ?? []).map(key);
        expect(ends.includes(key(c.from)) || run.inline.some((p) => p.id === c.from.part)).toBe(true);
      }
  });

  it('measures how far a wire’s two ends are apart the same from either end', () => {
    for (const c of rig.conductors) {
      const straight = straightMetres(rig, c);
      expect(straight).toBeGreaterThanOrEqual(0);
      expect(straightMetres(rig, { ...c, from: c.to, to: c.from })).toBe(straight);
      expect(straight).toBeLessThanOrEqual(rig.vehicles.reduce((sum, v) => sum + v.length, 0) + 3);
    }
  });
});
