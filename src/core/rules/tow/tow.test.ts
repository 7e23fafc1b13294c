import { describe, expect, it } from 'vitest';
import { CONNECTORS, connectorOf, facing } from '../../parts/connectors';
import { coupledRig, USUAL_COUPLED } from '../../rig/archetypes/coupled';
import { checkRig } from '../../rig/check';
import { type PinSeen, type TowInterface, type TowWay } from '../../rig/tow';
import { RULE_SETS } from '../../codes';
import type { RuleSet } from '../../codes/ruleSet';
import { auditTow } from './audit';
import { CompiledTow } from '../../compile/tow/compileTow';
import { TOW_SITUATIONS } from '../../compile/tow/situations';
import { solveTow, TowCircuit } from '../../operate/tow/solveTow';
import { readPin } from './pinReadings';
import { contactOhms } from '../../compile/tow/ways';
import { BREAKAWAY_MINUTES, breakawayMinutes, hoursToNoStart, TOW_TROUBLES, towTroubles } from './troubles';
import { usualTow } from './usual';
import { towVehicle, type TowVehicle } from '../../compile/tow/vehicle';

const rigOf = (family: keyof typeof USUAL_COUPLED, link: string) =>
  coupledRig('t', 'T', { ...USUAL_COUPLED[family], link: link as 'dcdc' });
const van = rigOf('second-battery', 'dcdc');
const vehicle = towVehicle(van)!;

/** A sound interface with everything a trailer may have; cases below spoil one thing of it. */
const wire = { gauge: '8', length: 6, usesGauge: '8', usesLength: 3 } as const;
const metric = { gauge: '1.5mm2', length: 6, usesGauge: '1.5mm2', usesLength: 6 } as const;
const lamp = { gauge: '14', length: 6, usesGauge: '14', usesLength: 6 } as const;
const SOUND: TowInterface = {
  plugs: [
    {
      id: 'main',
      connector: 'blade-7',
      convention: 'rv',
      ways: [
        { pin: '1', feed: 'ground', gauge: '10', length: 1, uses: ['ground'], usesGauge: '10', usesLength: 1 },
        { pin: '2', feed: 'brake', uses: ['brakes'], ...lamp, gauge: '10', usesGauge: '10' },
        { pin: '3', feed: 'tail', uses: ['tail'], ...lamp },
        { pin: '4', feed: 'ignition', fuse: 15, uses: ['breakaway', 'fridge-trigger'], ...wire },
        { pin: '5', feed: 'left', uses: ['left'], ...lamp },
        { pin: '6', feed: 'right', uses: ['right'], ...lamp },
      ],
    },
    {
      id: 'power',
      connector: 'two-pole-120',
      convention: 'usual',
      ways: [
        { pin: 'plus', feed: 'constant', fuse: 80, uses: ['charger', 'fridge'], ...wire, gauge: '4', usesGauge: '4' },
        { pin: 'minus', feed: 'ground', uses: ['ground'], ...wire, gauge: '4', usesGauge: '4' },
      ],
    },
  ],
  charger: { amps: 20, inLimit: 30, lockout: 12.2, outVolts: 14.4, enable: 'wire' },
  fridge: { watts: 290, trigger: 'pin' },
  brakes: { amps: 12, supply: 'pin' },
  breakaway: { capacity: 7, soc: 0.9 },
};
const spoil = (f: (t: TowInterface, way: (key: string) => TowWay) => void): TowInterface => {
  const t = structuredClone(SOUND);
  f(t, (key) => t.plugs.find((p) => key.startsWith(`${p.id}.`))!.ways.find((w) => key.endsWith(`.${w.pin}`))!);
  return t;
};

/** Of each trouble, what brings it about. */
const BREAKS: Readonly<Record<string, TowInterface>> = {
  'tow-polarity': spoil((_, w) => void (w('main.1').feed = 'constant')),
  'tow-mismatch': spoil((_, w) => void (w('main.5').feed = 'right')),
  'tow-lamp-power': spoil((_, w) => void (w('main.4').feed = 'tail')),
  'tow-unfed': spoil((_, w) => void (w('main.4').feed = 'none')),
  'tow-no-ground': spoil((t) => t.plugs.forEach((p) => (p.ways = p.ways.filter((w) => w.feed !== 'ground')))),
  'tow-chained': spoil((_, w) => void (w('power.plus').from = 'accessory')),
  'tow-fridge-chained': spoil((_, w) => void (w('power.plus').from = 'accessory')),
  'tow-fridge-parked': spoil((t) => void (t.fridge!.trigger = 'looped')),
  'tow-trigger-double': spoil((_, w) => void (w('power.plus').feed = 'ignition')),
  'tow-fridge-dead': spoil((_, w) => void (w('main.4').uses = ['breakaway'])),
  'tow-brake-converter': spoil((t) => void (t.brakes!.supply = 'converter')),
  'tow-brake-weak': spoil((_, w) => Object.assign(w('main.2'), { gauge: '18', usesGauge: '18', length: 25 })),
  'tow-brake-live': spoil((_, w) => void (w('main.2').feed = 'constant')),
  'tow-breakaway-uncharged': spoil((_, w) => void (w('main.4').uses = ['fridge-trigger'])),
  'tow-breakaway-short': spoil((t) => void (t.breakaway!.capacity = 4)),
  'tow-breakaway-missing': spoil((t, w) => {
    t.mass = 2500;
    delete t.breakaway;
    w('main.4').uses = ['fridge-trigger'];
  }),
  'tow-thin-by-code': {
    plugs: [
      {
        id: 'main',
        connector: 'round-13',
        convention: 'usual',
        ways: [
          { pin: '1', feed: 'left', uses: ['left'], ...metric },
          { pin: '4', feed: 'right', uses: ['right'], ...metric },
          { pin: '5', feed: 'tail', uses: ['tail'], ...metric },
          { pin: '3', feed: 'ground', uses: ['ground'], ...metric, gauge: '2.5mm2', usesGauge: '2.5mm2' },
          { pin: '9', feed: 'constant', fuse: 15, uses: [], ...metric },
        ],
      },
    ],
  },
  'tow-pin-overload': spoil((t) => void (t.plugs[1]!.connector = 'two-pole-50')),
  'tow-fuse-missing': spoil((_, w) => void (w('main.4').fuse = 0)),
  'tow-fuse-over-wire': spoil((_, w) => void (w('main.4').fuse = 100)),
  'tow-fuse-blows': spoil((_, w) => void (w('power.plus').fuse = 30)),
  'tow-charger-starved': spoil((t, w) => {
    t.fridge = { watts: 290, trigger: 'pin' };
    t.charger!.amps = 40;
    t.charger!.inLimit = 80;
    Object.assign(w('power.plus'), { gauge: '10', usesGauge: '10', length: 12 });
  }),
  'tow-charger-idle': spoil((t) => void (t.charger!.enable = 'pin')),
  'tow-charger-parked': spoil((t) => void (t.charger!.enable = 'always')),
  'tow-left-coupled': spoil((t) => void (t.fridge!.trigger = 'none')),
  'tow-accessory-drain': spoil((t, w) => {
    w('power.plus').from = 'accessory';
    t.fridge!.trigger = 'none';
  }),
  'tow-return': spoil((t, w) => {
    t.plugs[1]!.ways.pop();
    Object.assign(w('main.1'), { gauge: '14', usesGauge: '14' });
  }),
  'tow-corroded': spoil((_, w) => void (w('main.4').seen = [{ when: 'key-on', open: 12.6, loaded: 11.2, amps: 4.5 }])),
};

/** The place whose rules a trouble is of; the usual where not said. */
const PLACES: Readonly<Record<string, RuleSet>> = { 'tow-thin-by-code': RULE_SETS.uk };

describe('troubles of a tow interface', () => {
  it('are none on a sound one, parked, stopped, on the road and braking', () => {
    expect(checkRig({ ...van, tow: SOUND })).toEqual([]);
    expect(towTroubles(SOUND, vehicle).troubles).toEqual([]);
    expect(auditTow(SOUND, vehicle)).toMatchObject({ changes: [], left: [], contradictions: [] });
  });
  for (const { id } of TOW_TROUBLES)
    it(`${id} is seen where it is, named in numbers, and mended`, () => {
      const tow = BREAKS[id];
      expect(tow, 'a case for every row').toBeDefined();
      expect(checkRig({ ...van, tow: tow! })).toEqual([]);
      expect(towTroubles(tow!, vehicle, PLACES[id]).troubles.map((t) => t.id)).toContain(id);
      const { after, left, changes } = auditTow(tow!, vehicle, PLACES[id]);
      expect(left.map((t) => t.says)).toEqual([]);
      expect(after!.troubles).toEqual([]);
      expect(changes.length).toBeGreaterThan(0);
    });

  it('are by the rules of the place: mass for breakaway, copper by pin', () => {
    const ids = (tow: TowInterface, place: keyof typeof RULE_SETS) =>
      towTroubles(tow, vehicle, RULE_SETS[place]).troubles.map((t) => t.id);
    const { mass: _, ...bare } = BREAKS['tow-breakaway-missing']!;
    // 1,800 kg: over the Canadian and the usual American limit, under the Australian one, no matter in Britain.
    const at = (mass: number) => ({ ...bare, mass });
    for (const [place, kg, wanted] of [
      ['us', 1800, true],
      ['ca', 1800, true],
      ['au-nz', 1800, false],
      ['au-nz', 2000, true],
      ['uk', 3500, false],
      ['us', 1360, false],
    ] as const)
      expect([place, kg, ids(at(kg), place).includes('tow-breakaway-missing')]).toEqual([place, kg, wanted]);
    expect(ids(bare, 'us')).not.toContain('tow-breakaway-missing');
    const thin = BREAKS['tow-thin-by-code']!;
    expect(ids(thin, 'eu')).toContain('tow-thin-by-code');
    expect(ids(thin, 'us')).not.toContain('tow-thin-by-code');
    // 1.5 mm² is enough for lamps, 2.5 mm² is wanted at the charge pin alone.
    expect(
      towTroubles(thin, vehicle, RULE_SETS.uk)
        .troubles.filter((t) => t.id === 'tow-thin-by-code')
        .map((t) => t.at),
    ).toEqual(['main.9']);
  });

  it('hours until it no longer starts fall as the drain grows, and follow amp-hours over amps', () => {
    const hours = [100, 200, 400].map((watts) => {
      const tow = spoil((t) => void (t.fridge = { watts, trigger: 'none' }));
      return hoursToNoStart({ vehicle, solved: solveTow(tow, vehicle) });
    });
    expect(hours[0]!).toBeGreaterThan(hours[1]!);
    expect(hours[1]!).toBeGreaterThan(hours[2]!);
    // Twice the element, about half the time: its own pull on the volts takes the rest.
    expect(hours[0]! / hours[1]!).toBeGreaterThan(1.85);
    expect(hours[0]! / hours[1]!).toBeLessThan(2.1);
  });

  it('a thicker wire never gives less, a greater load never less drop', () => {
    const volts = (gauge: TowWay['gauge'], watts: number) =>
      new TowCircuit(
        new CompiledTow(
          spoil((t, w) => {
            // Without the charger: one that starves leaves the element more.
            Object.assign(w('power.plus'), { gauge, usesGauge: gauge, uses: ['fridge'] });
            t.fridge!.watts = watts;
          }),
          vehicle,
        ),
      )
        .solve(TOW_SITUATIONS[0]!)
        .uses.get('fridge')!.volts;
    for (const watts of [100, 290, 400]) expect(volts('4', watts)).toBeGreaterThan(volts('8', watts));
    expect(volts('8', 100)).toBeGreaterThan(volts('8', 400));
  });

  it('what leaves through feeds comes back through grounds and hitch', () => {
    for (const c of solveTow(SOUND, vehicle)) {
      const through = [...c.ways.values()].reduce((sum, f) => sum + f.amps, 0);
      expect(Math.abs(through - c.hitch)).toBeLessThan(1e-3);
    }
  });

  it('fifteen minutes of brakes is the yardstick (49 CFR 393.43)', () => {
    expect(BREAKAWAY_MINUTES).toBe(15);
    const of = (capacity: number, amps: number): TowInterface => ({
      ...SOUND,
      breakaway: { capacity, soc: 1 },
      brakes: { amps, supply: 'pin' },
    });
    expect(breakawayMinutes(of(10, 12))).toBeGreaterThan(15);
    expect(breakawayMinutes(of(5, 12))).toBeCloseTo(breakawayMinutes(of(10, 24)), 9);
  });
});

describe('connectors', () => {
  it('have every position once, inside their face, named by every convention', () => {
    for (const c of CONNECTORS) {
      expect(new Set(c.positions.map((p) => p.id)).size).toBe(c.positions.length);
      for (const p of c.positions)
        expect(Math.hypot(p.x, c.body === 'round' ? p.y : 0), `${c.id} ${p.id}`).toBeLessThan(0.9);
      for (const v of c.conventions) {
        expect(Object.keys(v.uses).sort(), `${c.id} ${v.id}`).toEqual(c.positions.map((p) => p.id).sort());
        expect(Object.keys(v.colours).sort()).toEqual(Object.keys(v.uses).sort());
      }
      for (const [i, a] of c.positions.entries())
        for (const b of c.positions.slice(i + 1))
          expect(Math.hypot(a.x - b.x, a.y - b.y), `${c.id} ${a.id} ${b.id}`).toBeGreaterThan(0.2);
    }
  });
  it('are mirrored from socket to plug, and back again', () => {
    for (const c of CONNECTORS) {
      const [socket, plug] = [facing(c, 'socket'), facing(c, 'plug')];
      socket.forEach((p, i) => {
        expect(plug[i]!.x).toBeCloseTo(-p.x, 12);
        expect(plug[i]!.y).toBe(p.y);
      });
    }
    // Face to face the same position meets itself: charge of the blade is upper left in the socket, upper right in the plug.
    expect(facing(connectorOf('blade-7'), 'socket').find((p) => p.id === '4')!.x).toBeLessThan(0);
    expect(facing(connectorOf('blade-7'), 'plug').find((p) => p.id === '4')!.x).toBeGreaterThan(0);
  });
  // Written out apart from the catalogue; from memory of SAE J2863, ISO 11446, ISO 1724, ISO 3732, AS 4177.5.
  it.each([
    ['blade-7', 'rv', { 1: 'ground', 2: 'brake', 3: 'tail', 4: 'charge', 5: 'left', 6: 'right', 7: 'reverse' }],
    ['blade-7', 'automotive', { 1: 'ground', 2: 'brake', 3: 'tail', 4: 'charge', 5: 'left', 6: 'right', 7: 'reverse' }],
    ['round-13', 'usual', { 3: 'ground', 9: 'charge', 10: 'switched', 11: 'ground-switched', 13: 'ground-charge' }],
    ['round-7n', 'usual', { 1: 'left', 3: 'ground', 4: 'right', 6: 'stop' }],
    ['round-7s', 'usual', { 1: 'reverse', 3: 'ground', 4: 'charge', 6: 'switched', 7: 'ground-switched' }],
    ['flat-7', 'usual', { 1: 'left', 3: 'ground', 4: 'right', 5: 'brake', 6: 'stop', 7: 'tail' }],
  ] as const)('%s, %s: as standardised', (id, convention, uses) => {
    expect(connectorOf(id).conventions.find((c) => c.id === convention)!.uses).toMatchObject(uses);
  });
  it('differ where shops differ: the centre of a 6-way is charge or brakes, never both', () => {
    const [a, b] = connectorOf('round-6').conventions;
    expect([a!.uses['a'], a!.uses['s']]).toEqual(['charge', 'brake']);
    expect([b!.uses['a'], b!.uses['s']]).toEqual(['brake', 'charge']);
  });
});

describe('readings at a position', () => {
  const way = (feed: TowWay['feed'], ...seen: PinSeen[]): TowWay => ({ pin: '4', feed, uses: [], ...wire, seen });
  it.each([
    ['constant', [{ when: 'key-off', open: 12.6 }]],
    [
      'ignition',
      [
        { when: 'key-off', open: 0.02 },
        { when: 'key-on', open: 12.4 },
      ],
    ],
    [
      'ignition',
      [
        { when: 'key-off', open: 0 },
        { when: 'key-on', open: 0 },
        { when: 'engine-on', open: 14 },
      ],
    ],
    [
      'tail',
      [
        { when: 'key-off', open: 0 },
        { when: 'lamps-on', open: 12.5 },
      ],
    ],
    [
      'brake',
      [
        { when: 'key-off', open: 0 },
        { when: 'brake-on', open: 12 },
      ],
    ],
  ] as [TowWay['feed'], PinSeen[]][])('that are true of %s say so', (feed, seen) => {
    expect(readPin(way(feed, ...seen))).toEqual({ feed, reversed: false, contradictions: [] });
  });
  it('that cannot all be true are told', () => {
    expect(
      readPin(way('constant', { when: 'key-off', open: 12.5 }, { when: 'key-on', open: 0 })).contradictions[0],
    ).toContain('Live with the key off but dead');
    expect(readPin(way('constant', { when: 'key-off', open: 11, loaded: 12.5, amps: 4 })).contradictions[0]).toContain(
      'more than',
    );
    expect(readPin(way('ignition', { when: 'key-off', open: 12.5 })).contradictions[0]).toContain(
      'measured as a constant feed',
    );
    expect(readPin(way('none', { when: 'key-off', open: 4 })).contradictions[0]).toContain('neither live nor dead');
    expect(readPin(way('constant', { when: 'key-off', open: -12.5 })).reversed).toBe(true);
  });
  it('are no contradiction where one of the two was not read', () => {
    const says = (...seen: PinSeen[]) => readPin(way('constant', ...seen)).contradictions.join(' ');
    // Dead with the key on alone says nothing of the key off, and the other way round.
    expect(says({ when: 'key-on', open: 0 })).not.toContain('but dead');
    expect(says({ when: 'key-off', open: 12.5 })).toBe('');
    expect(says({ when: 'key-off', open: 12.5 }, { when: 'engine-on', open: 0 })).toContain('Live with the key off');
    expect(says({ when: 'key-on', open: 12.5 }, { when: 'engine-on', open: 0 })).toContain('Live with the key on');
    expect(says({ when: 'key-on', open: 12.5 }, { when: 'engine-on', open: 13.8 })).not.toContain('but dead');
  });
  it('tell what feeds a position only where they are enough', () => {
    const feed = (described: TowWay['feed'], ...seen: PinSeen[]) => readPin(way(described, ...seen)).feed;
    const dead = (when: PinSeen['when']): PinSeen => ({ when, open: 0 });
    expect(feed('none', dead('key-off'))).toBeUndefined();
    expect(feed('none', dead('key-off'), dead('key-on'), dead('engine-on'), dead('lamps-on'))).toBeUndefined();
    expect(feed('none', dead('key-off'), dead('key-on'), dead('engine-on'), dead('lamps-on'), dead('brake-on'))).toBe(
      'none',
    );
    expect(feed('stop', dead('key-off'), { when: 'brake-on', open: 12 })).toBe('stop');
    expect(feed('left', dead('key-off'), { when: 'brake-on', open: 12 })).toBe('left');
    expect(feed('tail', dead('key-off'), { when: 'brake-on', open: 12 })).toBe('brake');
    // Without the key off nothing tells a constant feed from the others.
    expect(feed('tail', { when: 'lamps-on', open: 12 })).toBeUndefined();
  });
  it('under load give the contact: volts lost over amps', () => {
    expect(contactOhms(way('constant', { when: 'key-off', open: 12.5, loaded: 10, amps: 5 }))).toBeCloseTo(0.5, 9);
    expect(contactOhms(way('constant', { when: 'key-off', open: 12.5 }))).toBeUndefined();
  });
});

describe('what the audit puts in', () => {
  /** Minutes a breakaway battery holds the brakes, worked out once more: 55 % of its charge in a quarter of an hour. */
  const minutes = (ah: number, soc: number, amps: number) => (ah * soc * 0.55 * 60) / amps;

  it.each([6, 10, 12, 16, 20])(
    'holds brakes of %d A for a quarter of an hour by the smallest battery that does',
    (amps) => {
      const tow = spoil((t) => {
        t.brakes = { amps, supply: 'pin' };
        t.breakaway = { capacity: 5, soc: 0.9 };
      });
      const { before, after } = auditTow(tow, vehicle);
      const short = minutes(5, 0.9, amps) < 15;
      expect(before.troubles.some((t) => t.id === 'tow-breakaway-short')).toBe(short);
      if (!short) return;
      const fitted = after!.tow.breakaway!.capacity;
      const sizes = [5, 7, 9, 12, 18];
      expect(sizes).toContain(fitted);
      expect(minutes(fitted, 0.9, amps)).toBeGreaterThanOrEqual(15);
      for (const smaller of sizes.filter((s) => s < fitted)) expect(minutes(smaller, 0.9, amps)).toBeLessThan(15);
    },
  );

  it('leaves a breakaway nobody can make large enough to the technician', () => {
    const { left } = auditTow(
      spoil((t) => (t.brakes = { amps: 60, supply: 'pin' })),
      vehicle,
    );
    expect(left.map((t) => t.id)).toContain('tow-breakaway-short');
  });

  it('swaps leads only where the meter showed them reversed, and forgets what was read at that plug', () => {
    const read = (open: number) =>
      spoil((_, w) => {
        w('power.plus').seen = [{ when: 'key-off', open }];
      });
    const reversed = auditTow(read(-12.6), vehicle);
    expect(reversed.before.troubles.map((t) => t.id)).toContain('tow-polarity');
    expect(reversed.changes.map((c) => c.says).join()).toMatch(/Swap plus and ground/);
    expect(reversed.after!.tow.plugs[1]!.ways.every((w) => w.seen === undefined)).toBe(true);
    expect(auditTow(read(12.6), vehicle).changes).toEqual([]);
  });
});

describe('a badly described interface', () => {
  const wrong = (tow: TowInterface) => checkRig({ ...van, tow }).map((i) => `${i.pointer}: ${i.wanted}`);
  it('is told at its place what is wanted', () => {
    expect(wrong(spoil((t) => t.plugs[0]!.ways.push({ ...t.plugs[0]!.ways[0]!, feed: 'constant' })))[0]).toMatch(
      /^\/tow\/plugs\/0\/ways\/6\/pin: one row for a position/,
    );
    expect(wrong(spoil((_, w) => void (w('main.3').pin = '9')))[0]).toMatch(
      /^\/tow\/plugs\/0\/ways\/2\/pin: a position of the 7-way blade/,
    );
    expect(wrong(spoil((_, w) => void (w('main.3').uses = ['ground', 'tail'])))[0]).toMatch(/ground alone/);
    expect(wrong(spoil((_, w) => void (w('main.3').uses = ['charger']))).join()).toMatch(/it once/);
    expect(wrong(spoil((t) => delete t.fridge)).join()).toMatch(/\/tow\/fridge: fridge described/);
    expect(wrong(spoil((_, w) => void (w('main.4').seen = [{ when: 'key-on', open: 12, loaded: 11 }])))[0]).toMatch(
      /together, or neither/,
    );
    expect(
      wrong(
        spoil(
          (_, w) =>
            void (w('main.4').seen = [
              { when: 'key-on', open: 12 },
              { when: 'key-on', open: 0 },
            ]),
        ),
      )[0],
    ).toMatch(/one reading for a condition/);
  });
});

describe('the interface of a rig nobody has described', () => {
  it('is its charge line as drawn, with the usual lamps, brakes and breakaway battery', () => {
    const tow = usualTow(rigOf('second-battery', 'chained'))!;
    const charge = tow.plugs.flatMap((p) => p.ways).find((w) => w.uses.includes('charger'))!;
    expect(charge).toMatchObject({ from: 'accessory', feed: 'constant' });
    expect(usualTow(rigOf('trailer', 'thin-line'))!.plugs[0]!.ways.find((w) => w.pin === '4')).toMatchObject({
      feed: 'ignition',
      uses: ['bank', 'breakaway'],
      gauge: '10',
    });
    expect(usualTow(rigOf('towed-car', 'thin-line'))!.brakes).toBeUndefined();
    for (const f of Object.keys(USUAL_COUPLED) as (keyof typeof USUAL_COUPLED)[]) {
      const rig = coupledRig('t', 'T', USUAL_COUPLED[f]);
      expect(checkRig({ ...rig, tow: usualTow(rig)! }), f).toEqual([]);
    }
  });
  it('needs a vehicle with an alternator and a start battery', () => {
    expect(towVehicle({ ...van, parts: van.parts.filter((p) => p.kind !== 'alternator') })).toBeUndefined();
    const v: TowVehicle = vehicle;
    expect(v.accessory?.chargerAmps).toBe(25);
  });
});
