import { describe, expect, it } from 'vitest';
import { VARIETY } from '../../../tests/motorhomes';
import { motorhome } from '../rig/archetypes/motorhome';
import { ASSUMPTIONS } from './assumptions';
import { PAIRS } from './catalogue/pairs';
import { membersOf, rigFaults } from './faults';
import { INTAKE_FACTS, INTAKE_FACT_IDS, type IntakeFact } from './intake';
import { clueFactor, explainPriors, priors } from './priors';

const faults = rigFaults(motorhome('t', 'T'));
const everywhere = VARIETY.map((c) => rigFaults(motorhome('t', 'T', c)));

describe('the intake', () => {
  it.each(INTAKE_FACT_IDS)('"%s" weighs faults that exist, and moves their odds by just its factor', (id) => {
    const { weighs }: IntakeFact = INTAKE_FACTS[id];
    const known = new Set(everywhere.flatMap((list) => list.flatMap((f) => f.answersTo.flat())));
    for (const key of Object.keys(weighs)) expect(known.has(key), key).toBe(true);
    const none = priors(faults, [], ASSUMPTIONS);
    const told = priors(faults, [id], ASSUMPTIONS);
    expect(told.reduce((s, p) => s + p, 0)).toBeCloseTo(1, 12);
    const still = faults.findIndex((f) => clueFactor(f, id, ASSUMPTIONS) === 1);
    faults.forEach((f, i) =>
      expect(told[i]! / told[still]! / (none[i]! / none[still]!)).toBeCloseTo(clueFactor(f, id, ASSUMPTIONS), 9),
    );
  });

  it('is explained line by line: what moved a fault, strongest first', () => {
    const lines = explainPriors(faults, ['boost-dead', 'wedges-boost'], ASSUMPTIONS);
    expect(lines.reduce((s, l) => s + l.after, 0)).toBeCloseTo(1, 12);
    expect(lines.map((l) => l.after)).toEqual([...lines.map((l) => l.after)].sort((a, b) => b - a));
    const fuse = lines.find((l) => l.fault === 'boost.fuse-blown')!;
    expect(fuse.after).toBeGreaterThan(fuse.before);
    expect(fuse.because).toEqual([expect.objectContaining({ clue: 'wedges-boost', factor: 3 })]);
    const alternator = lines.find((l) => l.fault === 'alternator.no-output')!;
    expect(alternator.because).toEqual([
      expect.objectContaining({ clue: 'boost-dead', factor: ASSUMPTIONS.unexplained }),
    ]);
  });
});

describe('pairs', () => {
  it('each exist on some rig, do what both do, and are rarer than either', () => {
    for (const pair of PAIRS) {
      const found = everywhere.some((list) =>
        list.some((f) => f.answersTo[0]!.includes(pair.first) && f.answersTo[1]?.includes(pair.second)),
      );
      expect(found, `${pair.first} + ${pair.second}`).toBe(true);
    }
    for (const f of faults.filter((x) => x.members)) {
      const [a, b] = membersOf(f).map((id) => faults.find((x) => x.id === id)!) as [
        (typeof faults)[0],
        (typeof faults)[0],
      ];
      expect(f.effects).toEqual([...a.effects, ...b.effects]);
      expect(f.prior).toBeLessThan(Math.min(a.prior, b.prior));
      expect(f.class.split(' + ')).toEqual([a.class, b.class].sort());
      expect(f.minutes![1]).toBe(a.minutes![1] + b.minutes![1]);
    }
  });
});
