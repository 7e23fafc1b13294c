/** What is tried: ohms on a dead circuit, a lamp as load, a swap, a load test. Chances are assumed, the methods common practice. */
import type { TraitName } from '../../parts/traits';
import { SOUND_WIRE_OHMS } from './grades';
import { YES_NO, yes, type ObservationTemplate } from './observationKind';

const LAMP = [
  { id: 'bright', label: 'bright' },
  { id: 'dim', label: 'dim' },
  { id: 'dark', label: 'dark' },
] as const;
const BRIGHT = { bright: 0.95, dim: 0.04, dark: 0.01 } as const;
const DARK = { bright: 0.02, dim: 0.08, dark: 0.9 } as const;
const LOADED =
  'A 12 V lamp of four to five amps from the point to frame: a corroded feed shows ' +
  'battery volts until it is loaded. Never on sense, data or engine-computer wires.';

const lampTest = (id: string, of: TraitName, terminal: string, where: string, state: string): ObservationTemplate => ({
  id: `lamp-${id}`,
  of: { first: of },
  ask: `A test lamp at ${where}`,
  how: LOADED,
  group: 'try',
  state,
  minutes: 1,
  answers: LAMP,
  live: { terminal, so: BRIGHT, not: DARK },
  otherwise: DARK,
});

export const TRIED: readonly ObservationTemplate[] = [
  {
    id: 'continuity',
    of: { wires: 'thin' },
    ask: '“{owner}”, ohms from end to end',
    how: 'Both ends off and the circuit dead: ohms on a live circuit mean nothing. Leads zeroed. Wiggle it while you look.',
    group: 'try',
    state: 'rested',
    minutes: 2.5,
    answers: [
      { id: 'good', label: 'sound' },
      { id: 'ohms', label: 'some ohms' },
      { id: 'open', label: 'open' },
    ],
    fields: [{ id: 'ohms', label: 'End to end', unit: 'ohm', min: 0, max: 1e8 }],
    grade: 'continuity',
    does: { open: { good: 0.04, ohms: 0.03, open: 0.93 }, 'add-ohms': { good: 0.12, ohms: 0.85, open: 0.03 } },
    // One good strand reads as a sound wire: what a joint loses shows as a drop under amps. Common practice.
    seesOhms: SOUND_WIRE_OHMS,
    otherwise: { good: 0.985, ohms: 0.012, open: 0.003 },
  },
  {
    id: 'coil-ohms',
    of: { part: 'solenoid' },
    ask: '{owner} coil, ohms across it',
    how: 'Coil wire off and the circuit dead. Same look, other coil: continuous duty 12–18 Ω, starter type 3–5 Ω at 12 V.',
    group: 'try',
    state: 'rested',
    minutes: 2.5,
    answers: [
      { id: 'right', label: 'as a continuous-duty coil' },
      { id: 'low', label: 'as a starter-type coil' },
      { id: 'open', label: 'open' },
    ],
    fields: [{ id: 'ohms', label: 'Across the coil', unit: 'ohm', min: 0, max: 1e8 }],
    grade: 'coil',
    faults: {
      'coil-open': { right: 0.01, low: 0.01, open: 0.98 },
      'wrong-duty': { right: 0.06, low: 0.93, open: 0.01 },
    },
    otherwise: { right: 0.97, low: 0.02, open: 0.01 },
  },
  {
    id: 'module-swap',
    of: { part: 'module' },
    ask: 'A known good module in place of the {owner}: does the link work now, where it did not before',
    how: 'Same kind, same wires. Engine off while they are moved, then one start. Note the label before it comes out.',
    group: 'try',
    state: 'idle',
    minutes: 12,
    caution: 'Both banks’ sense fuses out while the wires are moved.',
    answers: [
      { id: 'yes', label: 'Yes' },
      { id: 'no', label: 'No' },
    ],
    faults: {
      dead: { yes: 0.95, no: 0.05 },
      'weak-output': { yes: 0.95, no: 0.05 },
      'drifted-high': { yes: 0.95, no: 0.05 },
    },
    otherwise: { yes: 0.01, no: 0.99 },
  },
  {
    id: 'bench-supply',
    of: { part: 'module', also: 'byVolts' },
    ask: '{owner} on a bench supply: where it closes',
    how: 'Its chassis sense wire off and on a small bench supply, turned up slowly from 12 V (24 V: from 24).',
    group: 'try',
    state: 'rested',
    minutes: 8,
    answers: [
      { id: 'label', label: 'where the label says' },
      { id: 'above', label: 'well above the label' },
      { id: 'below', label: 'holds well below it' },
      { id: 'never', label: 'never' },
    ],
    faults: {
      dead: { label: 0.02, above: 0.03, below: 0.01, never: 0.94 },
      'drifted-high': { label: 0.06, above: 0.88, below: 0.01, never: 0.05 },
      'drifted-low': { label: 0.06, above: 0.01, below: 0.92, never: 0.01 },
    },
    otherwise: { label: 0.94, above: 0.03, below: 0.02, never: 0.01 },
  },
  {
    id: 'panel-swap',
    of: { part: 'boost', option: { name: 'built', is: ['panel'] } },
    ask: 'The switch panel plugged straight into the main panel’s port: does {owner} work there',
    how:
      'A panel that works there has a wiring fault behind it; one that does not is itself at fault. Engine off. ' +
      'Write down its label: type, date, connector and what its keys say order the new one.',
    group: 'try',
    state: 'boost-engine-off',
    minutes: 8,
    answers: YES_NO,
    faults: { 'switch-open': yes(0.03) },
    otherwise: yes(0.95),
  },
  lampTest('ignition', 'ignition', 'run', 'the ignition feed, key on', 'key-on'),
  lampTest('boost', 'boost', 'output', 'the boost switch output, held', 'boost-engine-off'),
  lampTest('coil', 'solenoid', 'coil-plus', 'the coil’s fed terminal, engine idling', 'idle'),
  {
    id: 'load-test',
    of: { part: 'battery', option: { name: 'chemistry', is: ['flooded', 'agm', 'gel'] } },
    ask: '{owner}: load test, each block alone',
    how: 'At 75 % charge or more, surface charge removed, separated from its parallel mates: half its cold cranking amps for 15 s.',
    group: 'try',
    state: 'rested',
    minutes: 15,
    caution:
      'Vent the bank first; connect the tester before it is switched on. Never a frozen or bulging ' +
      'battery, never a carbon pile on lithium.',
    answers: [
      { id: 'passes', label: 'passes' },
      { id: 'fails', label: 'fails' },
    ],
    fields: [
      { id: 'volts', label: 'Lowest block after 15 s', unit: 'V', min: 0, max: 32 },
      { id: 'celsius', label: 'Battery', unit: '°C', min: -30, max: 60 },
    ],
    grade: 'load-test',
    faults: {
      sulphated: { passes: 0.07, fails: 0.93 },
      'open-cell': { passes: 0.02, fails: 0.98 },
      'shorted-cell': { passes: 0.03, fails: 0.97 },
      'weak-block': { passes: 0.08, fails: 0.92 },
      'weak-in-string': { passes: 0.08, fails: 0.92 },
      flat: { passes: 0.3, fails: 0.7 },
    },
    otherwise: { passes: 0.94, fails: 0.06 },
  },
  {
    id: 'gravity',
    of: { part: 'battery', option: { name: 'chemistry', is: ['flooded'] } },
    ask: '{owner}: specific gravity of every cell',
    how: 'Hydrometer, temperature-corrected; lowest and highest cell of the bank.',
    group: 'try',
    state: 'rested',
    minutes: 8,
    caution: 'Acid: goggles and gloves on, water and baking soda within reach.',
    answers: [
      { id: 'good', label: 'even and charged' },
      { id: 'low', label: 'even and low' },
      { id: 'apart', label: 'one cell apart' },
    ],
    fields: [
      { id: 'lowest', label: 'Lowest cell', unit: '', min: 1, max: 1.4 },
      { id: 'highest', label: 'Highest cell', unit: '', min: 1, max: 1.4 },
    ],
    grade: 'gravity',
    faults: {
      flat: { good: 0.05, low: 0.88, apart: 0.07 },
      'open-cell': { good: 0.15, low: 0.1, apart: 0.75 },
      'shorted-cell': { good: 0.1, low: 0.15, apart: 0.75 },
      'weak-block': { good: 0.08, low: 0.1, apart: 0.82 },
      'weak-in-string': { good: 0.08, low: 0.1, apart: 0.82 },
      sulphated: { good: 0.3, low: 0.45, apart: 0.25 },
    },
    otherwise: { good: 0.8, low: 0.16, apart: 0.04 },
  },
];
