/** Signing in and out. Sessions are rows, so that signing out ends them everywhere. */
import { createHash, randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { Refused, type Actor } from './actor';
import { withShop } from './db';
import { DECOY_HASH, passwordFits } from './password';

const SESSION_HOURS = 14 * 24;

/**
 * Tries that cost nothing, and the longest wait after more: a wait doubles from 15 s. Counted by name and address
 * together first, so that a stranger elsewhere does not shut out whoever stands at the bench.
 */
const FREE = { pair: 5, name: 40, address: 30 } as const;
const LONGEST_WAIT_S = 900;

const keyOf = (kind: keyof typeof FREE, ...words: string[]): string =>
  createHash('sha256')
    .update([kind, ...words].join('\n'))
    .digest('hex');

function waitInWords(seconds: number): string {
  return seconds < 90 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`;
}

export interface SignedIn {
  shopId: string;
  sessionId: string;
  personId: string;
}

/** Checks handle and password and opens a session. The refusal never says which of the two was wrong. */
export async function signIn(
  db: Knex,
  handle: string,
  password: string,
  options: { allowDemo: boolean; address: string },
): Promise<SignedIn> {
  const name = handle.trim().toLowerCase();
  const names = [keyOf('pair', name, options.address), keyOf('name', name)];
  const addresses = [keyOf('address', options.address)];
  const { rows: tried } = await db.raw<{ rows: { wait: number }[] }>(
    'SELECT sign_in_try(?::text[], ?::int[], ?) AS wait',
    [[...names, ...addresses], [FREE.pair, FREE.name, FREE.address], LONGEST_WAIT_S],
  );
  if (tried[0]!.wait > 0)
    throw new Refused(429, 'too-many', `Too many tries. Wait ${waitInWords(tried[0]!.wait)}, then try again.`);
  const { rows } = await db.raw<{
    rows: { shop_id: string; person_id: string; password_hash: string; demo: boolean }[];
  }>('SELECT * FROM sign_in_of(?)', [name]);
  const found = rows[0];
  // Who was only invited has no password yet: that takes as long as a wrong one.
  const stored = found?.password_hash.startsWith('$') ? found.password_hash : undefined;
  const fits = await passwordFits(stored ?? (await DECOY_HASH), password);
  if (!found || !stored || !fits) throw new Refused(401, 'wrong', 'Name or password is wrong.');
  if (found.demo && !options.allowDemo)
    throw new Refused(
      403,
      'demo-exposed',
      'Demo people cannot sign in over the network. Use the machine Surrik runs on.',
    );
  await db.raw('SELECT sign_in_succeeded(?::text[], ?::text[])', [names, addresses]);
  return openSession(db, { shopId: found.shop_id, personId: found.person_id });
}

/** A new session of a person; its id is new each time. */
export async function openSession(db: Knex, of: { shopId: string; personId: string }): Promise<SignedIn> {
  const sessionId = randomUUID();
  await withShop(db, of.shopId, (tx) =>
    tx('sessions').insert({
      shop_id: of.shopId,
      id: sessionId,
      person_id: of.personId,
      expires_at: tx.raw(`now() + make_interval(hours => ?)`, [SESSION_HOURS]),
    }),
  );
  return { ...of, sessionId };
}

/** The person behind a session, or undefined when it ended, ran out, or the person left. */
export async function actorOf(db: Knex, session: SignedIn): Promise<Actor | undefined> {
  const { rows } = await db.raw<{ rows: { name: string; role: Actor['role'] }[] }>('SELECT * FROM actor_of(?, ?, ?)', [
    session.shopId,
    session.sessionId,
    session.personId,
  ]);
  return rows[0] && { ...session, ...rows[0] };
}

export async function signOut(db: Knex, actor: Actor): Promise<void> {
  await withShop(db, actor.shopId, (tx) =>
    tx('sessions').where({ id: actor.sessionId }).update({ ended_at: tx.fn.now() }),
  );
}

/** Ends every session of the person, this one too. */
export async function signOutEverywhere(db: Knex, actor: Actor): Promise<void> {
  await withShop(db, actor.shopId, (tx) => endSessions(tx, actor.personId));
}

export const endSessions = (tx: Knex.Transaction, personId: string): Promise<number> =>
  tx('sessions').where({ person_id: personId }).whereNull('ended_at').update({ ended_at: tx.fn.now() });
