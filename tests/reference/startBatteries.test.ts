/**
 * Start batteries against what the standards ask of them and the trade knows of them, none of it in the model: SAE J537
 * (cold cranking) and the BCI load test, typed from memory; days with a drain, common practice, no source.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  bankCrankVolts,
  bankOhms,
  bankRestVolts,
  chemistryOf,
  shortCircuitAmps,
  type BankState,
} from '../../src/core/parts/chemistry';
import { loadTestLimit } from '../../src/core/diagnose/observations/grades';
import { secondsToNoStart, startLimitSoc } from '../../src/core/size/calculators/batteries';

/** Ah and CCA of batteries as sold: group sizes of cars, vans and heavy trucks. */
const SOLD = [
  [45, 450],
  [60, 540],
  [70, 700],
  [90, 800],
  [100, 950],
] as const;
const of = (capacity: number, cca: number, more: Partial<BankState> = {}): BankState => ({
  chemistry: chemistryOf('flooded'),
  capacity,
  cca,
  blocks: 1,
  soc: 1,
  celsius: 21,
  ageing: 1,
  ...more,
});

describe.each(SOLD)('a new battery of %d Ah, %d CCA', (capacity, cca) => {
  it('holds 7.2 V for 30 s at its rating at −18 °C (SAE J537)', () => {
    const volts = bankCrankVolts(of(capacity, cca, { celsius: -18 }), cca, 30);
    expect(volts).toBeGreaterThanOrEqual(7.2);
    // And no great deal more, or it would be rated higher.
    expect(volts).toBeLessThan(8.2);
  });

  it('passes the load test: half its CCA for 15 s at 21 °C leaves over 9.6 V (BCI)', () => {
    expect(loadTestLimit(21)).toBe(9.6);
    expect(bankCrankVolts(of(capacity, cca), cca / 2, 15)).toBeGreaterThan(9.6);
  });

  it('fails it when its resistance has more than doubled, and still starts an engine', () => {
    const worn = of(capacity, cca, { ageing: 2.6 });
    expect(bankCrankVolts(worn, cca / 2, 15)).toBeLessThan(9.6);
    expect(startLimitSoc(worn, 200)).toBeLessThan(1);
  });

  it('has a few milliohms warm: 2.5 to 3 V over its CCA', () => {
    const ohms = bankOhms(of(capacity, cca, { celsius: 25 }), false);
    expect(ohms * cca).toBeGreaterThan(2.5);
    expect(ohms * cca).toBeLessThan(3);
  });
});

describe('a drain on a start battery', () => {
  const days = (ah: number, cca: number, amps: number, starter = 200) =>
    secondsToNoStart(of(ah, cca, { celsius: 10, ageing: 1.2 }), 0.95, starter, amps).seconds / 86_400;

  it('of 50 mA is lived with for about a month by 70 Ah and 700 CCA, not for six days', () => {
    expect(days(70, 700, 0.05)).toBeGreaterThan(24);
    expect(days(70, 700, 0.05)).toBeLessThan(38);
  });

  it('of a quarter ampere is over within a week', () => {
    expect(days(70, 700, 0.25)).toBeLessThan(8);
  });

  it('lets a full battery start a diesel in the cold: 400 A at −18 °C from 90 Ah and 800 CCA', () => {
    expect(startLimitSoc(of(90, 800, { celsius: -18 }), 400)).toBeLessThan(1);
  });
});

describe('what a bank can push into a short', () => {
  it('is kiloamperes of lithium: 4 to 5 for 100 Ah, 15 to 20 for 400 Ah at the posts', () => {
    const lfp = chemistryOf('lfp');
    expect(shortCircuitAmps(lfp, 100, 1, 0)).toBeGreaterThan(4000);
    expect(shortCircuitAmps(lfp, 100, 1, 0)).toBeLessThan(5000);
    expect(shortCircuitAmps(lfp, 400, 1, 0)).toBeGreaterThan(15_000);
    expect(shortCircuitAmps(lfp, 400, 1, 0)).toBeLessThan(20_000);
  });

  it('errs high for every chemistry: more than what the resistance charging meets would let through', () => {
    for (const id of ['flooded', 'agm', 'gel', 'lfp'])
      fc.assert(
        fc.property(fc.integer({ min: 20, max: 800 }), fc.constantFrom(1, 2, 4), (capacity, blocks) => {
          const b = of(capacity, 0, { chemistry: chemistryOf(id), blocks, celsius: 25 });
          expect(shortCircuitAmps(b.chemistry, capacity, blocks, 0)).toBeGreaterThan(
            bankRestVolts(b) / bankOhms(b, false),
          );
        }),
        { numRuns: 40 },
      );
  });
});

describe('rested volts', () => {
  const rests = (id: string, soc: number) =>
    bankRestVolts(of(100, 0, { chemistry: chemistryOf(id), soc, celsius: 25 }));

  it('of full and empty banks are the trade’s: BCI 11.89 V empty, gel over AGM, lithium 13.4 to 13.6 V', () => {
    expect(rests('flooded', 0)).toBeGreaterThan(11.8);
    expect(rests('flooded', 0)).toBeLessThan(11.95);
    expect(rests('flooded', 1)).toBeGreaterThan(12.65);
    expect(rests('flooded', 1)).toBeLessThan(12.75);
    expect(rests('gel', 1)).toBeGreaterThan(12.85);
    expect(rests('gel', 1)).toBeLessThan(12.95);
    expect(rests('lfp', 1)).toBeGreaterThan(13.4);
    expect(rests('lfp', 1)).toBeLessThan(13.6);
  });

  it('rise with charge, and hardly go on beyond full or empty', () => {
    for (const id of ['flooded', 'agm', 'gel', 'lfp']) {
      for (let s = 0; s < 1; s += 0.02) expect(rests(id, s + 0.02)).toBeGreaterThan(rests(id, s));
      expect(rests(id, 1.3) - rests(id, 1)).toBeLessThan(0.15);
      expect(rests(id, 0) - rests(id, -0.3)).toBeLessThan(0.15);
    }
  });
});
