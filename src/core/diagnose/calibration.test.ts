import { describe, expect, it } from 'vitest';
import { CALIBRATION, claimed } from './calibration';

describe('what is claimed', () => {
  it('keeps a share back for what is not on the list, and still adds up to one', () => {
    const shares: [string, number][] = [
      ['a', 0.9],
      ['b', 0.06],
      ['not-on-list', 0.04],
    ];
    const said = shares.map(([id, p]) => claimed(id, p));
    expect(said.reduce((sum, p) => sum + p, 0)).toBeCloseTo(1, 12);
    expect(said[0]!).toBeLessThan(0.9);
    expect(said[2]!).toBeGreaterThan(CALIBRATION.reserve);
  });

  it('never reaches what only a certainty inside the model would be', () => {
    expect(claimed('a', 1)).toBeCloseTo(1 - CALIBRATION.reserve, 12);
    expect(claimed('a', 1, { ...CALIBRATION, reserve: 0 })).toBe(1);
  });
});
