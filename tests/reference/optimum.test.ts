/** The engine's choice of tests and its stop against brute-force expectimax over every order of tests. */
import { describe, expect, it } from 'vitest';
import { drawCases, solveCase, type Case } from '../../bench/optimum';
import { compileRig } from '../../src/core/compile/compile';
import { motorhome } from '../../src/core/rig/archetypes/motorhome';

describe('the next best test', () => {
  it('costs at most 1.10 times the exhaustive optimum on cases of six faults and six tests', () => {
    const { belief, cases } = drawCases(compileRig(motorhome('t', 'T')), 14, 7);
    const solved = cases.map((c) => solveCase(belief, c));
    for (const s of solved) expect(s.ours).toBeGreaterThanOrEqual(s.best - 1e-9);
    const total = (of: 'ours' | 'best') => solved.reduce((sum, s) => sum + s[of], 0);
    expect(total('ours') / total('best')).toBeLessThanOrEqual(1.1);
  });

  it('the reference itself: a sure test that is cheap is taken, one that costs more than a wrong call is not', () => {
    const { belief } = drawCases(compileRig(motorhome('t', 'T')), 1, 1);
    const one = (minutes: number): Case => ({
      prior: [0.5, 0.5],
      classOf: [0, 1],
      tests: [
        {
          place: 'Dash',
          state: 'rested',
          minutes,
          table: [
            [1, 0],
            [0, 1],
          ],
        },
      ],
    });
    // Going to the dash costs its access minutes, then the test; after it nothing is left to be wrong about.
    const access = belief.assumptions.openMinutes['Dash']!;
    expect(solveCase(belief, one(4))).toEqual({ best: access + 4, ours: access + 4 });
    // Without the test one is wrong half the time.
    expect(solveCase(belief, one(500)).best).toBe(belief.assumptions.wrongCallMinutes / 2);
    expect(solveCase(belief, one(500)).ours).toBe(belief.assumptions.wrongCallMinutes / 2);
  });
});
