/** Small helpers from one bank to the other's start battery: by difference, by trigger, by diode and lamp. */
import { DIODE_LAMP_FAULTS } from '../faults/line';
import { flat } from '../price';
import { differentialMaintainer } from '../../control/differentialMaintainer';
import { triggeredMaintainer } from '../../control/triggeredMaintainer';
import type { OwnerSentences, Told } from '../ownerSentence';
import { assumed } from '../../units/parameter';
import { constant, definePart, param } from '../part';

const ends = [
  { id: 'from', label: 'from', lead: 'wire from the bank that gives' },
  { id: 'to', label: 'to', lead: 'wire to the battery that is helped' },
] as const;
/** What the owner's card says of one of them. @param when it gives, by its own figures. */
const maintains = (when: (part: Told) => string, care: OwnerSentences['care'] = []): OwnerSentences => ({
  works: [
    {
      says: (p) =>
        `The maintainer (${p.name}) gives the other battery a little, not enough to start the engine right away: ${when(p)}.`,
    },
  ],
  care,
});
const ground = { id: 'ground', label: 'ground', lead: 'ground wire of the unit' } as const;

export const differentialPart = definePart({
  id: 'differential-maintainer',
  label: 'Differential maintainer',
  role: 'link',
  traits: { maintainer: true, line: ['from', 'to'], passes: { element: 'contact', is: 'contact', toward: -1 } },
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
    { kind: 'contact', id: 'contact', a: 'from', b: 'to', ohms: param('contact'), closedBy: { controller: 'contact' } },
    { kind: 'resistor', id: 'supply', a: 'from', b: 'ground', ohms: constant(2000) },
  ],
  controller: () => ({
    kind: differentialMaintainer,
    senses: { coach: ['from', 'ground'], chassis: ['to', 'ground'] },
    settings: ['closeAt', 'openAt'],
  }),
  faults: [],
  price: { dollars: flat(40, 90), minutes: [30, 60] },
  owner: maintains(
    (p) =>
      `while the bank it takes from stands ${p.value('closeAt').toFixed(2)} V or more above it, until they are ` +
      `${p.value('openAt').toFixed(2)} V apart`,
  ),
  cautions: [],
  takes: null,
});

export const triggeredPart = definePart({
  id: 'triggered-maintainer',
  label: 'Voltage-triggered maintainer',
  role: 'link',
  traits: {
    maintainer: true,
    waitsForCharge: true,
    line: ['from', 'to'],
    passes: { element: 'converter', is: 'converter', toward: -1 },
  },
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
      volts: { by: 'stage', of: { absorb: param('absorb'), float: param('float') } },
      ohms: constant(0.01),
      limit: { by: 'power', of: { off: constant(0), on: param('limit') } },
      inLimit: { params: ['limit'], value: ([limit]) => limit! * 1.5 },
      efficiency: constant(0.85),
      idle: { by: 'power', of: { off: constant(0), on: constant(0.5) } },
    },
    { kind: 'resistor', id: 'supply', a: 'from', b: 'ground', ohms: constant(2000) },
  ],
  controller: () => ({
    kind: triggeredMaintainer,
    senses: { coach: ['from', 'ground'] },
    amps: { amps: 'converter' },
    settings: ['startAt', 'stopAt'],
  }),
  faults: [],
  price: { dollars: flat(70, 160), minutes: [30, 60] },
  owner: maintains(
    (p) =>
      `once the bank it takes from is charged to ${p.value('startAt').toFixed(1)} V, until that falls under ` +
      `${p.value('stopAt').toFixed(1)} V`,
    [
      {
        says: (p) =>
          `A lamp on ${p.name} that says it waits is no fault: with the bank full and floating under ` +
          `${p.value('startAt').toFixed(1)} V there is nothing for it to do.`,
      },
    ],
  ),
  cautions: [],
  takes: null,
});

/** A 6 A silicon diode: A of saturation, V of emission (n 1.6), Ω in series: 0.65 V at 1.4 A (from memory). */
export const LAMP_DIODE = { saturation: 3e-7, emission: 1.6 * 0.02585, ohms: 0.01 } as const;

/** Fuse, diode and a lamp as current limiter: a glowing lamp says that the far end is shorted. */
export const diodeLamp = definePart({
  id: 'diode-lamp',
  label: 'Diode and lamp',
  role: 'link',
  traits: { maintainer: true, line: ['from', 'to'], passes: { element: 'fuse', is: 'wire', toward: 1 } },
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
    { kind: 'resistor', id: 'fuse', a: 'from', b: 'filament', ohms: param('fuse') },
    {
      kind: 'lamp',
      id: 'lamp',
      plus: 'filament',
      minus: 'anode',
      volts: { params: [], value: (_, __, part) => part.nominal },
      watts: param('watts'),
    },
    {
      kind: 'diode',
      id: 'diode',
      anode: 'anode',
      cathode: 'bulk',
      saturation: constant(LAMP_DIODE.saturation),
      emission: constant(LAMP_DIODE.emission),
    },
    { kind: 'resistor', id: 'bulk', a: 'bulk', b: 'to', ohms: constant(LAMP_DIODE.ohms) },
  ],
  faults: DIODE_LAMP_FAULTS,
  price: { dollars: flat(15, 40), minutes: [45, 90] },
  owner: maintains(
    () => 'whenever the side it takes from is charged, through a lamp that holds the current down',
    [
      {
        says: 'If the lamp of the maintainer glows bright, the battery or the wire it feeds is shorted: pull its fuse.',
      },
    ],
  ),
  cautions: [],
  takes: null,
});
