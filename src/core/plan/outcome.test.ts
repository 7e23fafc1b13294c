/** What is said of a link from its runs, on every candidate of every demo rig: within what can be, and read off the runs. */
import { describe, expect, it } from 'vitest';
import { exampleJob } from '../../../tests/answers';
import { compileRig } from '../compile/compile';
import { jobCandidates, jobScenarios } from '../jobAnswers/options';
import { houseBankOf } from '../rig/value';
import { usualScenarios } from './usualScenarios';
import { outcomeOf, simulateCandidate } from './outcome';

const SLIPS = /undefined|NaN|\[object|Infinity|null\b/;

describe.each(['heron', 'pika', 'dipper', 'marmot', 'osprey', 'wren'] as const)('%s', (name) => {
  const job = exampleJob(name);
  const scenarios = jobScenarios(job);
  const made = jobCandidates(job).map((candidate) => {
    const compiled = compileRig(candidate.rig);
    const runs = scenarios.map((s) => simulateCandidate(candidate, compiled, s, undefined, { series: false }));
    return { candidate, runs, outcome: outcomeOf(candidate, runs, compiled) };
  });

  it('arrives, sinks and ends between empty and full, never lower than its lowest', () => {
    for (const { candidate, outcome: o } of made) {
      for (const share of [o.arrives, o.lowest, o.ends]) {
        expect(share, candidate.id).toBeGreaterThanOrEqual(0);
        expect(share, candidate.id).toBeLessThanOrEqual(1 + 1e-9);
      }
      expect(o.lowest, candidate.id).toBeLessThanOrEqual(Math.min(o.arrives, o.ends) + 1e-9);
    }
  });

  it('has the hardest of all starts, and the most of all an alternator and a link were asked for', () => {
    for (const { candidate, runs, outcome: o } of made) {
      const starts = runs.flatMap((r) => r.summary.starts);
      expect(o.start === undefined).toBe(starts.length === 0);
      if (o.start) {
        const hands = starts.map((s) => s.volts - s.limit);
        expect(o.start.volts - o.start.limit, candidate.id).toBeCloseTo(Math.min(...hands), 9);
        expect(o.start.starts).toBe(o.start.volts >= o.start.limit);
      }
      const alternators = runs.flatMap((r) => r.summary.alternators.slice(0, 1));
      if (o.alternator) {
        expect(o.alternator.peakAmps).toBe(Math.max(...alternators.map((a) => a.peakAmps)));
        expect(o.alternator.hottest).toBe(Math.max(...alternators.map((a) => a.hottest)));
        expect(o.alternator.idleShare).toBeLessThanOrEqual(1 + 1e-6);
      } else expect(alternators).toEqual([]);
      expect(o.linkPeakAmps).toBeGreaterThanOrEqual(0);
    }
  });

  it('says of every battery whether it reached what its chemistry wants, with volts of its own size', () => {
    for (const { candidate, outcome: o } of made) {
      const batteries = candidate.rig.parts.filter((p) => p.kind === 'battery-bank').map((p) => p.id);
      for (const p of o.profiles) {
        expect(batteries).toContain(p.part);
        expect(p.says).toMatch(/^reaches \d+\.\d V; /);
        expect(p.ok).toBe(p.says.endsWith('within what it wants'));
      }
    }
  });

  it('names what hunts, collapses and is dangerous in words', () => {
    for (const { candidate, outcome: o } of made)
      for (const text of [...o.hunting, ...o.collapsed, ...o.dangers, ...o.cautions, ...o.starves.map((s) => s.says)]) {
        expect(text, candidate.id).not.toMatch(SLIPS);
        expect(text.length).toBeGreaterThan(2);
      }
  });

  it('keeps boost only where a switch and a solenoid are left, and no fault is', () => {
    for (const { candidate, outcome: o } of made) {
      const kinds = candidate.rig.parts.map((p) => p.kind as string);
      if (o.boost === 'keeps') {
        expect(candidate.effects ?? []).toEqual([]);
        expect(
          kinds.some((k) => /boost|bypass/.test(k)),
          candidate.id,
        ).toBe(true);
      }
    }
  });
});

describe('leaving it with a fault in it', () => {
  it('is worse than leaving it without: the fault goes through the whole use', () => {
    const job = exampleJob('heron');
    const [leave] = jobCandidates(job);
    const house = houseBankOf(leave!.rig)!;
    const scenario = usualScenarios({ driveHours: 5 }, house.id)[0]!;
    const arrives = (effects: (typeof leave & object)['effects']) => {
      const candidate = { ...leave!, ...(effects ? { effects } : {}) };
      const compiled = compileRig(candidate.rig);
      return outcomeOf(
        candidate,
        [simulateCandidate(candidate, compiled, scenario, undefined, { series: false })],
        compiled,
      );
    };
    const { effects: _, ...sound } = leave!;
    const compiled = compileRig(sound.rig);
    const without = outcomeOf(
      sound,
      [simulateCandidate(sound, compiled, scenario, undefined, { series: false })],
      compiled,
    );
    const open = arrives([{ do: 'open', element: 'link.contact' } as never]);
    expect(open.arrives).toBeLessThan(without.arrives);
    expect(open.boost).toBe('none');
  });
});
