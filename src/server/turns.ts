/**
 * How often one person may ask for what is dear, in a minute: far above any shop's work, far below what would shut out the
 * others. Counted in the database, for all app processes together. From memory of what a shop does.
 */
import type { Knex } from 'knex';
import { Refused, type Actor } from './actor';

const WHILE_S = 60;

/** Doors that have a limit: turns a minute, and what is taken there in words. */
export const DOORS = {
  // A tablet that comes back from a bay without signal hands over a day's work at once.
  command: { most: 1200, what: 'entries' },
  upload: { most: 120, what: 'photos and logs' },
  import: { most: 20, what: 'job files' },
  paper: { most: 60, what: 'papers and files' },
  search: { most: 300, what: 'searches' },
} as const satisfies Readonly<Record<string, { most: number; what: string }>>;
export type Door = keyof typeof DOORS;

/** Takes a turn at a door. @throws Refused 429 with the seconds to wait, where the minute's turns are used up */
export async function takeTurn(db: Knex, actor: Pick<Actor, 'shopId' | 'personId'>, door: Door): Promise<void> {
  const { most, what } = DOORS[door];
  const { rows } = await db.raw<{ rows: { wait: number }[] }>('SELECT take_turn(?, ?, ?, ?, ?) AS wait', [
    actor.shopId,
    actor.personId,
    door,
    most,
    WHILE_S,
  ]);
  const { wait } = rows[0]!;
  if (wait > 0)
    throw new Refused(
      429,
      'too-many',
      `More than ${most} ${what} in a minute. Wait ${wait} seconds, then go on: nothing you entered is lost.`,
      { retryAfter: wait },
    );
}
