/**
 * Any motorhome of one box from a handful of choices: where the engine is, which link, what the banks are.
 *
 * Lengths, gauges and joint resistances are a plausible rig's: every one is marked assumed until somebody
 * measures it on the real one. Ids do not depend on the choices: a probe keeps its key when the link changes.
 */
import { METRES_PER_FOOT } from '../../units/preferences';
import type { PartKindId } from '../../parts/kinds';
import { POST_LEAD_METRES } from '../insertFuse';
import { assumed, type Parameter } from '../../units/parameter';
import type { Conductor, Ground, Part, Probe, Rig } from '../schema';
import type { BankChoice, MotorhomeChoices } from './choicesSchema';
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
  PROFILES,
  startingAmps,
} from './drawing';

export const USUAL_MOTORHOME: MotorhomeChoices = {
  engineAt: 'rear',
  length: 36 * METRES_PER_FOOT,
  nominalVolts: 12,
  link: 'ignition-delay',
  boost: true,
  disconnect: 'switch',
  senseAt: 'bank',
  charger: 'charger',
  chargerAmps: 45,
  solar: false,
  generator: false,
  chassis: { chemistry: 'flooded', layout: 'parallel', capacity: 210 },
  coach: { chemistry: 'flooded', layout: 'series-parallel', capacity: 440 },
  alternatorAmps: 160,
};

/** Where things sit, as shares of the length from the nose; the front engine mirrors the engine side. */
const PLACES = {
  rear: {
    ignition: 2 / 36,
    boost: 4 / 36,
    switch: 5 / 36,
    house: 12 / 36,
    solar: 9 / 36,
    generator: 7 / 36,
    charger: 13 / 36,
    charger2: 10.5 / 36,
    disconnect: 15 / 36,
    coach: 17 / 36,
    module: 28 / 36,
    link: 29 / 36,
    fuse: 31.4 / 36,
    chassis: 32 / 36,
    loads: 33 / 36,
    alternator: 34.5 / 36,
  },
  front: {
    alternator: 2 / 36,
    loads: 3.6 / 36,
    chassis: 5 / 36,
    fuse: 5.6 / 36,
    link: 7.5 / 36,
    module: 9 / 36,
    ignition: 11 / 36,
    boost: 12 / 36,
    switch: 13 / 36,
    coach: 20 / 36,
    disconnect: 22 / 36,
    charger: 25 / 36,
    charger2: 29 / 36,
    house: 27 / 36,
    solar: 30 / 36,
    generator: 33 / 36,
  },
} as const;

const USUAL_DCDC_AMPS = 40;
/** What each kind of link is closed by, and how that is wired. */
// eslint-disable-next-line max-lines-per-function -- a table: one case a link
function linkParts(c: MotorhomeChoices, part: PartMaker, run: Runner): LinkDrawing {
  const volts = c.nominalVolts / 12;
  const scaled = (value: number, spread = 0.08): Parameter => assumed(value * volts, spread * volts);
  const chassisSense = cable(
    'chassis-sense',
    'Chassis sense to module',
    'control',
    'link-fuse.source',
    'delay.chassis-sense',
    '14',
    run('fuse', 'module') + 0.5,
    0.02,
  );
  const sensePoint =
    c.senseAt === 'behind-disconnect' && c.disconnect !== 'none' ? 'disconnect.house' : 'coach-bank.plus';
  const coachSense = cable(
    'coach-sense',
    'Coach sense to module',
    'control',
    sensePoint,
    'delay.coach-sense',
    '14',
    run('coach', 'module') + 0.5,
    0.02,
  );
  const ignitionWire = cable(
    'ignition-wire',
    'Ignition to module',
    'control',
    'ignition.run',
    'delay.ignition',
    '14',
    run('ignition', 'module') + 1,
    0.02,
  );
  const coilFeed = cable(
    'coil-feed',
    'Module to coil',
    'control',
    'delay.output',
    'link.coil-plus',
    '14',
    run('module', 'link') + 0.2,
    0.01,
  );
  const ground = cable('delay-ground', 'Module to frame', 'return', 'delay.ground', 'frame.bay-2', '14', 0.9, 0.01);
  const output: [string, string] = ['delay.output', 'Module out'];
  const senses: [string, string][] = [
    ['delay.chassis-sense', 'Chassis sense'],
    ['delay.coach-sense', 'Coach sense'],
  ];
  switch (c.link) {
    case 'ignition-delay':
      return {
        parts: [part('delay', 'ignition-delay-module', 'module', 'both', 'Link box', 'Delay module', '25 s')],
        conductors: [ignitionWire, coilFeed, ground],
        probes: [['delay.ignition', 'Ignition at module'], output],
      };
    case 'one-way':
      return {
        parts: [
          part('delay', 'voltage-link-module', 'module', 'both', 'Link box', 'Link module', 'one-way', {
            closeAt: scaled(13),
            openAt: scaled(12.85),
          }),
        ],
        conductors: [chassisSense, coilFeed, ground],
        probes: [['delay.chassis-sense', 'Chassis sense'], output],
      };
    case 'bidirectional':
      return {
        parts: [
          part('delay', 'bidirectional-module', 'module', 'both', 'Link box', 'Link module', 'two-way', {
            closeAt: scaled(13),
            openAt: scaled(12.8),
          }),
        ],
        conductors: [chassisSense, coachSense, coilFeed, ground],
        probes: [...senses, output],
      };
    case 'timed-window':
      return {
        parts: [
          part('delay', 'timed-window-module', 'module', 'both', 'Link box', 'Link module', '1 h window', {
            low: scaled(12.6, 0.05),
            chassisHigh: scaled(13.2, 0.05),
            coachHigh: scaled(13, 0.05),
          }),
        ],
        conductors: [chassisSense, coachSense, ignitionWire, coilFeed, ground],
        probes: [['delay.ignition', 'Ignition at module'], ...senses, output],
      };
    case 'switch':
      return {
        parts: [part('link-switch', 'link-switch', 'switch', 'engine', 'Dash', 'Link switch', 'dash, on')],
        conductors: [
          cable(
            'ignition-wire',
            'Ignition to link switch',
            'control',
            'ignition.run',
            'link-switch.feed',
            '14',
            run('ignition', 'switch') + 0.5,
            0.02,
          ),
          cable(
            'coil-feed',
            'Link switch to coil',
            'control',
            'link-switch.output',
            'link.coil-plus',
            '14',
            run('switch', 'link') + 1,
            0.02,
          ),
        ],
        probes: [['link-switch.output', 'Link switch out']],
      };
    case 'dcdc-boost':
    case 'dcdc':
      return chargerParts(c, part, run, scaled);
    case 'diode':
      return { parts: [], conductors: [], probes: [] };
  }
}

/** A DC-DC charger in place of the link, with its fuse, its enable, and a bypass round it where one is wanted. */
// eslint-disable-next-line max-lines-per-function -- a table: one row a part and a cable
function chargerParts(
  c: MotorhomeChoices,
  part: PartMaker,
  run: Runner,
  scaled: (value: number, spread?: number) => Parameter,
): LinkDrawing {
  const volts = c.nominalVolts / 12;
  const amps = c.dcdcAmps ?? USUAL_DCDC_AMPS;
  const outRating = fuseAbove(amps * 1.25);
  const inRating = fuseAbove(1.5 * amps * 1.25);
  const gauge = gaugeCarrying(inRating, chargerGauge(amps / volts));
  // With the isolator kept for boost there is a way round already.
  const bypass = c.bypass === true && c.link === 'dcdc';
  // Beside a heavy link the line's own fuse is far too big for the charger's lead: it has one where it begins.
  const ownFuse = bypass || c.link === 'dcdc-boost';
  return {
    parts: [
      part('dcdc', 'dcdc-charger', 'module', 'both', 'Link box', 'DC-DC charger', `${amps} A`, {
        limit: assumed(amps, 0.05),
        inLimit: assumed(Math.round(amps * 1.5), 0.1),
        tail: assumed(Number((0.03 * c.coach.capacity).toFixed(1)), 0.2),
        absorb: scaled(PROFILES[c.coach.chemistry].absorb, 0.06),
        float: scaled(PROFILES[c.coach.chemistry].float, 0.06),
        rebulk: scaled(12.8, 0.1),
        on: scaled(13.8, 0.06),
        off: scaled(13.2, 0.06),
        lockout: scaled(12.2, 0.06),
        restart: scaled(12.7, 0.06),
      }),
      part(
        'dcdc-fuse',
        'link-fuse',
        'coach',
        'coach',
        'Coach bay',
        'Charger fuse',
        `${outRating} A`,
        { rating: fuseRating(outRating) },
        { type: fuseType(outRating, [c.coach], c.nominalVolts) },
      ),
      ...(ownFuse
        ? [
            part(
              'dcdc-in-fuse',
              'link-fuse',
              'fuse',
              'engine',
              'Link box',
              'Charger in fuse',
              `${inRating} A`,
              { rating: fuseRating(inRating) },
              { type: fuseType(inRating, [c.chassis, c.coach], c.nominalVolts) },
            ),
          ]
        : []),
      ...(bypass
        ? [
            part('bypass', 'bypass-switch', 'link', 'both', 'Link box', 'Bypass', 'hand switch'),
            part(
              'bypass-fuse',
              'link-fuse',
              'disconnect',
              'coach',
              'Coach bay',
              'Bypass fuse',
              '150 A',
              { rating: fuseRating(150) },
              { type: fuseType(150, [c.coach], c.nominalVolts) },
            ),
          ]
        : []),
    ],
    conductors: [
      ...(ownFuse
        ? [
            cable(
              'dcdc-tap',
              'Link fuse to charger fuse',
              'feed',
              'link-fuse.load',
              'dcdc-in-fuse.source',
              gauge,
              POST_LEAD_METRES,
              0.0004,
            ),
          ]
        : []),
      cable(
        'dcdc-input',
        'Link fuse to DC-DC charger',
        'feed',
        ownFuse ? 'dcdc-in-fuse.load' : 'link-fuse.load',
        'dcdc.input',
        gauge,
        run('fuse', 'module') + 0.85,
        0.0008,
      ),
      cable(
        'dcdc-output',
        'DC-DC charger to its fuse',
        'feed',
        'dcdc.output',
        'dcdc-fuse.load',
        gauge,
        run('module', 'coach') + 1,
        0.0008,
      ),
      cable(
        'dcdc-fuse-lead',
        'Charger fuse to coach bank',
        'feed',
        'dcdc-fuse.source',
        'coach-bank.plus',
        gauge,
        POST_LEAD_METRES,
        0.0006,
      ),
      cable('dcdc-ground', 'DC-DC charger to frame', 'return', 'dcdc.ground', 'frame.bay-2', gauge, 0.9, 0.0008),
      cable(
        'dcdc-enable',
        'Ignition to DC-DC enable',
        'control',
        'ignition.run',
        'dcdc.enable',
        '16',
        run('ignition', 'module') + 1,
        0.02,
      ),
      ...(bypass
        ? [
            cable(
              'bypass-lead',
              'Link fuse to bypass',
              'feed',
              'link-fuse.load',
              'bypass.chassis-stud',
              '1/0',
              run('fuse', 'link') + 0.75,
              0.0005,
            ),
            cable(
              'bypass-cable',
              'Bypass to its fuse',
              'feed',
              'bypass.coach-stud',
              'bypass-fuse.load',
              '1/0',
              run('link', 'coach') + 1.2,
              0.0008,
            ),
            cable(
              'bypass-fuse-lead',
              'Bypass fuse to coach bank',
              'feed',
              'bypass-fuse.source',
              'coach-bank.plus',
              '1/0',
              POST_LEAD_METRES,
              0.0005,
            ),
          ]
        : []),
    ],
    probes: [
      ['dcdc.input', 'DC-DC in'],
      ['dcdc.output', 'DC-DC out'],
      ['dcdc.enable', 'DC-DC enable'],
    ],
  };
}

/** What a link adds to the drawing. */
interface LinkDrawing {
  parts: Part[];
  conductors: Conductor[];
  probes: [string, string][];
}

type PlaceName = keyof (typeof PLACES)['rear'];
type Runner = (a: PlaceName, b: PlaceName) => number;
type PartMaker = (
  id: string,
  kind: PartKindId,
  where: PlaceName,
  side: Part['side'],
  place: string,
  name: string,
  note: string,
  params?: Record<string, Parameter>,
  options?: Record<string, string>,
) => Part;

/** What every section of the drawing is drawn with. */
type Draft = ReturnType<typeof draftOf>;

function draftOf(c: MotorhomeChoices) {
  const volts = c.nominalVolts / 12;
  const shares = PLACES[c.engineAt];
  const station = (where: PlaceName) => Number((shares[where] * c.length).toFixed(3));
  const run: Runner = (a, b) => Math.abs(station(a) - station(b));
  const part: PartMaker = (partId, kind, where, side, place, partName, note, params = {}, options) => {
    return drawPart({
      id: partId,
      kind,
      vehicle: 'coach',
      station: station(where),
      side,
      place,
      name: partName,
      note,
      params,
      ...(options ? { options } : {}),
    });
  };
  const scaled = (value: number, spread: number): Parameter => assumed(value * volts, spread * volts);
  const bank = (
    partId: string,
    where: PlaceName,
    side: Part['side'],
    place: string,
    partName: string,
    b: BankChoice,
    soc: Parameter,
  ) =>
    part(
      partId,
      'battery-bank',
      where,
      side,
      place,
      partName,
      bankNote(b),
      { capacity: assumed(b.capacity, 0.1), soc, ...(side === 'engine' ? { cca: startingAmps(b) } : {}) },
      { chemistry: b.chemistry, layout: b.layout },
    );
  const diode = c.link === 'diode';
  const solenoid = !diode && c.link !== 'dcdc';
  const hasDisconnect = c.disconnect !== 'none';
  const houseBus = hasDisconnect ? 'disconnect.house' : 'coach-bank.plus';
  const link = linkParts(c, part, run);
  const boost = c.boost && solenoid;
  const chargerName =
    c.charger === 'inverter-charger' ? 'Inverter-charger' : c.charger === 'converter' ? 'Converter' : 'Shore charger';
  const absorb = c.coach.chemistry === 'gel' ? 14.1 : c.charger === 'converter' ? 13.6 : 14.3;

  const linkRating = c.link === 'dcdc' && !c.bypass ? fuseAbove(1.5 * (c.dcdcAmps ?? USUAL_DCDC_AMPS) * 1.25) : 150;
  const chargerParams = {
    setPoint: scaled(absorb, 0.12),
    limit: assumed(c.chargerAmps, 0.1),
    float: scaled(c.coach.chemistry === 'lfp' ? 13.5 : 13.6, 0.08),
    tail: assumed(Number((0.03 * c.coach.capacity).toFixed(1)), 0.3),
  };

  const point = (where: PlaceName, feet: number) => Number((station(where) + feet * METRES_PER_FOOT).toFixed(3));
  return {
    c,
    station,
    run,
    dashAtEngine: c.engineAt === 'front',
    part,
    scaled,
    bank,
    diode,
    solenoid,
    hasDisconnect,
    houseBus,
    link,
    boost,
    chargerName,
    linkRating,
    chargerParams,
    volts,
    point,
    alternatorGauge: gaugeCarrying(Math.round(c.alternatorAmps * 0.88), '2'),
    chargerGaugeHere: gaugeCarrying(c.chargerAmps, '6'),
  };
}

// The sections below are the drawing itself: rows of parts, cables, grounds and probes, longer than any function should be.

// eslint-disable-next-line max-lines-per-function -- a table: one row a part
function partsOf({
  c,
  volts,
  part,
  scaled,
  bank,
  diode,
  solenoid,
  hasDisconnect,
  boost,
  chargerName,
  linkRating,
  chargerParams,
  link,
}: Draft): Part[] {
  return [
    part('ignition', 'ignition-switch', 'ignition', 'engine', 'Dash', 'Ignition', 'dash'),
    ...(boost ? [part('boost', 'boost-switch', 'boost', 'coach', 'Dash', 'Boost switch', 'dash, hold')] : []),
    part('house', 'house-loads', 'house', 'coach', 'Coach bay', 'House loads', 'fuse panel'),
    part(
      'charger',
      'shore-charger',
      'charger',
      'coach',
      'Coach bay',
      chargerName,
      `${c.chargerAmps} A`,
      chargerParams,
      { build: c.charger },
    ),
    ...(c.secondCharger
      ? [
          part(
            'charger-2',
            'shore-charger',
            'charger2',
            'coach',
            'Coach bay',
            'Second charger',
            `${c.chargerAmps} A, standby`,
            chargerParams,
            { build: c.charger, duty: 'standby' },
          ),
        ]
      : []),
    ...(c.solar
      ? [
          part('solar', 'solar-charger', 'solar', 'coach', 'Coach bay', 'Solar', 'roof', {
            setPoint: scaled(14.3, 0.12),
          }),
        ]
      : []),
    ...(c.generator
      ? [part('generator', 'generator', 'generator', 'coach', 'Coach bay', 'Generator', 'feeds charger')]
      : []),
    ...(hasDisconnect
      ? [
          part(
            'disconnect',
            'disconnect',
            'disconnect',
            'coach',
            'Coach bay',
            'Disconnect',
            c.disconnect === 'latching' ? 'latching' : '300 A rotary',
            {},
            { build: c.disconnect },
          ),
        ]
      : []),
    bank('coach-bank', 'coach', 'coach', 'Coach bay', 'Coach bank', c.coach, assumed(0.68, 0.15)),
    ...link.parts,
    ...(c.link === 'dcdc'
      ? []
      : [
          solenoid
            ? part('link', 'link-solenoid', 'link', 'both', 'Link box', 'Isolator', '200 A', {
                coil: assumed(15 * volts * volts, 0.1, 'from memory: continuous-duty coils 12–18 Ω at 12 V'),
                pullIn: scaled(8.2, 0.4),
                dropOut: scaled(4, 0.4),
              })
            : part('link', 'diode-isolator', 'link', 'both', 'Link box', 'Diode isolator', '2 × 120 A'),
        ]),
    ...(diode
      ? []
      : [
          part(
            'link-fuse',
            'link-fuse',
            'fuse',
            'engine',
            'Link box',
            'Link fuse',
            `${linkRating} A`,
            { rating: fuseRating(linkRating) },
            { type: fuseType(linkRating, [c.chassis, c.coach], c.nominalVolts) },
          ),
        ]),
    bank('chassis-bank', 'chassis', 'engine', 'Engine bay', 'Chassis bank', c.chassis, assumed(0.88, 0.08)),
    part('chassis-loads', 'chassis-loads', 'loads', 'engine', 'Engine bay', 'Chassis loads', 'fuse panel', {
      starter: assumed(Math.round((2.1 * c.chassis.capacity) / volts), 0.2),
    }),
    part('alternator', 'alternator', 'alternator', 'engine', 'Engine bay', 'Alternator', `${c.alternatorAmps} A`, {
      setPoint: scaled(diode ? 14.75 : 14.15, 0.2),
      idleLimit: assumed(Math.round(c.alternatorAmps * 0.625), 0.18),
      fastLimit: assumed(Math.round(c.alternatorAmps * 0.88), 0.12),
    }),
  ];
}

// eslint-disable-next-line max-lines-per-function -- a table: one row a cable
function feedsOf({
  c,
  run,
  diode,
  solenoid,
  hasDisconnect,
  houseBus,
  boost,
  alternatorGauge,
  chargerGaugeHere,
}: Draft): Conductor[] {
  return [
    ...(!diode
      ? [
          cable(
            'alternator-cable',
            'Alternator to chassis bank',
            'feed',
            'alternator.output',
            'chassis-bank.plus',
            alternatorGauge,
            run('alternator', 'chassis') + 0.76,
            0.0004,
          ),
          cable(
            'fuse-lead',
            'Chassis bank to link fuse',
            'feed',
            'chassis-bank.plus',
            'link-fuse.source',
            '1/0',
            POST_LEAD_METRES,
            0.0005,
          ),
          ...(solenoid
            ? [
                cable(
                  'link-lead',
                  'Link fuse to isolator',
                  'feed',
                  'link-fuse.load',
                  'link.chassis-stud',
                  '1/0',
                  run('fuse', 'link') + 0.75,
                  0.0005,
                ),
              ]
            : []),
        ]
      : [
          cable(
            'alternator-cable',
            'Alternator to isolator',
            'feed',
            'alternator.output',
            'link.input',
            alternatorGauge,
            run('alternator', 'link') + 0.6,
            0.0004,
          ),
          cable(
            'link-lead',
            'Isolator to chassis bank',
            'feed',
            'link.chassis-stud',
            'chassis-bank.plus',
            alternatorGauge,
            run('chassis', 'link') + 0.6,
            0.0005,
          ),
        ]),
    cable(
      'chassis-feed',
      'Chassis bank to its fuse panel',
      'feed',
      'chassis-bank.plus',
      'chassis-loads.plus',
      '4',
      run('chassis', 'loads') + 0.6,
      0.0006,
    ),
    ...(c.link === 'dcdc'
      ? []
      : [
          cable(
            'link-cable',
            'Isolator to coach bank',
            'feed',
            'link.coach-stud',
            'coach-bank.plus',
            '1/0',
            run('link', 'coach') + 1.2,
            0.0008,
          ),
        ]),
    ...(hasDisconnect
      ? [
          cable(
            'bank-lead',
            'Coach bank to disconnect',
            'feed',
            'coach-bank.plus',
            'disconnect.battery',
            '2/0',
            run('coach', 'disconnect') + 0.3,
            0.0005,
          ),
        ]
      : []),
    cable(
      'house-feed',
      hasDisconnect ? 'Disconnect to house panel' : 'Coach bank to house panel',
      'feed',
      houseBus,
      'house.plus',
      '2',
      run('disconnect', 'house') + 0.6,
      0.0006,
    ),
    cable(
      'charger-cable',
      hasDisconnect ? 'Charger to disconnect' : 'Charger to coach bank',
      'feed',
      houseBus,
      'charger.plus',
      chargerGaugeHere,
      run('disconnect', 'charger') + 0.6,
      0.0012,
    ),
    ...(c.secondCharger
      ? [
          cable(
            'charger-2-cable',
            'Second charger to bank',
            'feed',
            houseBus,
            'charger-2.plus',
            chargerGaugeHere,
            run('disconnect', 'charger2') + 0.6,
            0.0012,
          ),
        ]
      : []),
    ...(c.solar
      ? [
          cable(
            'solar-cable',
            'Solar controller to coach bank',
            'feed',
            'solar.plus',
            'coach-bank.plus',
            '8',
            run('solar', 'coach') + 0.6,
            0.002,
          ),
        ]
      : []),
    ...(c.generator
      ? [
          cable(
            'generator-lead',
            'Coach bank to generator start',
            'feed',
            'coach-bank.plus',
            'generator.plus',
            '2',
            run('generator', 'coach') + 0.9,
            0.0006,
          ),
        ]
      : []),
    cable(
      'dash-feed',
      'Chassis bank to ignition',
      'feed',
      'chassis-bank.plus',
      'ignition.feed',
      '8',
      run('chassis', 'ignition') + 1.2,
      0.006,
    ),
    ...(boost
      ? [
          cable(
            'boost-feed',
            'Coach bank to boost fuse',
            'feed',
            'coach-bank.plus',
            'boost.feed',
            '12',
            run('coach', 'boost') + 0.9,
            0.01,
          ),
          cable(
            'boost-wire',
            'Boost switch to coil',
            'control',
            'boost.output',
            'link.coil-plus',
            '14',
            run('boost', 'link') + 1.5,
            0.02,
          ),
        ]
      : []),
  ];
}

// eslint-disable-next-line max-lines-per-function -- a table: one row a cable
function returnsOf({ c, solenoid, chargerGaugeHere }: Draft): Conductor[] {
  return [
    ...(solenoid
      ? [cable('coil-ground', 'Coil to frame', 'return', 'link.coil-minus', 'frame.bay-2', '14', 0.9, 0.01)]
      : []),
    cable(
      'chassis-negative',
      'Chassis bank to frame',
      'return',
      'chassis-bank.minus',
      'frame.bay-3',
      '2/0',
      0.6,
      0.0004,
    ),
    cable('engine-strap', 'Engine to frame', 'return', 'engine.block', 'frame.bay-3', '2/0', 0.6, 0.0004),
    cable(
      'chassis-loads-negative',
      'Chassis panel to frame',
      'return',
      'chassis-loads.minus',
      'frame.bay-3',
      '4',
      0.9,
      0.0008,
    ),
    cable(
      'coach-negative',
      'Coach bank to house frame',
      'return',
      'coach-bank.minus',
      'house-frame.bay-1',
      '2/0',
      0.9,
      0.0005,
    ),
    cable(
      'charger-negative',
      'Charger to house frame',
      'return',
      'charger.minus',
      'house-frame.bay-1',
      chargerGaugeHere,
      1.2,
      0.0012,
    ),
    ...(c.secondCharger
      ? [
          cable(
            'charger-2-negative',
            'Second charger to house frame',
            'return',
            'charger-2.minus',
            'house-frame.bay-1',
            chargerGaugeHere,
            1.2,
            0.0012,
          ),
        ]
      : []),
    cable(
      'house-negative',
      'House panel to house frame',
      'return',
      'house.minus',
      'house-frame.bay-1',
      '2',
      1.2,
      0.0008,
    ),
    ...(c.generator
      ? [
          cable(
            'generator-negative',
            'Generator to house frame',
            'return',
            'generator.minus',
            'house-frame.bay-1',
            '2',
            0.9,
            0.0006,
          ),
        ]
      : []),
    ...(c.solar
      ? [
          cable(
            'solar-negative',
            'Solar controller to house frame',
            'return',
            'solar.minus',
            'house-frame.bay-1',
            '8',
            1.8,
            0.002,
          ),
        ]
      : []),
  ];
}

function groundsOf({ station, dashAtEngine, point }: Draft): Ground[] {
  return [
    {
      id: 'frame',
      vehicle: 'coach',
      name: 'Chassis frame',
      points: [
        { id: 'bay-2', label: 'frame bolt, bay 2', station: station('link'), place: 'Link box' },
        { id: 'bay-3', label: 'frame bolt, bay 3', station: station('loads'), place: 'Engine bay' },
      ],
    },
    {
      id: 'house-frame',
      vehicle: 'coach',
      name: 'House frame',
      points: [{ id: 'bay-1', label: 'house frame bolt, bay 1', station: point('coach', -1), place: 'Coach bay' }],
    },
    {
      id: 'engine',
      vehicle: 'coach',
      name: 'Engine block',
      points: [
        {
          id: 'block',
          label: 'engine block, bare boss',
          station: point('alternator', dashAtEngine ? 0.5 : -0.5),
          place: 'Engine bay',
        },
      ],
    },
  ];
}

/** Points a technician measures, in the order of their labels. */
function probesOf({ c, diode, solenoid, hasDisconnect, boost, link }: Draft): Probe[] {
  const wanted: [key: string, name: string][] = [
    ['ignition.run', 'Ignition out'],
    ...(boost
      ? ([
          ['boost.fused', 'Boost fuse out'],
          ['boost.output', 'Boost switch out'],
        ] as [string, string][])
      : []),
    ['charger.plus', 'Charger +'],
    ...(c.secondCharger
      ? ([
          ['charger-2.plus', 'Second charger +'],
          ['charger-2-cable.clamp', 'Second charger amps'],
        ] as [string, string][])
      : []),
    ['coach-bank.plus', 'Coach +'],
    ['coach-bank.minus', 'Coach –'],
    ...link.probes,
    ...(c.link === 'dcdc' ? [] : ([['link.coach-stud', 'Isolator coach stud']] as [string, string][])),
    ...(solenoid
      ? ([
          ['link.coil-plus', 'Coil +'],
          ['link.coil-minus', 'Coil –'],
        ] as [string, string][])
      : []),
    ...(c.link === 'dcdc' ? [] : ([['link.chassis-stud', 'Isolator chassis stud']] as [string, string][])),
    ...(!diode
      ? ([['link-fuse.source', 'Link fuse in']] as [string, string][])
      : ([['link.input', 'Isolator in']] as [string, string][])),
    ['chassis-bank.plus', 'Chassis +'],
    ['chassis-bank.minus', 'Chassis –'],
    ['alternator.output', 'Alternator stud'],
    ...(c.link === 'dcdc' ? [] : ([['link-cable.clamp', 'Link cable amps']] as [string, string][])),
    ...(c.link.startsWith('dcdc')
      ? ([
          ['dcdc-input.clamp', 'DC-DC in amps'],
          ['dcdc-output.clamp', 'DC-DC out amps'],
        ] as [string, string][])
      : []),
    ...(solenoid ? ([['coil-ground.clamp', 'Coil wire amps']] as [string, string][]) : []),
    ...(c.coach.layout.startsWith('series') ? ([['coach-bank.middle', 'Coach midpoint']] as [string, string][]) : []),
    ...(hasDisconnect ? ([['disconnect.house', 'Disconnect house side']] as [string, string][]) : []),
    ['chassis-negative.clamp', 'Chassis battery amps'],
    ['coach-negative.clamp', 'Coach battery amps'],
    ['alternator-cable.clamp', 'Alternator amps'],
    ...(boost ? ([['boost.feed', 'Boost fuse in']] as [string, string][]) : []),
    ['ignition.feed', 'Ignition in'],
    ...(c.link === 'switch' || c.link.startsWith('dcdc') || !solenoid
      ? []
      : ([['delay.ground', 'Module ground']] as [string, string][])),
  ];
  return wanted.map(([key, name], i) => ({ key, label: `P${i + 1}`, name }));
}

/** A whole rig from the choices. `id` and `name` are the rig's own; `kind` says what it is in a line. */
export function motorhome(id: string, name: string, choices: MotorhomeChoices = USUAL_MOTORHOME): Rig {
  const draft = draftOf(choices);
  const { c } = draft;
  return {
    id,
    name,
    made: { family: 'motorhome', choices: c },
    kind: `${Math.round(c.length / METRES_PER_FOOT)}-ft ${c.engineAt}-engine motorhome`,
    vehicles: [
      { id: 'coach', role: 'motorhome', length: c.length, engineAt: c.engineAt, nominalVolts: c.nominalVolts },
    ],
    parts: partsOf(draft),
    conductors: [...feedsOf(draft), ...draft.link.conductors, ...returnsOf(draft)],
    grounds: groundsOf(draft),
    bonds: [
      {
        id: 'frame-splice',
        name: 'House frame to chassis frame, bolted splices',
        from: at('house-frame.bay-1'),
        to: at('frame.bay-2'),
        resistance: assumed(0.0015, 0.4, 'from memory'),
      },
      {
        id: 'alternator-mount',
        name: 'Alternator case to engine block',
        from: at('alternator.case'),
        to: at('engine.block'),
        resistance: assumed(0.0002, 0.5, 'from memory'),
      },
    ],
    probes: probesOf(draft),
    reference: at('frame.bay-2'),
  };
}
