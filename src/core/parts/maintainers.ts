/** Small helpers from one bank to the other's start battery: by difference, by trigger, by diode and lamp. */
import { differentialMaintainer } from '../control/differentialMaintainer';
import { triggeredMaintainer } from '../control/triggeredMaintainer';
import { assumed } from '../units/parameter';
import { fixed, just, type PartKind } from './part';

const ends = [
  { id: 'from', label: 'from', lead: 'wire from the bank that gives' },
  { id: 'to', label: 'to', lead: 'wire to the battery that is helped' },
] as const;
const ground = { id: 'ground', label: 'ground', lead: 'ground wire of the unit' } as const;

export const differentialPart: PartKind = {
  id: 'differential-maintainer',
  label: 'Differential maintainer',
  role: 'link',
  terminals: [...ends, ground],
  params: {
    // About 1 A at the difference it closes at.
    contact: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Limiting resistance',
      min: 0.01,
      max: 100,
      default: assumed(0.9, 0.2),
    },
    closeAt: {
      unit: 'V',
      scale: 'offset',
      label: 'Closes at a difference of',
      min: 0.1,
      max: 10,
      default: assumed(0.75, 0.05),
    },
    openAt: { unit: 'V', scale: 'offset', label: 'Opens under', min: 0.01, max: 10, default: assumed(0.25, 0.05) },
  },
  elements: [
    { kind: 'contact', id: 'contact', a: 'from', b: 'to', ohms: just('contact'), closedBy: { controller: 'contact' } },
    { kind: 'resistor', id: 'supply', a: 'from', b: 'ground', ohms: fixed(2000) },
  ],
  controller: () => ({
    kind: differentialMaintainer,
    senses: { coach: ['from', 'ground'], chassis: ['to', 'ground'] },
    settings: ['closeAt', 'openAt'],
  }),
};

export const triggeredPart: PartKind = {
  id: 'triggered-maintainer',
  label: 'Voltage-triggered maintainer',
  role: 'link',
  terminals: [...ends, ground],
  params: {
    startAt: { unit: 'V', scale: 'offset', label: 'Starts at', min: 5, max: 64, default: assumed(13.6, 0.06) },
    stopAt: { unit: 'V', scale: 'offset', label: 'Stops under', min: 5, max: 64, default: assumed(13.1, 0.06) },
    limit: { unit: 'A', scale: 'ratio', label: 'Most it gives', min: 0.1, max: 50, default: assumed(5, 0.1) },
    absorb: { unit: 'V', scale: 'offset', label: 'Bulk volts', min: 5, max: 64, default: assumed(14.2, 0.06) },
    float: { unit: 'V', scale: 'offset', label: 'Float volts', min: 5, max: 64, default: assumed(13.4, 0.06) },
  },
  elements: [
    {
      kind: 'converter',
      id: 'converter',
      inPlus: 'from',
      inMinus: 'ground',
      outPlus: 'to',
      outMinus: 'ground',
      volts: { by: 'stage', of: { absorb: just('absorb'), float: just('float') } },
      ohms: fixed(0.01),
      limit: { by: 'power', of: { off: fixed(0), on: just('limit') } },
      inLimit: { params: ['limit'], value: ([limit]) => limit! * 1.5 },
      efficiency: fixed(0.85),
      idle: { by: 'power', of: { off: fixed(0), on: fixed(0.5) } },
    },
    { kind: 'resistor', id: 'supply', a: 'from', b: 'ground', ohms: fixed(2000) },
  ],
  controller: () => ({
    kind: triggeredMaintainer,
    senses: { coach: ['from', 'ground'] },
    amps: { amps: 'converter' },
    settings: ['startAt', 'stopAt'],
  }),
};

/** A 6 A silicon diode: A of saturation, V of emission (n 1.6), Ω in series: 0.65 V at 1.4 A (from memory). */
export const LAMP_DIODE = { saturation: 3e-7, emission: 1.6 * 0.02585, ohms: 0.01 } as const;

/** Fuse, diode and a lamp as current limiter: a glowing lamp says that the far end is shorted. */
export const diodeLamp: PartKind = {
  id: 'diode-lamp',
  label: 'Diode and lamp',
  role: 'link',
  terminals: ends,
  inner: ['anode', 'filament', 'bulk'],
  params: {
    fuse: { unit: 'ohm', scale: 'ratio', label: 'Fuse and holder', min: 1e-4, max: 10, default: assumed(0.02, 0.3) },
    watts: {
      unit: 'W',
      scale: 'ratio',
      label: 'Lamp, at 12 V',
      min: 1,
      max: 200,
      default: assumed(55, 0.05, 'nameplate of a usual headlamp bulb'),
    },
  },
  elements: [
    { kind: 'resistor', id: 'fuse', a: 'from', b: 'filament', ohms: just('fuse') },
    {
      kind: 'lamp',
      id: 'lamp',
      plus: 'filament',
      minus: 'anode',
      volts: { params: [], value: (_, __, part) => part.nominal },
      watts: just('watts'),
    },
    {
      kind: 'diode',
      id: 'diode',
      anode: 'anode',
      cathode: 'bulk',
      saturation: fixed(LAMP_DIODE.saturation),
      emission: fixed(LAMP_DIODE.emission),
    },
    { kind: 'resistor', id: 'bulk', a: 'bulk', b: 'to', ohms: fixed(LAMP_DIODE.ohms) },
  ],
};
