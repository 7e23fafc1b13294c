/**
 * Any motorhome of one box from a handful of choices: where the engine is, which link, what the banks are.
 *
 * Lengths, gauges and joint resistances are a plausible rig's: every one is marked assumed until somebody
 * measures it on the real one. Ids do not depend on the choices: a probe keeps its key when the link changes.
 */
import { METRES_PER_FOOT } from '../../units/preferences';
import { POST_LEAD_METRES } from '../insertFuse';
import { assumed } from '../../units/parameter';
import type { Conductor, Ground, Part, Probe, Rig } from '../schema';
import type { MotorhomeChoices } from './choicesSchema';
import { at, cable, fuseRating, fuseType } from './drawing';
import { draftOf, type Draft } from './motorhomeDraft';
import { ignitionOptions } from './ignitionTap';

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
  alone,
  solar,
  hasDisconnect,
  boost,
  chargerName,
  linkRating,
  chargerParams,
  link,
  maintainer,
}: Draft): Part[] {
  return [
    part('ignition', 'ignition-switch', 'ignition', 'engine', 'Dash', 'Ignition', 'dash', {}, ignitionOptions(c)),
    ...(boost
      ? [
          part(
            'boost',
            'boost-switch',
            'boost',
            'coach',
            'Dash',
            'Boost switch',
            c.switchPanel ? 'panel key' : 'dash, hold',
            {},
            c.switchPanel ? { built: 'panel' } : undefined,
          ),
        ]
      : []),
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
    ...(solar
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
    ...(c.monitor ? [part('shunt', 'shunt', 'shunt', 'coach', 'Coach bay', 'Monitor shunt', '500 A, 50 mV')] : []),
    ...link.parts,
    ...maintainer.parts,
    ...(alone
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
  alone,
  solar,
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
    ...(alone
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
    ...(solar
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
function returnsOf({ c, solenoid, solar, chargerGaugeHere }: Draft): Conductor[] {
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
    ...(c.monitor
      ? [
          cable('shunt-lead', 'Coach bank to shunt', 'return', 'coach-bank.minus', 'shunt.battery', '2/0', 0.3, 0.0004),
          cable(
            'coach-negative',
            'Shunt to house frame',
            'return',
            'shunt.system',
            'house-frame.bay-1',
            '2/0',
            0.7,
            0.0005,
          ),
        ]
      : [
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
        ]),
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
    ...(solar
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

function groundsOf({ c, station, dashAtEngine, point }: Draft): Ground[] {
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
      name: c.body === 'aluminum' ? 'Aluminum body' : 'House frame',
      ...(c.body === 'aluminum' ? { metal: 'aluminum' as const } : {}),
      points: [
        {
          id: 'bay-1',
          label: c.body === 'aluminum' ? 'aluminum body bolt, bay 1' : 'house frame bolt, bay 1',
          station: point('coach', -1),
          place: 'Coach bay',
        },
      ],
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
function probesOf({ c, diode, solenoid, alone, hasDisconnect, boost, link, maintainer }: Draft): Probe[] {
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
    ...(alone ? [] : ([['link.coach-stud', 'Isolator coach stud']] as [string, string][])),
    ...(solenoid
      ? ([
          ['link.coil-plus', 'Coil +'],
          ['link.coil-minus', 'Coil –'],
        ] as [string, string][])
      : []),
    ...(alone ? [] : ([['link.chassis-stud', 'Isolator chassis stud']] as [string, string][])),
    ...(!diode
      ? ([['link-fuse.source', 'Link fuse in']] as [string, string][])
      : ([['link.input', 'Isolator in']] as [string, string][])),
    ['chassis-bank.plus', 'Chassis +'],
    ['chassis-bank.minus', 'Chassis –'],
    ['alternator.output', 'Alternator stud'],
    ...(alone ? [] : ([['link-cable.clamp', 'Link cable amps']] as [string, string][])),
    ...(c.link.startsWith('dcdc')
      ? ([
          ['dcdc-input.clamp', 'DC-DC in amps'],
          ['dcdc-output.clamp', 'DC-DC out amps'],
        ] as [string, string][])
      : []),
    ...(solenoid ? ([['coil-ground.clamp', 'Coil wire amps']] as [string, string][]) : []),
    ...(c.coach.layout.startsWith('series') ? ([['coach-bank.middle', 'Coach midpoint']] as [string, string][]) : []),
    ...(c.monitor
      ? ([
          ['shunt.battery', 'Shunt, battery side'],
          ['shunt.system', 'Shunt, system side'],
        ] as [string, string][])
      : []),
    ...(hasDisconnect ? ([['disconnect.house', 'Disconnect house side']] as [string, string][]) : []),
    ['chassis-negative.clamp', 'Chassis battery amps'],
    ['coach-negative.clamp', 'Coach battery amps'],
    ['alternator-cable.clamp', 'Alternator amps'],
    ...(boost ? ([['boost.feed', 'Boost fuse in']] as [string, string][]) : []),
    ['ignition.feed', 'Ignition in'],
    ...(c.link === 'switch' || c.link.startsWith('dcdc') || !solenoid
      ? []
      : ([['delay.ground', 'Module ground']] as [string, string][])),
    ...maintainer.probes,
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
    conductors: [...feedsOf(draft), ...draft.link.conductors, ...draft.maintainer.conductors, ...returnsOf(draft)],
    grounds: groundsOf(draft),
    bonds: [
      {
        id: 'frame-splice',
        name:
          c.body === 'aluminum'
            ? 'Aluminum body to chassis frame, bolted'
            : 'House frame to chassis frame, bolted splices',
        from: at('house-frame.bay-1'),
        to: at('frame.bay-2'),
        // Aluminum grows a skin under a plain washer: a joint there is worse, and less sure.
        resistance: c.body === 'aluminum' ? assumed(0.004, 0.8, 'from memory') : assumed(0.0015, 0.4, 'from memory'),
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
