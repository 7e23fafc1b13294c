/** Questions a customer asks of hours: consistent with each other and with what everybody expects of a battery. */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { motorhomeOf } from '../../../tests/motorhomes';
import { howLate, howLong, howLongLasts, howLongStands, type HoursQuestion } from './questions';

const asked = (more: Partial<HoursQuestion> = {}, link: 'dcdc' | 'ignition-delay' = 'dcdc'): HoursQuestion => ({
  compiled: compileRig(motorhomeOf({ link })),
  bank: 'coach-bank',
  celsius: 20,
  loads: [],
  ...more,
});

describe('a run cut short', () => {
  it('is no answer to any question: it is said, and nothing is promised', () => {
    const of = asked({ budget: 40 });
    for (const a of [
      howLong(of, 'drive', 0.2, 0.9),
      howLate(of, 8, 0.2, 0.9),
      howLongStands(of),
      howLongLasts(of, 1, 0.2),
    ]) {
      expect(a.hours).toBeUndefined();
      expect(a.says).toMatch(/^Not worked out: .* in something switches on and off/);
    }
  });
});

describe('how long to charge', () => {
  const of = asked();

  it('is nothing where it is there already, and longer the further it has to go', () => {
    expect(howLong(of, 'drive', 0.8, 0.8)).toMatchObject({ hours: 0, says: 'It is at 80 % already.' });
    const hours = [0.5, 0.6, 0.7, 0.8].map((to) => howLong(of, 'drive', 0.4, to).hours!);
    for (let i = 1; i < hours.length; i++) expect(hours[i]!).toBeGreaterThan(hours[i - 1]!);
    // In two legs it takes as long as in one, to a few minutes: the polarisation of the break aside.
    const [whole, first, second] = [
      howLong(of, 'drive', 0.4, 0.8).hours!,
      howLong(of, 'drive', 0.4, 0.6).hours!,
      howLong(of, 'drive', 0.6, 0.8).hours!,
    ];
    expect(first + second).toBeGreaterThan(whole * 0.97);
    expect(first + second).toBeLessThan(whole * 1.05);
  });

  it('is at least the missing charge over what the charger gives', () => {
    const { hours } = howLong(of, 'drive', 0.3, 0.7);
    const bank = of.compiled.rig.parts.find((p) => p.id === 'coach-bank')!;
    const charger = of.compiled.rig.parts.find((p) => p.kind === 'dcdc-charger')!;
    const missing = 0.4 * bank.params['capacity']!.value;
    expect(hours!).toBeGreaterThan(missing / (1.15 * charger.params['limit']!.value));
  });

  it('says how far it comes where it never gets there', () => {
    const answer = howLong(asked({}, 'ignition-delay'), 'drive', 0.3, 1, 2);
    expect(answer.hours).toBeUndefined();
    expect(answer.says).toMatch(/^Not reached: after 2 h driving it is at \d+ %\.$/);
  });

  it('is longer with loads running', () => {
    expect(howLong(asked({ loads: ['screens', 'lights'] }), 'drive', 0.4, 0.7).hours!).toBeGreaterThan(
      howLong(of, 'drive', 0.4, 0.7).hours!,
    );
  });
});

describe('how late charging may begin', () => {
  const of = asked();

  it('is nothing where no charging is needed, and not reached where all of the drive is too short', () => {
    expect(howLate(of, 3, 0.9, 0.5).hours).toBe(0);
    const never = howLate(of, 0.5, 0.2, 0.95);
    expect(never.hours).toBeUndefined();
    expect(never.says).toContain('Not reached');
  });

  it('is later the less is wanted, and within the drive', () => {
    const at = [0.45, 0.5, 0.55].map((to) => howLate(of, 6, 0.4, to).hours!);
    for (const h of at) {
      expect(h).toBeGreaterThan(0);
      expect(h).toBeLessThanOrEqual(6);
    }
    for (let i = 1; i < at.length; i++) expect(at[i]!).toBeGreaterThan(at[i - 1]!);
  });

  it('is about as long as charging from there takes', () => {
    const late = howLate(of, 6, 0.4, 0.55);
    const long = howLong(of, 'drive', 0.4, 0.55);
    expect(late.hours!).toBeGreaterThan(0.85 * long.hours!);
    expect(late.hours!).toBeLessThan(1.35 * long.hours!);
  });
});

describe('how long it lasts', () => {
  it('is the charge over the amps, roughly, and shorter with more on', () => {
    const of = asked({ loads: ['screens'] });
    const { hours } = howLongLasts(of, 0.9, 0.5);
    const bank = of.compiled.rig.parts.find((p) => p.id === 'coach-bank')!;
    const amps = 60 / 12;
    const simple = (0.4 * bank.params['capacity']!.value) / amps;
    // The panel's own few watts, standing loss and the rate all shorten it.
    expect(hours!).toBeLessThan(1.1 * simple);
    expect(hours!).toBeGreaterThan(0.5 * simple);
    expect(howLongLasts(asked({ loads: ['screens', 'lights'] }), 0.9, 0.5).hours!).toBeLessThan(hours!);
    expect(howLongLasts(of, 0.4, 0.5)).toMatchObject({ hours: 0 });
  });

  it('until the engine no longer starts is shorter in the cold', () => {
    const [warm, cold] = [20, -20].map((celsius) => howLongStands(asked({ celsius })));
    const hours = (a: typeof warm) => a!.hours ?? Infinity;
    expect(hours(cold)).toBeLessThan(hours(warm));
    expect(warm!.says).toMatch(/starts for|Longer than a year/);
  });
});
