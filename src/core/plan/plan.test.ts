import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../../db/demo/jobs';
import { motorhomeInWords, VARIETY } from '../../../tests/motorhomes';
import { compileRig } from '../compile/compile';
import { rigFaults } from '../diagnose/faults';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import { COUPLED_FAMILIES, linksFor } from '../rig/archetypes/coupledChoices';
import { drawRig } from '../rig/archetypes/families';
import { motorhome, USUAL_MOTORHOME } from '../rig/archetypes/motorhome';
import { checkRig } from '../rig/check';
import { unworkable } from '../rig/workable';
import type { Rig } from '../rig/schema';
import { currentRevision } from '../job/job';
import { simulate } from '../simulate/simulate';
import { candidatesOf, MAX_COMPARED, usualPick } from './candidates';
import { compare } from './compare';
import { carryOver, differences } from './difference';
import { howLate, howLong, howLongLasts, howLongStands } from './questions';
import { bandOf, Draws, influences, sampleCandidate, spreadOf } from './sensitivity';
import { normalQuantile } from '../units/stats';
import { troublesOf } from './troubles';
import { usualScenarios } from './usualScenarios';

const RATES = { labourPerHour: 130, partsTimes: 1.3 };
const EVERY: [string, Rig][] = [
  ...VARIETY.map((c): [string, Rig] => [motorhomeInWords(c), motorhome('t', 'T', c)]),
  ...COUPLED_FAMILIES.flatMap(({ id }) =>
    linksFor(id).map((l): [string, Rig] => [
      `${id}, ${l.id}`,
      coupledRig('t', 'T', { ...USUAL_COUPLED[id], link: l.id }),
    ]),
  ),
];

describe('the two coupled vehicles', () => {
  it.each(EVERY.filter(([, r]) => r.made?.family === 'coupled'))(
    '%s is a sound document whose every part can work',
    (_, rig) => {
      expect(checkRig(rig)).toEqual([]);
      expect(unworkable(rig)).toEqual([]);
      expect(rigFaults(rig).length).toBeGreaterThan(20);
    },
  );
});

describe('candidates', () => {
  it.each(EVERY)('for %s are sound rigs; nothing but the link is touched', (_, rig) => {
    const list = candidatesOf(rig);
    expect(list[0]).toMatchObject({ id: 'leave', differences: [] });
    expect(new Set(list.map((c) => c.id)).size).toBe(list.length);
    for (const c of list) {
      expect(checkRig(c.rig), c.id).toEqual([]);
      expect(c.parts[0]).toBeLessThanOrEqual(c.parts[1]);
      expect(c.minutes[0]).toBeLessThanOrEqual(c.minutes[1]);
      // Permanent: no label is given to another point, none vanishes.
      const was = new Map(rig.probes.map((p) => [p.label, p.key]));
      for (const p of c.rig.probes) if (was.has(p.label)) expect(p.key).toBe(was.get(p.label));
      expect(c.rig.probes.length).toBeGreaterThanOrEqual(rig.probes.length);
    }
    const pick = usualPick(list);
    expect(pick.length).toBeLessThanOrEqual(MAX_COMPARED);
    expect(pick).toContain('leave');
  });

  it('keep what was measured and edited on the rig as found', () => {
    const rig = motorhome('t', 'T');
    const found: Rig = {
      ...rig,
      parts: rig.parts.map((p) =>
        p.id === 'coach-bank'
          ? { ...p, params: { ...p.params, capacity: { value: 377, spread: 0.01, provenance: 'measured' } } }
          : p,
      ),
      conductors: rig.conductors.map((c) => (c.id === 'chassis-negative' ? { ...c, gauge: '6' as const } : c)),
    };
    for (const c of candidatesOf(found)) {
      expect(c.rig.parts.find((p) => p.id === 'coach-bank')!.params['capacity']!.value, c.id).toBe(377);
      expect(c.rig.conductors.find((x) => x.id === 'chassis-negative')!.gauge, c.id).toBe('6');
    }
  });

  it('carried over from a drawing to itself change nothing, and there and back again is where one was', () => {
    fc.assert(
      fc.property(fc.constantFrom(...VARIETY), fc.constantFrom(...VARIETY), (a, b) => {
        const from = motorhome('t', 'T', a);
        const to = drawRig('t', 'T', { family: 'motorhome', choices: { ...a, link: b.link } });
        expect(differences(from, carryOver(from, from, from))).toEqual([]);
        const there = carryOver(from, from, to);
        expect(differences(to, there)).toEqual([]);
        expect(differences(from, carryOver(there, to, from))).toEqual([]);
      }),
      { numRuns: 40 },
    );
  });
});

describe('a comparison', () => {
  const rig = motorhome('t', 'T');
  const fault = rigFaults(rig).find((f) => f.id === 'link.contact-open')!;
  const found = {
    name: fault.name,
    repair: fault.repair,
    effects: fault.effects,
    minutes: fault.minutes!,
    parts: fault.parts!,
  };
  const list = candidatesOf(rig, found);
  const scenarios = usualScenarios({ driveHours: 5, nights: 2, storedMonths: 3 }, 'coach-bank');
  const c = compare(
    list.filter((x) => usualPick(list).includes(x.id)),
    scenarios,
    RATES,
  );
  const of = (id: string) => c.rows.find((r) => r.candidate.id === id)!;

  it('never recommends what hides a fault, and says why it may not be', () => {
    expect(of('leave').scored.ruledOut).toContain('The fault stays in.');
    expect(c.recommendation?.pick).not.toBe('leave');
    expect(of('repair').outcome.arrives).toBeGreaterThan(of('leave').outcome.arrives + 0.2);
  });

  it('adds its points up, and its reasons are of the picked one', () => {
    for (const { scored } of c.rows) {
      expect(scored.points.reduce((s, p) => s + p.got, 0)).toBeCloseTo(scored.total, 9);
      for (const p of scored.points) if (p.of > 0) expect(p.got).toBeLessThanOrEqual(p.of + 1e-9);
    }
    const best = [...c.rows]
      .filter((r) => r.scored.ruledOut.length === 0)
      .sort((a, b) => b.scored.total - a.scored.total)[0]!;
    expect(c.recommendation?.pick).toBe(best.candidate.id);
    expect(c.recommendation!.reasons.length).toBeGreaterThan(2);
  });

  it('with lithium calls a link by volts a danger', () => {
    const lithium = motorhome('t', 'T', {
      ...USUAL_MOTORHOME,
      coach: { chemistry: 'lfp', layout: 'parallel', capacity: 300 },
    });
    const all = candidatesOf(lithium);
    const { rows } = compare(
      all.filter((x) => ['one-way', 'bidirectional', 'dcdc-60'].includes(x.id)),
      scenarios,
      RATES,
    );
    expect(rows.map((r) => [r.candidate.id, r.scored.ruledOut.length > 0])).toEqual([
      ['one-way', true],
      ['bidirectional', true],
      ['dcdc-60', false],
    ]);
  });
});

describe('questions asked backwards', () => {
  const of = {
    compiled: compileRig(motorhome('t', 'T')),
    bank: 'coach-bank',
    celsius: 15,
    loads: ['standby'] as ['standby'],
  };
  it('are answered by the simulation itself: running the answer gives the target', () => {
    const long = howLong(of, 'drive', 0.3, 0.8);
    expect(long.hours).toBeGreaterThan(1);
    expect(howLong(of, 'drive', 0.3, 0.7).hours!).toBeLessThan(long.hours!);
    expect(howLong(of, 'drive', 0.5, 0.8).hours!).toBeLessThan(long.hours!);
    expect(howLong(of, 'drive', 0.9, 0.8)).toMatchObject({ hours: 0 });
    expect(howLong(of, 'idle', 0.3, 0.8).hours!).toBeGreaterThanOrEqual(long.hours! * 0.9);
  });
  it('hold when that long is driven or stood, on every demo rig, hunting ones too', () => {
    const at = new Date('2026-11-24T16:00:00Z');
    for (const job of demoJobs(at)) {
      const rig = currentRevision(job).doc;
      const bank = rig.parts.find((p) => p.kind === 'battery-bank' && p.side === 'coach')!.id;
      const asked = { compiled: compileRig(rig), bank, celsius: 15, loads: ['standby'] as ['standby'] };
      const after = (kind: 'drive' | 'stand', hours: number, soc: number) =>
        simulate(
          asked.compiled,
          {
            id: 'q',
            name: 'Q',
            startHour: 8,
            startSoc: { [bank]: soc },
            legs: [{ id: 'l', name: 'L', kind, hours, celsius: 15, sunHours: 0, loads: asked.loads }],
          },
          { series: false },
        ).summary;
      const soc = (s: ReturnType<typeof after>) => s.batteries.find((b) => b.part === bank)!.endSoc;
      const long = howLong(asked, 'drive', 0.3, 0.7, 24);
      if (long.hours === undefined) expect(soc(after('drive', 24, 0.3)), rig.name).toBeLessThan(0.7);
      // A hunting charger moves the bank by up to a hundredth at a leap.
      else expect(Math.abs(soc(after('drive', long.hours, 0.3)) - 0.7), rig.name).toBeLessThan(0.012);
      const lasts = howLongLasts(asked, 0.9, 0.5);
      if (lasts.hours !== undefined)
        expect(Math.abs(soc(after('stand', lasts.hours, 0.9)) - 0.5), rig.name).toBeLessThan(0.002);
      const stands = howLongStands(asked);
      if (stands.hours) {
        // Some minutes before it starts, some after it does not.
        const standing = (hours: number) =>
          simulate(
            asked.compiled,
            {
              id: 'q',
              name: 'Q',
              startHour: 8,
              legs: [{ id: 'l', name: 'L', kind: 'stand', hours, celsius: 15, sunHours: 0, loads: asked.loads }],
            },
            { series: false },
          ).summary.starts.at(-1)!.starts;
        expect([standing(stands.hours * 0.998), standing(stands.hours * 1.002)], rig.name).toEqual([true, false]);
      }
    }
  });
  it('tell the latest start, and that some targets cannot be reached', () => {
    const late = howLate(of, 6, 0.5, 0.8);
    expect(late.hours).toBeGreaterThan(0);
    expect(late.hours).toBeLessThan(6);
    expect(howLate(of, 0.5, 0.2, 0.9).hours).toBeUndefined();
    expect(howLate(of, 0.5, 0.2, 0.9).says).toMatch(/Not reached/);
  });
  it('tell how long it stands: less when it is colder, less when more draws', () => {
    const stands = howLongStands({ ...of, loads: [] }).hours!;
    expect(howLongStands({ ...of, loads: [], celsius: -15 }).hours!).toBeLessThan(stands);
    expect(howLongLasts(of, 0.9, 0.5).hours!).toBeGreaterThan(
      howLongLasts({ ...of, loads: ['standby', 'fridge-compressor'] as never }, 0.9, 0.5).hours!,
    );
  });
});

describe('samples of the assumptions', () => {
  it('take every n-th of each number once, the same for every rig that has it', () => {
    const a = new Draws(compileRig(motorhome('t', 'T')), 40, 3);
    const b = new Draws(compileRig(motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'dcdc' })), 40, 3);
    const i = a.compiled.param.get('coach-bank.capacity')!;
    const j = b.compiled.param.get('coach-bank.capacity')!;
    const column = Array.from({ length: 40 }, (_, s) => a.z(s)[i]!);
    expect(Array.from({ length: 40 }, (_, s) => b.z(s)[j]!)).toEqual(column);
    const strata = column.map((z) => Math.floor(40 * (0.5 * (1 + erf(z / Math.SQRT2)))));
    expect([...strata].sort((x, y) => x - y)).toEqual(Array.from({ length: 40 }, (_, k) => k));
  });

  it('quantiles of the normal are those of the table (Abramowitz and Stegun, table 26.5)', () => {
    for (const [p, z] of [
      [0.5, 0],
      [0.9, 1.2815516],
      [0.975, 1.959964],
      [0.995, 2.5758293],
      [0.001, -3.0902323],
    ] as const)
      expect(normalQuantile(p)).toBeCloseTo(z, 6);
  });

  it('give bands that hold the middle, and name what the arrival hangs on', () => {
    const rig = motorhome('t', 'T');
    const [leave] = candidatesOf(rig);
    const scenarios = usualScenarios({ driveHours: 2, nights: 2 }, undefined).slice(0, 1);
    const drawn = sampleCandidate(
      leave!,
      scenarios,
      30,
      1,
      Array.from({ length: 30 }, (_, k) => k),
    );
    const s = spreadOf('leave', drawn);
    expect(s.arrives.lo).toBeLessThan(s.arrives.middle);
    expect(s.arrives.hi).toBeGreaterThan(s.arrives.middle);
    const hangs = influences(leave!, drawn, 30, 1);
    expect(hangs.length).toBeGreaterThan(0);
    expect(hangs[0]!.share).toBeLessThanOrEqual(1);
    // The charge it starts from is not told here: it must be among them.
    expect(hangs.map((h) => h.key)).toContain('coach-bank.soc');
    // An arrival that hangs on one number alone: that one explains all of it, in the right direction.
    const draws = new Draws(compileRig(leave!.rig), 30, 1);
    const alone = compileRig(leave!.rig).params.findIndex((p) => p.key === 'coach-bank.capacity');
    for (const sign of [1, -1]) {
      const made = drawn.map((d) => ({ ...d, arrives: 0.5 + sign * 0.02 * draws.z(d.sample)[alone]! }));
      const [first] = influences(leave!, made, 30, 1);
      expect(first).toMatchObject({ key: 'coach-bank.capacity', raises: sign > 0 });
      expect(first!.share).toBeCloseTo(1, 9);
    }
    // Always the same arrival hangs on nothing; of seven draws nothing is said.
    expect(
      influences(
        leave!,
        drawn.map((d) => ({ ...d, arrives: 0.5 })),
        30,
        1,
      ),
    ).toEqual([]);
    expect(influences(leave!, drawn.slice(0, 7), 30, 1)).toEqual([]);
    expect(bandOf([3])).toEqual({ lo: 3, middle: 3, hi: 3 });
  });
});

describe('what cannot be simulated', () => {
  it('is told at its place with the remedy', () => {
    const rig = motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'bidirectional' });
    expect(troublesOf(rig, usualScenarios({}, 'coach-bank'))).toEqual([]);
    expect(troublesOf(rig, [])[0]).toMatchObject({
      kind: 'scenario',
      stops: true,
      remedy: expect.stringMatching(/Add a leg/) as string,
    });
    const { made: _, ...unmade } = rig;
    expect(troublesOf(unmade, usualScenarios({}, 'coach-bank'))[0]).toMatchObject({
      stops: false,
      says: expect.stringMatching(/not drawn up/) as string,
    });
    expect(candidatesOf(unmade).map((c) => c.id)).toEqual(['leave']);
    const crossed: Rig = {
      ...rig,
      parts: rig.parts.map((p) =>
        p.id === 'delay' ? { ...p, params: { ...p.params, openAt: { ...p.params['openAt']!, value: 13.4 } } } : p,
      ),
    };
    expect(troublesOf(crossed, usualScenarios({}, 'coach-bank'))[0]).toMatchObject({
      at: 'delay',
      says: expect.stringMatching(/13\.4 V is not below/) as string,
    });
    const greedy = motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'dcdc', dcdcAmps: 120, alternatorAmps: 90 });
    expect(troublesOf(greedy, usualScenarios({}, 'coach-bank'))[0]).toMatchObject({
      at: 'dcdc',
      remedy: expect.stringMatching(/smaller charger/) as string,
    });
  });
});

/** Abramowitz and Stegun 7.1.26, 1.5e-7. */
function erf(x: number): number {
  const t = 1 / (1 + 0.3275911 * Math.abs(x));
  const y =
    1 -
    ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t * Math.exp(-x * x);
  return Math.sign(x) * y;
}
