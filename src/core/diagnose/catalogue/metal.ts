/** Faults of what no part owns: straps between grounds, and the metal parts are bolted to. */
import type { MetalFault } from './faultKind';

const BAD_GROUND = { minutes: [20, 50], parts: [2, 15] } as const;

export const METAL_FAULTS: readonly MetalFault[] = [
  {
    id: 'bad-strap',
    at: { strap: 'ground-to-ground' },
    name: '{owner}: strap bad',
    effects: [{ do: 'add-ohms', element: '', from: 0.02, to: 0.4 }],
    prior: 1.2,
    explains: ['chassis-not-charging', 'coach-not-charging', 'slow-charging'],
    repair: 'Clean and remake the engine strap',
    ...BAD_GROUND,
    shows: 'the engine block stands below frame while the alternator works',
    confirm: 'alternator case to battery –, loads on, fast idle: more than 0.2 V',
  },
  {
    id: 'bad-mount',
    at: { bond: 'part-to-ground' },
    name: 'Alternator mount corroded',
    effects: [{ do: 'add-ohms', element: '', from: 0.02, to: 0.3 }],
    prior: 0.6,
    explains: ['chassis-not-charging', 'coach-not-charging'],
    repair: 'Clean the alternator mount and add a ground strap',
    ...BAD_GROUND,
    shows: 'the case stands below the engine block while it works',
    confirm: 'case to engine block under load',
  },
  {
    id: 'bad-splice',
    at: { bond: 'frame-to-frame' },
    name: 'Frame splice corroded',
    effects: [{ do: 'add-ohms', element: '', from: 0.02, to: 0.4 }],
    prior: 1.5,
    explains: ['coach-not-charging', 'slow-charging'],
    repair: 'Clean the frame splice and add a bonding cable',
    minutes: [40, 90],
    parts: [10, 40],
    shows: 'house frame and chassis frame differ under current',
    confirm: 'frame bolt to frame bolt while the link carries',
  },
];
