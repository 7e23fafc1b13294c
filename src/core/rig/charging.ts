/** What chargers ask of the alternator's side: no more than they give back, and not through one another. */
import { is } from '../parts/kinds';
import { follow } from './follow';
import type { Part, Rig } from './schema';
import { partsWith, partValue } from './value';

/** V a 12 V input sags to under a full load: where a charger takes most. Common practice. */
const SAGGED_VOLTS = 12.5;

/**
 * A a charger takes at its input at most: its own limit, or, where that is less, what its full output needs there.
 * @param blocks nominal volts of its input over 12.
 */
export const mostTaken = (charger: Part, blocks = 1): number =>
  Math.min(
    partValue(charger, 'inLimit'),
    (partValue(charger, 'limit') * partValue(charger, 'absorb')) /
      (partValue(charger, 'efficiency') * SAGGED_VOLTS * blocks),
  );

/** Chargers the alternator feeds itself: one behind another's battery takes from that. */
export const chargersOnAlternator = (rig: Rig): Part[] =>
  partsWith(rig, 'charger').filter((p) =>
    follow(rig, { part: p.id, terminal: 'input' }).some(
      ({ part }) => is(part, 'alternator') || (is(part, 'battery') && part!.side === 'engine'),
    ),
  );
