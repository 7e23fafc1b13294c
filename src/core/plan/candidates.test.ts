import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../../db/demo/jobs';
import { compileRig } from '../compile/compile';
import { currentRevision } from '../job/job';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import { chargerGauge, lineGauge } from '../rig/archetypes/drawing';
import type { Scenario } from '../simulate/scenarioSchema';
import { simulate } from '../simulate/simulate';
import { GAUGES, wireArea, wireResistance } from '../units/wire';
import { candidatesOf } from './candidates';
import { compare } from './compare';

const RATES = { labourPerHour: 130, partsTimes: 1.3 };

describe('leaving it', () => {
  it('costs no minute and no part, with a fault and without, and is offered first', () => {
    const [done] = demoJobs(new Date('2026-11-24T16:00:00Z'));
    const rig = currentRevision(done!).doc;
    const fault = {
      name: 'Open contact',
      repair: 'Replace it',
      effects: [],
      minutes: [30, 50],
      parts: [80, 120],
    } as const;
    for (const list of [candidatesOf(rig), candidatesOf(rig, fault as never)]) {
      expect(list[0]).toMatchObject({ id: 'leave', minutes: [0, 0], parts: [0, 0], differences: [] });
      expect(list[0]!.rig).toBe(rig);
    }
    expect(candidatesOf(rig, fault as never)[1]).toMatchObject({ id: 'repair', says: 'Replace it', minutes: [30, 50] });
    // Everything else is a change, and a change is paid for.
    for (const c of candidatesOf(rig).slice(1)) {
      expect(c.differences.length, c.id).toBeGreaterThan(0);
      expect(c.minutes[0], c.id).toBeGreaterThan(0);
      expect(c.minutes[0], c.id).toBeLessThanOrEqual(c.minutes[1]);
      expect(c.parts[0], c.id).toBeLessThanOrEqual(c.parts[1]);
    }
  });

  it('or repairing are all there is for a rig that no archetype drew', () => {
    const [done] = demoJobs(new Date('2026-11-24T16:00:00Z'));
    const { made: _, ...rig } = currentRevision(done!).doc;
    expect(candidatesOf(rig as never).map((c) => c.id)).toEqual(['leave']);
  });
});

describe('a charger’s own line', () => {
  it('is never thinner than practice lays for the amps, loses at most 0.48 V, and no thinner one would do', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 110, noNaN: true }),
        fc.double({ min: 2, max: 18, noNaN: true }),
        (amps, metres) => {
          const gauge = lineGauge(amps, metres);
          expect(wireArea(gauge)).toBeGreaterThanOrEqual(wireArea(chargerGauge(amps)));
          expect(amps * wireResistance(gauge, metres)).toBeLessThanOrEqual(0.48);
          const thinner = GAUGES.filter((g) => !g.endsWith('mm2') && wireArea(g) < wireArea(gauge) * 0.99).at(-1)!;
          if (wireArea(thinner) >= wireArea(chargerGauge(amps)) * 0.99)
            expect(amps * wireResistance(thinner, metres)).toBeGreaterThan(0.48);
        },
      ),
    );
  });

  it('is as the trade lays it over a car, and over a truck and trailer (common practice, no source)', () => {
    // A car is five metres: ten out and back.
    expect(lineGauge(20, 10)).toBe('8');
    expect(lineGauge(30, 10)).toBe('6');
    expect(wireArea(lineGauge(50, 18))).toBeGreaterThanOrEqual(wireArea('4'));
  });
});

describe('a fridge on a charger’s own line', () => {
  const night = (fridgeOnBattery: boolean): Scenario => ({
    id: 'night',
    name: 'Night',
    startHour: 20,
    legs: [
      { id: 'night', name: 'Night', kind: 'stand', hours: 10, celsius: 15, sunHours: 0, loads: [], fridgeOnBattery },
    ],
  });
  /** Ah the start battery gives away in a night coupled, by the fridge. */
  const costs = (feed: 'ignition' | 'constant'): number => {
    const compiled = compileRig(
      coupledRig('t', 'T', { ...USUAL_COUPLED['second-battery'], link: 'dcdc', dcdcAmps: 12, feed }),
    );
    const end = (on: boolean) =>
      simulate(compiled, night(on)).summary.batteries.find((b) => b.part === 'chassis-bank')!.endSoc;
    return (end(false) - end(true)) * 90;
  };
  it(
    'stops with the ignition where the line is switched, and empties ' +
      'the start battery where it is not (common practice, no source)',
    () => {
      expect(Math.abs(costs('ignition'))).toBeLessThan(0.1);
      expect(costs('constant')).toBeGreaterThan(30);
    },
  );
});

describe('what is offered for each demo rig', () => {
  const jobs = demoJobs(new Date('2026-11-26T16:00:00Z')).filter((j) => j.usage.scenarios.length > 0);
  it.each(jobs.map((j) => [currentRevision(j).doc.name, j] as const))(
    '%s has a link that may be built on its use',
    (_, job) => {
      const { doc } = currentRevision(job);
      const { rows, recommendation } = compare(candidatesOf(doc), job.usage.scenarios, RATES);
      expect(
        rows
          .filter((r) => r.candidate.differences.length > 0 && r.scored.ruledOut.length === 0)
          .map((r) => r.candidate.id),
      ).not.toEqual([]);
      expect(recommendation).toBeDefined();
    },
  );

  it('one charger per run: the chained one arrives flat, one from the start battery does not (common practice, no source)', () => {
    const marmot = jobs.find((j) => currentRevision(j).doc.name === 'Marmot')!;
    const { rows, recommendation } = compare(candidatesOf(currentRevision(marmot).doc), marmot.usage.scenarios, RATES);
    const of = (id: string) => rows.find((r) => r.candidate.id === id)!;
    expect(of('leave').scored.ruledOut).toContain('The bank arrives flat.');
    expect(recommendation?.pick).toBe('dcdc-12');
    expect(of('dcdc-25').scored.ruledOut.join()).toContain('the alternator has no more to give at idle');
    // The van's own charger is not touched by it.
    const van = (r: (typeof rows)[number]) => r.candidate.rig.parts.find((p) => p.id === 'accessory-charger');
    for (const r of rows) expect(van(r)).toEqual(van(of('leave')));
  });
});
