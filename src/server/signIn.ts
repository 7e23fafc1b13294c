/** Signing in and out. Sessions are rows, so that signing out ends them everywhere. */
import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { Refused, type Actor } from './actor';
import { withShop } from './db';
import { DECOY_HASH, passwordFits } from './password';

const SESSION_HOURS = 14 * 24;

/** Attempts per handle; in memory, since a restart costs an attacker more than it gives. */
const attempts = new Map<string, { count: number; since: number }>();
const ATTEMPTS = 8;
const ATTEMPT_WINDOW_MS = 10 * 60_000;

function countAttempt(handle: string, now: number): void {
  const entry = attempts.get(handle);
  if (!entry || now - entry.since > ATTEMPT_WINDOW_MS) {
    attempts.set(handle, { count: 1, since: now });
    if (attempts.size > 10_000) attempts.clear();
    return;
  }
  entry.count++;
  if (entry.count > ATTEMPTS)
    throw new Refused(429, 'too-many', 'Too many tries with this name. Wait ten minutes, then try again.');
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
  options: { allowDemo: boolean; now?: Date },
): Promise<SignedIn> {
  const name = handle.trim().toLowerCase();
  countAttempt(name, (options.now ?? new Date()).getTime());
  const { rows } = await db.raw<{
    rows: { shop_id: string; person_id: string; password_hash: string; demo: boolean }[];
  }>('SELECT * FROM sign_in_of(?)', [name]);
  const found = rows[0];
  const fits = await passwordFits(found?.password_hash ?? (await DECOY_HASH), password);
  if (!found || !fits) throw new Refused(401, 'wrong', 'Name or password is wrong. Both are printed by ./surrik up.');
  if (found.demo && !options.allowDemo)
    throw new Refused(
      403,
      'demo-exposed',
      'Demo people cannot sign in over the network. Use the machine Surrik runs on.',
    );
  attempts.delete(name);
  const sessionId = randomUUID();
  await withShop(db, found.shop_id, (tx) =>
    tx('sessions').insert({
      shop_id: found.shop_id,
      id: sessionId,
      person_id: found.person_id,
      expires_at: tx.raw(`now() + make_interval(hours => ?)`, [SESSION_HOURS]),
    }),
  );
  return { shopId: found.shop_id, sessionId, personId: found.person_id };
}

/** The person behind a session, or undefined when it ended, ran out, or the person left. */
export async function actorOf(db: Knex, session: SignedIn): Promise<Actor | undefined> {
  return withShop(db, session.shopId, async (tx) => {
    const row = (await tx('sessions as s')
      .join('people as p', (on) => on.on('p.shop_id', 's.shop_id').andOn('p.id', 's.person_id'))
      .where({ 's.id': session.sessionId, 'p.active': true })
      .whereNull('s.ended_at')
      .where('s.expires_at', '>', tx.fn.now())
      .first('p.id', 'p.name', 'p.role')) as { id: string; name: string; role: Actor['role'] } | undefined;
    return (
      row && { shopId: session.shopId, sessionId: session.sessionId, personId: row.id, name: row.name, role: row.role }
    );
  });
}

export async function signOut(db: Knex, actor: Actor): Promise<void> {
  await withShop(db, actor.shopId, (tx) =>
    tx('sessions').where({ id: actor.sessionId }).update({ ended_at: tx.fn.now() }),
  );
}
