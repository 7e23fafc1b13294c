import { describe, expect, it } from 'vitest';
import type { Candidate } from './candidates';
import type { CandidateOutcome } from './outcome';
import { CLOSE_POINTS, recommend, scoreOf, WEIGHTS, type Scored } from './recommend';

const candidate = (id: string, more: Partial<Candidate> = {}) => ({ id, name: id, ...more }) as Candidate;
/** A link without fault: full on arrival, engine starts, alternator half loaded. */
const outcome = (more: Partial<CandidateOutcome> = {}): CandidateOutcome => ({
  candidate: 'a',
  arrives: 0.95,
  lowest: 0.5,
  ends: 0.95,
  start: { volts: 10.4, limit: 9.6, starts: true } as NonNullable<CandidateOutcome['start']>,
  alternator: { idleShare: 0.5, roadShare: 0.4, peakAmps: 60, hottest: 90 },
  linkPeakAmps: 40,
  boost: 'keeps',
  handsOff: true,
  profiles: [],
  hunting: [],
  collapsed: [],
  starves: [],
  dangers: [],
  cautions: [],
  ...more,
});
const score = (more: Partial<CandidateOutcome> = {}, price: [number, number] = [0, 0], of = candidate('a')): Scored =>
  scoreOf(of, outcome(more), price, true);
const got = (s: Scored, criterion: string) => s.points.find((p) => p.criterion === criterion)?.got;

describe('points of a link', () => {
  it('are all there are for one that does everything, and no price', () => {
    const s = score();
    expect(s.ruledOut).toEqual([]);
    // Start: 0.8 V in hand is more than safe. On shore power nothing is asked where there is none.
    const all = Object.values(WEIGHTS).reduce((a, b) => a + b, 0) - WEIGHTS.shore;
    expect(s.total).toBeCloseTo(all, 9);
    expect(s.points.reduce((sum, p) => sum + p.of, 0)).toBeCloseTo(all, 9);
  });

  it('of no criterion are more than it has, nor less than none, whatever the link does', () => {
    const some: Partial<CandidateOutcome>[] = [
      { startOnShore: true },
      { startOnShore: false },
      { boost: 'none' },
      { handsOff: false },
      { arrives: 0 },
      { arrives: 1, lowest: 1, ends: 1 },
      { lowest: 0, dangers: ['a danger'], cautions: ['a caution'] },
      { start: { volts: 14, limit: 9.6, starts: true } as NonNullable<CandidateOutcome['start']> },
      { alternator: { idleShare: 0, roadShare: 0, peakAmps: 0, hottest: 20 } },
      { alternator: { idleShare: 9, roadShare: 9, peakAmps: 900, hottest: 300 } },
    ];
    for (const more of some)
      for (const p of score(more).points) {
        expect(p.got, p.criterion).toBeGreaterThanOrEqual(0);
        expect(p.got, p.criterion).toBeLessThanOrEqual(p.of + 1e-9);
      }
    expect(got(score({ startOnShore: true }), 'Start battery on shore power')).toBe(WEIGHTS.shore);
    expect(got(score({ startOnShore: false }), 'Start battery on shore power')).toBe(0);
    expect(got(score(), 'Start battery on shore power')).toBeUndefined();
  });

  it('fall a point a hundred dollars of the middle of the price', () => {
    expect(score({}, [300, 500]).total).toBeCloseTo(score().total - 4, 9);
  });

  it('of a start are a third with nothing in hand, none at 0.2 V short, all from 0.4 V', () => {
    const at = (volts: number) =>
      got(
        score({ start: { volts, limit: 9.6, starts: true } as NonNullable<CandidateOutcome['start']> }),
        'Starts the engine',
      )!;
    expect(at(9.6)).toBeCloseTo(WEIGHTS.starts / 3, 6);
    expect(at(9.4)).toBeCloseTo(0, 6);
    expect(at(9.0)).toBe(0);
    expect(at(10)).toBeCloseTo(WEIGHTS.starts, 6);
    expect(at(12)).toBe(WEIGHTS.starts);
  });

  it('of an alternator are all to three quarters at idle, none at 125 %, and none when it runs too hot', () => {
    const at = (idleShare: number, hottest = 90) =>
      got(score({ alternator: { idleShare, roadShare: 0, peakAmps: 1, hottest } }), 'Spares the alternator')!;
    expect(at(0.75)).toBeCloseTo(WEIGHTS.alternator, 9);
    expect(at(1)).toBeCloseTo(WEIGHTS.alternator / 2, 9);
    expect(at(1.3)).toBe(0);
    expect(at(0.2, 106)).toBe(0);
    expect(at(0.2, 105)).toBe(WEIGHTS.alternator);
  });

  it('count each bank that gets the wrong volts, by its share of the banks', () => {
    const bank = (ok: boolean) => ({ part: 'x', name: 'Bank', ok, says: 'gets too little' });
    expect(got(score({ profiles: [bank(true), bank(false)] }), 'Right volts for each bank')).toBe(WEIGHTS.profile / 2);
    expect(got(score({ profiles: [bank(false)] }), 'Right volts for each bank')).toBe(0);
  });

  it('ask for boost only where the rig had it', () => {
    expect(
      scoreOf(candidate('a'), outcome({ boost: 'none' }), [0, 0], false).points.map((p) => p.criterion),
    ).not.toContain('Keeps boost');
    expect(got(score({ boost: 'none' }), 'Keeps boost')).toBe(0);
  });

  it('never rise when anything gets worse', () => {
    const best = score().total;
    const worse: Partial<CandidateOutcome>[] = [
      { arrives: 0.5 },
      { lowest: 0.05 },
      { boost: 'none' },
      { handsOff: false },
      { cautions: ['It may feed back.'] },
      { starves: [{ name: 'Charger', of100: 30, says: '' }] },
    ];
    for (const w of worse) expect(score(w).total, JSON.stringify(w)).toBeLessThan(best);
    expect(score({ startOnShore: false }).total).toBeLessThan(score({ startOnShore: true }).total);
  });
});

describe('a link is ruled out', () => {
  it.each<[string, Partial<CandidateOutcome>, string]>([
    ['by a danger', { dangers: ['The wire burns before the fuse.'] }, 'burns'],
    ['when the bank arrives under 15 %', { arrives: 0.14 }, 'flat'],
    ['when it hunts', { hunting: ['Charger'] }, 'hunts'],
    ['when its feed collapses', { collapsed: ['Charger'] }, 'cannot carry'],
    [
      'when more than half of such rigs starve it',
      { starves: [{ name: 'C', of100: 51, says: 'It starves.' }] },
      'starves',
    ],
  ])('%s', (_, more, says) => {
    expect(score(more).ruledOut.join(' ')).toContain(says);
  });

  it('while the fault stays in, but not by a starving charger on half of such rigs', () => {
    const left = candidate('leave', { effects: [{} as never] });
    expect(scoreOf(left, outcome(), [0, 0], true).ruledOut).toEqual(['The fault stays in.']);
    expect(score({ arrives: 0.15 }).ruledOut).toEqual([]);
    expect(score({ starves: [{ name: 'C', of100: 50, says: '' }] }).ruledOut).toEqual([]);
  });

  it('with the cause that hunts: a spent alternator, or a feed that sags', () => {
    const alternator = { idleShare: 1, roadShare: 1, peakAmps: 1, hottest: 80 };
    expect(score({ hunting: ['C'], alternator }).ruledOut[0]).toContain('no more to give at idle');
    expect(score({ hunting: ['C'] }).ruledOut[0]).toContain('sags');
  });
});

describe('the recommendation', () => {
  const of = (
    list: [id: string, total: number, ruledOut?: string[]][],
    outcomes: Record<string, Partial<CandidateOutcome>> = {},
  ) =>
    recommend(
      new Map(list.map(([id]) => [id, outcome({ candidate: id, ...outcomes[id] })])),
      list.map(([id, total, ruledOut]) => ({ candidate: id, points: [], total, ruledOut: ruledOut ?? [] })),
    );

  it('is the best that may be built, never one that is ruled out', () => {
    expect(
      of([
        ['a', 50],
        ['b', 90, ['burns']],
        ['c', 60],
      ])?.pick,
    ).toBe('c');
    expect(of([['a', 50, ['burns']]])).toBeUndefined();
  });

  it('says how far the next one is behind, and when that is a matter of taste', () => {
    const r = of([
      ['a', 60],
      ['b', 60 - CLOSE_POINTS + 0.1],
    ])!;
    expect(r.runnerUp).toMatchObject({ candidate: 'b', close: true });
    expect(
      of([
        ['a', 60],
        ['b', 60 - CLOSE_POINTS],
      ])!.runnerUp,
    ).toMatchObject({ behind: CLOSE_POINTS, close: false });
    expect(of([['a', 60]])!.runnerUp).toBeUndefined();
  });

  it('tells the owner what is lost as well as what is won', () => {
    const r = of(
      [
        ['leave', 20],
        ['a', 60],
      ],
      {
        leave: { arrives: 0.4, lowest: 0.1, boost: 'keeps' },
        a: { boost: 'none', startOnShore: false, handsOff: false },
      },
    )!;
    const says = (good: boolean) => r.reasons.filter((x) => x.good === good).map((x) => x.says);
    expect(says(true)).toContain('The bank arrives at 95 % instead of 40 %.');
    expect(says(true)).toContain('At its lowest the bank is at 50 % instead of 10 %.');
    expect(says(false).join(' ')).toMatch(/start battery gets nothing.*Boost is lost.*switch it on and off/s);
  });

  it('does not call a gain what is none, and calls a loss by its name', () => {
    const r = of(
      [
        ['leave', 20],
        ['a', 60],
      ],
      { leave: { arrives: 0.95 }, a: { arrives: 0.9 } },
    )!;
    expect(r.reasons[0]).toEqual({ good: false, says: 'The bank arrives at 90 %, about as it does now.' });
  });

  it('says that an engine would not start', () => {
    const r = of([['a', 60]], {
      a: { start: { volts: 8.9, limit: 9.6, starts: false } as NonNullable<CandidateOutcome['start']> },
    })!;
    expect(r.reasons).toContainEqual({
      good: false,
      says: 'The engine would not start once: 8.9 V under the starter.',
    });
  });
});
