/** Faults of what closes the link: modules and their wires. Priors, minutes and money are assumed; the wording is common practice. */
import type { PartFault } from '../fault';

const NEW_WIRE = { minutes: [20, 70], parts: [3, 15] } as const;

/**
 * Its output gives too little once the coil draws. @param input the terminal it feeds the coil from
 * @param drivers its output contacts
 */
export const weakOutput = (input: string, ...drivers: string[]): PartFault => ({
  id: 'weak-output',
  name: '{owner} gives too little',
  effects: drivers.map((element) => ({ do: 'add-ohms', element, from: 3, to: 60 })),
  prior: 1,
  explains: ['coach-not-charging', 'link-cycles'],
  repair: 'Replace the link module',
  minutes: [25, 50],
  parts: [60, 220],
  proof: { touch: [input, 'output'] },
  shows: 'its output stands volts below its feed while the coil draws',
  confirm: 'volts from its feed to its output with the coil on it: more than 1 V',
});

export const MODULE_FAULTS: readonly PartFault[] = [
  {
    id: 'dead',
    name: '{owner} dead',
    effects: [{ do: 'dead-controller' }],
    prior: 4,
    explains: ['coach-not-charging'],
    repair: 'Replace the link module',
    minutes: [25, 50],
    parts: [60, 220],
    proof: { touch: ['output', 'ground'] },
    shows: 'feed, sense and ground are there, but no output when it should close',
    confirm: 'a bench supply on its sense wire above the threshold, and still no output',
  },
  {
    id: 'module-ground',
    wire: { end: 'from', terminal: 'ground' },
    name: 'Module ground lost',
    effects: [{ do: 'open', element: '' }],
    prior: 1.5,
    explains: ['coach-not-charging'],
    repair: 'Repair the module ground',
    minutes: [15, 40],
    parts: [2, 10],
    shows: 'the module is fed, its ground wire stands above frame',
    confirm: 'module ground against the frame bolt with the module fed',
  },
];

export const BY_VOLTS_FAULTS: readonly PartFault[] = [
  {
    id: 'drifted-high',
    name: '{owner} threshold drifted up',
    effects: [{ do: 'shift-param', param: 'closeAt', from: 0.7, to: 1.6 }],
    prior: 1.5,
    explains: ['coach-not-charging'],
    repair: 'Replace the link module',
    minutes: [25, 50],
    parts: [60, 220],
    shows: 'the sense wire is above the threshold on the label, and it waits',
    confirm: 'a bench supply on its sense wire: it closes, but only well above the label',
  },
  {
    id: 'drifted-low',
    name: '{owner} does not let go',
    effects: [
      { do: 'shift-param', param: 'openAt', from: -0.6, to: -1.6 },
      { do: 'shift-param', param: 'closeAt', from: -0.6, to: -1.6 },
    ],
    prior: 1.2,
    explains: ['both-flat', 'link-always-on', 'chassis-flat'],
    repair: 'Replace the link module',
    minutes: [25, 50],
    parts: [60, 220],
    shows: 'rested, the module still puts out volts',
    confirm: 'a bench supply on its sense wire turned down: it holds well below the label',
  },
];

export const CHASSIS_SENSE_WIRE_FAULTS: readonly PartFault[] = [
  {
    id: 'chassis-sense-open',
    wire: { end: 'to', terminal: 'chassis-sense' },
    name: 'Chassis sense wire open, or its fuse',
    effects: [{ do: 'open', element: '' }],
    prior: 2,
    explains: ['coach-not-charging'],
    repair: 'Repair the chassis sense wire and its fuse',
    ...NEW_WIRE,
    shows: 'no volts on the sense terminal while the bank has them',
    confirm: 'sense terminal against the bank it should see',
  },
];

export const COACH_SENSE_WIRE_FAULTS: readonly PartFault[] = [
  {
    id: 'coach-sense-open',
    wire: { end: 'to', terminal: 'coach-sense' },
    name: 'Coach sense wire open, or its fuse',
    effects: [{ do: 'open', element: '' }],
    prior: 2,
    explains: ['chassis-flat', 'chassis-not-on-shore', 'coach-not-charging'],
    repair: 'Repair the coach sense wire and its fuse',
    ...NEW_WIRE,
    shows: 'no volts on the sense terminal while the bank has them',
    confirm: 'sense terminal against the bank it should see',
  },
];

export const COIL_FEED_WIRE_FAULTS: readonly PartFault[] = [
  {
    id: 'broken',
    wire: { end: 'from', terminal: 'output' },
    name: 'Coil feed wire broken',
    effects: [{ do: 'open', element: '' }],
    prior: 2,
    explains: ['coach-not-charging'],
    repair: 'Replace the wire to the coil',
    ...NEW_WIRE,
    shows: 'the module puts out volts that never reach the coil',
    confirm: 'volts at both ends of the wire with the module on',
  },
  {
    id: 'corroded',
    wire: { end: 'from', terminal: 'output' },
    name: 'Coil feed wire corroded',
    effects: [{ do: 'add-ohms', element: '', from: 6, to: 60 }],
    prior: 1,
    explains: ['coach-not-charging', 'link-cycles'],
    repair: 'Replace the wire to the coil',
    ...NEW_WIRE,
    shows: 'the coil gets a few volts less than the module puts out',
    confirm: 'drop along the wire with the coil on it',
  },
];
