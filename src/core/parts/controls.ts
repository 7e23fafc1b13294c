/** What tells the link to close: ignition switch, delay module, boost switch. */
import { ignitionDelay } from '../control/ignitionDelay';
import { assumed } from '../units/parameter';
import { fixed, just, type PartKind } from './part';

export const ignitionSwitch: PartKind = {
  id: 'ignition-switch',
  label: 'Ignition',
  role: 'control',
  terminals: [
    { id: 'feed', label: 'feed', lead: 'feed terminal behind the dash', accessMinutes: 2 },
    { id: 'run', label: 'run output', lead: 'run circuit, at the fuse panel tap', optional: true },
  ],
  params: {
    contact: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Contact resistance',
      min: 1e-5,
      max: 10,
      default: assumed(0.02, 0.4),
    },
  },
  elements: [
    { kind: 'contact', id: 'contact', a: 'feed', b: 'run', ohms: just('contact'), closedBy: { input: 'key' } },
  ],
};

export const ignitionDelayModule: PartKind = {
  id: 'ignition-delay-module',
  label: 'Delay module',
  role: 'control',
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
      default: assumed(0.1, 0.4),
    },
  },
  elements: [
    {
      kind: 'contact',
      id: 'driver',
      a: 'ignition',
      b: 'output',
      ohms: just('contact'),
      closedBy: { controller: 'output' },
    },
    // 30 mA at 12 V to run its own electronics: from memory.
    { kind: 'resistor', id: 'supply', a: 'ignition', b: 'ground', ohms: fixed(400) },
  ],
  controller: () => ({ kind: ignitionDelay, senses: { supply: ['ignition', 'ground'] }, settings: ['delay'] }),
};

export const boostSwitch: PartKind = {
  id: 'boost-switch',
  label: 'Boost switch',
  role: 'control',
  terminals: [
    { id: 'feed', label: 'feed', lead: 'battery side of the boost fuse' },
    { id: 'fused', label: 'fused feed', lead: 'switch side of the boost fuse', optional: true },
    { id: 'output', label: 'output', lead: 'output tab of the boost switch' },
  ],
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
    { kind: 'resistor', id: 'fuse', a: 'feed', b: 'fused', ohms: just('fuse') },
    { kind: 'contact', id: 'contact', a: 'fused', b: 'output', ohms: just('contact'), closedBy: { input: 'boost' } },
  ],
};

/** A dash switch in the coil's feed: the driver links the banks by hand. */
export const linkSwitch: PartKind = {
  id: 'link-switch',
  label: 'Link switch',
  role: 'control',
  terminals: [
    { id: 'feed', label: 'feed', lead: 'feed tab of the link switch', accessMinutes: 1 },
    { id: 'output', label: 'output', lead: 'output tab of the link switch', accessMinutes: 1 },
  ],
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
};
