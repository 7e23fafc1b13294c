import { describe, expect, it } from 'vitest';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import type { CoupledChoices } from '../rig/archetypes/coupledSchema';
import type { MotorhomeChoices } from '../rig/archetypes/choicesSchema';
import { motorhome, USUAL_MOTORHOME } from '../rig/archetypes/motorhome';
import { RULE_SETS } from '../codes';
import { withConductor, withPart, withPieces } from '../rig/applyEdit';
import { checkRig } from '../rig/check';
import type { Part, Rig } from '../rig/schema';
import { usualScenarios } from '../plan/usualScenarios';
import { sizeRig } from '../size/sizing';
import type { Jurisdiction } from '../units/preferences';
import { checkDesign, RULES } from './check';
import type { Finding, Autofix } from './rule';

const mended = (rig: Rig, m: Autofix): Rig =>
  'part' in m
    ? withPart(rig, m.part, m.set)
    : 'pieces' in m
      ? withPieces(rig, m.pieces)
      : m.conductors.reduce((r, c) => withConductor(r, c, m.set), rig);
const use = usualScenarios({}, 'coach-bank')
  .map((s) => ({ ...s, legs: s.legs.slice(0, 2) }))
  .slice(0, 1);
/** Findings of rigs seen before: half of the cases share their rigs. */
const known = new Map<string, Finding[]>();
function check(rig: Rig, jurisdiction: Jurisdiction = 'us'): Finding[] {
  const key = jurisdiction + JSON.stringify(rig);
  const found = known.get(key) ?? checkDesign(rig, sizeRig(rig, use, { jurisdiction }));
  known.set(key, found);
  return found;
}
const home = (c: Partial<MotorhomeChoices>): Rig => motorhome('t', 'T', { ...USUAL_MOTORHOME, ...c });
const coupled = (c: Partial<CoupledChoices> & Pick<CoupledChoices, 'family'>): Rig =>
  coupledRig('t', 'T', { ...USUAL_COUPLED[c.family], ...c });
/** Some figures or choices of one part set otherwise. */
const part = (rig: Rig, id: string, params: Record<string, number>, options: Record<string, string> = {}): Rig => ({
  ...rig,
  parts: rig.parts.map((p): Part =>
    p.id === id
      ? {
          ...p,
          params: {
            ...p.params,
            ...Object.fromEntries(
              Object.entries(params).map(([k, value]) => [k, { value, spread: 0, provenance: 'nameplate' as const }]),
            ),
          },
          options: { ...p.options, ...options },
        }
      : p,
  ),
});
const wire = (rig: Rig, id: string, gauge: '18' | '12' | '10' | '8' | '4' | '1/0' | '4/0'): Rig => ({
  ...rig,
  conductors: rig.conductors.map((c) => (c.id === id ? { ...c, gauge } : c)),
});
const cut = (rig: Rig, id: string): Rig => ({ ...rig, conductors: rig.conductors.filter((c) => c.id !== id) });
/** A wire that ends elsewhere. */
const reroute = (rig: Rig, id: string, ends: Partial<Pick<Rig['conductors'][number], 'from' | 'to'>>): Rig => ({
  ...rig,
  conductors: rig.conductors.map((c) => (c.id === id ? { ...c, ...ends } : c)),
});
const fridgeByItself = () => coupled({ family: 'camper', fridgeSelects: 'itself' });
const lfp = { chemistry: 'lfp', layout: 'parallel', capacity: 400 } as const;

/** Somebody has followed these wires, or every one: what is drawn is what is there. */
const looked = (rig: Rig, ...ids: string[]): Rig => ({
  ...rig,
  conductors: rig.conductors.map((c) => (ids.length === 0 || ids.includes(c.id) ? { ...c, looked: true } : c)),
});
/** A usual coach's wires with one of them so long, and followed. */
const lengthened = (id: string, length: number): Rig['conductors'] =>
  home({}).conductors.map((c) => (c.id === id ? { ...c, length, looked: true } : c));
/** A clinic whose brakes hang on the line with nothing between. */
const brakesUnfused = (): Rig => {
  const rig = coupled({ family: 'trailer-48', dcdcAmps: 15 });
  return {
    ...rig,
    parts: rig.parts.filter((p) => p.id !== 'brake-breaker'),
    conductors: rig.conductors
      .filter((c) => c.id !== 'brake-tap')
      .map((c) => (c.id === 'brake-feed' ? { ...c, from: { part: 'connector', terminal: 'rear' } } : c)),
  };
};

/** For each rule a rig that breaks it, and one beside it that does not. */
const CASES: Record<string, { breaks: () => Rig; keeps: () => Rig; where?: Jurisdiction }> = {
  'fuse-over-wire': {
    breaks: () => part(wire(home({}), 'link-cable', '8'), 'link-fuse', { rating: 200 }),
    keeps: () => home({}),
  },
  'fuse-under-load': { breaks: () => part(home({}), 'link-fuse', { rating: 30 }), keeps: () => home({}) },
  'fuse-tight': {
    breaks: () => part(home({ link: 'dcdc', dcdcAmps: 45 }), 'dcdc-fuse', { rating: 50 }),
    keeps: () => home({ link: 'dcdc', dcdcAmps: 40 }),
  },
  'fuse-unknown': { breaks: () => part(home({}), 'link-fuse', { rating: 0 }), keeps: () => home({}) },
  'fuse-not-made': { breaks: () => part(home({}), 'link-fuse', { rating: 145 }), keeps: () => home({}) },
  'fuse-volts': {
    breaks: () => part(coupled({ family: 'trailer-48' }), 'behind-fuse', {}, { type: 'bolt-large' }),
    keeps: () => coupled({ family: 'trailer-48' }),
  },
  'fuse-interrupts': { breaks: () => part(home({}), 'link-fuse', {}, { type: 'bolt-large' }), keeps: () => home({}) },
  'short-harms-wire': {
    breaks: () => part(wire(coupled({ family: 'trailer', link: 'dcdc' }), 'line', '12'), 'link-fuse', { rating: 200 }),
    keeps: () => coupled({ family: 'trailer', link: 'dcdc' }),
  },
  'fuse-far': {
    breaks: () => ({ ...home({}), conductors: lengthened('fuse-lead', 1.2) }),
    keeps: () => home({}),
  },
  'fuse-somewhat-far': {
    breaks: () => ({ ...home({}), conductors: lengthened('fuse-lead', 0.3) }),
    keeps: () => home({}),
  },
  'breaker-auto-between': {
    breaks: () => {
      const r = coupled({ family: 'trailer', feed: 'constant' });
      return {
        ...r,
        parts: r.parts.map((p): Part =>
          p.id === 'behind-fuse' ? { ...p, kind: 'disconnect', params: {}, options: {} } : p,
        ),
        conductors: r.conductors.map((c) => ({ ...c, from: swap(c.from), to: swap(c.to) })),
        probes: [],
      };
    },
    keeps: () => coupled({ family: 'trailer' }),
  },
  'breaker-auto-alone': {
    breaks: () => breakerAtTheCharger('auto'),
    keeps: () => breakerAtTheCharger('manual'),
  },
  'feed-unfused': { breaks: () => looked(home({}), 'link-cable'), keeps: () => home({}) },
  'feed-look': { breaks: () => home({}), keeps: () => looked(home({})) },
  'wire-too-thin': {
    breaks: () => wire(home({}), 'alternator-cable', '10'),
    keeps: () => home({ link: 'dcdc', dcdcAmps: 40 }),
  },
  'charger-locks-out': {
    breaks: () =>
      ['fuse-lead', 'line', 'plug-line', 'line-return', 'plug-return', 'dcdc-ground'].reduce(
        (r, id) => wire(r, id, '12'),
        coupled({ family: 'trailer', link: 'dcdc', dcdcAmps: 40 }),
      ),
    keeps: () => coupled({ family: 'trailer', link: 'dcdc', dcdcAmps: 15 }),
  },
  'drops-too-much': {
    breaks: () => coupled({ family: 'camper', link: 'thin-line' }),
    keeps: () => home({ link: 'dcdc', dcdcAmps: 40 }),
  },
  'terminal-misfit': {
    breaks: () => wire(home({ link: 'dcdc', dcdcAmps: 40 }), 'dcdc-output', '4/0'),
    keeps: () => coupled({ family: 'trailer' }),
  },
  'return-thinner': {
    breaks: () => wire(coupled({ family: 'trailer', link: 'dcdc' }), 'dcdc-ground', '10'),
    keeps: () => coupled({ family: 'trailer', link: 'dcdc' }),
  },
  'volts-link-on-lithium': {
    breaks: () => home({ link: 'bidirectional', coach: lfp }),
    keeps: () => home({ link: 'bidirectional' }),
  },
  'lithium-load-dump': {
    breaks: () => home({ link: 'switch', coach: lfp }),
    keeps: () => home({ link: 'dcdc', coach: lfp }),
  },
  'profile-too-high': {
    breaks: () => part(home({ link: 'dcdc', coach: { ...lfp, chemistry: 'gel' } }), 'dcdc', { absorb: 14.8 }),
    keeps: () => home({ link: 'dcdc' }),
  },
  'profile-too-low': {
    breaks: () => part(home({ link: 'dcdc' }), 'dcdc', { absorb: 13.4 }),
    keeps: () => home({ link: 'dcdc' }),
  },
  'float-too-high': {
    breaks: () => part(home({}), 'charger', { float: 14.2 }),
    keeps: () => home({}),
  },
  'thresholds-crossed': {
    breaks: () => part(home({ link: 'one-way' }), 'delay', { openAt: 13.4 }),
    keeps: () => home({ link: 'one-way' }),
  },
  'thresholds-close': {
    breaks: () => part(home({ link: 'one-way' }), 'delay', { openAt: 12.96 }),
    keeps: () => home({ link: 'one-way' }),
  },
  'thresholds-no-room': {
    breaks: () => part(home({ link: 'one-way' }), 'delay', { openAt: 12.4 }),
    keeps: () => home({ link: 'one-way' }),
  },
  'lockout-under-load': {
    breaks: () => coupled({ family: 'trailer-48', dcdcAmps: 15 }),
    keeps: () => coupled({ family: 'trailer-48', dcdcAmps: 8 }),
  },
  'sensing-smart-alternator': {
    breaks: () => part(home({ link: 'bidirectional' }), 'alternator', {}, { regulator: 'smart' }),
    keeps: () => home({ link: 'bidirectional' }),
  },
  'enable-always': {
    breaks: () => coupled({ family: 'trailer', link: 'dcdc', enable: 'always' }),
    keeps: () => coupled({ family: 'trailer', link: 'dcdc' }),
  },
  'enable-missing': { breaks: () => cut(home({ link: 'dcdc' }), 'dcdc-enable'), keeps: () => home({ link: 'dcdc' }) },
  'enable-poor': {
    breaks: () => coupled({ family: 'trailer', link: 'dcdc', enable: 'marker-lights' }),
    keeps: () => coupled({ family: 'trailer', link: 'dcdc' }),
  },
  'charger-no-negative': {
    breaks: () => cut(home({ link: 'dcdc' }), 'dcdc-ground'),
    keeps: () => home({ link: 'dcdc' }),
  },
  'coil-no-ground': { breaks: () => cut(home({}), 'coil-ground'), keeps: () => home({}) },
  'coil-intermittent': { breaks: () => part(home({}), 'link', { coil: 4 }), keeps: () => home({}) },
  'chained-chargers': {
    breaks: () => coupled({ family: 'second-battery' }),
    keeps: () => coupled({ family: 'second-battery', link: 'dcdc' }),
  },
  'fridge-on-chain': {
    breaks: () => coupled({ family: 'second-battery' }),
    keeps: () => coupled({ family: 'second-battery', link: 'dcdc' }),
  },
  'fridge-constant': {
    breaks: () => looked(coupled({ family: 'camper', feed: 'constant' }), 'fridge-feed'),
    keeps: () => coupled({ family: 'camper', feed: 'constant' }),
  },
  'fridge-look': {
    breaks: () => coupled({ family: 'camper', feed: 'constant' }),
    keeps: () => coupled({ family: 'camper' }),
  },
  'fridge-trigger-live': {
    breaks: () => reroute(fridgeByItself(), 'fridge-trigger', { from: { part: 'fridge', terminal: 'plus' } }),
    keeps: () => fridgeByItself(),
  },
  'fridge-trigger-nowhere': { breaks: () => cut(fridgeByItself(), 'fridge-trigger'), keeps: () => fridgeByItself() },
  'shunt-bypassed': {
    breaks: () =>
      reroute(home({ monitor: true }), 'charger-negative', { to: { part: 'coach-bank', terminal: 'minus' } }),
    keeps: () => home({ monitor: true }),
  },
  'shunt-in-feed': {
    breaks: () => reroute(home({ monitor: true }), 'shunt-lead', { from: { part: 'coach-bank', terminal: 'plus' } }),
    keeps: () => home({ monitor: true }),
  },
  'shunt-reversed': {
    breaks: () =>
      reroute(
        reroute(home({ monitor: true }), 'shunt-lead', { to: { part: 'shunt', terminal: 'system' } }),
        'coach-negative',
        { from: { part: 'shunt', terminal: 'battery' } },
      ),
    keeps: () => home({ monitor: true }),
  },
  'poor-splice': {
    breaks: () => withConductor(coupled({ family: 'towed-car' }), 'line-return', { ends: 'tap' }),
    keeps: () => withConductor(coupled({ family: 'towed-car' }), 'line-return', { ends: 'crimped' }),
  },
  'aluminum-joint': {
    breaks: () => home({ body: 'aluminum' }),
    keeps: () => looked(home({ body: 'aluminum' })),
  },
  'sense-behind-disconnect': {
    breaks: () => home({ link: 'bidirectional', senseAt: 'behind-disconnect' }),
    keeps: () => home({ link: 'bidirectional' }),
  },
  'panels-over-limit': {
    breaks: () =>
      part(coupled({ family: 'trailer', link: 'dcdc-dual', solar: true }), 'dcdc', {}, { panels: 'series' }),
    keeps: () => coupled({ family: 'trailer', link: 'dcdc-dual', solar: true }),
  },
  'charger-over-alternator': {
    breaks: () => home({ link: 'dcdc', dcdcAmps: 80, alternatorAmps: 90 }),
    keeps: () => home({ link: 'dcdc', dcdcAmps: 20, alternatorAmps: 200 }),
  },
  'alternator-no-margin': {
    breaks: () => home({ link: 'switch', alternatorAmps: 70 }),
    keeps: () => coupled({ family: 'trailer', alternatorAmps: 200 }),
  },
  'charger-boxed': {
    breaks: () => part(home({ link: 'dcdc' }), 'dcdc', {}, { mounting: 'boxed' }),
    keeps: () => home({ link: 'dcdc' }),
  },
  'boost-lost': { breaks: () => home({ link: 'dcdc' }), keeps: () => home({ link: 'dcdc', bypass: true }) },
  'diode-undercharges': {
    breaks: () => part(home({ link: 'diode' }), 'alternator', { setPoint: 14.1 }),
    keeps: () => home({ link: 'diode' }),
  },
  'two-way-no-float': {
    breaks: () => part(home({ link: 'bidirectional', charger: 'converter' }), 'charger', { setPoint: 14.2 }),
    keeps: () => home({ link: 'bidirectional' }),
  },
  'brake-behind-converter': {
    breaks: () => {
      const r = coupled({ family: 'trailer-48' });
      return {
        ...r,
        conductors: r.conductors.map((c) =>
          c.id === 'brake-feed' ? { ...c, from: { part: 'dcdc', terminal: 'output' } } : c,
        ),
      };
    },
    keeps: () => coupled({ family: 'trailer-48' }),
  },
  'brake-line-unfused': { breaks: () => brakesUnfused(), keeps: () => coupled({ family: 'trailer-48' }) },
  'frame-return-only': {
    breaks: () => cut(coupled({ family: 'trailer' }), 'plug-return'),
    keeps: () => coupled({ family: 'trailer' }),
  },
  'standby-both-first': {
    breaks: () => part(home({ secondCharger: true }), 'charger-2', {}, { duty: 'own' }),
    keeps: () => home({ secondCharger: true }),
  },
  'contact-over-rating': {
    breaks: () => part(home({ link: 'switch' }), 'link', { rated: 20 }),
    keeps: () => home({ link: 'switch' }),
  },
  'link-charges-hard': {
    breaks: () => home({ link: 'switch', coach: { chemistry: 'flooded', layout: 'parallel', capacity: 60 } }),
    keeps: () => home({ link: 'switch', coach: { chemistry: 'flooded', layout: 'parallel', capacity: 600 } }),
  },
  'mixed-parallel': {
    breaks: () => secondBank({ chemistry: 'agm', layout: 'single' }),
    keeps: () => secondBank({ chemistry: 'flooded', layout: 'single' }),
  },
  'sensor-bypassed': {
    breaks: () => onThePost(part(home({ link: 'dcdc' }), 'alternator', {}, { regulator: 'smart' })),
    keeps: () => onThePost(home({ link: 'dcdc' })),
  },
  'strap-thinner': {
    breaks: () => wire(home({}), 'engine-strap', '8'),
    keeps: () => home({}),
  },
  'bank-charged-hard': {
    breaks: () => part(home({ link: 'dcdc', dcdcAmps: 40 }), 'coach-bank', { capacity: 100 }),
    keeps: () => part(home({ link: 'dcdc', dcdcAmps: 40 }), 'coach-bank', { capacity: 600 }),
  },
  'profiles-differ': {
    breaks: () => part(home({ link: 'dcdc' }), 'dcdc', { absorb: 14.8 }),
    keeps: () => part(home({ link: 'dcdc' }), 'dcdc', { absorb: 14.4 }),
  },
  'charger-on-inverter': {
    breaks: () => part(home({ secondCharger: true }), 'charger', {}, { build: 'inverter-charger' }),
    keeps: () => part(home({ secondCharger: true }), 'charger', {}, { build: 'charger' }),
  },
  'habitation-look': {
    breaks: () => coupled({ family: 'trailer' }),
    keeps: () => home({}),
    where: 'uk',
  },
  'habitation-live': {
    breaks: () => part(coupled({ family: 'trailer' }), 'house', {}, { onTow: 'live' }),
    keeps: () => part(coupled({ family: 'trailer' }), 'house', {}, { onTow: 'cut' }),
    where: 'eu',
  },
};
/** A coach whose charger is fed through a breaker. */
const breakerAtTheCharger = (type: string): Rig => {
  const rig = home({ link: 'dcdc' });
  return {
    ...rig,
    parts: rig.parts.map((p): Part => (p.id === 'link-fuse' ? { ...p, kind: 'line-breaker', options: { type } } : p)),
  };
};
/** A coach with another battery on the coach bank's own posts. */
function secondBank(options: Record<string, string>): Rig {
  const rig = home({});
  const bank = rig.parts.find((p) => p.id === 'coach-bank')!;
  const like = rig.conductors.find((c) => c.use === 'feed')!;
  return {
    ...rig,
    parts: [...rig.parts, { ...bank, id: 'second-bank', name: 'Second bank', options }],
    conductors: [
      ...rig.conductors,
      {
        ...like,
        id: 'second-plus',
        name: 'Bank to bank',
        from: { part: 'coach-bank', terminal: 'plus' },
        to: { part: 'second-bank', terminal: 'plus' },
      },
    ],
  };
}
/** The charger's negative moved from the frame to the start battery's own post. */
const onThePost = (rig: Rig): Rig => ({
  ...rig,
  conductors: rig.conductors.map((c) =>
    c.id === 'dcdc-ground' ? { ...c, to: { part: 'chassis-bank', terminal: 'minus' } } : c,
  ),
});
const swap = (e: { part: string; terminal: string }) =>
  e.part === 'behind-fuse' ? { part: e.part, terminal: e.terminal === 'source' ? 'battery' : 'house' } : e;

describe('the design rules', () => {
  it('are fifty or more, each with why, source and a case here', () => {
    expect(RULES.length).toBeGreaterThanOrEqual(50);
    expect(new Set(RULES.map((r) => r.id)).size).toBe(RULES.length);
    for (const r of RULES)
      for (const set of Object.values(RULE_SETS))
        expect(r.why.length * (typeof r.source === 'string' ? r.source : r.source(set)).length, r.id).toBeGreaterThan(
          0,
        );
    expect(Object.keys(CASES).sort()).toEqual(RULES.map((r) => r.id).sort());
  });

  it.each(Object.entries(CASES))(
    '%s is seen where it is broken, in numbers and with a remedy, and not where it is kept',
    (id, { breaks, keeps, where }) => {
      const found = check(breaks(), where).filter((f) => f.rule === id);
      expect(found.length).toBeGreaterThan(0);
      for (const f of found) {
        expect(f.says.length).toBeGreaterThan(10);
        expect(f.says).not.toMatch(/NaN|undefined|Infinity/);
        expect(f.fix).toMatch(/\.$/);
      }
      expect(check(keeps(), where).filter((f) => f.rule === id)).toEqual([]);
    },
  );

  it('what a button mends is mended: the same rule has nothing left to say there', () => {
    const pressed: string[] = [];
    for (const [id, { breaks }] of Object.entries(CASES)) {
      const rig = breaks();
      const found = check(rig).find((f) => f.rule === id && f.mend);
      if (!found) continue;
      let better = mended(rig, found.mend!);
      // A cable with no fuse at all wants one at each end.
      const second = check(better).find((f) => f.rule === id && f.at === found.at && f.mend && f.says !== found.says);
      if (second) better = mended(better, second.mend!);
      expect(
        check(better).filter((f) => f.rule === id && f.at === found.at),
        id,
      ).toEqual([]);
      pressed.push(id);
    }
    expect(pressed.length).toBeGreaterThanOrEqual(14);
    expect(pressed).toEqual(
      expect.arrayContaining(['feed-unfused', 'fuse-far', 'fuse-interrupts', 'brake-line-unfused']),
    );
  });
});

describe('a branch with a fuse of its own', () => {
  it('is no longer the bigger fuse’s to protect, nor is the hand of cable to it', () => {
    const rig = brakesUnfused();
    const sized = (r: Rig) => sizeRig(r, use);
    const protects = (r: Rig) => sized(r).fuses.find((f) => f.part === 'link-fuse')!.protects;
    expect(protects(rig)).toContain('brake-feed');
    const found = check(rig).find((f) => f.rule === 'brake-line-unfused')!;
    const fused = mended(rig, found.mend!);
    expect(protects(fused)).not.toContain('brake-feed');
    expect(protects(fused)).not.toContain('brake-feed-pigtail');
    expect(sized(fused).runs.find((r) => r.conductors.some((c) => c.id === 'brake-feed'))!.verdict).not.toBe('thin');
    // As much cable again and it has to bear the bigger fuse.
    expect(protects(withConductor(fused, 'brake-feed-pigtail', { length: 0.4 }))).toContain('brake-feed-pigtail');
  });
});

describe('pressing the next button again and again', () => {
  it.each([
    [
      'a van that feeds trailer and fridge',
      () => coupled({ family: 'second-battery', link: 'dcdc', dcdcAmps: 12, alternatorAmps: 180 }),
    ],
    ['a clinic on 48 V', () => coupled({ family: 'trailer-48', dcdcAmps: 15 })],
    ['a truck and trailer', () => coupled({ family: 'trailer', link: 'dcdc', dcdcAmps: 40 })],
    ['lithium on a charger', () => home({ link: 'dcdc', coach: lfp, dcdcAmps: 60 })],
  ] as [string, () => Rig][])('mends %s in some steps, each of which changes something', (_, draw) => {
    let rig = draw();
    const pressed: string[] = [];
    for (;;) {
      const next = check(rig).find((f) => f.mend && f.severity !== 'tidy');
      if (!next) break;
      const better = mended(rig, next.mend!);
      expect(better, `${next.rule} at ${next.at}: ${next.fix}`).not.toEqual(rig);
      expect(checkRig(better), next.fix).toEqual([]);
      pressed.push(next.fix);
      expect(pressed.length, pressed.join(' ')).toBeLessThan(16);
      rig = better;
    }
  });
});
