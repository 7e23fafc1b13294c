/** What a belief must keep to whatever it is told: shares that add up, evidence without an order, no magic in a name. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { motorhomeOf } from '../../../tests/motorhomes';
import { compileRig } from '../compile/compile';
import { Belief, type Evidence } from './belief';
import { HiddenRig } from './hiddenRig';

const compiled = compileRig(motorhomeOf());
const REF = 'frame.bay-2';
const POINTS = [
  'coach-bank.plus',
  'chassis-bank.plus',
  'link.coach-stud',
  'link.chassis-stud',
  'link.coil-plus',
] as const;
const STATES = ['rested', 'idle', 'boost-engine-off'] as const;

/** Readings of a rig with a fault, at some of its points. */
const read = (fault: string, seed: number, picks: readonly (readonly [number, number])[]): Evidence[] => {
  const rig = new HiddenRig(compiled, fault, seed);
  return [...new Map(picks.map(([s, p]) => [`${s} ${p}`, [s, p] as const])).values()].map(([s, p], i) => ({
    id: `r${i}`,
    state: STATES[s]!,
    probe: POINTS[p]!,
    ref: REF,
    value: rig.read(STATES[s]!, POINTS[p]!, REF).value,
  }));
};
const picks = fc.array(fc.tuple(fc.nat(STATES.length - 1), fc.nat(POINTS.length - 1)), { minLength: 1, maxLength: 8 });
const faults = [
  'nothing-wrong',
  'link.contact-open',
  'link.contact-burnt',
  'delay.dead',
  'coach-bank.open-cell',
].filter((id) => id === 'nothing-wrong' || new Belief(compiled, []).faults.some((f) => f.id === id));

describe('a belief', () => {
  it('has shares between nothing and all that add up to one', () => {
    const belief = new Belief(compiled, ['coach-not-charging']);
    fc.assert(
      fc.property(fc.constantFrom(...faults), fc.nat(50), picks, (fault, seed, where) => {
        belief.setEvidence(read(fault, seed, where));
        const weights = [...belief.weight];
        expect(weights.every((w) => w >= 0 && w <= 1 + 1e-12)).toBe(true);
        expect(weights.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
        const classes = [...belief.classes().values()];
        expect(classes.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
      }),
      { numRuns: 25 },
    );
  });

  // Two readings on either side of a threshold can tell on each other: straight lines through it are all it has.
  it('depends little on the order readings are told in: where each component is linearised is all that remembers it', () => {
    const worst = fc
      .sample(fc.tuple(fc.constantFrom(...faults), fc.nat(50), picks), 12)
      .map(([fault, seed, where]) => {
        const evidence = read(fault, seed, where);
        const [on, back] = [new Belief(compiled, []), new Belief(compiled, [])];
        on.setEvidence(evidence);
        back.setEvidence([...evidence].reverse());
        const there = back.classes();
        return Math.max(...[...on.classes()].map(([id, share]) => Math.abs(share - (there.get(id) ?? 0))));
      })
      .sort((x, y) => x - y);
    // Now and then a threshold lies between the two ways.
    expect(worst[9]!).toBeLessThan(0.2);
    expect(worst[5]!).toBeLessThan(0.05);
  });

  it('forgets what is no longer told', () => {
    const belief = new Belief(compiled, ['coach-not-charging']);
    belief.setEvidence([]);
    const before = [...belief.classes()];
    belief.setEvidence(
      read('link.contact-open', 3, [
        [1, 0],
        [1, 3],
      ]),
    );
    belief.setEvidence([]);
    for (const [id, share] of belief.classes()) expect(share).toBeCloseTo(new Map(before).get(id)!, 9);
  });

  it('is surer of the fault that is there the more of it is measured, on the whole', () => {
    const where: [number, number][] = [
      [1, 0],
      [1, 1],
      [1, 2],
      [1, 3],
      [1, 4],
      [0, 0],
      [2, 4],
    ];
    const belief = new Belief(compiled, ['coach-not-charging']);
    const shares = (n: number) =>
      [1, 2, 3, 4, 5, 6].map((seed) => {
        belief.setEvidence(read('link.contact-open', seed, where.slice(0, n)));
        const { class: own } = belief.faults.find((f) => f.id === 'link.contact-open')!;
        return belief.classes().get(own) ?? 0;
      });
    const mean = (x: number[]) => x.reduce((a, b) => a + b, 0) / x.length;
    expect(mean(shares(7))).toBeGreaterThan(mean(shares(1)));
    expect(mean(shares(7))).toBeGreaterThan(0.5);
  });

  it('of a reading that no suspect explains stays a belief: no share is lost, none is not a number', () => {
    const belief = new Belief(compiled, []);
    for (const value of [0, 2, 30, -12, 63]) {
      belief.setEvidence([{ id: 'r', state: 'idle', probe: 'coach-bank.plus', ref: REF, value }]);
      const weights = [...belief.weight];
      expect(weights.every(Number.isFinite), `${value} V`).toBe(true);
      expect(weights.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
    }
  });

  it('predicts what a healthy rig reads within its own spread', () => {
    const belief = new Belief(compiled, []);
    belief.setEvidence([]);
    const healthy = belief.components.findIndex((c) => belief.faults[c.faultIndex]!.id === 'nothing-wrong');
    let inside = 0;
    let all = 0;
    for (let seed = 1; seed <= 20; seed++) {
      const rig = new HiddenRig(compiled, 'nothing-wrong', seed);
      for (const state of ['rested', 'idle'] as const)
        for (const probe of POINTS) {
          const [r, b] = [belief.rowOf(state, probe)!, belief.rowOf(state, REF)!];
          const { mean, sd } = belief.predictive(healthy, r, b);
          all++;
          if (Math.abs(rig.read(state, probe, REF).value - mean) < 2.6 * sd) inside++;
        }
    }
    // 99 of 100 were both of one law; hidden rigs are drawn wider and blunder now and then.
    expect(inside / all).toBeGreaterThan(0.85);
  });

  it('takes in what is new only, and comes to the same as with all of it run through anew', () => {
    const belief = new Belief(compiled, ['coach-not-charging']);
    const all = read('link.contact-open', 3, [
      [1, 0],
      [1, 1],
      [1, 2],
      [0, 0],
    ]);
    for (let n = 1; n <= all.length; n++) belief.setEvidence(all.slice(0, n));
    // One in the middle is taken again, and one is taken back.
    belief.setEvidence(all.map((e, r) => (r === 1 ? { ...e, confirmed: true } : e)));
    belief.setEvidence(all.filter((_, r) => r !== 2));
    const before = Array.from(belief.weight);
    for (const c of belief.components) {
      c.reset();
      c.ranSeen = NaN;
    }
    belief['replay']();
    before.forEach((w, i) => expect(belief.weight[i]).toBeCloseTo(w, 12));
  });

  it('runs nothing through anew where nothing is new', () => {
    const belief = new Belief(compiled, []);
    const evidence = read('link.contact-open', 3, [
      [1, 0],
      [1, 1],
    ]);
    belief.setEvidence(evidence);
    const row = belief.rowOf(evidence[0]!.state, evidence[0]!.probe)!;
    const before = belief.components.map((c) => ({ taken: c.taken, version: c.versionAt(row) }));
    belief.setEvidence(structuredClone(evidence));
    const unmoved = belief.components.filter((c, i) => c.versionAt(row) === before[i]!.version);
    expect(unmoved.length).toBeGreaterThan(100);
    expect(unmoved.every((c) => before.some((b) => b.taken === c.taken))).toBe(true);
    belief.setEvidence(evidence.map((e) => ({ ...e, value: e.value + 1 })));
    expect(belief.components.some((c) => before.some((b) => b.taken === c.taken))).toBe(false);
  });
});
