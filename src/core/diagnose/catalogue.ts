/**
 * The fault catalogue: a row is a fault of a kind of part, conductor or bond, what it does to the electrical
 * model, what it explains, and how it is put right. Priors are relative weights, assumed.
 */
import type { Complaint } from './assumptions';

export type LocalEffect =
  | { do: 'open'; element: string }
  | { do: 'replace-ohms'; element: string; from: number; to: number }
  | { do: 'add-ohms'; element: string; from: number; to: number }
  | { do: 'shift-volts'; element: string; from: number; to: number }
  | { do: 'no-output'; element: string }
  | { do: 'open-battery' }
  | { do: 'dead-controller' };

/** What of the rig a fault belongs to. */
export type FaultOwner =
  | { part: string; side?: 'engine' | 'coach' | 'both' }
  | { conductor: { from: string; terminal: string; side?: 'engine' | 'coach' | 'both' } }
  | { bond: 'frame-to-frame' };

export interface FaultKind {
  id: string;
  owner: FaultOwner;
  /** {owner} stands for the part's or conductor's own name. */
  name: string;
  /** Elements are local to the owner; '' is the conductor or bond itself. */
  effects: readonly LocalEffect[];
  prior: number;
  explains: readonly Complaint[];
  /** Faults of one owner with the same repair are one class: the repair is the same whichever it is. */
  repair: string;
  /** How it shows, in a sentence for the report. */
  shows: string;
  caution?: string;
}

const BOTH: readonly Complaint[] = ['coach-not-charging', 'boost-dead'];

export const FAULT_KINDS: readonly FaultKind[] = [
  {
    id: 'contact-open',
    owner: { part: 'link-solenoid' },
    name: '{owner} contact burnt open',
    effects: [{ do: 'open', element: 'contact' }],
    prior: 4,
    explains: BOTH,
    repair: 'Replace the isolator solenoid',
    shows: 'the coil is fed and grounded, yet the two studs stay apart',
    caution: 'Engine off and both banks isolated first. Hold the inner nut with a second wrench: a spun stud kills a solenoid.',
  },
  {
    id: 'contact-high',
    owner: { part: 'link-solenoid' },
    name: '{owner} contact worn, high resistance',
    effects: [{ do: 'replace-ohms', element: 'contact', from: 0.006, to: 0.15 }],
    prior: 4,
    explains: ['coach-not-charging'],
    repair: 'Replace the isolator solenoid',
    shows: 'the link closes but the drop across its studs is too big for the amps',
  },
  {
    id: 'coil-open',
    owner: { part: 'link-solenoid' },
    name: '{owner} coil open',
    effects: [{ do: 'open', element: 'coil' }],
    prior: 3,
    explains: BOTH,
    repair: 'Replace the isolator solenoid',
    shows: 'volts across the coil terminals but no amps through them',
  },
  {
    id: 'ground-lost',
    owner: { conductor: { from: 'link-solenoid', terminal: 'coil-minus' } },
    name: 'Coil ground lost',
    effects: [{ do: 'open', element: '' }],
    prior: 2,
    explains: BOTH,
    repair: 'Make good the coil ground wire',
    shows: 'coil – follows coil + instead of staying at frame',
  },
  {
    id: 'broken',
    owner: { conductor: { from: 'ignition-delay-module', terminal: 'output' } },
    name: 'Coil feed wire broken',
    effects: [{ do: 'open', element: '' }],
    prior: 2,
    explains: ['coach-not-charging'],
    repair: 'Replace the wire from module to coil',
    shows: 'the module puts out volts that never reach the coil',
  },
  {
    id: 'dead',
    owner: { part: 'ignition-delay-module' },
    name: '{owner} dead',
    effects: [{ do: 'dead-controller' }],
    prior: 4,
    explains: ['coach-not-charging'],
    repair: 'Replace the delay module',
    shows: 'ignition and ground are there, but no output after the delay',
  },
  {
    id: 'missing',
    owner: { conductor: { from: 'ignition-switch', terminal: 'run' } },
    name: 'Ignition feed missing at the module',
    effects: [{ do: 'open', element: '' }],
    prior: 3,
    explains: ['coach-not-charging'],
    repair: 'Restore the ignition feed to the module',
    shows: 'no volts at the module with the key on',
  },
  {
    id: 'fuse-blown',
    owner: { part: 'boost-switch' },
    name: 'Boost fuse blown',
    effects: [{ do: 'open', element: 'fuse' }],
    prior: 3,
    explains: ['boost-dead'],
    repair: 'Replace the boost fuse and find what blew it',
    shows: 'no volts on the switch side of the boost fuse',
  },
  {
    id: 'switch-open',
    owner: { part: 'boost-switch' },
    name: '{owner} does not make',
    effects: [{ do: 'open', element: 'contact' }],
    prior: 2,
    explains: ['boost-dead'],
    repair: 'Replace the boost switch',
    shows: 'fused feed is there, nothing on the output while it is held',
  },
  {
    id: 'broken',
    owner: { conductor: { from: 'boost-switch', terminal: 'output' } },
    name: 'Boost wire broken',
    effects: [{ do: 'open', element: '' }],
    prior: 1,
    explains: ['boost-dead'],
    repair: 'Replace the wire from boost switch to coil',
    shows: 'the switch puts out volts that never reach the coil',
  },
  {
    id: 'open',
    owner: { part: 'link-fuse' },
    name: '{owner} open',
    effects: [{ do: 'open', element: 'element' }],
    prior: 4,
    explains: BOTH,
    repair: 'Replace the link fuse and find what blew it',
    shows: 'source stud at chassis volts, load stud without',
    caution: 'A fuse that blew had a reason: look for the short before fitting the next.',
  },
  {
    id: 'bad-lug',
    owner: { conductor: { from: 'link-fuse', terminal: 'load' } },
    name: 'Bad lug between link fuse and isolator',
    effects: [{ do: 'add-ohms', element: '', from: 0.01, to: 0.2 }],
    prior: 1.5,
    explains: ['coach-not-charging'],
    repair: 'Cut back and re-crimp the lead from fuse to isolator',
    shows: 'a big drop along a short lead under current',
  },
  {
    id: 'bad-lug',
    owner: { conductor: { from: 'link-solenoid', terminal: 'coach-stud' } },
    name: 'Bad lug on the cable to the coach bank',
    effects: [{ do: 'add-ohms', element: '', from: 0.01, to: 0.2 }],
    prior: 2,
    explains: ['coach-not-charging'],
    repair: 'Cut back and re-crimp the cable to the coach bank',
    shows: 'volts arrive at the coach stud but not at the bank',
  },
  {
    id: 'bad-joint',
    owner: { conductor: { from: 'battery-bank', terminal: 'minus', side: 'coach' } },
    name: 'Coach ground joint bad',
    effects: [{ do: 'add-ohms', element: '', from: 0.02, to: 0.5 }],
    prior: 3,
    explains: ['coach-not-charging'],
    repair: 'Clean and remake the coach ground joint',
    shows: 'the bank\'s – post stands well above frame under current',
  },
  {
    id: 'bad-joint',
    owner: { conductor: { from: 'battery-bank', terminal: 'minus', side: 'engine' } },
    name: 'Chassis ground joint bad',
    effects: [{ do: 'add-ohms', element: '', from: 0.02, to: 0.4 }],
    prior: 1.5,
    explains: [],
    repair: 'Clean and remake the chassis ground joint',
    shows: 'the chassis – post is away from frame under current',
  },
  {
    id: 'bad-splice',
    owner: { bond: 'frame-to-frame' },
    name: 'Frame splice corroded',
    effects: [{ do: 'add-ohms', element: '', from: 0.02, to: 0.4 }],
    prior: 1.5,
    explains: ['coach-not-charging'],
    repair: 'Clean the frame splice and add a bonding cable',
    shows: 'house frame and chassis frame differ under current',
  },
  {
    id: 'open-cell',
    owner: { part: 'battery-bank', side: 'coach' },
    name: '{owner} has an open cell or link',
    effects: [{ do: 'open-battery' }],
    prior: 1,
    explains: ['coach-not-charging'],
    repair: 'Test the coach blocks one by one and replace',
    shows: 'bank volts fall to nothing under load and follow the charger at once',
    caution: 'Never charge, boost or jump a frozen or bulging battery.',
  },
  {
    id: 'flat',
    owner: { part: 'battery-bank', side: 'coach' },
    name: '{owner} flat, link in order',
    effects: [{ do: 'shift-volts', element: 'emf.volts', from: -0.5, to: -1.4 }],
    prior: 2,
    explains: [],
    repair: 'Charge the coach bank, then test it',
    shows: 'rested volts far below the usual',
  },
  {
    id: 'no-output',
    owner: { part: 'alternator' },
    name: '{owner} gives nothing',
    effects: [{ do: 'no-output', element: 'stator.limit' }],
    prior: 3,
    explains: ['coach-not-charging'],
    repair: 'Find why the alternator does not charge: belt, exciter, regulator',
    shows: 'no rise at the output stud with the engine running',
  },
  {
    id: 'open',
    owner: { part: 'disconnect' },
    name: '{owner} does not make',
    effects: [{ do: 'open', element: 'contact' }],
    prior: 1.5,
    explains: [],
    repair: 'Replace the coach disconnect',
    shows: 'house side dead while the bank stands',
  },
];

/** The hypothesis that the rig works as it was made to. */
export const NOTHING_WRONG = { id: 'nothing-wrong', name: 'Nothing is wrong with the link', prior: 5, repair: 'No repair: explain how it works' } as const;
