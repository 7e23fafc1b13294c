/** Who works in a shop: listed, invited, given a role, let go. Only the owner does this; every act is kept. */
import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import type { ApiAnswer } from '../core/openFormats/answers';
import { validatePeopleChange } from '../core/openFormats/validate';
import type { PeopleChange } from '../core/people/peopleSchema';
import { may, ROLES, type Role } from '../core/people/roles';
import { mayOrRefuse, Refused, type Actor } from './actor';
import { withShop } from './db';
import { hashPassword } from './password';
import { endSecondFactor, secondFactorOf } from './secondFactor';
import { endSessions, openSession, type SignedIn } from './signIn';

export type People = ApiAnswer<'people'>;
type PersonRow = People['people'][number];

/** Days an invitation holds. */
const INVITATION_DAYS = 7;
/** What NIST SP 800-63B asks of a password that is a person's only factor is a length (from memory): no rule of signs. */
const PASSWORD_LENGTH = [12, 200] as const;
/** Stands where no password was set yet: nothing hashes to it. */
const NO_PASSWORD = '-';

const hashOfToken = (token: string): string => createHash('sha256').update(token).digest('hex');
const bad = (message: string) => new Refused(400, 'invalid', message);
const label = (role: Role): string => ROLES.find((r) => r.id === role)!.label.toLowerCase();

/** Writes down what was done to a person, and by whom. */
export async function keepAct(tx: Knex.Transaction, actor: Actor, personId: string, act: string): Promise<void> {
  await tx('people_acts').insert({
    shop_id: actor.shopId,
    id: randomUUID(),
    by_id: actor.personId,
    person_id: personId,
    act,
  });
}

/** Everyone of the shop, and what was done to people, the newest first. */
export async function listPeople(db: Knex, actor: Actor): Promise<People> {
  return withShop(db, actor.shopId, async (tx) => {
    const people = (await tx('people as p')
      .orderBy([{ column: 'p.active', order: 'desc' }, 'p.name'])
      .select(
        'p.id',
        'p.handle',
        'p.name',
        'p.role',
        'p.active',
        tx.raw('p.password_hash = ? AS invited', [NO_PASSWORD]),
        tx.raw(
          'EXISTS (SELECT FROM second_factors f WHERE f.shop_id = p.shop_id AND f.person_id = p.id AND f.on_since IS NOT NULL) AS second',
        ),
        tx('sessions as s').whereRaw('s.person_id = p.id').max('s.created_at').as('seen'),
      )) as (Omit<PersonRow, 'seen'> & { seen: Date | null })[];
    const acts = may(actor.role, 'people')
      ? ((await tx('people_acts as a')
          .join('people as b', (on) => on.on('b.shop_id', 'a.shop_id').andOn('b.id', 'a.by_id'))
          .join('people as p', (on) => on.on('p.shop_id', 'a.shop_id').andOn('p.id', 'a.person_id'))
          .orderBy('a.at', 'desc')
          .limit(200)
          .select('a.at', 'b.name as by', 'p.name as of', 'a.act')) as {
          at: Date;
          by: string;
          of: string;
          act: string;
        }[])
      : [];
    return {
      people: people.map(({ seen, ...p }) => ({ ...p, ...(seen ? { seen: seen.toISOString() } : {}) })),
      acts: acts.map((a) => ({ ...a, at: a.at.toISOString() })),
      actor: { name: actor.name, role: actor.role },
    };
  });
}

/** A link that is used once, by whoever has it, to set a password. Earlier ones of the person end. */
async function invite(tx: Knex.Transaction, actor: Actor, personId: string): Promise<string> {
  const token = randomBytes(24).toString('base64url');
  await tx('invitations').where({ person_id: personId }).whereNull('used_at').update({ expires_at: tx.fn.now() });
  await tx('invitations').insert({
    shop_id: actor.shopId,
    id: randomUUID(),
    person_id: personId,
    token_hash: hashOfToken(token),
    expires_at: tx.raw(`now() + make_interval(days => ?)`, [INVITATION_DAYS]),
  });
  return `/invitation/${token}`;
}

interface Row {
  id: string;
  name: string;
  role: Role;
  active: boolean;
}

/** @returns the invitation's path, shown once, where one was made */
export async function changePeople(db: Knex, actor: Actor, data: unknown): Promise<{ invitation?: string }> {
  mayOrRefuse(actor, 'people');
  const checked = validatePeopleChange(data);
  if (!checked.ok) {
    const issue = checked.error[0]!;
    throw new Refused(400, 'invalid', `${issue.pointer}: found ${issue.found}, wanted ${issue.wanted}`, checked.error);
  }
  const change = checked.value;
  try {
    return await withShop(db, actor.shopId, async (tx) => {
      // One change of people at a time: two owners cannot both make the other a viewer.
      await tx.raw('SELECT pg_advisory_xact_lock(hashtext(?))', [`people ${actor.shopId}`]);
      return change.do === 'add' ? add(tx, actor, change) : changeOne(tx, actor, change);
    });
  } catch (e) {
    if ((e as { code?: string }).code === '23505')
      throw new Refused(409, 'taken', 'This sign-in name is taken. Use another.');
    throw e;
  }
}

async function add(
  tx: Knex.Transaction,
  actor: Actor,
  { handle, name, role }: Extract<PeopleChange, { do: 'add' }>,
): Promise<{ invitation: string }> {
  // Records name people: two of one name could not be told apart there.
  if (await tx('people').whereRaw('lower(name) = lower(?)', [name.trim()]).first('id'))
    throw new Refused(
      409,
      'taken',
      `There is a ${name.trim()} in this shop already: records could not tell the two apart.`,
    );
  const id = randomUUID();
  await tx('people').insert({
    shop_id: actor.shopId,
    id,
    handle,
    name: name.trim(),
    role,
    password_hash: NO_PASSWORD,
  });
  await keepAct(tx, actor, id, `added as ${label(role)}`);
  return { invitation: await invite(tx, actor, id) };
}

async function changeOne(
  tx: Knex.Transaction,
  actor: Actor,
  change: Exclude<PeopleChange, { do: 'add' }>,
): Promise<{ invitation?: string }> {
  const person = (await tx('people').where({ id: change.person }).first('id', 'name', 'role', 'active')) as
    Row | undefined;
  if (!person) throw new Refused(404, 'no-person', 'There is no such person in this shop.');
  const losesOwner =
    person.role === 'owner' &&
    person.active &&
    (change.do === 'let-go' || (change.do === 'role' && change.role !== 'owner'));
  if (
    losesOwner &&
    !(await tx('people').where({ role: 'owner', active: true }).whereNot({ id: person.id }).first('id'))
  )
    throw new Refused(409, 'last-owner', `${person.name} is the only owner. Make another person owner first.`);
  switch (change.do) {
    case 'role':
      await tx('people').where({ id: person.id }).update({ role: change.role });
      await keepAct(tx, actor, person.id, `${label(person.role)} made ${label(change.role)}`);
      return {};
    case 'let-go':
      await tx('people').where({ id: person.id }).update({ active: false });
      await endSessions(tx, person.id);
      await tx('invitations').where({ person_id: person.id }).whereNull('used_at').update({ expires_at: tx.fn.now() });
      await keepAct(tx, actor, person.id, 'let go: may not sign in');
      return {};
    case 'take-back':
      await tx('people').where({ id: person.id }).update({ active: true });
      await keepAct(tx, actor, person.id, 'taken back');
      return {};
    case 'sign-out':
      await endSessions(tx, person.id);
      await keepAct(tx, actor, person.id, 'signed out everywhere');
      return {};
    case 'second-off':
      await endSecondFactor(tx, person.id);
      await endSessions(tx, person.id);
      await keepAct(tx, actor, person.id, 'second factor turned off');
      return {};
    case 'invite':
      if (!person.active) throw new Refused(409, 'let-go', `${person.name} may not sign in. Take them back first.`);
      await keepAct(tx, actor, person.id, 'given a new invitation');
      return { invitation: await invite(tx, actor, person.id) };
  }
}

export interface Invitation {
  name: string;
  handle: string;
  shop: string;
}
type InvitationRow = Invitation & { shop_id: string; id: string; person_id: string };

async function invitationRow(db: Knex, token: string): Promise<InvitationRow | undefined> {
  if (!/^[\w-]{32}$/.test(token)) return undefined;
  const { rows } = await db.raw<{ rows: InvitationRow[] }>('SELECT * FROM invitation_of(?)', [hashOfToken(token)]);
  return rows[0];
}

/** Whom an invitation is for; undefined where it was used, has run out, or never was. */
export async function invitationOf(db: Knex, token: string): Promise<Invitation | undefined> {
  const row = await invitationRow(db, token);
  return row && { name: row.name, handle: row.handle, shop: row.shop };
}

/**
 * Uses an invitation: the password is set, every older session ends, and one is opened. None is opened for whoever is
 * asked for a code: a link stands for the password, not for the phone.
 */
export async function acceptInvitation(db: Knex, token: string, password: string): Promise<SignedIn | undefined> {
  const [least, most] = PASSWORD_LENGTH;
  if (password.length < least || password.length > most)
    throw bad(`A password has at least ${least} characters. A few words in a row are easy to type and hard to guess.`);
  const row = await invitationRow(db, token);
  if (!row) throw new Refused(404, 'no-invitation', 'This invitation was used, or has run out. Ask for another.');
  if (password.toLowerCase().includes(row.handle)) throw bad('The password must not contain the sign-in name.');
  const password_hash = await hashPassword(password);
  const asksForCode = await withShop(db, row.shop_id, async (tx) => {
    // Twice at once: one of the two has used it.
    const used = await tx('invitations').where({ id: row.id }).whereNull('used_at').update({ used_at: tx.fn.now() });
    if (used !== 1)
      throw new Refused(404, 'no-invitation', 'This invitation was used, or has run out. Ask for another.');
    await tx('people').where({ id: row.person_id }).update({ password_hash });
    await endSessions(tx, row.person_id);
    return (await secondFactorOf(tx, row.person_id)).on;
  });
  return asksForCode ? undefined : openSession(db, { shopId: row.shop_id, personId: row.person_id });
}
