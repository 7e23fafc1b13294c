import { beforeAll, describe, expect, it } from 'vitest';
import { demoJobs } from '../../../db/demo/jobs';
import { demoUuid } from '../../../db/demo/shop';
import type { Job } from '../job/job';
import { reportOf, type ReportData } from './report';
import { assumptionsOf, DEFAULT_SETTINGS, reduceShop, type Shop } from '../shop/shop';
import { ASSUMPTIONS } from '../diagnose/assumptions';

const [done, open] = demoJobs(new Date('2026-11-24T16:00:00Z')) as [Job, Job];
let report: ReportData;
beforeAll(() => {
  report = reportOf(done, DEFAULT_SETTINGS);
});

describe('the report', () => {
  it('of a proven job says what was wrong, how it was shown, who agreed and that it is right now', () => {
    expect(report.outcome).toEqual({ good: true, words: 'Found, put right, and proven right by measurement.' });
    expect(report.verdict).toMatchObject({ name: 'Coach ground joint bad', confidence: 'Practically certain, 98 %' });
    expect(report.readings).toHaveLength(5);
    expect(report.readings.some((r) => r.judged !== 'ok' && /points at it/.test(r.says))).toBe(true);
    expect(report.proofs.every((p) => p.judged === 'ok')).toBe(true);
    expect(report.approval).toMatchObject({ upTo: 220, how: 'phone' });
    expect(report.estimate!.total[1]).toBeGreaterThan(report.estimate!.total[0]);
    expect(report.meters).toEqual([expect.stringMatching(/^Bay meter 2, with clamp, compared \d{4}-\d\d-\d\d$/)]);
  });

  it('of an open job claims nothing', () => {
    const r = reportOf(open, DEFAULT_SETTINGS);
    expect(r.outcome).toEqual({ good: false, words: 'Not yet found.' });
    expect(r.verdict).toBeUndefined();
    expect(r.estimate).toBeUndefined();
    expect(r.cameBack).toEqual({ job: 1009, warranty: false });
    expect(r.intake).toContain('4 nights off grid in a row');
  });

  it('tells what the owner said with one full stop at its end, theirs or none', () => {
    for (const told of ['Tows all day.', 'Tows all day', ' Tows all day. ']) {
      const { intake } = reportOf({ ...open, intake: { ...open.intake, told } }, DEFAULT_SETTINGS);
      expect(`${intake.join('; ')}.`).toMatch(/Tows all day\P{L}?\.$/u);
      expect(`${intake.join('; ')}.`).not.toContain('..');
    }
  });

  it('of a repaired but unproven rig says so, and of nothing wrong gives the customer the reason', () => {
    const half = { ...done, readings: done.readings.slice(0, -2) };
    expect(reportOf(half, DEFAULT_SETTINGS).outcome).toEqual({
      good: false,
      words: 'Repaired; 2 proof readings still to take.',
    });
    const fine: Job = {
      ...open,
      complaint: { codes: ['boost-dead'], words: '' },
      verdicts: [
        {
          id: demoUuid('x'),
          epoch: 0,
          fault: 'nothing-wrong',
          name: 'Nothing is wrong',
          repair: 'Explain',
          probability: 0.9,
          settled: true,
          at: '2026-11-24T16:00:00Z',
          by: 'b',
        },
      ],
    };
    const r = reportOf(fine, DEFAULT_SETTINGS);
    expect(r.outcome).toEqual({ good: true, words: 'Nothing is wrong: it works like that.' });
    expect(r.designed.join(' ')).toMatch(/while it is held/);
    expect(r.complaint).toBe('Boost does nothing');
  });

  it('is written in the shop’s words', () => {
    const r = reportOf(done, { ...DEFAULT_SETTINGS, vocabulary: 'europe' });
    expect(r.verdict!.name).toBe('Leisure earth joint bad');
    const { complaint, repair, ...ours } = r;
    expect(JSON.stringify(ours)).not.toMatch(/[Cc]oach bank|\bground\b/);
    // What the customer said and the technician wrote stays as they put it, with no mark left on it.
    expect(complaint).toBe(done.complaint.words);
    expect(complaint).toMatch(/Coach bank/);
    expect(repair!.did).toBe(done.repairs.at(-1)!.did);
    expect(JSON.stringify(r)).not.toMatch(/[\u2068\u2069]/);
  });
});

describe('a shop', () => {
  const shop: Shop = { name: 'S', settings: DEFAULT_SETTINGS, instruments: [] };
  const envelope = { id: demoUuid('c'), version: 1 as const, baseSeq: 0, at: '2026-11-24T16:00:00Z', actor: 'a' };

  it('that sets nothing diagnoses with the usual assumptions, and with its own once it sets them', () => {
    expect(assumptionsOf(DEFAULT_SETTINGS)).toEqual(ASSUMPTIONS);
    const set = {
      likelihoods: { ...DEFAULT_SETTINGS.likelihoods, wrongCallMinutes: 120 },
      openMinutes: { ...DEFAULT_SETTINGS.openMinutes, Dash: 9 },
    };
    const after = reduceShop(shop, { ...envelope, type: 'settings.set', payload: { was: {}, set } });
    expect(assumptionsOf(after.settings)).toMatchObject({
      wrongCallMinutes: 120,
      openMinutes: { Dash: 9, 'Link box': 4 },
    });
    expect(after.settings.labourPerHour).toBe(DEFAULT_SETTINGS.labourPerHour);
  });
});
