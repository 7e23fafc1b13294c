/** Items that are sent as they were and as they shall be: follow-ups, bookings, changes of plan, logs. */
import { err, ok, type Result } from '../units/result';
import { canonical } from '../units/canonical';
import type { Refusal } from './refusal';

/** A list with one item put in, changed or taken out, where it stands as the sender saw it. */
export function withItem<T extends { id: string; by: string }>(
  list: readonly T[] = [],
  { was, set }: { was?: T; set?: T },
  actor: string,
): Result<T[], Refusal> {
  const id = (set ?? was)?.id;
  if (id === undefined || (was && set && was.id !== set.id))
    return err({ found: 'nothing to change', wanted: 'an item as it was, as it shall be, or both, under one id' });
  const now = list.find((x) => x.id === id);
  if (canonical(now) !== canonical(was))
    return err({
      found: now ? 'an item somebody has changed meanwhile' : 'an item that is not there',
      wanted: 'the change made again on what stands now',
    });
  if (set && !was && set.by !== actor && list.every((x) => x.by !== set.by))
    return err({ found: set.by, wanted: `the name of who enters it: ${actor}` });
  if (!set) return ok(list.filter((x) => x.id !== id));
  return ok(now ? list.map((x) => (x.id === id ? set : x)) : [...list, set]);
}
