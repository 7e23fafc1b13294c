import { describe, expect, it } from 'vitest';
import { EVERY_RIG } from '../../../tests/everyRig';
import { motorhome } from '../rig/archetypes/motorhome';
import { atTheStop, calibrationOf, claimed, sortOf } from './calibration';

const usual = calibrationOf(motorhome('c', 'C'));

describe('what is claimed', () => {
  it.each(EVERY_RIG)('%s: keeps a share back for what is not on the list, and still adds up to one', (_, rig) => {
    const kept = calibrationOf(rig);
    const shares: [string, number][] = [
      ['a', 0.9],
      ['b', 0.06],
      ['not-on-list', 0.04],
    ];
    const said = shares.map(([id, p]) => claimed(id, p, kept));
    expect(said.reduce((sum, p) => sum + p, 0)).toBeCloseTo(1, 12);
    expect(said[0]!).toBeLessThan(0.9);
    expect(said[2]!).toBeGreaterThan(kept.reserve);
    expect(kept.of.length).toBeGreaterThan(5);
  });

  it('never reaches what only a certainty inside the model would be', () => {
    expect(claimed('a', 1, usual)).toBeCloseTo(1 - usual.reserve, 12);
    expect(claimed('a', 1, { reserve: 0 })).toBe(1);
  });

  it('is what was found of such rigs: those of the session before count half, and of few not all is claimed', () => {
    const rows = new Map(EVERY_RIG.map(([, rig]) => [calibrationOf(rig).of, calibrationOf(rig)]));
    expect(rows.size).toBe(5);
    for (const { of, reserve, verdicts, right, earlier } of rows.values()) {
      expect(right).toBeLessThanOrEqual(verdicts);
      expect(earlier.right).toBeLessThanOrEqual(earlier.verdicts);
      // Laplace's rule. A stop has some 0.93 inside the model; a twentieth is kept back at the least.
      const share = (right + earlier.right / 2 + 1) / (verdicts + earlier.verdicts / 2 + 2);
      expect(reserve, of).toBeCloseTo(Math.max(0.05, 1 - share / 0.93), 1.5);
      expect(claimed('a', 0.93, { reserve }), of).toBeLessThan(share + 0.02);
    }
  });

  it('of a sound rig is no less than was found of such verdicts, of a pair no more, and still adds up to one', () => {
    const pair = 'Clean the clamp + Replace the fuse';
    for (const share of [0.3, 0.66, 0.8, 0.9, 0.98]) {
      for (const [verdict, holds] of [
        ['nothing-wrong', (x: number, found: number) => x >= found && x >= share],
        [pair, (x: number, found: number) => x <= found && x <= share],
        ['Clean the clamp', (x: number) => x === share],
      ] as const) {
        const stop = { reached: true, class: verdict, why: '' };
        const { own, others } = atTheStop(stop, share);
        const sort = sortOf(stop);
        expect(share * own + (1 - share) * others).toBeCloseTo(1, 12);
        // Of few, less than the bare quotient is claimed: Laplace's rule, worked by hand for two of three: 3 of 5.
        const found = sort?.share ?? 0;
        if (sort) expect(found).toBeLessThan(sort.right / sort.verdicts);
        const said = Number((share * own).toFixed(9));
        expect(holds(said, Number(found.toFixed(9))), `${verdict} ${share}`).toBe(true);
      }
    }
    const sound = { reached: true, class: 'nothing-wrong', why: '' };
    const as = { own: 1, others: 1 };
    for (const share of [0, 1]) expect(atTheStop(sound, share)).toEqual(as);
    // Before the round is over, and over what no reading shows, a share is what it is.
    expect(atTheStop({ ...sound, reached: false }, 0.5)).toEqual(as);
    expect(atTheStop({ ...sound, unseen: 'a jumper' }, 0.5)).toEqual(as);
  });
});
