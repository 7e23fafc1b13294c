/** Faults of what joins two vehicles. Priors, minutes and money are assumed; the wording is common practice. */
import type { PartFault } from '../fault';

const BRAKES = 'After any work at the connector prove brakes, lights and breakaway.';
const NOT_CHARGING = ['coach-not-charging'] as const;

export const TOW_CONNECTOR_FAULTS: readonly PartFault[] = [
  {
    id: 'pin-corroded',
    name: 'Charge pin of the {owner} corroded',
    effects: [{ do: 'replace-ohms', element: 'pin', from: 0.08, to: 1 }],
    prior: 6,
    explains: ['coach-not-charging', 'slow-charging'],
    repair: 'Clean or replace the connector and seal its back',
    shows: 'the pin reads full volts unloaded and falls under a load',
    confirm: 'the pin under a 4–5 A lamp: a fall over 0.5 V is bad',
    minutes: [20, 60],
    parts: [5, 60],
    caution: BRAKES,
  },
  {
    id: 'ground-pin-corroded',
    name: 'Ground pin of the {owner} corroded',
    effects: [{ do: 'replace-ohms', element: 'ground-pin', from: 0.08, to: 1 }],
    prior: 6,
    explains: ['coach-not-charging', 'slow-charging'],
    repair: 'Clean or replace the connector and seal its back',
    shows: 'frame stands apart from frame while current flows',
    confirm: 'drop across the ground pin while the line carries current',
    minutes: [20, 60],
    parts: [5, 60],
    caution: BRAKES,
  },
  {
    id: 'junction-corroded',
    wire: { end: 'from', terminal: 'rear' },
    name: 'Junction box or cable behind the {owner} corroded',
    effects: [{ do: 'add-ohms', element: '', from: 0.08, to: 0.8 }],
    prior: 3,
    explains: ['coach-not-charging', 'slow-charging'],
    repair: 'Open, cut back and remake the junction behind the plug, and seal it',
    shows: 'volts on the plug’s charge wire that do not arrive at the bank under load',
    confirm: 'drop from the charge wire behind the plug to the bank’s fuse while the line carries current',
    minutes: [25, 75],
    parts: [5, 30],
    caution: BRAKES,
  },
  {
    id: 'pin-unfed',
    name: 'Charge pin of the {owner} not connected',
    effects: [{ do: 'open', element: 'pin' }],
    prior: 5,
    explains: NOT_CHARGING,
    repair: 'Find the pin the charge wire is on and move it to the charge pin',
    shows: 'volts before the plug, none behind it',
    confirm:
      'each pin with a loaded tester, engine running; a fuse or relay that was never fitted, or a truck that has not ' +
      'learned the trailer, looks the same',
    minutes: [25, 75],
    parts: [5, 40],
    caution: BRAKES,
  },
];

export const LINE_BREAKER_FAULTS: readonly PartFault[] = [
  {
    id: 'tripped',
    name: '{owner} open and stays open',
    effects: [{ do: 'open', element: 'element' }],
    prior: 4,
    explains: NOT_CHARGING,
    repair: 'Replace the breaker and find what tripped it',
    shows: 'source stud at battery volts, load stud without',
    confirm: 'volts across the breaker itself: battery volts instead of millivolts',
    minutes: [10, 30],
    parts: [8, 30],
    caution: 'A breaker that tripped had a reason: look for the short before fitting the next.',
  },
  {
    id: 'weak',
    name: '{owner} trips far under its rating',
    effects: [{ do: 'scale-param', param: 'rating', from: 0.5, to: 0.1 }],
    prior: 3,
    explains: ['slow-charging', 'coach-not-charging', 'link-cycles'],
    repair: 'Replace the breaker; between two batteries prefer a fuse or a type III',
    shows: 'the line comes and goes, the breaker is warm',
    confirm: 'load stud while the line carries current, for some minutes: it drops out and comes back',
    minutes: [10, 30],
    parts: [8, 30],
  },
  {
    id: 'burnt',
    name: '{owner} burned inside',
    effects: [{ do: 'add-ohms', element: 'element', from: 0.05, to: 0.6 }],
    prior: 2,
    explains: ['slow-charging', 'coach-not-charging'],
    repair: 'Replace the breaker; between two batteries prefer a fuse or a type III',
    shows: 'a drop across the breaker under current, and heat',
    confirm: 'drop across its two studs while the line carries current',
    minutes: [10, 30],
    parts: [8, 30],
  },
];

export const VOLTAGE_RELAY_FAULTS: readonly PartFault[] = [
  {
    id: 'contact-high',
    name: 'Contact of the {owner} worn',
    effects: [{ do: 'replace-ohms', element: 'contact', from: 0.02, to: 0.3 }],
    prior: 3,
    explains: ['slow-charging', 'coach-not-charging'],
    repair: 'Replace the relay',
    shows: 'a big drop across the closed relay',
    confirm: 'drop across its studs while it carries current',
    minutes: [20, 40],
    parts: [40, 110],
  },
];

export const DIODE_LAMP_FAULTS: readonly PartFault[] = [
  {
    id: 'lamp-blown',
    name: 'Lamp of the {owner} blown',
    // Not wholly open: between an open fuse and a filament nothing would hold the volts, and no point would be found.
    effects: [{ do: 'replace-ohms', element: 'fuse', from: 1e6, to: 1e7 }],
    prior: 6,
    explains: NOT_CHARGING,
    repair: 'Replace the lamp or its fuse',
    shows: 'no trickle at all, however low the far battery',
    confirm: 'continuity of the lamp and its fuse, engine off',
    minutes: [10, 25],
    parts: [5, 20],
  },
];
