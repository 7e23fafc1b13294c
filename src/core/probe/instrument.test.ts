import { addMonths, format } from 'date-fns';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { Belief } from '../diagnose/belief';
import { motorhome } from '../rig/archetypes/motorhome';
import { accuracyOf, dueOn, isOverdue, USUAL_INSTRUMENT } from './instrument';
import { meterNoise, USUAL_METER } from './meter';

const meter = { ...USUAL_INSTRUMENT, id: 'm', name: 'M', calibratedOn: '2026-01-31' };

describe('an instrument', () => {
  it('is due when the calendar library says so, month ends and leap years included', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('2001-01-01'), max: new Date('2090-12-31'), noInvalidDate: true }),
        fc.integer({ min: 1, max: 120 }),
        (date, months) => {
          const day = new Date(date.getFullYear(), date.getMonth(), date.getDate(), 12);
          expect(dueOn({ calibratedOn: format(day, 'yyyy-MM-dd'), months })).toBe(
            format(addMonths(day, months), 'yyyy-MM-dd'),
          );
        },
      ),
    );
    expect(dueOn({ months: 12 })).toBeUndefined();
  });

  it('is the usual one when nothing is said, less true past its date or never verified', () => {
    expect(accuracyOf(meter, '2026-06-01T10:00:00Z')).toEqual(USUAL_METER);
    expect(isOverdue(meter, '2027-01-31')).toBe(false);
    expect(isOverdue(meter, '2027-02-01')).toBe(true);
    expect(accuracyOf(meter, '2027-02-01').voltShare).toBeCloseTo(2 * USUAL_METER.voltShare, 12);
    expect(isOverdue(USUAL_INSTRUMENT, '2026-06-01')).toBe(true);
  });

  it('reads to half its last digit at best, however few counts its sheet promises', () => {
    expect(accuracyOf({ ...meter, voltDigits: 0 }, '2026-06-01').voltNoise).toBe(0.5);
    expect(accuracyOf({ ...meter, voltDigits: 1 }, '2026-06-01').voltNoise).toBe(0.5);
    expect(accuracyOf({ ...meter, voltDigits: 6 }, '2026-06-01').voltNoise).toBe(3);
  });

  it('of a data sheet’s limit is half that as a standard deviation: 0.5 % is 0.25 %', () => {
    const sheet = { ...meter, voltPercent: 0.5, ampPercent: 2, ampFloor: 0.3 };
    expect(accuracyOf(sheet, '2026-06-01')).toMatchObject({ voltShare: 0.0025, ampShare: 0.01, ampFloor: 0.15 });
  });

  it('that is worse has more noise, whatever it reads', () => {
    const poor = accuracyOf({ ...meter, voltDigits: 9, ampPercent: 5, ampFloor: 2 }, '2026-06-01');
    for (const v of [0.01, 0.5, 5, 13, 28]) expect(meterNoise('V', v, poor)).toBeGreaterThan(meterNoise('V', v));
    for (const a of [0, 10, 80]) expect(meterNoise('A', a, poor)).toBeGreaterThan(meterNoise('A', a));
  });

  it('moves belief less the less true it is', () => {
    const belief = new Belief(compileRig(motorhome('t', 'T')), ['coach-not-charging']);
    /** How far the belief is from where it started, bits. */
    const moved = (voltPercent: number) => {
      belief.setEvidence([
        {
          id: 'a',
          state: 'idle',
          probe: 'chassis-bank.plus',
          ref: 'frame.bay-2',
          value: 13.3,
          meter: accuracyOf({ ...meter, voltPercent }, '2026-06-01'),
        },
      ]);
      return belief.probability.reduce((sum, p, i) => sum + (p > 0 ? p * Math.log2(p / belief.prior[i]!) : 0), 0);
    };
    expect(moved(0.1)).toBeGreaterThan(moved(3));
    expect(moved(3)).toBeGreaterThan(moved(8));
    expect(moved(8)).toBeGreaterThan(0);
  });
});
