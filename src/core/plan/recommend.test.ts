import { describe, expect, it } from 'vitest';
import type { Candidate } from './candidates';
import type { CandidateOutcome } from './outcome';
import { WEIGHTS, type Asked } from './criteria';
import { CLOSE_POINTS, recommend, scoreOf, type Scored } from './recommend';

const candidate = (id: string, more: Partial<Candidate> = {}) => ({ id, name: id, ...more }) as Candidate;
/** A link without fault: full on arrival, engine starts, alternator half loaded. */
const outcome = (more: Partial<CandidateOutcome> = {}): CandidateOutcome => ({
  candidate: 'a',
  arrives: 0.95,
  lowest: 0.5,
  ends: 0.95,
  start: { volts: 10.4, limit: 9.6, when: 'at the end', starts: true } as NonNullable<CandidateOutcome['start']>,
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
const BOOSTED: Asked = { hadBoost: true, complaints: [] };
const score = (
  more: Partial<CandidateOutcome> = {},
  price: [number, number] = [0, 0],
  of = candidate('a'),
  asked = BOOSTED,
): Scored => scoreOf(of, outcome(more), price, asked);
/** Share of a criterion’s points that were got. */
const got = (s: Scored, criterion: string) => {
  const p = s.points.find((x) => x.criterion === criterion);
  return p && p.got / p.of;
};

describe('points of a link', () => {
  it('are all there are for one that does everything, and no price', () => {
    const s = score();
    expect(s.ruledOut).toEqual([]);
    expect(s.total).toBeCloseTo(100, 9);
    expect(s.points.reduce((sum, p) => sum + p.of, 0)).toBeCloseTo(100, 9);
  });

  it('are of a hundred whatever there is to judge, and keep their weights to each other', () => {
    for (const more of [{}, { startOnShore: true }, { startOnShore: false }])
      for (const complaints of [[], ['coach-not-charging'], ['boost-dead', 'chassis-flat']] as Asked['complaints'][]) {
        const { points } = score(more, [0, 0], candidate('a'), { hadBoost: true, complaints });
        expect(points.reduce((sum, p) => sum + p.of, 0)).toBeCloseTo(100, 9);
        const of = (criterion: string) => points.find((p) => p.criterion === criterion)!.of;
        expect(of('Arrives charged') / of('Hands off')).toBeCloseTo(WEIGHTS.arrives / WEIGHTS.handsOff, 9);
      }
  });

  it('count the complaint: the worst answered of them, and none of it while the fault stays in', () => {
    const about = (complaints: Asked['complaints'], more: Partial<CandidateOutcome> = {}, of = candidate('a')) =>
      got(score(more, [0, 0], of, { hadBoost: true, complaints }), 'Answers the complaint');
    expect(about([])).toBeUndefined();
    expect(about(['coach-not-charging'])).toBe(1);
    expect(about(['coach-not-charging'], { arrives: 0.45 })).toBeCloseTo(0.5, 9);
    expect(about(['coach-short-life'], { lowest: 0.1 })).toBeCloseTo(0.5, 9);
    expect(about(['boost-dead'], { boost: 'none' })).toBe(0);
    expect(about(['chassis-not-on-shore'], { startOnShore: false })).toBe(0);
    expect(about(['chassis-not-on-shore', 'coach-not-charging'], { startOnShore: false })).toBe(0);
    expect(about(['link-cycles'], { hunting: ['Relay'] })).toBe(0);
    expect(about(['hot-link'])).toBe(1);
    expect(about(['hot-link'], {}, candidate('leave', { effects: [{} as never] }))).toBe(0);
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
      { start: { volts: 14, limit: 9.6, when: 'at the end', starts: true } as NonNullable<CandidateOutcome['start']> },
      { alternator: { idleShare: 0, roadShare: 0, peakAmps: 0, hottest: 20 } },
      { alternator: { idleShare: 9, roadShare: 9, peakAmps: 900, hottest: 300 } },
    ];
    for (const more of some)
      for (const p of score(more).points) {
        expect(p.got, p.criterion).toBeGreaterThanOrEqual(0);
        expect(p.got, p.criterion).toBeLessThanOrEqual(p.of + 1e-9);
      }
    expect(got(score({ startOnShore: true }), 'Start battery on shore power')).toBe(1);
    expect(got(score({ startOnShore: false }), 'Start battery on shore power')).toBe(0);
    expect(got(score(), 'Start battery on shore power')).toBeUndefined();
  });

  it('of the price fall evenly to none at 3,000 dollars, and no further', () => {
    expect(got(score({}, [300, 500]), 'Price')).toBeCloseTo(1 - 400 / 3000, 9);
    expect(got(score({}, [3000, 9000]), 'Price')).toBe(0);
  });

  it('of its feed are none from half of such rigs on that starve it', () => {
    const feed = (of100: number) =>
      got(score({ starves: [{ name: 'C', of100, says: 'It starves.' }] }), 'Its feed carries it');
    expect(feed(10)).toBeCloseTo(0.8, 9);
    expect(feed(50)).toBe(0);
    expect(got(score(), 'Its feed carries it')).toBe(1);
  });

  it('of a start are a third with nothing in hand, none at 0.2 V short, all from 0.4 V', () => {
    const at = (volts: number) =>
      got(
        score({
          start: { volts, limit: 9.6, when: 'at the end', starts: true } as NonNullable<CandidateOutcome['start']>,
        }),
        'Starts the engine',
      )!;
    expect(at(9.6)).toBeCloseTo(1 / 3, 6);
    expect(at(9.4)).toBeCloseTo(0, 6);
    expect(at(9.0)).toBe(0);
    expect(at(10)).toBeCloseTo(1, 6);
    expect(at(12)).toBe(1);
  });

  it('of an alternator are all to three quarters at idle, none at 125 %, and none when it runs too hot', () => {
    const at = (idleShare: number, hottest = 90) =>
      got(score({ alternator: { idleShare, roadShare: 0, peakAmps: 1, hottest } }), 'Spares the alternator')!;
    expect(at(0.75)).toBeCloseTo(1, 9);
    expect(at(1)).toBeCloseTo(0.5, 9);
    expect(at(1.3)).toBe(0);
    expect(at(0.2, 106)).toBe(0);
    expect(at(0.2, 105)).toBe(1);
  });

  it('count each bank that gets the wrong volts, by its share of the banks', () => {
    const bank = (ok: boolean) => ({ part: 'x', name: 'Bank', ok, says: 'gets too little' });
    expect(got(score({ profiles: [bank(true), bank(false)] }), 'Right volts for each bank')).toBe(0.5);
    expect(got(score({ profiles: [bank(false)] }), 'Right volts for each bank')).toBe(0);
  });

  it('ask for boost only where the rig had it', () => {
    expect(
      score({ boost: 'none' }, [0, 0], candidate('a'), { hadBoost: false, complaints: [] }).points.map(
        (p) => p.criterion,
      ),
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

  it('when its simulation found no end', () => {
    expect(score({ ranOut: 12.3 }).ruledOut.join()).toContain('ended 12.3 h in');
  });

  it('while the fault stays in, but not by a starving charger on half of such rigs', () => {
    const left = candidate('leave', { effects: [{} as never] });
    expect(score({}, [0, 0], left).ruledOut).toEqual(['The fault stays in.']);
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
    list: [id: string, total: number, ruledOut?: string[], more?: Partial<Scored>][],
    outcomes: Record<string, Partial<CandidateOutcome>> = {},
  ) =>
    recommend(
      new Map(list.map(([id]) => [id, outcome({ candidate: id, ...outcomes[id] })])),
      list.map(([id, total, ruledOut, more]) => ({
        candidate: id,
        points: [],
        total,
        ruledOut: ruledOut ?? [],
        keeps: false,
        strands: false,
        ...more,
      })),
      BOOSTED,
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

  it('never leaves the owner stranded for points, where something compared does not', () => {
    expect(
      of([
        ['a', 95, [], { strands: true }],
        ['b', 40],
      ])?.pick,
    ).toBe('b');
    expect(
      of([
        ['a', 95, [], { strands: true }],
        ['b', 40, ['burns']],
      ])?.pick,
    ).toBe('a');
  });

  it('leaves it as it is only where it does the job, or nothing does better; then for a matter of taste too', () => {
    const falls = { keeps: true, falls: 'the bank arrives at 27 %' };
    const better = of([
      ['leave', 90, [], falls],
      ['a', 60],
    ])!;
    expect(better.pick).toBe('a');
    expect(better.runnerUp!.close).toBe(false);
    expect(better.reasons[0]).toEqual({
      good: true,
      says: 'Something has to be done: left as it is the bank arrives at 27 %.',
    });
    const alone = of([
      ['leave', 40, [], falls],
      ['a', 60, ['burns']],
    ])!;
    expect(alone.pick).toBe('leave');
    expect(alone.reasons[0]!.says).toContain('nothing compared here does better');
    expect(
      of([
        ['leave', 58, [], { keeps: true }],
        ['a', 60],
      ])?.pick,
    ).toBe('leave');
    expect(
      of([
        ['leave', 60 - CLOSE_POINTS, [], { keeps: true }],
        ['a', 60],
      ])?.pick,
    ).toBe('a');
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
      a: {
        start: { volts: 8.9, limit: 9.6, when: 'at the end', starts: false } as NonNullable<CandidateOutcome['start']>,
      },
    })!;
    expect(r.reasons).toContainEqual({
      good: false,
      says:
        'The engine would not start at the end: 8.9 V under the starter, 9.6 V wanted. A battery disconnect, or a ' +
        'maintainer where there is shore power, keeps it up.',
    });
  });
});
