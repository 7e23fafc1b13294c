/** What tells the link to close: ignition switch, delay module, boost switch. */
import { COIL_FEED_WIRE_FAULTS, MODULE_FAULTS, weakOutput } from '../faults/modules';
import {
  BOOST_FAULTS,
  ENABLE_SWITCH_FAULTS,
  IGNITION_FAULTS,
  LINK_SWITCH_FAULTS,
  MARKER_LIGHT_FAULTS,
} from '../faults/switches';
import { driverLeak, leakOhms } from '../driverLeak';
import { flat, SMALL_PART } from '../price';
import { IGNITION_LIVE } from '../ignitionLive';
import { UNTOLD } from '../ownerSentence';
import { ignitionDelay } from '../../control/ignitionDelay';
import { assumed } from '../../units/parameter';
import { constant, definePart, METAL, param, type PartKind } from '../part';

export const ignitionSwitch = definePart({
  id: 'ignition-switch',
  label: 'Ignition',
  role: 'control',
  traits: { ignition: true, carries: { feed: 30 } },
  terminals: [
    { id: 'feed', label: 'feed', lead: 'feed terminal behind the dash', accessMinutes: 2 },
    { id: 'run', label: 'run output', lead: 'run circuit, at the fuse panel tap', optional: true },
  ],
  options: {
    live: {
      label: 'Live',
      choices: [...IGNITION_LIVE],
      default: 'run',
    },
  },
  params: {
    contact: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Contact resistance',
      min: 1e-5,
      max: 10,
      default: assumed(0.02, 0.4),
    },
    others: {
      unit: 'A',
      scale: 'ratio',
      label: 'What else hangs on the run circuit',
      min: 0.01,
      max: 100,
      default: assumed(3, 0.7, 'from memory'),
    },
  },
  elements: [
    {
      kind: 'contact',
      id: 'contact',
      a: 'feed',
      b: 'run',
      ohms: {
        params: ['contact'],
        value: ([made], inputs, part) =>
          part.options['live'] === 'engine' && inputs.engine === 'off' ? Infinity : made!,
      },
      closedBy: { input: 'key' },
    },
    // Blower, gauges, radio: in every cab, and what makes a dash feed sag.
    {
      kind: 'contact',
      id: 'others',
      a: 'run',
      b: METAL,
      ohms: { params: ['others'], value: ([amps], _, part) => (1.04 * part.nominal) / amps! },
      closedBy: { input: 'key' },
    },
  ],
  faults: IGNITION_FAULTS,
  price: SMALL_PART,
  owner: UNTOLD,
  cautions: [],
  takes: null,
});

export const ignitionDelayModule = definePart({
  id: 'ignition-delay-module',
  label: 'Delay module',
  role: 'control',
  traits: { module: true, delays: true, engineOnly: true },
  terminals: [
    { id: 'ignition', label: 'ignition in', lead: 'ignition wire at the module' },
    { id: 'output', label: 'coil out', lead: 'coil wire at the module' },
    { id: 'ground', label: 'ground', lead: 'ground wire at the module' },
  ],
  params: {
    delay: { unit: 's', scale: 'ratio', label: 'Delay', min: 0, max: 600, default: assumed(25, 0.15) },
    contact: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Output resistance',
      min: 1e-4,
      max: 10,
      default: assumed(0.25, 0.8, 'from memory'),
    },
    leak: leakOhms,
  },
  elements: [
    {
      kind: 'contact',
      id: 'driver',
      a: 'ignition',
      b: 'output',
      ohms: param('contact'),
      closedBy: { controller: 'output' },
    },
    driverLeak('leak', 'ignition'),
    // 30 mA at 12 V to run its own electronics: from memory.
    { kind: 'resistor', id: 'supply', a: 'ignition', b: 'ground', ohms: constant(400) },
  ],
  controller: () => ({ kind: ignitionDelay, senses: { supply: ['ignition', 'ground'] }, settings: ['delay'] }),
  faults: [...MODULE_FAULTS, weakOutput('ignition', 'driver'), ...COIL_FEED_WIRE_FAULTS],
  price: { dollars: flat(60, 130), minutes: [30, 60] },
  owner: {
    works: [
      {
        says: (p) =>
          `With the key on, the link closes after about ${Math.round(p.value('delay'))} s and charges the coach bank; key off, it opens.`,
      },
    ],
    care: [],
  },
  cautions: [],
  takes: null,
});

export const boostSwitch = definePart({
  id: 'boost-switch',
  label: 'Boost switch',
  role: 'control',
  traits: { boost: true },
  terminals: [
    { id: 'feed', label: 'feed', lead: 'battery side of the boost fuse' },
    { id: 'fused', label: 'fused feed', lead: 'switch side of the boost fuse', optional: true },
    { id: 'output', label: 'output', lead: 'output tab of the boost switch' },
  ],
  options: {
    built: {
      label: 'Built as',
      choices: [
        { id: 'switch', label: 'a switch with its own fuse' },
        { id: 'panel', label: 'a key of a switch panel, plugged into a main panel' },
      ],
      default: 'switch',
    },
  },
  params: {
    fuse: { unit: 'ohm', scale: 'ratio', label: 'Fuse and holder', min: 1e-4, max: 10, default: assumed(0.015, 0.3) },
    contact: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Contact resistance',
      min: 1e-4,
      max: 10,
      default: assumed(0.03, 0.5),
    },
  },
  elements: [
    { kind: 'resistor', id: 'fuse', a: 'feed', b: 'fused', ohms: param('fuse') },
    { kind: 'contact', id: 'contact', a: 'fused', b: 'output', ohms: param('contact'), closedBy: { input: 'boost' } },
  ],
  faults: BOOST_FAULTS,
  price: { dollars: flat(10, 35), minutes: [30, 60] },
  owner: UNTOLD,
  cautions: [],
  takes: null,
});

/** A switch that stays where a hand leaves it, between `feed` and `output`: on as found, unless somebody saw it off. */
const HAND_SWITCH = {
  options: {
    position: {
      label: 'As found',
      choices: [
        { id: 'on', label: 'on' },
        { id: 'off', label: 'off' },
      ],
      default: 'on',
    },
  },
  elements: [
    {
      kind: 'resistor',
      id: 'contact',
      a: 'feed',
      b: 'output',
      ohms: {
        params: ['contact'],
        value: ([ohms], _, part) => (part.options['position'] === 'off' ? Infinity : ohms!),
      },
    },
  ],
} as const satisfies Pick<PartKind, 'options' | 'elements'>;

/** A dash switch in the coil's feed: the driver links the banks by hand. */
export const linkSwitch = definePart({
  id: 'link-switch',
  label: 'Link switch',
  role: 'control',
  traits: { linkSwitch: true, engineOnly: true },
  terminals: [
    { id: 'feed', label: 'feed', lead: 'feed tab of the link switch', accessMinutes: 1 },
    { id: 'output', label: 'output', lead: 'output tab of the link switch', accessMinutes: 1 },
  ],
  options: HAND_SWITCH.options,
  params: {
    contact: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Contact resistance',
      min: 1e-4,
      max: 10,
      default: assumed(0.03, 0.5),
    },
  },
  elements: HAND_SWITCH.elements,
  faults: [...LINK_SWITCH_FAULTS, ...COIL_FEED_WIRE_FAULTS],
  price: { dollars: flat(8, 25), minutes: [30, 60] },
  owner: {
    works: [{ says: 'The link works only while its switch on the dash is on. Off when the engine is off.' }],
    care: [],
  },
  cautions: [],
  takes: null,
});

/** A switch in a charger's enable lead, within the driver's reach. */
export const enableSwitch = definePart({
  id: 'enable-switch',
  label: 'Charger switch',
  role: 'control',
  traits: { enableSwitch: true },
  terminals: [
    { id: 'feed', label: 'feed', lead: 'feed tab of the charger switch', accessMinutes: 1 },
    { id: 'output', label: 'output', lead: 'output tab of the charger switch', accessMinutes: 1 },
  ],
  options: HAND_SWITCH.options,
  params: {
    contact: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Contact resistance',
      min: 1e-4,
      max: 10,
      default: assumed(0.05, 0.5),
    },
  },
  elements: HAND_SWITCH.elements,
  faults: ENABLE_SWITCH_FAULTS,
  price: { dollars: flat(5, 20), minutes: [30, 60] },
  owner: {
    works: [
      { says: 'The charger works only while its switch in the cab is on: off on a long grade, on again after it.' },
    ],
    care: [{ says: 'Look at the charger’s switch before you set off: forgotten off, nothing charges.' }],
  },
  cautions: [],
  takes: null,
});

/** The marker-light circuit of the vehicle in front: what a charger behind may take its enable from. */
export const markerLights = definePart({
  id: 'marker-lights',
  label: 'Marker lights',
  role: 'control',
  traits: { lampCircuit: true, carries: { feed: 15 } },
  terminals: [
    { id: 'feed', label: 'feed', lead: 'fuse of the marker lights' },
    { id: 'output', label: 'output', lead: 'lamp wire, at the tow socket', optional: true },
  ],
  params: {
    contact: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Switch and wire',
      min: 1e-4,
      max: 10,
      default: assumed(0.08, 0.4, 'from memory'),
    },
    lamps: { unit: 'A', scale: 'ratio', label: 'Lamps', min: 0.1, max: 30, default: assumed(5, 0.3, 'from memory') },
  },
  elements: [
    { kind: 'contact', id: 'contact', a: 'feed', b: 'output', ohms: param('contact'), closedBy: { input: 'lamps' } },
    {
      kind: 'contact',
      id: 'lamps',
      a: 'output',
      b: METAL,
      ohms: { params: ['lamps'], value: ([amps], _, part) => (1.04 * part.nominal) / amps! },
      closedBy: { input: 'lamps' },
    },
  ],
  faults: MARKER_LIGHT_FAULTS,
  price: SMALL_PART,
  owner: {
    works: [{ says: 'The charger runs only while the marker lights are on: switch them on by day too.' }],
    care: [{ says: 'Lights off when you park: left on, they and the charger drain the start battery.' }],
  },
  cautions: [],
  takes: null,
});
