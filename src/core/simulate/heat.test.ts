/**
 * What warms: an alternator's case and a charger's fins, against first-order bodies worked out by hand. The constants
 * typed here are the written model's (docs/models.md): from memory, fitted to one case of common practice.
 */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import type { Rig } from '../rig/schema';
import { motorhomeOf } from '../../../tests/motorhomes';
import type { Leg } from './scenarioSchema';
import type { SimResult } from './result';
import { simulate } from './simulate';

const leg = (kind: Leg['kind'], hours: number, more: Partial<Leg> = {}): Leg => ({
  id: `${kind}-${hours}`,
  name: kind,
  kind,
  hours,
  celsius: 25,
  sunHours: 0,
  loads: [],
  ...more,
});
const run = (rig: Rig, legs: Leg[], soc = 0.2): SimResult =>
  simulate(compileRig(rig), { id: 't', name: 'T', startHour: 8, legs, startSoc: { 'coach-bank': soc } });
const series = (r: SimResult, id: string) => r.series.find((s) => s.id === id)!.values;
const last = (x: ArrayLike<number>) => x[x.length - 1]!;
const mounted = (mounting: string): Rig => {
  const rig = motorhomeOf({ link: 'dcdc' });
  return {
    ...rig,
    parts: rig.parts.map((p) => (p.id === 'dcdc' ? { ...p, options: { ...p.options, mounting } } : p)),
  };
};
const withLimits = (amps: number): Rig => {
  const rig = motorhomeOf({ link: 'dcdc' });
  return {
    ...rig,
    parts: rig.parts.map((p) =>
      p.id === 'alternator'
        ? {
            ...p,
            params: {
              ...p.params,
              idleLimit: { ...p.params['idleLimit']!, value: amps },
              fastLimit: { ...p.params['fastLimit']!, value: amps },
            },
          }
        : p,
    ),
  };
};

describe('an alternator’s temperature', () => {
  /** Balance of a frame rated `rated` A: air + (0.45·P + 100·f) / (10·f) at idle, f = rated / 140. */
  const settledAt = (air: number, watts: number, rated: number) =>
    air + (0.45 * watts + 100 * (rated / 140)) / (10 * (rated / 140));

  it('settles where its fan takes away what it loses', () => {
    const r = run(motorhomeOf({ link: 'dcdc' }), [leg('idle', 12, { moreAmps: 30 })]);
    const amps = last(series(r, 'alternator.amps'));
    const volts = last(series(r, 'chassis-bank.volts'));
    const rated = compileRig(motorhomeOf({ link: 'dcdc' })).rig.parts.find((p) => p.id === 'alternator')!.params[
      'fastLimit'
    ]!.value;
    // The post stands a little over the battery: a few tenths of a volt in the feed.
    expect(last(series(r, 'alternator.celsius'))).toBeGreaterThan(settledAt(25, amps * volts, rated) - 1);
    expect(last(series(r, 'alternator.celsius'))).toBeLessThan(settledAt(25, amps * (volts + 0.6), rated) + 1);
  });

  it('follows the air: 20 K more outside is about 20 K more at its case', () => {
    const ends = [5, 25].map((celsius) =>
      last(
        series(run(motorhomeOf({ link: 'dcdc' }), [leg('idle', 3, { celsius, moreAmps: 20 })]), 'alternator.celsius'),
      ),
    );
    expect(ends[1]! - ends[0]!).toBeGreaterThan(15);
    expect(ends[1]! - ends[0]!).toBeLessThan(22);
  });

  it('is cooler on the road than idling under the same load', () => {
    const at = (kind: Leg['kind']) =>
      run(motorhomeOf({ link: 'dcdc' }), [leg(kind, 4, { moreAmps: 20, idleShare: 0 })]).summary.alternators[0]!
        .hottest;
    expect(at('drive')).toBeLessThan(at('idle') - 8);
  });

  it('has not much cooled five minutes after the engine stops, and is near the air a day later', () => {
    const hot = run(motorhomeOf({ link: 'dcdc' }), [leg('idle', 3, { moreAmps: 30 }), leg('stand', 24)]);
    const celsius = series(hot, 'alternator.celsius');
    const at = (t: number) => celsius[hot.t.findIndex((x) => x >= t)]!;
    const peak = at(3 * 3600);
    expect(at(3 * 3600 + 300)).toBeGreaterThan(25 + 0.6 * (peak - 25));
    expect(last(celsius)).toBeLessThan(26);
  });

  it('gives 2 % less for each K over 105 °C, says so once, and never less than 40 %', () => {
    const r = run(withLimits(95), [leg('idle', 8, { celsius: 50, moreAmps: 90 })], 0.1);
    const celsius = series(r, 'alternator.celsius');
    const limit = series(r, 'alternator.limit');
    expect(Math.max(...celsius)).toBeGreaterThan(106);
    celsius.forEach((c, i) => {
      // A limit is worked out with the temperature its step began with.
      const [warmest, coolest] = [Math.max(c, celsius[Math.max(0, i - 1)]!), Math.min(c, celsius[Math.max(0, i - 1)]!)];
      const share = (t: number) => Math.max(0.4, 1 - 0.02 * Math.max(0, t - 105));
      expect(limit[i]!).toBeGreaterThanOrEqual(95 * share(warmest) - 0.2);
      expect(limit[i]!).toBeLessThanOrEqual(95 * share(coolest) + 0.2);
    });
    const told = r.events.filter((e) => e.part === 'alternator' && e.kind === 'limit');
    // Once when it gets too hot, and once at most when the bank has filled and it has cooled.
    expect(told.map((e) => e.what)).toEqual(
      ['Alternator gives less, hot', 'Alternator gives its all again'].slice(0, told.length),
    );
    expect(told.length).toBeGreaterThan(0);
    expect(told[0]!.why).toContain('105 °C');
  });

  it('holds 3.5 mV less for each K, so a hot one leaves its battery lower', () => {
    const ends = [-10, 40].map((celsius) => {
      const r = run(motorhomeOf({ link: 'dcdc' }), [leg('idle', 10, { celsius })], 0.99);
      return { volts: last(series(r, 'chassis-bank.volts')), celsius: last(series(r, 'alternator.celsius')) };
    });
    const perKelvin = (ends[1]!.volts - ends[0]!.volts) / (ends[1]!.celsius - ends[0]!.celsius);
    expect(perKelvin).toBeGreaterThan(-0.004);
    expect(perKelvin).toBeLessThan(-0.003);
  });
});

describe('a charger’s fins', () => {
  /** By how they are mounted, K per W of loss: from memory. */
  it.each([
    ['open', 0.35],
    ['stand-off', 0.5],
  ] as const)('mounted %s settle %d K for each watt lost over the air', (mounting, kelvinPerWatt) => {
    const r = run(mounted(mounting), [leg('idle', 4)], 0.1);
    const fins = last(series(r, 'dcdc.fins'));
    const amps = last(series(r, 'dcdc.amps'));
    const volts = last(series(r, 'coach-bank.volts'));
    // At 88 % of what it takes, and the output's droop counted in: 13 to 15 % of what it gives is lost, with its own 4 W.
    const rise = fins - 25;
    expect(rise).toBeGreaterThan(kelvinPerWatt * 0.125 * amps * volts);
    expect(rise).toBeLessThan(kelvinPerWatt * 0.17 * amps * volts + kelvinPerWatt * 4);
  });

  it('boxed in get past 75 °C, the charger gives less, says so, and gives at least 30 %', () => {
    const r = run(mounted('boxed'), [leg('idle', 6, { celsius: 35 })], 0.1);
    const fins = series(r, 'dcdc.fins');
    const amps = series(r, 'dcdc.amps');
    expect(Math.max(...fins)).toBeGreaterThan(76);
    expect(last(amps)).toBeLessThan(38);
    expect(Math.min(...amps.filter((a) => a > 0))).toBeGreaterThanOrEqual(0.3 * 40 - 0.1);
    const hot = last(fins);
    expect(last(amps)).toBeCloseTo(40 * Math.max(0.3, 1 - 0.02 * (hot - 75)), 0);
    expect(r.events.filter((e) => e.part === 'dcdc' && e.kind === 'limit')[0]!.why).toContain('75 °C');
    expect(r.summary.links[0]!.hottest!.celsius).toBeCloseTo(Math.max(...fins), 6);
  });

  it('are two thirds of the way there after 25 minutes', () => {
    const r = run(mounted('open'), [leg('idle', 4)], 0.1);
    const fins = series(r, 'dcdc.fins');
    const end = last(fins);
    const at = r.t.findIndex((t) => t >= 1500);
    // 1 − 1/e of the rise, were the loss constant all along; it falls a little as the bank fills.
    expect((fins[at]! - 25) / (end - 25)).toBeGreaterThan(0.58);
    expect((fins[at]! - 25) / (end - 25)).toBeLessThan(0.75);
  });
});

describe('the books of a trip', () => {
  const trips: [string, Leg[]][] = [
    ['a night and a drive', [leg('stand', 10, { moreAmps: 5 }), leg('drive', 4, { idleShare: 0.2 })]],
    ['a month in storage', [leg('stand', 700)]],
    ['shore, then a generator', [leg('shore', 12), leg('stand', 3, { moreAmps: 20 }), leg('generator', 2)]],
  ];
  it.each(trips)('%s: what went in less what came out is what is there, losses counted', (_, legs) => {
    for (const link of ['dcdc', 'ignition-delay', 'one-way'] as const) {
      const rig = motorhomeOf({ link, generator: true });
      const r = run(rig, legs, 0.6);
      for (const b of r.summary.batteries) {
        const part = rig.parts.find((p) => p.id === b.part)!;
        const capacity = part.params['capacity']!.value * (part.params['health']?.value ?? 1);
        expect(b.ahIn - b.ahOut - b.ahLost - b.ahStood).toBeCloseTo((b.endSoc - b.startSoc) * capacity, 2);
        expect(b.lowestSoc).toBeLessThanOrEqual(Math.min(b.startSoc, b.endSoc) + 1e-9);
        expect(b.lowestVolts).toBeLessThanOrEqual(b.highestVolts);
      }
      expect(r.summary.balance.charge).toBeLessThan(1e-9);
      expect(r.summary.balance.energy).toBeLessThan(1e-4);
      expect(r.summary.hours).toBeCloseTo(
        legs.reduce((sum, l) => sum + l.hours, 0),
        9,
      );
    }
  });

  it('asks before every leg with an engine whether it would start, and not before one that begins the trip', () => {
    const r = run(motorhomeOf({ link: 'dcdc' }), [leg('idle', 1), leg('stand', 2), leg('drive', 1, { idleShare: 0 })]);
    expect(r.summary.starts.map((s) => s.t)).toContain(3 * 3600);
    expect(r.summary.starts.every((s) => s.t > 0)).toBe(true);
    const begins = r.events.filter((e) => e.kind === 'leg');
    expect(begins.map((e) => [e.t, e.why])).toEqual([
      [0, 'leg 1 begins'],
      [3600, 'leg 2 begins'],
      [3 * 3600, 'leg 3 begins'],
    ]);
  });

  it('a battery that nobody touches only stands: a few per cent a month', () => {
    const r = run(motorhomeOf({ link: 'dcdc' }), [leg('stand', 730, { disconnectOpen: true })], 0.9);
    const coach = r.summary.batteries.find((b) => b.part === 'coach-bank')!;
    expect(coach.ahIn).toBeCloseTo(0, 3);
    expect(coach.ahStood).toBeGreaterThan(1);
    expect(coach.endSoc).toBeLessThan(0.9);
  });
});
