/** What sits in a heavy cable: link fuse, breaker, coach disconnect. */
import { LINE_BREAKER_FAULTS } from '../faults/line';
import { LINK_FUSE_FAULTS } from '../faults/link';
import { BYPASS_FAULTS, SHUNT_FAULTS } from '../faults/switches';
import { DISCONNECT_FAULTS } from '../faults/loads';
import { flat, SMALL_PART } from '../price';
import { UNTOLD } from '../ownerSentence';
import { assumed } from '../../units/parameter';
import { breaker } from '../../control/breaker';
import { FUSE_KINDS } from '../fuses';
import { definePart, param } from '../part';

export const linkFuse = definePart({
  id: 'link-fuse',
  label: 'Link fuse',
  role: 'inline',
  traits: { fuse: true, line: ['source', 'load'] },
  terminals: [
    { id: 'source', label: 'source stud', lead: 'stud on the battery side' },
    { id: 'load', label: 'load stud', lead: 'stud on the isolator side' },
  ],
  options: {
    type: {
      label: 'Made as',
      choices: FUSE_KINDS.map(({ id, label, standard }) => ({ id, label: `${label} (${standard})` })),
      default: 'bolt-large',
    },
  },
  params: {
    element: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Fuse and its studs',
      min: 1e-5,
      max: 1,
      default: assumed(0.0007, 0.35),
    },
    rating: { unit: 'A', scale: 'ratio', label: 'Rating', min: 1, max: 1000, default: assumed(150, 0, 'nameplate') },
  },
  elements: [{ kind: 'resistor', id: 'element', a: 'source', b: 'load', ohms: param('element') }],
  faults: LINK_FUSE_FAULTS,
  price: { dollars: flat(15, 45), minutes: [10, 20] },
  owner: UNTOLD,
  cautions: [],
  takes: { most: '4/0', how: 'studs, M8' },
});

/** How a breaker comes back, by the types of SAE J553. */
export const BREAKER_TYPES = [
  { id: 'auto', label: 'Type I: closes again by itself', type: 1 },
  { id: 'modified', label: 'Type II: stays open while it is fed', type: 2 },
  { id: 'manual', label: 'Type III: set by hand', type: 3 },
] as const;

export const lineBreaker = definePart({
  id: 'line-breaker',
  label: 'Line breaker',
  role: 'inline',
  traits: { breaker: true, line: ['source', 'load'] },
  terminals: [
    { id: 'source', label: 'source stud', lead: 'stud on the battery side' },
    { id: 'load', label: 'load stud', lead: 'stud on the line side' },
  ],
  options: { type: { label: 'Type', choices: BREAKER_TYPES.map(({ id, label }) => ({ id, label })), default: 'auto' } },
  params: {
    element: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Breaker and its studs',
      min: 1e-5,
      max: 1,
      default: assumed(0.014, 0.35, 'from memory'),
    },
    rating: { unit: 'A', scale: 'ratio', label: 'Rating', min: 1, max: 500, default: assumed(30, 0.05) },
    resetAfter: {
      unit: 's',
      scale: 'ratio',
      label: 'Cools for',
      min: 1,
      max: 3600,
      default: assumed(20, 0.4, 'from memory'),
    },
  },
  elements: [
    {
      kind: 'contact',
      id: 'element',
      a: 'source',
      b: 'load',
      ohms: param('element'),
      closedBy: { controller: 'element' },
    },
  ],
  controller: (part) => ({
    kind: breaker,
    senses: { drop: ['source', 'load'] },
    settings: ['element', 'rating', 'resetAfter'],
    constants: { type: BREAKER_TYPES.find((t) => t.id === part.options['type'])!.type },
  }),
  faults: LINE_BREAKER_FAULTS,
  price: { dollars: flat(8, 30), minutes: [10, 25] },
  owner: {
    works: [
      {
        option: { name: 'type', is: ['auto'] },
        says: 'The breaker in the line opens when too much is asked of it and closes again when it has cooled.',
      },
      {
        option: { name: 'type', is: ['manual'] },
        says: 'The breaker in the line stays open once it has tripped: find out why, then press it in again.',
      },
    ],
    care: [],
  },
  cautions: [],
  takes: { most: '6', how: 'studs, 10-32 or M5' },
});

/** A hand switch round a one-way charger: either bank can still be lent to the other. */
export const bypassSwitch = definePart({
  id: 'bypass-switch',
  label: 'Bypass switch',
  role: 'link',
  traits: {
    bypass: true,
    joinsBothWays: true,
    line: ['chassis-stud', 'coach-stud'],
    passes: { element: 'contact', is: 'contact', toward: 1 },
  },
  terminals: [
    { id: 'chassis-stud', label: 'chassis stud', lead: 'stud on the chassis side' },
    { id: 'coach-stud', label: 'coach stud', lead: 'stud on the coach side' },
  ],
  options: {
    build: {
      label: 'Kind',
      choices: [
        { id: 'switch', label: 'hand switch' },
        { id: 'keyed', label: 'keyed connectors, joined by hand' },
      ],
      default: 'switch',
    },
  },
  params: {
    contact: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Contact resistance',
      min: 1e-5,
      max: 1,
      default: assumed(0.0009, 0.4),
    },
  },
  elements: [
    {
      kind: 'contact',
      id: 'contact',
      a: 'chassis-stud',
      b: 'coach-stud',
      ohms: param('contact'),
      closedBy: { input: 'boost' },
    },
  ],
  faults: BYPASS_FAULTS,
  price: { dollars: flat(20, 60), minutes: [20, 40] },
  owner: {
    works: [
      {
        option: { name: 'build', is: ['switch'] },
        says: 'The charger passes nothing back. To lend one bank to the other, close the bypass by hand; open it again after the start.',
      },
      {
        option: { name: 'build', is: ['keyed'] },
        says:
          'The charger passes nothing back. To lend one bank to the other, join the two keyed connectors; ' +
          'part them again after the start.',
      },
    ],
    care: [{ says: 'A bypass left closed goes round the charger: both banks then empty together.' }],
  },
  cautions: ['A bypass is joined and parted with the engine and every charger off.'],
  takes: null,
});

/** A battery monitor's shunt, in the bank's negative: it counts what passes through it, and nothing else. */
export const shunt = definePart({
  id: 'shunt',
  label: 'Monitor shunt',
  role: 'inline',
  traits: { shunt: true, line: ['battery', 'system'] },
  terminals: [
    { id: 'battery', label: 'battery side', lead: 'stud on the bank’s side' },
    { id: 'system', label: 'system side', lead: 'stud on the side of loads and chargers' },
  ],
  params: {
    element: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Shunt and its studs',
      min: 1e-6,
      max: 1,
      // 50 mV at 500 A is 0.1 mΩ: common practice; its studs about as much, from memory.
      default: assumed(0.0002, 0.4, 'from memory'),
    },
  },
  elements: [{ kind: 'resistor', id: 'element', a: 'battery', b: 'system', ohms: param('element') }],
  faults: SHUNT_FAULTS,
  price: { dollars: flat(40, 160), minutes: [40, 80] },
  owner: {
    works: [
      {
        says: 'The battery monitor counts what passes its shunt. It is set right by a full charge now and then; until then it drifts.',
      },
    ],
    care: [],
  },
  cautions: ['The shunt goes into the negative: everything negative on its system side, the bank alone on the other.'],
  takes: { most: '4/0', how: 'studs, M10' },
});

export const disconnect = definePart({
  id: 'disconnect',
  label: 'Disconnect',
  role: 'inline',
  traits: { disconnect: true, line: ['battery', 'house'] },
  terminals: [
    { id: 'battery', label: 'battery stud', lead: 'stud on the bank side' },
    { id: 'house', label: 'house stud', lead: 'stud on the house side' },
  ],
  options: {
    build: {
      label: 'Kind',
      choices: [
        { id: 'switch', label: 'hand switch' },
        { id: 'latching', label: 'latching solenoid' },
      ],
      default: 'switch',
    },
  },
  params: {
    contact: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Contact resistance',
      min: 1e-5,
      max: 1,
      default: assumed(0.0009, 0.4),
    },
  },
  elements: [
    {
      kind: 'contact',
      id: 'contact',
      a: 'battery',
      b: 'house',
      ohms: param('contact'),
      closedBy: { input: 'disconnect' },
    },
  ],
  faults: DISCONNECT_FAULTS,
  price: SMALL_PART,
  owner: { works: [], care: [{ says: 'Turn the disconnect only with the engine off and the shore cord out.' }] },
  cautions: [],
  takes: null,
});
