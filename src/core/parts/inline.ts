/** What sits in a heavy cable: link fuse, breaker, coach disconnect. */
import { assumed } from '../units/parameter';
import { breaker } from '../control/breaker';
import { FUSE_KINDS } from './fuses';
import { just, type PartKind } from './part';

export const linkFuse: PartKind = {
  id: 'link-fuse',
  label: 'Link fuse',
  role: 'inline',
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
  elements: [{ kind: 'resistor', id: 'element', a: 'source', b: 'load', ohms: just('element') }],
};

/** How a breaker comes back, by the types of SAE J553. */
export const BREAKER_TYPES = [
  { id: 'auto', label: 'Type I: closes again by itself', type: 1 },
  { id: 'modified', label: 'Type II: stays open while it is fed', type: 2 },
  { id: 'manual', label: 'Type III: set by hand', type: 3 },
] as const;

export const lineBreaker: PartKind = {
  id: 'line-breaker',
  label: 'Line breaker',
  role: 'inline',
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
      ohms: just('element'),
      closedBy: { controller: 'element' },
    },
  ],
  controller: (part) => ({
    kind: breaker,
    senses: { drop: ['source', 'load'] },
    settings: ['element', 'rating', 'resetAfter'],
    constants: { type: BREAKER_TYPES.find((t) => t.id === part.options['type'])!.type },
  }),
};

/** A hand switch round a one-way charger: either bank can still be lent to the other. */
export const bypassSwitch: PartKind = {
  id: 'bypass-switch',
  label: 'Bypass switch',
  role: 'link',
  terminals: [
    { id: 'chassis-stud', label: 'chassis stud', lead: 'stud on the chassis side' },
    { id: 'coach-stud', label: 'coach stud', lead: 'stud on the coach side' },
  ],
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
      ohms: just('contact'),
      closedBy: { input: 'boost' },
    },
  ],
};

export const disconnect: PartKind = {
  id: 'disconnect',
  label: 'Disconnect',
  role: 'inline',
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
      ohms: just('contact'),
      closedBy: { input: 'disconnect' },
    },
  ],
};
