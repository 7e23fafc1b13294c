/** Commands that set one item of a list: as it was, as it shall be. */
import type { Act } from '../people/roles';
import { ok } from '../units/result';
import type { CommandDefinition, Undoing } from './commandDefinition';
import { withItem } from './itemList';
import type { Job } from './job';
import { turnedRound } from './turnedRound';

interface ItemSet {
  list: 'followUps' | 'bookings' | 'planChanges' | 'logs';
  type: Undoing['type'];
  needs: Act;
  afterSigning: boolean;
  undoWords: string;
}
type Item = { id: string; by: string };

export function itemSet<P extends { was?: Item; set?: Item }>({ list, type, ...rest }: ItemSet): CommandDefinition<P> {
  return {
    apply(job, payload, { by }) {
      const items = withItem(job[list] as readonly Item[] | undefined, payload, by);
      return items.ok ? ok({ ...job, [list]: items.value } as Job) : items;
    },
    inverse: (payload) => ({ type, payload: turnedRound(payload) }) as unknown as Undoing,
    // It says what stood there before: what changed meanwhile is told by that alone.
    collides: () => undefined,
    ...rest,
  };
}
