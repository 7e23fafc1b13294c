/** Signing in and out. Sessions are rows, so that signing out ends them everywhere. */
import { createHash, randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { Refused, type Actor } from './actor';
import { withShop } from './db';
import { DECOY_HASH, passwordFits } from './password';
import { takeCode } from './secondFactor';

const SESSION_HOURS = 14 * 24;

/**
 * Tries that cost nothing, and the longest wait after more: a wait doubles from 15 s. Counted by name and address
 * together first, so that a stranger elsewhere does not shut out whoever stands at the bench.
 */
const FREE = { pair: 5, name: 40, address: 30, code: 5 } as const;
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

/** Whose password was right, and who is still to show a code. */
export type HalfSignedIn = Pick<SignedIn, 'shopId' | 'personId'>;

/** Counts a try under keys, and refuses where there were too many. */
async function countTry(db: Knex, keys: string[], free: number[]): Promise<void> {
  const { rows } = await db.raw<{ rows: { wait: number }[] }>('SELECT sign_in_try(?::text[], ?::int[], ?) AS wait', [
    keys,
    free,
    LONGEST_WAIT_S,
  ] as never);
  if (rows[0]!.wait > 0)
    throw new Refused(429, 'too-many', `Too many tries. Wait ${waitInWords(rows[0]!.wait)}, then try again.`);
}

/**
 * Checks handle and password and opens a session, or says who is to show a code first. The refusal never says which of
 * the two was wrong.
 */
export async function signIn(
  db: Knex,
  handle: string,
  password: string,
  options: { allowDemo: boolean; address: string },
): Promise<SignedIn | { half: HalfSignedIn }> {
  const name = handle.trim().toLowerCase();
  const names = [keyOf('pair', name, options.address), keyOf('name', name)];
  const addresses = [keyOf('address', options.address)];
  await countTry(db, [...names, ...addresses], [FREE.pair, FREE.name, FREE.address]);
  const { rows } = await db.raw<{
    rows: { shop_id: string; person_id: string; password_hash: string; demo: boolean; second: boolean }[];
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
  const who = { shopId: found.shop_id, personId: found.person_id };
  return found.second ? { half: who } : openSession(db, who);
}

/** The second half: a code of the time or off the paper. A right password forgets no wrong codes. */
export async function signInWithCode(
  db: Knex,
  who: HalfSignedIn,
  code: string,
  options: { address: string; at: Date },
): Promise<SignedIn> {
  const whose = keyOf('code', who.personId);
  const addresses = [keyOf('address', options.address)];
  await countTry(db, [whose, ...addresses], [FREE.code, FREE.address]);
  if (!(await takeCode(db, who, code, options.at)))
    throw new Refused(401, 'code', 'This is not the code of now, or it was used already. Wait for the next one.');
  await db.raw('SELECT sign_in_succeeded(?::text[], ?::text[])', [[whose], addresses]);
  return openSession(db, who);
}

/** Whether this is the password of who is signed in: asked again before a lock is taken off. Counted as a sign-in is. */
export async function isOwnPassword(db: Knex, actor: Actor, password: string): Promise<boolean> {
  const whose = [keyOf('code', actor.personId)];
  await countTry(db, whose, [FREE.code]);
  const stored = await withShop(
    db,
    actor.shopId,
    async (tx) =>
      (await tx('people').where({ id: actor.personId }).first('password_hash')) as { password_hash: string },
  );
  if (!(await passwordFits(stored.password_hash, password))) return false;
  await db.raw('SELECT sign_in_succeeded(?::text[], ?::text[])', [whose, []]);
  return true;
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

/** Ends every session of a person; no device knows them any more. */
export async function endSessions(tx: Knex.Transaction, personId: string): Promise<void> {
  await tx('sessions').where({ person_id: personId }).whereNull('ended_at').update({ ended_at: tx.fn.now() });
  await tx('device_people').where({ person_id: personId }).update({ until: tx.fn.now() });
}
