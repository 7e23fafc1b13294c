/** Faults of what draws on the banks, and the coach disconnect. Priors, minutes and money are assumed; the wording is common practice. */
import type { PartFault } from '../fault';

const BAD_GROUND = { minutes: [20, 50], parts: [2, 15] } as const;
const NEW_DISCONNECT = { repair: 'Replace the coach disconnect', minutes: [25, 60], parts: [20, 150] } as const;

export const HOUSE_LOADS_FAULTS: readonly PartFault[] = [
  {
    id: 'bad-joint',
    wire: { end: 'from', terminal: 'minus' },
    name: 'House panel ground bad',
    effects: [{ do: 'add-ohms', element: '', from: 0.05, to: 1 }],
    prior: 1,
    explains: ['house-dead'],
    repair: 'Clean and remake the house panel ground',
    ...BAD_GROUND,
    shows: 'the panel’s – bus stands above the house frame with lights on',
    confirm: 'panel – bus to frame bolt with loads on',
  },
  {
    id: 'left-on',
    name: 'Something in the house draws all the time',
    effects: [{ do: 'parallel-ohms', element: 'draw', from: 0.9, to: 0.3 }],
    prior: 1,
    explains: ['coach-short-life', 'slow-charging'],
    repair: 'Find what stays on, and cure it',
    minutes: [30, 120],
    parts: [0, 60],
    shows: 'more amps out of the coach bank than the loads in use explain',
    confirm:
      'clamp on the bank’s negative, then fuse by fuse; an inverter left on, feeding its own charger, is the classic',
  },
];

export const CHASSIS_LOADS_FAULTS: readonly PartFault[] = [
  {
    id: 'parasitic',
    name: 'Parasitic load on the chassis side',
    effects: [{ do: 'parallel-ohms', element: 'draw', from: 60, to: 6 }],
    prior: 2.5,
    explains: ['chassis-flat'],
    repair: 'Find the circuit by millivolts across its fuse, and cure it',
    minutes: [40, 150],
    parts: [0, 60],
    shows: 'more than the usual sleep current out of the start battery',
    confirm: 'clamp or fuse millivolts after 20–60 minutes of sleep',
    caution: 'Never break the circuit to measure: pulling a fuse wakes modules.',
  },
];

export const DISCONNECT_FAULTS: readonly PartFault[] = [
  {
    id: 'open',
    name: '{owner} won’t close',
    effects: [{ do: 'open', element: 'contact' }],
    prior: 1.5,
    explains: ['house-dead', 'shore-not-charging'],
    ...NEW_DISCONNECT,
    shows: 'house side dead while the bank stands',
    confirm: 'both studs against frame, disconnect on',
  },
  {
    id: 'worn',
    name: '{owner} contact worn',
    effects: [{ do: 'replace-ohms', element: 'contact', from: 0.02, to: 0.5 }],
    prior: 1.2,
    explains: ['house-dead', 'shore-not-charging', 'coach-short-life'],
    ...NEW_DISCONNECT,
    shows: 'a drop across the disconnect with loads on',
    confirm: 'drop across its studs with loads on',
  },
  {
    id: 'does-not-open',
    name: '{owner} does not open',
    effects: [{ do: 'stuck-closed', element: 'contact' }],
    prior: 0.8,
    explains: ['coach-short-life'],
    ...NEW_DISCONNECT,
    shows: 'the house side stays live with the disconnect off',
    confirm: 'house stud with the disconnect off, engine off, shore cord out',
    caution: 'Engine off and shore cord out before the disconnect is turned off.',
  },
];
