/**
 * Faults of the link itself: solenoid, diode isolator, link fuse. Priors, minutes and money are assumed; the wording is
 * common practice.
 */
import type { PartFault } from '../fault';

const ISOLATE =
  'Engine off and both banks isolated first. Hold the inner nut with a second wrench: a spun stud kills a solenoid.';
const NEW_SOLENOID = { repair: 'Replace the isolator solenoid', minutes: [40, 75], parts: [45, 160] } as const;
const NEW_DIODES = { repair: 'Replace the diode isolator', minutes: [45, 80], parts: [70, 220] } as const;
const BAD_LUG = {
  effects: [{ do: 'add-ohms', element: '', from: 0.01, to: 0.4 }],
  minutes: [25, 60],
  parts: [4, 20],
  proof: { ask: ['bad-end'] },
} as const;
const MOVE_HEAVY = 'Fuse out or negative off before a heavy cable is moved.';

export const SOLENOID_FAULTS: readonly PartFault[] = [
  {
    id: 'contact-open',
    name: '{owner} contact burned open',
    effects: [{ do: 'open', element: 'contact' }],
    prior: 4,
    explains: ['coach-not-charging', 'boost-dead'],
    ...NEW_SOLENOID,
    proof: { touch: ['coil-plus', 'coil-minus', 'chassis-stud', 'coach-stud'] },
    shows: 'the coil is fed and grounded, yet the two studs stay apart',
    confirm: 'coil volts across the coil terminals, a click, and still battery volts between the studs',
    caution: ISOLATE,
  },
  {
    id: 'contact-high',
    name: '{owner} contact worn, high resistance',
    effects: [{ do: 'replace-ohms', element: 'contact', from: 0.006, to: 0.4 }],
    prior: 4,
    explains: ['coach-not-charging', 'slow-charging', 'hot-link'],
    ...NEW_SOLENOID,
    proof: { touch: ['coil-plus', 'coil-minus', 'chassis-stud', 'coach-stud'] },
    shows: 'the link closes but the drop across its studs is too big for the amps',
    confirm: 'drop across the studs over the amps through them: more than 4 mΩ above 30 A',
    caution: ISOLATE,
  },
  {
    id: 'welded',
    name: '{owner} contact welded closed',
    effects: [{ do: 'stuck-closed', element: 'contact' }],
    prior: 2,
    explains: ['both-flat', 'link-always-on', 'chassis-flat'],
    ...NEW_SOLENOID,
    // Equal volts may come by another way round: what joins the banks carries the amps between them.
    proof: { touch: ['chassis-stud', 'coach-stud'], clamp: ['coach-stud', 'chassis-stud'] },
    shows: 'both studs stay connected with the coil dead',
    confirm: 'rested, coil at 0 V: both studs at the same volts to the millivolt',
    caution: ISOLATE,
  },
  {
    id: 'coil-open',
    name: '{owner} coil open',
    // Volts across an open coil move nothing: the contact stays where its spring holds it.
    effects: [{ do: 'open', element: 'coil' }, { do: 'dead-controller' }],
    prior: 3,
    explains: ['coach-not-charging', 'boost-dead'],
    ...NEW_SOLENOID,
    proof: { ask: ['coil-ohms'] },
    shows: 'volts across the coil terminals but no amps through them',
    confirm: 'coil wire off, ohms across the coil: open',
    caution: ISOLATE,
  },
  {
    id: 'pull-in-high',
    name: '{owner} pulls in too late',
    effects: [{ do: 'shift-param', param: 'pullIn', from: 3.6, to: 6 }],
    prior: 1,
    explains: ['coach-not-charging', 'link-cycles', 'boost-dead'],
    ...NEW_SOLENOID,
    proof: { touch: ['coil-plus', 'coil-minus'] },
    shows: 'battery volts across its coil, and no click',
    confirm: 'coil volts across the coil terminals: over 9 V and still open; a tap on its case may close it',
    caution: ISOLATE,
  },
  {
    id: 'wrong-duty',
    name: '{owner} is the intermittent kind',
    // Intermittent (starter-type) coils are 3–5 Ω where continuous ones are 12–18 Ω: from memory.
    effects: [{ do: 'scale-param', param: 'coil', from: 0.33, to: 0.19 }],
    prior: 0.7,
    explains: ['hot-link'],
    repair: 'Fit a continuous-duty isolator solenoid',
    minutes: [40, 75],
    parts: [45, 160],
    proof: { ask: ['coil-ohms'] },
    shows: 'the coil takes three to four times the amps of a continuous-duty one',
    confirm: 'coil wire off, ohms across the coil: 3–5 Ω',
    caution: 'It burns if held: do not leave the key on longer than a measurement takes.',
  },
  {
    id: 'ground-lost',
    wire: { end: 'from', terminal: 'coil-minus' },
    name: 'Coil ground lost',
    effects: [{ do: 'open', element: '' }],
    prior: 2,
    explains: ['coach-not-charging', 'boost-dead'],
    repair: 'Repair the coil ground wire',
    minutes: [15, 40],
    parts: [2, 10],
    shows: 'coil – follows coil + instead of staying at frame',
    confirm: 'coil – against the frame with the coil fed: battery volts instead of a few millivolts',
  },
];

/** One piece of work on one cable, whichever it is: what the look at its ends and its jacket says decides on the way. */
const COACH_CABLE_REPAIR = 'Re-crimp the cable to the coach bank, or replace it where it is too thin';

export const COACH_CABLE_FAULTS: readonly PartFault[] = [
  {
    id: 'bad-lug',
    wire: { end: 'from', terminal: 'coach-stud' },
    name: 'Bad lug on the cable to the coach bank',
    ...BAD_LUG,
    prior: 2,
    explains: ['coach-not-charging', 'slow-charging'],
    repair: COACH_CABLE_REPAIR,
    shows: 'volts arrive at the coach stud but not at the bank',
    confirm: 'drop from the coach stud to the bank post under current',
    caution: MOVE_HEAVY,
  },
  {
    id: 'too-thin',
    wire: { end: 'from', terminal: 'coach-stud' },
    name: 'Cable to the coach bank too thin for its length',
    // To what a thin wire of a tow vehicle's factory line has, run for the length of two vehicles.
    effects: [{ do: 'add-ohms', element: '', from: 0.006, to: 0.4 }],
    prior: 1,
    explains: ['slow-charging', 'coach-not-charging'],
    repair: COACH_CABLE_REPAIR,
    shows: 'a drop spread along the cable, both ends sound and tight',
    confirm: 'read the size off its jacket against what Sizing asks for; drop per metre the same at both ends',
    minutes: [60, 180],
    parts: [40, 220],
    proof: { ask: ['bad-end'] },
    caution: MOVE_HEAVY,
  },
];

export const DIODE_ISOLATOR_FAULTS: readonly PartFault[] = [
  {
    id: 'coach-diode-open',
    name: '{owner}: coach diode open',
    effects: [{ do: 'replace-ohms', element: 'coach-bulk', from: 1e5, to: 1e6 }],
    prior: 3,
    explains: ['coach-not-charging'],
    ...NEW_DIODES,
    shows: 'alternator volts go in, nothing comes out on the coach stud',
    confirm: 'diode test of the meter between the alternator and coach studs, battery leads off',
  },
  {
    id: 'chassis-diode-open',
    name: '{owner}: chassis diode open',
    effects: [{ do: 'replace-ohms', element: 'chassis-bulk', from: 1e5, to: 1e6 }],
    prior: 2,
    explains: ['chassis-flat', 'chassis-not-charging'],
    ...NEW_DIODES,
    shows: 'alternator volts go in, nothing comes out on the chassis stud',
    confirm: 'diode test of the meter between the alternator and chassis studs, battery leads off',
  },
  {
    id: 'coach-diode-shorted',
    name: '{owner}: coach diode shorted',
    effects: [{ do: 'parallel-ohms', element: 'coach-short', from: 0.001, to: 0.01 }],
    prior: 1.5,
    explains: ['both-flat', 'link-always-on'],
    ...NEW_DIODES,
    shows: 'no diode drop between alternator and coach studs',
    confirm: 'diode test of the meter: the same both ways round, battery leads off',
  },
];

export const LINK_FUSE_FAULTS: readonly PartFault[] = [
  {
    id: 'open',
    name: '{owner} open',
    effects: [{ do: 'open', element: 'element' }],
    prior: 4,
    explains: ['coach-not-charging', 'boost-dead'],
    repair: 'Replace the link fuse and find what blew it',
    minutes: [20, 60],
    parts: [8, 40],
    shows: 'source stud at chassis volts, load stud without',
    confirm: 'volts across the fuse itself: battery volts instead of nothing',
    caution: 'A fuse that blew had a reason: look for the short before fitting the next.',
  },
  {
    id: 'loose',
    name: '{owner} loose or burned in its holder',
    effects: [{ do: 'add-ohms', element: 'element', from: 0.006, to: 0.4 }],
    prior: 2,
    explains: ['coach-not-charging', 'slow-charging', 'hot-link'],
    repair: 'Replace the link fuse and its holder',
    minutes: [25, 60],
    parts: [15, 60],
    shows: 'a drop across the fuse under current, and heat',
    confirm: 'drop across the fuse studs under current, or discolored plastic',
  },
  {
    id: 'bad-lug',
    wire: { end: 'from', terminal: 'load' },
    name: 'Bad lug between link fuse and isolator',
    ...BAD_LUG,
    prior: 1.5,
    explains: ['coach-not-charging', 'slow-charging', 'hot-link'],
    repair: 'Cut back and re-crimp the lead from fuse to isolator',
    shows: 'a big drop along a short lead under current',
    confirm: 'drop from lug to lug under current',
    caution: MOVE_HEAVY,
  },
  {
    id: 'bad-lug',
    wire: { end: 'to', terminal: 'source' },
    name: 'Bad lug between chassis bank and link fuse',
    ...BAD_LUG,
    prior: 1.5,
    explains: ['coach-not-charging', 'slow-charging', 'hot-link'],
    repair: 'Cut back and re-crimp the lead to the link fuse',
    shows: 'the fuse stands below the bank under current',
    confirm: 'drop from the bank post to the fuse stud under current',
    caution: MOVE_HEAVY,
  },
];
