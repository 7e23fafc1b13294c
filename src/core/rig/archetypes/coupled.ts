/**
 * Two coupled vehicles from a handful of choices: tow vehicle and trailer, truck and camper, motorhome and
 * towed car, van with a second battery, 48 V trailer. Lengths and joints are a plausible rig's, all assumed.
 */
import { METRES_PER_FOOT } from '../../units/preferences';
import type { PartKindId } from '../../parts/kinds';
import { POST_LEAD_METRES } from '../insertFuse';
import { assumed, type Parameter } from '../../units/parameter';
import type { Bond, Conductor, Ground, Part, Probe, Rig } from '../schema';
import type { BankChoice } from './choicesSchema';
import { COUPLED_FAMILIES, USUAL_VAN_AMPS, type CoupledFamily, type CoupledLink } from './coupledChoices';
import type { CoupledChoices } from './coupledSchema';
import {
  at,
  bankNote,
  cable,
  chargerGauge,
  drawPart,
  fuseAbove,
  fuseRating,
  fuseType,
  gaugeCarrying,
  lineGauge,
  PROFILES,
  startingAmps,
} from './drawing';

const flooded = (capacity: number): BankChoice => ({ chemistry: 'flooded', layout: 'single', capacity });
const USUAL: Omit<CoupledChoices, 'family'> = {
  towLength: 19 * METRES_PER_FOOT,
  behindLength: 24 * METRES_PER_FOOT,
  alternatorAmps: 160,
  smart: false,
  link: 'thin-line',
  feed: 'ignition',
  start: flooded(90),
  behind: { ...flooded(200), layout: 'parallel' },
  shore: true,
  solar: false,
  fridge: false,
};

/** A usual rig of each family. */
export const USUAL_COUPLED: Readonly<Record<CoupledFamily, CoupledChoices>> = {
  trailer: { ...USUAL, family: 'trailer' },
  camper: { ...USUAL, family: 'camper', behindLength: 10 * METRES_PER_FOOT, behind: flooded(100), fridge: true },
  'towed-car': {
    ...USUAL,
    family: 'towed-car',
    towLength: 32 * METRES_PER_FOOT,
    behindLength: 13 * METRES_PER_FOOT,
    alternatorAmps: 150,
    start: flooded(110),
    behind: flooded(50),
    shore: false,
  },
  'second-battery': {
    ...USUAL,
    family: 'second-battery',
    link: 'chained',
    behindLength: 16 * METRES_PER_FOOT,
    alternatorAmps: 150,
    smart: true,
    start: { ...flooded(90), chemistry: 'agm' },
    accessory: { chemistry: 'agm', layout: 'single', capacity: 100 },
    behind: { chemistry: 'agm', layout: 'single', capacity: 100 },
    dcdcAmps: 25,
    shore: false,
    fridge: true,
  },
  'trailer-48': {
    ...USUAL,
    family: 'trailer-48',
    link: 'dcdc',
    dcdcAmps: 12,
    alternatorAmps: 220,
    behindLength: 28 * METRES_PER_FOOT,
    behind: { chemistry: 'lfp', layout: 'single', capacity: 100 },
    solar: true,
  },
};

const WORDS: Readonly<
  Record<
    CoupledFamily,
    {
      tow: string;
      behind: string;
      bank: string;
      role: Rig['vehicles'][number]['role'];
      behindRole: Rig['vehicles'][number]['role'];
    }
  >
> = {
  trailer: { tow: 'Truck', behind: 'Trailer', bank: 'Trailer bank', role: 'tow-vehicle', behindRole: 'trailer' },
  camper: { tow: 'Truck', behind: 'Camper', bank: 'Camper bank', role: 'tow-vehicle', behindRole: 'camper' },
  'towed-car': {
    tow: 'Motorhome',
    behind: 'Towed car',
    bank: 'Car battery',
    role: 'motorhome',
    behindRole: 'towed-car',
  },
  'second-battery': { tow: 'Van', behind: 'Trailer', bank: 'Trailer bank', role: 'van', behindRole: 'trailer' },
  'trailer-48': { tow: 'Truck', behind: 'Trailer', bank: 'Trailer bank', role: 'tow-vehicle', behindRole: 'trailer' },
};

/** Metres between the vehicles; a camper stands on the bed. */
const GAP = { trailer: 1.2, camper: -2.2, 'towed-car': 1.8, 'second-battery': 1, 'trailer-48': 1.2 } as const;

/** W of a three-way fridge's 12 V element in North America, 23–25 A: common practice. */
const FRIDGE_WATTS = 290;
/** A it draws at the volts of a running engine's line. */
const fridgeAmps = (c: CoupledChoices): number => (c.fridgeWatts ?? FRIDGE_WATTS) / 11.6;

/** A of the fuses of a line that a 55 W lamp limits to some 5 A, and of a fridge element's own. Common practice. */
const LAMP_LINE = { vehicle: 20, behind: 15 } as const;
const FRIDGE_FUSE_AMPS = 30;

const heavy = (link: CoupledLink) =>
  link === 'heavy-line' || link === 'dcdc' || link === 'dcdc-dual' || link === 'chained';
const charges = (link: CoupledLink) => link.startsWith('dcdc') || link === 'chained';

/** What every section of the drawing is drawn with. */
type Draft = ReturnType<typeof draftOf>;

/** Where everything sits, what the link asks for, how thick and how well fused its line is. */
// eslint-disable-next-line max-lines-per-function, complexity -- a table: where each thing stands, what each choice makes of it
function draftOf(c: CoupledChoices) {
  const words = WORDS[c.family];
  const from = c.towLength + GAP[c.family];
  const station = (tow: boolean, share: number) =>
    Number((tow ? share * c.towLength : from + share * c.behindLength).toFixed(3));
  const S = {
    alternator: station(true, 0.08),
    bank: station(true, 0.16),
    loads: station(true, 0.22),
    fuse: station(true, 0.16) + POST_LEAD_METRES,
    relay: station(true, 0.34),
    ignition: station(true, 0.42),
    accessoryCharger: station(true, 0.55),
    accessory: station(true, 0.68),
    socket: station(true, 1) - 0.1,
    plug: station(false, 0.02),
    charger: station(false, 0.12),
    behindFuse: station(false, 0.28) - POST_LEAD_METRES,
    behind: station(false, 0.28),
    shore: station(false, 0.42),
    house: station(false, 0.55),
    fridge: station(false, 0.7),
    solar: station(false, 0.8),
    brake: station(false, 0.9),
  };
  const run = (a: number, b: number) => Math.abs(a - b);
  const part = (
    partId: string,
    kind: PartKindId,
    where: number,
    side: Part['side'],
    place: string,
    partName: string,
    note: string,
    params?: Record<string, Parameter>,
    options?: Record<string, string>,
  ): Part =>
    drawPart({
      id: partId,
      kind,
      vehicle: side === 'engine' || place === words.tow ? 'tow' : 'behind',
      station: where,
      side,
      place,
      name: partName,
      note,
      ...(params ? { params } : {}),
      ...(options ? { options } : {}),
    });
  const bank = (
    partId: string,
    where: number,
    side: Part['side'],
    place: string,
    partName: string,
    b: BankChoice,
    soc: number,
    options: Record<string, string> = {},
  ) =>
    part(
      partId,
      'battery-bank',
      where,
      side,
      place,
      partName,
      bankNote(b),
      {
        capacity: assumed(b.capacity, 0.1),
        soc: assumed(soc, 0.12),
        // It starts an engine: the vehicle in front, or the car behind.
        ...(side === 'engine' || (c.family === 'towed-car' && partId === 'coach-bank') ? { cca: startingAmps(b) } : {}),
      },
      { chemistry: b.chemistry, layout: b.layout, ...options },
    );

  const car = c.family === 'towed-car';
  const chained = c.link === 'chained';
  // A line laid for a charger is switched where a fridge hangs on it: its element stops with the ignition.
  const fridgeLine = c.fridge && heavy(c.link) && !chained;
  const relayed =
    c.link === 'heavy-line' ||
    (c.feed === 'ignition' && (fridgeLine || c.link === 'dcdc-pin' || (!charges(c.link) && c.link !== 'diode-lamp')));
  const amps = c.dcdcAmps ?? (c.link === 'dcdc-pin' ? 12 : 40);
  const vanAmps = c.accessoryAmps ?? USUAL_VAN_AMPS;
  const outVolts = c.family === 'trailer-48' ? 4 : 1;
  // One made for a tow connector's pin is rated by what it takes; any other by what it gives.
  const inAmps = c.link === 'dcdc-pin' ? amps : amps * outVolts * 1.3;
  const lineAmps = (c.link === 'heavy-line' ? 50 : inAmps) + (fridgeLine ? fridgeAmps(c) : 0);
  const lineMetres = 2 * (run(chained ? S.accessory : S.fuse, S.socket) + run(S.plug, S.charger)) + 4;
  const line = heavy(c.link) ? lineGauge(lineAmps, lineMetres) : '10';
  const dual = c.link === 'dcdc-dual';
  // A dual-input charger takes the panels itself.
  const solar = c.solar && !dual;
  const feed = chained ? 'accessory-bank' : 'chassis-bank';
  const feedStation = chained ? S.accessory : S.bank;
  const profile = PROFILES[c.behind.chemistry];
  const scaled = (value: number, spread: number) => assumed(value * outVolts, spread * outVolts);
  const enable = c.enable ?? 'ignition';

  const lineRating = heavy(c.link)
    ? fuseAbove((c.link === 'heavy-line' ? 80 : inAmps * 1.25) + (fridgeLine ? fridgeAmps(c) * 1.25 : 0))
    : c.link === 'diode-lamp'
      ? LAMP_LINE.vehicle
      : 30;
  const behindRating = charges(c.link)
    ? fuseAbove(amps * 1.25)
    : heavy(c.link)
      ? lineRating
      : c.link === 'diode-lamp'
        ? LAMP_LINE.behind
        : 30;
  const afterFuse = relayed ? 'link.coach-stud' : 'link-fuse.load';
  const lineLength = run(relayed ? S.relay : chained ? S.accessory : S.fuse, S.socket) + 1.15;
  return {
    c,
    words,
    S,
    run,
    part,
    bank,
    car,
    chained,
    relayed,
    amps,
    vanAmps,
    outVolts,
    inAmps,
    line,
    dual,
    solar,
    feed,
    feedStation,
    profile,
    scaled,
    enable,
    lineRating,
    behindRating,
    afterFuse,
    lineLength,
  };
}

// The sections below are the drawing itself: rows of parts, cables, grounds and probes.

function towParts({ c, words, S, part, bank, car, chained, relayed, vanAmps, lineRating }: Draft): Part[] {
  return [
    part(
      'alternator',
      'alternator',
      S.alternator,
      'engine',
      words.tow,
      'Alternator',
      `${c.alternatorAmps} A${c.smart ? ', smart' : ''}`,
      {
        idleLimit: assumed(Math.round(c.alternatorAmps * 0.55), 0.18),
        fastLimit: assumed(Math.round(c.alternatorAmps * 0.88), 0.12),
        setPoint: assumed(c.smart ? 14.4 : 14.15, 0.2),
      },
      { regulator: c.smart ? 'smart' : 'ordinary' },
    ),
    bank('chassis-bank', S.bank, 'engine', words.tow, 'Start battery', c.start, 0.9),
    part(
      'chassis-loads',
      'chassis-loads',
      S.loads,
      'engine',
      words.tow,
      car ? 'Chassis loads' : `${words.tow} loads`,
      'fuse panel',
      { starter: assumed(Math.round(2.6 * c.start.capacity), 0.2) },
    ),
    // A factory line has a breaker that closes again by itself: common practice.
    heavy(c.link)
      ? part(
          'link-fuse',
          'link-fuse',
          chained ? S.accessory + POST_LEAD_METRES : S.fuse,
          chained ? 'coach' : 'engine',
          words.tow,
          'Line fuse',
          `${lineRating} A`,
          { element: assumed(0.0009, 0.35, 'from memory'), rating: fuseRating(lineRating) },
          { type: fuseType(lineRating, [chained ? c.accessory! : c.start, c.behind], 12) },
        )
      : part('link-fuse', 'line-breaker', S.fuse, 'engine', words.tow, 'Line breaker', `${lineRating} A`, {
          rating: assumed(lineRating, 0.05),
        }),
    ...(relayed
      ? [
          part(
            'link',
            'link-solenoid',
            S.relay,
            'engine',
            words.tow,
            heavy(c.link) ? 'Isolator' : 'Line relay',
            heavy(c.link) ? '200 A' : '30 A',
            heavy(c.link) ? {} : { contact: assumed(0.006, 0.4, 'from memory'), coil: assumed(80, 0.1, 'from memory') },
          ),
        ]
      : []),
    part('ignition', 'ignition-switch', S.ignition, 'engine', words.tow, 'Ignition', 'dash'),
    ...(c.accessory
      ? [
          part(
            'accessory-charger',
            'dcdc-charger',
            S.accessoryCharger,
            'both',
            words.tow,
            'Van charger',
            `${vanAmps} A`,
            {
              limit: assumed(vanAmps, 0.05),
              inLimit: assumed(Math.round(vanAmps * 1.5), 0.1),
              tail: assumed(0.03 * c.accessory.capacity, 0.2),
            },
            { enable: 'ignition' },
          ),
          bank('accessory-bank', S.accessory, 'coach', words.tow, 'Accessory', c.accessory, 0.75),
        ]
      : []),
  ];
}

// eslint-disable-next-line max-lines-per-function, complexity -- a table: one row a part, its `?` the choices
function partsBehind({
  c,
  words,
  S,
  part,
  bank,
  car,
  amps,
  outVolts,
  inAmps,
  dual,
  solar,
  profile,
  scaled,
  enable,
  behindRating,
}: Draft): Part[] {
  return [
    part(
      'connector',
      'tow-connector',
      (S.socket + S.plug) / 2,
      'both',
      'Hitch',
      heavy(c.link) ? 'Power plug' : car ? '6-way plug' : '7-way plug',
      heavy(c.link) ? 'two-pole' : 'charge pin',
      heavy(c.link) ? { pin: assumed(0.0004, 0.4), groundPin: assumed(0.0004, 0.4) } : {},
    ),
    ...(charges(c.link)
      ? [
          part(
            'dcdc',
            dual ? 'dual-charger' : 'dcdc-charger',
            S.charger,
            'both',
            words.behind,
            dual ? 'Dual charger' : 'DC-DC charger',
            `${amps} A`,
            {
              limit: assumed(amps, 0.05),
              inLimit: c.link === 'dcdc-pin' ? assumed(amps, 0.05) : assumed(Math.round(inAmps * 1.2), 0.1),
              tail: assumed(Number((0.03 * c.behind.capacity).toFixed(1)), 0.2),
              absorb: scaled(profile.absorb, 0.06),
              float: scaled(profile.float, 0.06),
              rebulk: scaled(12.8, 0.1),
              // One made for thin pins bears a sagging input.
              ...(c.link === 'dcdc-pin' ? { lockout: assumed(10.8, 0.06), restart: assumed(12, 0.06) } : {}),
              ...(dual && !c.solar ? { panel: assumed(0, 0), amps: assumed(0, 0) } : {}),
            },
            { enable },
          ),
        ]
      : c.link === 'voltage-relay'
        ? [part('relay', 'voltage-relay', S.charger, 'both', words.behind, 'Voltage relay', 'closes at 13.1 V')]
        : c.link === 'diode-lamp'
          ? [part('helper', 'diode-lamp', S.charger, 'both', words.behind, 'Diode and lamp', '55 W')]
          : []),
    part(
      'behind-fuse',
      'link-fuse',
      S.behindFuse,
      'coach',
      words.behind,
      charges(c.link) ? 'Charger fuse' : 'Bank fuse',
      `${behindRating} A`,
      { element: assumed(heavy(c.link) ? 0.0009 : 0.004, 0.35, 'from memory'), rating: fuseRating(behindRating) },
      { type: fuseType(behindRating, charges(c.link) ? [c.behind] : [c.start, c.behind], outVolts * 12) },
    ),
    bank('coach-bank', S.behind, 'coach', words.behind, words.bank, c.behind, 0.6),
    car
      ? part('house', 'towed-car-loads', S.house, 'coach', words.behind, 'Car loads', 'accessory')
      : part('house', 'house-loads', S.house, 'coach', words.behind, `${words.behind} loads`, 'fuse panel'),
    ...(c.shore && !car
      ? [
          part('charger', 'shore-charger', S.shore, 'coach', words.behind, 'Converter', '45 A', {
            setPoint: scaled(c.behind.chemistry === 'gel' ? 14.1 : 14.3, 0.12),
            float: scaled(13.5, 0.08),
            limit: assumed(45 / outVolts, 0.1),
            tail: assumed(Number((0.03 * c.behind.capacity).toFixed(1)), 0.3),
          }),
        ]
      : []),
    ...(c.fridge
      ? [
          // What is laid for a charger is fused far too big for a fridge's wire.
          ...(heavy(c.link)
            ? [
                part(
                  'fridge-fuse',
                  'link-fuse',
                  S.plug + 0.3,
                  'coach',
                  words.behind,
                  'Fridge fuse',
                  `${FRIDGE_FUSE_AMPS} A`,
                  { element: assumed(0.0018, 0.35, 'from memory'), rating: fuseRating(FRIDGE_FUSE_AMPS) },
                  { type: fuseType(FRIDGE_FUSE_AMPS, [c.start, ...(c.accessory ? [c.accessory] : []), c.behind], 12) },
                ),
              ]
            : []),
          part(
            'fridge',
            'fridge-element',
            S.fridge,
            'coach',
            words.behind,
            'Fridge element',
            `${c.fridgeWatts ?? FRIDGE_WATTS} W`,
            c.fridgeWatts ? { watts: assumed(c.fridgeWatts, 0.15, 'usual where this shop works: read its label') } : {},
            { position: 'gas' },
          ),
        ]
      : []),
    ...(solar
      ? [
          part('solar', 'solar-charger', S.solar, 'coach', words.behind, 'Solar', 'roof', {
            setPoint: scaled(14.3, 0.12),
            float: scaled(13.5, 0.08),
          }),
        ]
      : []),
    ...(c.family === 'trailer-48'
      ? [
          // It closes again by itself: brakes that a passing short put out come back.
          part('brake-breaker', 'line-breaker', S.plug + 0.3, 'coach', words.behind, 'Brake breaker', '30 A', {
            rating: assumed(30, 0.05),
          }),
          bank(
            'brake-bank',
            S.brake,
            'coach',
            words.behind,
            'Brake battery',
            { chemistry: 'agm', layout: 'single', capacity: 12 },
            0.9,
            { nominal: '12' },
          ),
        ]
      : []),
  ];
}

// eslint-disable-next-line max-lines-per-function -- a table: one row a cable
function towCables({ c, S, run, relayed, line, feed, afterFuse, lineLength }: Draft): Conductor[] {
  return [
    cable(
      'alternator-cable',
      'Alternator cable',
      'feed',
      'alternator.output',
      'chassis-bank.plus',
      gaugeCarrying(Math.round(c.alternatorAmps * 0.88), '4'),
      run(S.alternator, S.bank) + 0.8,
      0.0005,
    ),
    cable(
      'chassis-feed',
      'Start battery to its fuse panel',
      'feed',
      'chassis-bank.plus',
      'chassis-loads.plus',
      '4',
      run(S.bank, S.loads) + 0.5,
      0.0006,
    ),
    cable(
      'dash-feed',
      'Start battery to ignition',
      'feed',
      'chassis-bank.plus',
      'ignition.feed',
      '8',
      run(S.bank, S.ignition) + 1,
      0.006,
    ),
    cable('fuse-lead', 'Lead to line fuse', 'feed', `${feed}.plus`, 'link-fuse.source', line, POST_LEAD_METRES, 0.0008),
    ...(relayed
      ? [
          cable(
            'relay-lead',
            'Lead to relay',
            'feed',
            'link-fuse.load',
            'link.chassis-stud',
            line,
            run(S.fuse, S.relay) + 0.45,
            0.001,
          ),
          cable(
            'coil-feed',
            'Ignition to relay coil',
            'control',
            'ignition.run',
            'link.coil-plus',
            '16',
            run(S.ignition, S.relay) + 1,
            0.02,
          ),
          cable('coil-ground', 'Relay coil to frame', 'return', 'link.coil-minus', 'frame.front', '16', 0.6, 0.01),
        ]
      : []),
    cable('line', 'Charge line', 'feed', afterFuse, 'connector.front', line, lineLength, heavy(c.link) ? 0.001 : 0.035),
    ...(c.accessory
      ? [
          cable(
            'accessory-input',
            'Van charger input',
            'feed',
            'chassis-bank.plus',
            'accessory-charger.input',
            '6',
            run(S.bank, S.accessoryCharger) + 0.8,
            0.001,
          ),
          cable(
            'accessory-output',
            'Van charger output',
            'feed',
            'accessory-charger.output',
            'accessory-bank.plus',
            '6',
            run(S.accessoryCharger, S.accessory) + 0.5,
            0.001,
          ),
          cable(
            'accessory-enable',
            'Ignition to van charger enable',
            'control',
            'ignition.run',
            'accessory-charger.enable',
            '16',
            run(S.ignition, S.accessoryCharger) + 1,
            0.02,
          ),
          cable(
            'accessory-ground',
            'Van charger to frame',
            'return',
            'accessory-charger.ground',
            'frame.front',
            '6',
            0.8,
            0.001,
          ),
          cable(
            'accessory-negative',
            'Accessory battery to frame',
            'return',
            'accessory-bank.minus',
            'frame.rear',
            '4',
            0.8,
            0.0008,
          ),
        ]
      : []),
  ];
}

// eslint-disable-next-line max-lines-per-function -- a table: one row a cable
function cablesBehind({ c, words, S, run, car, line, solar, enable }: Draft): Conductor[] {
  return [
    ...behindLine(c, line, S, run, enable),
    ...(car
      ? [
          cable(
            'house-feed',
            'Car battery to its loads',
            'feed',
            'coach-bank.plus',
            'house.plus',
            '8',
            run(S.behind, S.house) + 0.5,
            0.002,
          ),
        ]
      : [
          cable(
            'house-feed',
            `${words.bank} to its fuse panel`,
            'feed',
            'coach-bank.plus',
            'house.plus',
            '6',
            run(S.behind, S.house) + 0.6,
            0.0012,
          ),
        ]),
    ...(c.shore && !car
      ? [
          cable(
            'charger-cable',
            'Converter to bank',
            'feed',
            'charger.plus',
            'coach-bank.plus',
            '6',
            run(S.shore, S.behind) + 0.5,
            0.0012,
          ),
          cable(
            'charger-negative',
            'Converter to frame',
            'return',
            'charger.minus',
            'behind-frame.middle',
            '6',
            0.9,
            0.0012,
          ),
        ]
      : []),
    ...(solar
      ? [
          cable(
            'solar-cable',
            'Solar controller to bank',
            'feed',
            'solar.plus',
            'coach-bank.plus',
            '8',
            run(S.solar, S.behind) + 0.6,
            0.002,
          ),
          cable(
            'solar-negative',
            'Solar controller to frame',
            'return',
            'solar.minus',
            'behind-frame.middle',
            '8',
            0.9,
            0.002,
          ),
        ]
      : []),
    ...(c.fridge
      ? [
          ...(heavy(c.link)
            ? [
                cable(
                  'fridge-tap',
                  'Charge line to fridge fuse',
                  'feed',
                  'connector.rear',
                  'fridge-fuse.source',
                  '10',
                  POST_LEAD_METRES,
                  0.002,
                ),
              ]
            : []),
          cable(
            'fridge-feed',
            'Charge line to fridge element',
            'feed',
            heavy(c.link) ? 'fridge-fuse.load' : 'connector.rear',
            'fridge.plus',
            '10',
            run(S.plug, S.fridge) + 1,
            0.01,
          ),
          cable(
            'fridge-negative',
            'Fridge element to frame',
            'return',
            'fridge.minus',
            'behind-frame.middle',
            '10',
            1.2,
            0.01,
          ),
        ]
      : []),
    ...(c.family === 'trailer-48'
      ? [
          cable(
            'brake-negative',
            'Brake battery to frame',
            'return',
            'brake-bank.minus',
            'behind-frame.middle',
            '10',
            0.6,
            0.004,
          ),
        ]
      : []),
  ];
}

function returnsOf({ c, words, S, run, line }: Draft): Conductor[] {
  return [
    cable(
      'chassis-negative',
      'Start battery to frame',
      'return',
      'chassis-bank.minus',
      'frame.front',
      '2',
      0.6,
      0.0004,
    ),
    cable('engine-strap', 'Engine to frame', 'return', 'engine.block', 'frame.front', '2', 0.6, 0.0004),
    cable(
      'chassis-loads-negative',
      'Fuse panel to frame',
      'return',
      'chassis-loads.minus',
      'frame.front',
      '4',
      0.6,
      0.0008,
    ),
    cable(
      'line-return',
      'Connector ground to the frame',
      'return',
      'connector.front-ground',
      heavy(c.link) ? 'frame.front' : 'frame.rear',
      line,
      heavy(c.link) ? run(S.fuse, S.socket) + 0.6 : 0.8,
      heavy(c.link) ? 0.001 : 0.012,
    ),
    cable(
      'plug-return',
      'Connector ground behind',
      'return',
      'connector.rear-ground',
      'behind-frame.tongue',
      line,
      0.9,
      heavy(c.link) ? 0.001 : 0.012,
    ),
    cable(
      'coach-negative',
      `${words.bank} to frame`,
      'return',
      'coach-bank.minus',
      'behind-frame.middle',
      '4',
      0.8,
      0.0008,
    ),
    cable('house-negative', 'Loads to frame', 'return', 'house.minus', 'behind-frame.middle', '6', 0.9, 0.001),
  ];
}

function groundsOf({ words, S }: Draft): Ground[] {
  return [
    {
      id: 'frame',
      vehicle: 'tow',
      name: `${words.tow} frame`,
      points: [
        { id: 'front', label: 'frame bolt, front', station: S.loads, place: words.tow },
        { id: 'rear', label: 'frame bolt, rear', station: S.socket - 0.4, place: words.tow },
      ],
    },
    {
      id: 'behind-frame',
      vehicle: 'behind',
      name: `${words.behind} frame`,
      points: [
        { id: 'tongue', label: 'frame bolt, at the front', station: S.plug + 0.2, place: words.behind },
        { id: 'middle', label: 'frame bolt, at the bank', station: S.behind + 0.2, place: words.behind },
      ],
    },
    {
      id: 'engine',
      vehicle: 'tow',
      name: 'Engine block',
      points: [{ id: 'block', label: 'engine block, bare boss', station: S.alternator + 0.2, place: words.tow }],
    },
  ];
}

function bondsOf({ c, car }: Draft): Bond[] {
  return [
    {
      id: 'alternator-mount',
      name: 'Alternator case to engine block',
      from: at('alternator.case'),
      to: at('engine.block'),
      resistance: assumed(0.0002, 0.5, 'from memory'),
    },
    {
      id: 'hitch',
      name: car || c.family === 'camper' ? 'Metal between the vehicles' : 'Hitch ball and coupler',
      from: at('frame.rear'),
      to: at('behind-frame.tongue'),
      resistance: assumed(
        car || c.family === 'camper' ? 50 : 1,
        0.8,
        'from memory: greased metal, never a return to rely on',
      ),
    },
  ];
}

/** Points a technician measures, in the order of their labels. */
function probesOf({ c, words, car, relayed }: Draft): Probe[] {
  const wanted: [key: string, name: string][] = [
    ['alternator.output', 'Alternator stud'],
    ['chassis-bank.plus', 'Start +'],
    ['chassis-bank.minus', 'Start –'],
    ['link-fuse.source', 'Line fuse in'],
    ['link-fuse.load', 'Line fuse out'],
    ...(relayed
      ? ([
          ['link.coach-stud', 'Relay out'],
          ['link.coil-plus', 'Relay coil +'],
        ] as [string, string][])
      : []),
    ['ignition.run', 'Ignition out'],
    ...(c.accessory
      ? ([
          ['accessory-charger.input', 'Van charger in'],
          ['accessory-bank.plus', 'Accessory +'],
        ] as [string, string][])
      : []),
    ['connector.front', 'Charge pin, vehicle'],
    ['connector.rear', 'Charge pin, behind'],
    ['connector.rear-ground', 'Ground pin, behind'],
    ...(charges(c.link)
      ? ([
          ['dcdc.input', 'DC-DC in'],
          ['dcdc.output', 'DC-DC out'],
          ['dcdc.enable', 'DC-DC enable'],
        ] as [string, string][])
      : []),
    ...(c.link === 'voltage-relay' ? ([['relay.output', 'Voltage relay out']] as [string, string][]) : []),
    ...(c.link === 'diode-lamp' ? ([['helper.to', 'Lamp circuit out']] as [string, string][]) : []),
    ['behind-fuse.load', 'Bank fuse, line side'],
    ['coach-bank.plus', `${words.bank} +`],
    ['coach-bank.minus', `${words.bank} –`],
    ...(c.fridge ? ([['fridge.plus', 'Fridge element +']] as [string, string][]) : []),
    ...(c.shore && !car ? ([['charger.plus', 'Converter +']] as [string, string][]) : []),
    ['line.clamp', 'Charge line amps'],
    ['alternator-cable.clamp', 'Alternator amps'],
    ['coach-negative.clamp', `${words.bank} amps`],
  ];
  return wanted.map(([key, name], i) => ({ key, label: `P${i + 1}`, name }));
}

/** A whole rig from the choices. `id` and `name` are the rig's own. */
export function coupledRig(id: string, name: string, c: CoupledChoices): Rig {
  const draft = draftOf(c);
  const { words } = draft;
  return {
    id,
    name,
    made: { family: 'coupled', choices: c },
    kind: COUPLED_FAMILIES.find((f) => f.id === c.family)!.label,
    vehicles: [
      { id: 'tow', role: words.role, length: c.towLength, engineAt: 'front', nominalVolts: 12 },
      {
        id: 'behind',
        role: words.behindRole,
        length: c.behindLength,
        nominalVolts: c.family === 'trailer-48' ? 48 : 12,
        coupledTo: 'tow',
      },
    ],
    parts: [...towParts(draft), ...partsBehind(draft)],
    conductors: [...towCables(draft), ...cablesBehind(draft), ...returnsOf(draft)],
    grounds: groundsOf(draft),
    bonds: bondsOf(draft),
    probes: probesOf(draft),
    reference: at('frame.front'),
  };
}

/** What follows the connector, to the bank behind. */
// eslint-disable-next-line max-lines-per-function -- a table: one row a cable
function behindLine(
  c: CoupledChoices,
  line: Conductor['gauge'],
  S: Record<'plug' | 'charger' | 'behindFuse' | 'behind' | 'ignition' | 'brake' | 'socket', number>,
  run: (a: number, b: number) => number,
  enable: string,
): Conductor[] {
  const bankLead = (gauge: Conductor['gauge']) =>
    cable(
      'bank-lead',
      'Bank fuse to bank',
      'feed',
      'behind-fuse.source',
      'coach-bank.plus',
      gauge,
      POST_LEAD_METRES,
      0.0008,
    );
  const brake =
    c.family === 'trailer-48'
      ? [
          cable(
            'brake-tap',
            'Charge line to brake breaker',
            'feed',
            'connector.rear',
            'brake-breaker.source',
            '10',
            POST_LEAD_METRES,
            0.004,
          ),
          cable(
            'brake-feed',
            'Brake breaker to brake battery',
            'feed',
            'brake-breaker.load',
            'brake-bank.plus',
            '10',
            run(S.plug, S.brake) + 0.85,
            0.046,
          ),
        ]
      : [];
  if (charges(c.link)) {
    const out = chargerGauge(c.dcdcAmps ?? 12);
    return [
      cable(
        'plug-line',
        'Plug to DC-DC',
        'feed',
        'connector.rear',
        'dcdc.input',
        line,
        run(S.plug, S.charger) + 0.8,
        heavy(c.link) ? 0.001 : 0.02,
      ),
      cable(
        'dcdc-output',
        'DC-DC output',
        'feed',
        'dcdc.output',
        'behind-fuse.load',
        out,
        run(S.charger, S.behindFuse) + 0.4,
        0.001,
      ),
      bankLead(out),
      cable('dcdc-ground', 'DC-DC charger to frame', 'return', 'dcdc.ground', 'behind-frame.tongue', line, 0.8, 0.001),
      // Always on, and by volts: no wire to the front.
      ...(enable === 'always'
        ? [cable('dcdc-enable', 'DC-DC input to its enable', 'control', 'dcdc.input', 'dcdc.enable', '16', 0.3, 0.02)]
        : []),
      ...(enable === 'ignition' || enable === 'manual'
        ? [
            cable(
              'dcdc-enable',
              'Ignition to DC-DC enable',
              'control',
              'ignition.run',
              'dcdc.enable',
              '16',
              run(S.ignition, S.charger) + 2,
              0.05,
            ),
          ]
        : []),
      ...brake,
    ];
  }
  if (c.link === 'voltage-relay')
    return [
      cable(
        'plug-line',
        'Plug to relay',
        'feed',
        'connector.rear',
        'relay.input',
        line,
        run(S.plug, S.charger) + 0.8,
        0.02,
      ),
      cable(
        'relay-output',
        'Relay to fuse',
        'feed',
        'relay.output',
        'behind-fuse.load',
        line,
        run(S.charger, S.behindFuse) + 0.4,
        0.004,
      ),
      cable('relay-ground', 'Voltage relay to frame', 'return', 'relay.ground', 'behind-frame.tongue', '16', 0.5, 0.01),
      bankLead(line),
    ];
  if (c.link === 'diode-lamp')
    return [
      cable(
        'plug-line',
        'Plug to lamp',
        'feed',
        'connector.rear',
        'helper.from',
        '10',
        run(S.plug, S.charger) + 1,
        0.03,
      ),
      cable(
        'helper-output',
        'Lamp to fuse',
        'feed',
        'helper.to',
        'behind-fuse.load',
        '10',
        run(S.charger, S.behindFuse) + 0.4,
        0.02,
      ),
      bankLead('10'),
    ];
  return [
    cable(
      'plug-line',
      'Plug to bank fuse',
      'feed',
      'connector.rear',
      'behind-fuse.load',
      line,
      run(S.plug, S.behindFuse) + 0.8,
      heavy(c.link) ? 0.001 : 0.02,
    ),
    bankLead(line),
  ];
}
