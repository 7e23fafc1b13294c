/**
 * Ten bench questions worked by hand: what is sized is exact, what is a range is inside it, the rest within 2 %.
 *
 * Sources, typed here and nowhere else: resistances of NEC chapter 9 table 8 (uncoated stranded copper, 75 °C) with the
 * coefficient of its note; ampacities of 33 CFR 183.425 table 5, for the temperature alone; fuses by NEC 551.10(E)(1);
 * rest volts as BCI and lithium cell makers publish them. All from memory. Days and hours: common practice, no source.
 */
import { describe, expect, it } from 'vitest';
import { CALCULATORS } from '../../src/core/size/calculators';
import { valuesOf } from '../../src/core/size/calculators/calculator';

const FOOT = 0.3048;
function ask(id: string, given: Record<string, string | number>) {
  const c = CALCULATORS.find((x) => x.id === id)!;
  const known = c.inputs.map((i) => i.id);
  for (const name of Object.keys(given)) expect(known, `${id} asks for ${name}`).toContain(name);
  const answer = c.answer(valuesOf(c, Object.fromEntries(Object.entries(given).map(([k, v]) => [k, String(v)]))));
  return {
    says: answer.says,
    figure: (label: string) => answer.figures.find((f) => f.label === label)!.value,
    mark: answer.mark,
  };
}
/** Within 2 %. */
const near = (found: number, wanted: number) => expect(Math.abs(found / wanted - 1)).toBeLessThan(0.02);
const inside = (found: number, from: number, to: number) => {
  expect(found).toBeGreaterThanOrEqual(from);
  expect(found).toBeLessThanOrEqual(to);
};

/** Ω per 1,000 ft at 75 °C; A at the insulation's own temperature in 30 °C air. */
const COPPER: Record<string, { kft: number; insulation: 80 | 105; ampacity: number }> = {
  6: { kft: 0.491, insulation: 105, ampacity: 120 },
  10: { kft: 1.24, insulation: 105, ampacity: 60 },
  4: { kft: 0.308, insulation: 105, ampacity: 160 },
  14: { kft: 3.14, insulation: 80, ampacity: 25 },
};
/** V lost in feed and return: the copper as warm as its load makes it. */
function dropByHand(gauge: string, feetOneWay: number, amps: number): number {
  const { kft, insulation, ampacity } = COPPER[gauge]!;
  const celsius = 30 + (amps / ampacity) ** 2 * (insulation - 30);
  const ohmsPerFoot = (kft / 1000) * (1 + 0.00323 * (celsius - 75));
  return 2 * feetOneWay * ohmsPerFoot * amps;
}

describe('ten bench questions worked by hand', () => {
  it.each([
    ['6', 20, 40, 0.693],
    ['10', 25, 20, 1.093],
    ['4', 30, 50, 0.811],
    ['14', 10, 15, 0.86],
  ] as const)('drop of %s AWG, %i ft one way, at %i A', (gauge, feet, amps, wanted) => {
    expect(dropByHand(gauge, feet, amps)).toBeCloseTo(wanted, 2);
    const { insulation } = COPPER[gauge]!;
    const answer = ask('drop', { gauge, length: feet * FOOT, back: 'cable', amps, insulation, place: 'open' });
    near(answer.figure('Drop'), dropByHand(gauge, feet, amps));
  });

  it('fuse of 12 A on 14 AWG in a US or Canadian RV: 15 A and nothing else', () => {
    for (const jurisdiction of ['us', 'ca'])
      for (const insulation of [80, 105, 125]) {
        const answer = ask('fuse', { amps: 12, gauge: '14', insulation, place: 'open', bundled: 1, jurisdiction });
        expect(answer.figure('Take')).toBe(15);
        expect(answer.figure('At most')).toBe(15);
      }
  });

  it('fuses that are sold: 1 A on a sense wire of half an amp, 35 A for 25 A on 8 AWG', () => {
    const where = { place: 'open', bundled: 1, jurisdiction: 'us', insulation: 80 } as const;
    expect(ask('fuse', { amps: 0.5, gauge: '18', ...where }).figure('Take')).toBe(1);
    expect(ask('fuse', { amps: 25, gauge: '8', ...where }).figure('Take')).toBe(35);
  });

  it('input of a charger that gives 30 A at 14.2 V, 88 %, behind 30 ft of 6 AWG and 4 mΩ: 37.9 A at 12.76 V', () => {
    // By trying: 37.9 A lose 37.9 · (60 ft of 0.434 Ω/kft + 4 mΩ) = 1.14 V of 13.9; 12.76 V · 37.9 A = 30 · 14.2 ÷ 0.88.
    const ohms = 60 * (COPPER['6']!.kft / 1000) * (1 + 0.00323 * (40 - 75)) + 0.004;
    let amps = 30;
    for (let n = 0; n < 60; n++) amps = (30 * 14.2) / 0.88 / (13.9 - amps * ohms);
    expect(amps).toBeCloseTo(37.9, 1);
    const answer = ask('charger', {
      out: 30,
      outVolts: 14.2,
      source: 13.9,
      gauge: '6',
      length: 30 * FOOT,
      joints: 0.004,
      efficiency: 0.88,
    });
    near(answer.figure('Takes'), amps);
    near(answer.figure('Input volts'), 13.9 - amps * ohms);
    // The fuse bears it for hours: 37.9 ÷ 0.8.
    expect(answer.says).toContain('fuse for 47 A or more');
  });

  const hours = (given: Record<string, string | number>) => ask('charge', given).figure('Time') / 3600;

  it('hours to charge: lithium by its amps, lead the longer the fuller', () => {
    near(hours({ chemistry: 'lfp', capacity: 200, from: 0.2, to: 0.95, amps: 50, load: 0, volts: 14.4 }), 150 / 50);
    // 67.5 Ah at 40 A, and a tenth more than that goes in: common practice.
    inside(
      hours({ chemistry: 'flooded', capacity: 225, from: 0.5, to: 0.8, amps: 40, load: 0, volts: 14.4 }),
      67.5 / 40,
      (67.5 * 1.2) / 40,
    );
    inside(hours({ chemistry: 'flooded', capacity: 225, from: 0.5, to: 1, amps: 40, load: 0, volts: 14.4 }), 6, 12);
  });

  it('lithium gets full at 14.4 V, within the hour after its bulk', () => {
    const all = hours({ chemistry: 'lfp', capacity: 200, from: 0.2, to: 1, amps: 50, load: 0, volts: 14.4 });
    inside(all, 160 / 50, 160 / 50 + 1);
  });

  it('a 70 Ah battery of 700 CCA that loses 50 mA starts for about a month', () => {
    const days =
      ask('parasitic', {
        chemistry: 'flooded',
        capacity: 70,
        cca: 700,
        soc: 0.95,
        amps: 0.05,
        starter: 200,
        celsius: 10,
        ageing: 1,
      }).figure('Days until no-start') / 86_400;
    inside(days, 20, 40);
  });

  it('rested volts: 11.89 V is empty, gel at 12.9 V is full, lithium rests at 13.4 to 13.6 V', () => {
    const charge = (chemistry: string, volts: number) => ask('rested', { chemistry, system: '1', volts, celsius: 25 });
    expect(charge('flooded', 11.89).figure('Charge')).toBeLessThan(0.05);
    const gel = charge('gel', 12.9);
    expect(gel.figure('Charge')).toBeGreaterThan(0.9);
    expect(gel.says).not.toMatch(/charged/);
    expect(charge('lfp', 13.4).figure('Charge')).toBeGreaterThan(0.85);
    expect(charge('lfp', 13.6).figure('Charge')).toBeGreaterThan(0.99);
  });

  it('the small ones: contact, lamp and diode, torque, bank, alternator, delta', () => {
    const contact = ask('contact', { drop: 0.3, amps: 70 });
    near(contact.figure('Contact'), 0.3 / 70);
    expect(contact.mark).toBe('bad');
    const lamp = ask('lamp', { from: 14, to: 12.7, watts: 55 });
    inside(lamp.figure('Trickle'), 1.3, 1.5);
    inside(lamp.figure('Into a short'), 4.6, 5);
    // 120 in·lb are 120 · 0.45359237 kg · 9.80665 m/s² · 0.0254 m.
    near(ask('units', { what: 'torque', x: 120 }).figure('120 in·lb, in N·m'), 120 * 0.45359237 * 9.80665 * 0.0254);
    expect(ask('bank', { block: '6', capacity: 225, series: 2, parallel: 2 }).figure('Capacity')).toBe(450);
    expect(ask('bank', { block: '6', capacity: 225, series: 2, parallel: 2 }).figure('Bank')).toBe(12);
    expect(ask('alternator', { rating: 160, idle: 0.5, loads: 35, charger: 50, limit: 0 }).figure('Left at idle')).toBe(
      -5,
    );
    expect(
      ask('delta', { before: -12, after: 22, sunBefore: 0, sunAfter: 0, loadBefore: 0, loadAfter: 0 }).figure(
        'Charger gives',
      ),
    ).toBe(34);
  });
});
