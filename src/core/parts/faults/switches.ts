/** Faults of ignition, link switch and boost switch. Priors, minutes and money are assumed; the wording is common practice. */
import type { PartFault } from '../fault';

const NEW_WIRE = { minutes: [20, 70], parts: [3, 15] } as const;

export const IGNITION_FAULTS: readonly PartFault[] = [
  {
    id: 'missing',
    wire: { end: 'from', terminal: 'run' },
    name: 'Ignition feed missing at the link control',
    effects: [{ do: 'open', element: '' }],
    prior: 3,
    explains: ['coach-not-charging'],
    repair: 'Restore the ignition feed',
    ...NEW_WIRE,
    shows: 'no volts at the module or switch with the key on',
    confirm: 'volts at both ends of the feed, key on; then its fuse',
  },
  {
    id: 'always-live',
    option: { name: 'live', is: ['run'] },
    name: 'Ignition feed on a circuit that is always live',
    effects: [{ do: 'stuck-closed', element: 'contact' }],
    prior: 1,
    explains: ['both-flat', 'link-always-on', 'chassis-flat'],
    repair: 'Move the feed to a circuit live in run only',
    minutes: [30, 80],
    parts: [5, 20],
    shows: 'volts on the feed with the key off',
    confirm: 'key out for a minute: the feed must fall to nothing',
    caution: 'Fuse taps: never airbag, ABS or engine-computer circuits.',
  },
  {
    id: 'worn',
    name: '{owner} switch contact worn',
    effects: [{ do: 'add-ohms', element: 'contact', from: 2, to: 40 }],
    prior: 0.8,
    explains: ['coach-not-charging', 'link-cycles'],
    repair: 'Feed the link control from a relay or another run circuit',
    minutes: [40, 90],
    parts: [10, 40],
    shows: 'the feed falls by volts as soon as the coil draws',
    confirm: 'feed volts with the coil on and off',
  },
  {
    id: 'bad-lug',
    wire: { end: 'to', terminal: 'feed' },
    name: 'Dash feed bad',
    effects: [{ do: 'add-ohms', element: '', from: 1, to: 30 }],
    prior: 0.8,
    explains: ['coach-not-charging', 'link-cycles'],
    repair: 'Find and repair the dash feed',
    minutes: [30, 90],
    parts: [5, 25],
    shows: 'the run circuit stands volts below the chassis bank',
    confirm: 'drop from the bank to the ignition feed, key on',
  },
];

export const LINK_SWITCH_FAULTS: readonly PartFault[] = [
  {
    id: 'open',
    name: '{owner} won’t close',
    effects: [{ do: 'open', element: 'contact' }],
    prior: 3,
    explains: ['coach-not-charging'],
    repair: 'Replace the link switch',
    minutes: [20, 45],
    parts: [8, 30],
    shows: 'feed is there, nothing on the output with the switch on',
    confirm: 'volts on both tabs, switch on and off',
  },
];

const CHARGER_OFF = ['coach-not-charging', 'slow-charging', 'coach-short-life'] as const;

export const ENABLE_SWITCH_FAULTS: readonly PartFault[] = [
  {
    id: 'forgotten-off',
    name: '{owner} left off, or it won’t close',
    effects: [{ do: 'open', element: 'contact' }],
    prior: 4,
    explains: CHARGER_OFF,
    repair: 'Switch it on and label it; replace it where on changes nothing',
    minutes: [5, 45],
    parts: [0, 20],
    shows: 'feed is there, nothing on the output of the switch',
    confirm: 'look at its position; volts on both tabs, switch on and off',
  },
];

export const MARKER_LIGHT_FAULTS: readonly PartFault[] = [
  {
    id: 'dead',
    name: 'Marker-light circuit dead',
    effects: [{ do: 'open', element: 'contact' }],
    prior: 3,
    explains: CHARGER_OFF,
    repair: 'Replace the fuse of the marker lights, or repair their wire',
    minutes: [10, 45],
    parts: [1, 15],
    shows: 'no marker lamp burns, nothing on the lamp pin with the lights on',
    confirm: 'look at the lamps with the lights on; then the pin, under a lamp’s load',
  },
];

export const BYPASS_FAULTS: readonly PartFault[] = [
  {
    id: 'left-closed',
    name: '{owner} left closed',
    effects: [{ do: 'stuck-closed', element: 'contact' }],
    prior: 1.5,
    explains: ['both-flat', 'link-always-on', 'link-cycles'],
    repair: 'Open the bypass, label it, and tell the owner what it is for',
    minutes: [2, 10],
    parts: [0, 5],
    shows: 'both banks at the same volts with everything off; the charger takes from what it fills',
    confirm: 'look at the bypass; then both its studs against frame, everything off',
    caution: 'Engine and every charger off before it is parted: a charging circuit opened makes a spike.',
  },
  {
    id: 'wont-close',
    name: '{owner} won’t close',
    effects: [{ do: 'open', element: 'contact' }],
    prior: 0.5,
    explains: ['boost-dead'],
    repair: 'Clean or replace the bypass',
    minutes: [15, 40],
    parts: [20, 60],
    shows: 'it is closed and its two sides stand apart',
    confirm: 'drop across it while it is closed and the engine is cranked',
  },
];

export const SHUNT_FAULTS: readonly PartFault[] = [
  {
    id: 'loose',
    name: 'Stud of the {owner} loose',
    effects: [{ do: 'replace-ohms', element: 'element', from: 0.01, to: 0.3 }],
    prior: 1,
    explains: ['coach-not-charging', 'slow-charging', 'shore-not-charging', 'coach-short-life', 'house-dead'],
    repair: 'Clean and torque the shunt’s studs',
    minutes: [15, 40],
    parts: [0, 10],
    shows: 'a drop across the shunt far over its 50 mV at full amps, and a warm stud',
    confirm: 'drop from one stud to the other with amps flowing: 0.1 mV an ampere is right',
  },
];

export const BOOST_FAULTS: readonly PartFault[] = [
  {
    id: 'fuse-blown',
    name: 'Boost fuse blown',
    effects: [{ do: 'open', element: 'fuse' }],
    prior: 3,
    explains: ['boost-dead'],
    repair: 'Replace the boost fuse and find what blew it',
    minutes: [15, 45],
    parts: [2, 8],
    proof: { ask: ['boost-fuse-seen-blown'] },
    shows: 'no volts on the switch side of the boost fuse',
    confirm: 'both sides of the fuse against frame',
    caution: 'A switch wedged down blows this fuse: look for coins, a pen, their marks.',
  },
  {
    id: 'switch-open',
    name: '{owner} won’t close',
    effects: [{ do: 'open', element: 'contact' }],
    prior: 2,
    explains: ['boost-dead'],
    repair: 'Replace the boost switch',
    minutes: [20, 45],
    parts: [10, 45],
    shows: 'fused feed is there, nothing on the output while it is held',
    confirm: 'output tab while held, against the fused feed',
  },
  {
    id: 'wedged',
    name: '{owner} wedged or stuck down',
    effects: [{ do: 'stuck-closed', element: 'contact' }],
    prior: 1,
    explains: ['both-flat', 'link-always-on', 'hot-link'],
    repair: 'Free or replace the boost switch, and tell the owner why',
    minutes: [10, 40],
    parts: [0, 45],
    shows: 'the coil is fed with nobody at the switch',
    confirm: 'look under the rocker: coins, a pen, or their marks',
    caution: 'A coil held for days burns: feel the isolator before touching the studs.',
  },
  {
    id: 'broken',
    wire: { end: 'from', terminal: 'output' },
    name: 'Boost wire broken',
    effects: [{ do: 'open', element: '' }],
    prior: 1,
    explains: ['boost-dead'],
    repair: 'Replace the wire from boost switch to coil',
    ...NEW_WIRE,
    shows: 'the switch puts out volts that never reach the coil',
    confirm: 'volts at both ends of the wire while the switch is held',
  },
  {
    id: 'feed-open',
    wire: { end: 'to', terminal: 'feed' },
    name: 'Boost feed wire open',
    effects: [{ do: 'open', element: '' }],
    prior: 1,
    explains: ['boost-dead'],
    repair: 'Replace the feed to the boost fuse',
    ...NEW_WIRE,
    shows: 'no volts on either side of the boost fuse',
    confirm: 'battery side of the fuse against frame',
  },
];
