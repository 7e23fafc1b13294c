/** What closed jobs teach: sums over jobs, updates that stay within reason, and a file that tells nothing of anybody. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../../db/demo/jobs';
import { ASSUMPTIONS } from '../diagnose/assumptions';
import { faultKey, rigFaults } from '../diagnose/faults';
import { explainPriors, priors } from '../diagnose/priors';
import type { Job } from '../job/job';
import { provedAgainst } from '../job/job';
import { validateCaseFile } from '../openFormats/validate';
import { PART_KINDS } from '../parts/kinds';
import { caseFileOf } from './caseFile';
import { NO_CASES, together, type Cases } from './cases';
import { caseOf } from './closedCase';
import { faultWords } from './faultWords';
import { MOST_FACTOR, priorFactors, spreadFactor } from './update';

const jobs = demoJobs(new Date('2026-11-20T12:00:00Z'));
const closed = jobs.find((j) => j.status === 'done' && j.repairs.length > 0)!;
const one = caseOf(closed)!;

const count = fc.record({ seen: fc.nat(40), expected: fc.double({ min: 0, max: 60, noNaN: true }) });
const cases = (faults: Cases['faults']): Cases => ({ ...NO_CASES, jobs: 1, faults });

describe('a closed job', () => {
  it('that was proved is one case: its fault once, and what every fault was to be expected', () => {
    expect(one.jobs).toBe(1);
    const { from, fault } = provedAgainst(closed);
    const list = rigFaults(from!);
    const key = faultKey(list.find((f) => f.id === fault)!);
    expect(one.faults[key]!.seen).toBe(1);
    expect(Object.values(one.faults).reduce((s, f) => s + f.seen, 0)).toBe(1);
    // Pairs are their halves: the singles alone add up to a little less than one.
    const expected = Object.values(one.faults).reduce((s, f) => s + f.expected, 0);
    expect(expected).toBeGreaterThan(0.9);
    expect(expected).toBeLessThanOrEqual(1 + 1e-9);
    expect(one.spread.jobs).toBe(1);
  });

  it('that is open, has no verdict, or whose proof is missing or failed, teaches nothing', () => {
    const without = (change: Partial<Job>) => caseOf({ ...closed, ...change });
    expect(without({ status: 'in-the-bay' })).toBeUndefined();
    expect(without({ verdicts: [] })).toBeUndefined();
    const { epoch } = closed.readings.at(-1)!;
    expect(without({ readings: closed.readings.filter((r) => r.epoch !== epoch) })).toBeUndefined();
    const off = closed.readings.map((r) => (r.epoch === epoch && r.unit === 'V' ? { ...r, value: r.value! + 4 } : r));
    expect(without({ readings: off })).toBeUndefined();
  });

  it('of a sound rig counts where the diagnosis itself had said stop', () => {
    const verdict = { ...closed.verdicts[0]!, fault: 'nothing-wrong', withdrawn: false };
    const sound = (settled: boolean) => caseOf({ ...closed, verdicts: [{ ...verdict, settled }] });
    expect(sound(true)!.faults['nothing-wrong']!.seen).toBe(1);
    expect(sound(false)).toBeUndefined();
  });
});

describe('the update of a prior', () => {
  it('leaves what was found as often as expected, rises with what is found, and stays within bounds', () => {
    fc.assert(
      fc.property(count, fc.nat(10), ({ seen, expected }, more) => {
        const factor = (s: number) => priorFactors(cases({ k: { seen: s, expected } }))['k']!;
        expect(factor(seen + more)).toBeGreaterThanOrEqual(factor(seen));
        expect(factor(seen)).toBeGreaterThanOrEqual(1 / MOST_FACTOR);
        expect(factor(seen)).toBeLessThanOrEqual(MOST_FACTOR);
        expect(priorFactors(cases({ k: { seen, expected: seen } }))['k']).toBeCloseTo(1, 12);
      }),
    );
  });

  it('is the posterior mean of a Gamma prior and a Poisson count, by integration', () => {
    // Rate r ~ Gamma(4, 4), count ~ Poisson(r · expected): its mean by a plain sum over r.
    const [seen, expected] = [5, 1.4];
    let top = 0;
    let bottom = 0;
    for (let r = 0.0005; r < 30; r += 0.001) {
      const density = r ** 3 * Math.exp(-4 * r) * r ** seen * Math.exp(-r * expected);
      top += r * density;
      bottom += density;
    }
    expect(priorFactors(cases({ k: { seen, expected } }))['k']).toBeCloseTo(top / bottom, 4);
  });

  it('does not depend on the order jobs are added in, nor on how they are split', () => {
    fc.assert(
      fc.property(fc.array(count, { minLength: 2, maxLength: 6 }), (list) => {
        const all = list.map((c, i) => cases({ [i % 2 ? 'a' : 'b']: c }));
        const sum = (l: Cases[]) => l.reduce((s, c) => together(s, c), NO_CASES);
        const halves = together(sum(all.slice(0, 1)), sum(all.slice(1)));
        for (const x of [sum([...all].reverse()), halves]) {
          expect(x.jobs).toBe(all.length);
          for (const [key, f] of Object.entries(sum(all).faults)) {
            expect(x.faults[key]!.seen).toBeCloseTo(f.seen, 9);
            expect(x.faults[key]!.expected).toBeCloseTo(f.expected, 9);
          }
        }
      }),
    );
  });

  it('moves where the search starts, visibly, and taken back leaves no trace', () => {
    const list = rigFaults(provedAgainst(closed).from!);
    const bad = list.find((f) => f.id === provedAgainst(closed).fault)!;
    const at = list.indexOf(bad);
    const taught = { ...ASSUMPTIONS, priorFactors: priorFactors(one) };
    const before = priors(list, ['coach-not-charging'], ASSUMPTIONS);
    const after = priors(list, ['coach-not-charging'], taught);
    expect(after[at]!).toBeGreaterThan(before[at]!);
    expect(after.reduce((s, p) => s + p, 0)).toBeCloseTo(1, 12);
    expect(explainPriors(list, [], taught).find((l) => l.fault === bad.id)!.learnt).toBeGreaterThan(1);
    expect(explainPriors(list, [], ASSUMPTIONS).every((l) => l.learnt === 1)).toBe(true);
  });
});

describe('the spreads', () => {
  it('stay as assumed without a job, and go to what jobs read with many', () => {
    expect(spreadFactor(NO_CASES)).toBeCloseTo(ASSUMPTIONS.spreadFactor, 12);
    const many = (meanSquare: number) =>
      spreadFactor({ ...NO_CASES, spread: { jobs: 1e6, squares: 1e6 * meanSquare } });
    expect(many(1)).toBeCloseTo(1, 3);
    expect(many(4)).toBeCloseTo(2, 3);
  });
});

describe('a case file', () => {
  it('comes back as it went out, and says nothing of the job it came from', () => {
    const file = caseFileOf(one);
    const text = JSON.stringify(file);
    const read = validateCaseFile(JSON.parse(text));
    expect(read.ok && read.value).toEqual(file);
    const { from } = provedAgainst(closed);
    const told = [
      ...from!.parts.flatMap((p) => [p.name]),
      ...from!.conductors.map((c) => c.name),
      from!.name,
      closed.complaint.words,
      String(closed.number),
      ...closed.readings.map((r) => r.by),
    ];
    for (const word of told.filter((w) => w.length > 3)) expect(text).not.toContain(word);
  });

  it('that is none is told where and what', () => {
    const file = caseFileOf(one);
    for (const [spoilt, pointer] of [
      [{ ...file, jobs: 0 }, '/jobs'],
      [{ ...file, format: 'else' }, '/format'],
      [{ ...file, faults: { 'a.b': { seen: -1, expected: 0 } } }, '/faults/a.b/seen'],
      [{ ...file, owner: 'x' }, '/owner'],
    ] as const) {
      const read = validateCaseFile(spoilt);
      expect(!read.ok && read.error.map((e) => e.pointer)).toContain(pointer);
    }
  });
});

describe('faults of a table of cases', () => {
  it('have words, every one of every kind of part', () => {
    for (const job of jobs)
      for (const fault of rigFaults(job.revisions[0]!.doc).filter((f) => !f.members)) {
        const words = faultWords(faultKey(fault));
        expect(words, faultKey(fault)).toMatch(/^[A-Z0-9][^{}]*$/);
        expect(words).not.toBe(faultKey(fault));
      }
    expect(PART_KINDS.size).toBeGreaterThan(10);
    expect(faultWords('gone.long-since')).toBe('gone.long-since');
  });
});
