/**
 * Two coupled vehicles from a handful of choices: tow vehicle and trailer, truck and camper, motorhome and
 * towed car, van with a second battery, 48 V trailer. Lengths and joints are a plausible rig's, all assumed.
 */
import { METRES_PER_FOOT } from '../../units/preferences';
import { POST_LEAD_METRES } from '../insertFuse';
import { assumed } from '../../units/parameter';
import type { Bond, Conductor, Ground, Part, Probe, Rig } from '../schema';
import type { BankChoice } from './choicesSchema';
import { COUPLED_FAMILIES, type CoupledFamily } from './coupledChoices';
import type { CoupledChoices } from './coupledSchema';
import { at, cable, fuseRating, fuseType, gaugeCarrying } from './drawing';
import { accessoryCables, accessoryParts } from './coupledAccessory';
import { charges, draftOf, heavy, type Draft } from './coupledDraft';
import { fridgeCables, fridgeParts } from './coupledFridge';
import { behindLine, chargerInFront, chargerPart, enableParts } from './coupledLine';
import { ignitionOptions } from './ignitionTap';

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

// The sections below are the drawing itself: rows of parts, cables, grounds and probes.

function towParts(draft: Draft): Part[] {
  const { c, words, S, part, bank, car, fromHouse, accessory, relayed, lineRating, inFront } = draft;
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
    // A factory line has a breaker that closes again by itself; what somebody laid from a house bank, a fuse there.
    heavy(c.link) || fromHouse
      ? part(
          'link-fuse',
          'link-fuse',
          fromHouse ? S.accessory + POST_LEAD_METRES : S.fuse,
          fromHouse ? 'coach' : 'engine',
          words.tow,
          'Line fuse',
          `${lineRating} A`,
          { element: assumed(0.0009, 0.35, 'from memory'), rating: fuseRating(lineRating) },
          {
            type:
              fromHouse && !heavy(c.link)
                ? // On the post of a big bank, and quick enough for a thin line at a few times its rating.
                  'terminal'
                : fuseType(lineRating, [fromHouse ? accessory! : c.start, c.behind], 12),
          },
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
    ...(inFront ? [...chargerPart(draft), ...enableParts(draft)] : []),
    part('ignition', 'ignition-switch', S.ignition, 'engine', words.tow, 'Ignition', 'dash', {}, ignitionOptions(c)),
    ...accessoryParts(draft),
  ];
}

// eslint-disable-next-line max-lines-per-function -- a table: one row a part, its `?` the choices
function partsBehind(draft: Draft): Part[] {
  const { c, words, S, part, bank, car, outVolts, solar, scaled, behindRating, inFront } = draft;
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
      ? inFront
        ? []
        : [...chargerPart(draft), ...enableParts(draft)]
      : c.link === 'voltage-relay'
        ? [part('relay', 'voltage-relay', S.charger, 'both', words.behind, 'Voltage relay', 'closes at 13.1 V')]
        : c.link === 'diode-lamp'
          ? [part('helper', 'diode-lamp', S.charger, 'both', words.behind, 'Diode and lamp', '55 W')]
          : []),
    ...(c.behindBreaker
      ? [
          // It parts the car from the line too, which a fuse does only with its cap off. Common practice.
          part(
            'behind-fuse',
            'line-breaker',
            S.behindFuse,
            'coach',
            words.behind,
            `${words.bank} breaker`,
            `${behindRating} A, by hand`,
            { rating: assumed(behindRating, 0.05) },
            { type: 'manual' },
          ),
        ]
      : [
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
        ]),
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
    ...fridgeParts(draft),
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

function towCables(draft: Draft): Conductor[] {
  const { c, S, run, fromHouse, relayed, line, feed, afterFuse, lineLength, inFront } = draft;
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
            run(fromHouse ? S.accessory : S.fuse, S.relay) + 0.45,
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
    ...(inFront ? chargerInFront(draft) : []),
    cable('line', 'Charge line', 'feed', afterFuse, 'connector.front', line, lineLength, heavy(c.link) ? 0.001 : 0.035),
    ...accessoryCables(draft),
  ];
}

// eslint-disable-next-line max-lines-per-function -- a table: one row a cable
function cablesBehind(draft: Draft): Conductor[] {
  const { c, words, S, run, car, solar } = draft;
  return [
    ...behindLine(draft),
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
    ...fridgeCables(draft),
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
function probesOf({ c, words, car, relayed, accessory, itself }: Draft): Probe[] {
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
    ...(accessory
      ? ([
          ['accessory-charger.input', `${words.accessoryCharger} in`],
          ['accessory-bank.plus', `${words.accessory} +`],
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
    ...(c.fridge && itself ? ([['fridge.trigger', 'Fridge trigger']] as [string, string][]) : []),
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
