/** People of a shop on a real database: roles at every door, invitations, sessions, and tries at signing in. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoJobs } from '../../db/demo/jobs';
import { ROLES, type Role } from '../../src/core/people/roles';
import type { Refused, Actor } from '../../src/server/actor';
import { withShop } from '../../src/server/db';
import { submitCommand } from '../../src/server/job/commands';
import { importJob } from '../../src/server/job/jobArchive';
import { insertJob } from '../../src/server/job/jobStore';
import { storeLog } from '../../src/server/job/logs';
import { openJob } from '../../src/server/job/openJob';
import { jobSnapshot } from '../../src/server/job/snapshot';
import { storePhoto } from '../../src/server/job/photos';
import { jobTrail } from '../../src/server/job/trail';
import { hashPassword } from '../../src/server/password';
import { acceptInvitation, changePeople, invitationOf, listPeople } from '../../src/server/people';
import { submitShopCommand } from '../../src/server/shop';
import { actorOf, openSession, signIn, signOutEverywhere } from '../../src/server/signIn';
import { testDatabase, whole, type TestDatabase } from './database';

let db: TestDatabase;
const shop = randomUUID();
const other = randomUUID();
const people = new Map<Role, Actor>();
const as = (role: Role): Actor => people.get(role)!;
const job = demoJobs(new Date('2026-11-24T16:00:00Z')).find((j) => j.number === 1042)!;
const refusal = (work: Promise<unknown>): Promise<Refused | undefined> =>
  work.then(
    () => undefined,
    (e: Refused) => e,
  );

beforeAll(async () => {
  db = await testDatabase();
  await db.owner('shops').insert([
    { id: shop, name: 'Shop' },
    { id: other, name: 'Other' },
  ]);
  const password_hash = await hashPassword('right horse');
  for (const { id: role } of ROLES) {
    const id = randomUUID();
    await db.owner('people').insert({ shop_id: shop, id, handle: role, name: `The ${role}`, role, password_hash });
    people.set(role, { shopId: shop, sessionId: randomUUID(), personId: id, name: `The ${role}`, role });
  }
  await withShop(db.owner, shop, async (tx) => {
    await tx('rigs').insert({ shop_id: shop, id: job.rigId, nickname: 'Heron' });
    await insertJob(tx, shop, randomUUID(), job);
  });
});
afterAll(() => db.drop());

const command = (actor: Actor, type: string, payload: object, baseSeq = 0) => ({
  id: randomUUID(),
  type,
  version: 1,
  baseSeq,
  at: '2026-11-24T17:00:00.000Z',
  actor: actor.name,
  payload,
});

/** Everything that changes something, each with what is right for it and who is let in. */
const DOORS: readonly (readonly [string, (actor: Actor) => Promise<unknown>, readonly Role[]])[] = [
  [
    'a note',
    (a) => submitCommand(db.app, a, 1042, command(a, 'note.add', { id: randomUUID(), text: 'x' })),
    ['owner', 'lead', 'technician', 'apprentice', 'front-desk'],
  ],
  [
    'a reading',
    (a) =>
      submitCommand(
        db.app,
        a,
        1042,
        command(a, 'reading.keep', {
          id: randomUUID(),
          state: 'rested',
          probe: 'chassis-bank.plus',
          ref: 'frame.bay-2',
          status: 'measured',
          value: 12.4,
          unit: 'V',
          secondsInState: 60,
        }),
      ),
    ['owner', 'lead', 'technician', 'apprentice'],
  ],
  [
    'a setting of the shop',
    (a) =>
      submitShopCommand(
        db.app,
        a,
        command(a, 'settings.set', { was: { labourPerHour: 150 }, set: { labourPerHour: 160 } }),
      ),
    ['owner', 'lead'],
  ],
  [
    'a job that is opened',
    (a) => openJob(db.app, a, { id: 'no id' }, new Date()),
    ['owner', 'lead', 'technician', 'apprentice', 'front-desk'],
  ],
  ['a job file', (a) => importJob(db.app, a, new Uint8Array([1])), ['owner', 'lead', 'technician']],
  [
    'a photo',
    (a) => storePhoto(db.app, a, 1042, new Uint8Array()),
    ['owner', 'lead', 'technician', 'apprentice', 'front-desk'],
  ],
  ['a log', (a) => storeLog(db.app, a, 1042, new Uint8Array([1])), ['owner', 'lead', 'technician', 'apprentice']],
  ['a person', (a) => changePeople(db.app, a, { do: 'role', person: randomUUID(), role: 'viewer' }), ['owner']],
];

describe('a door', () => {
  it.each(DOORS)('for %s is open to those it is for, and shut to all others, who are told', async (_, knock, whose) => {
    for (const { id: role } of ROLES) {
      const no = await refusal(knock(as(role)));
      if (whose.includes(role)) expect(no?.code, role).not.toBe('role');
      else {
        expect(no, role).toMatchObject({ status: 403, code: 'role' });
        expect(no!.message).toContain(`signed in as The ${role}`);
      }
    }
  });

  it('for a signature wants a proof: a verdict without a repair is no record to sign', async () => {
    const a = as('owner');
    const { seq } = await jobSnapshot(db.app, a, 1042);
    const signed = { id: randomUUID(), revision: job.revisions.at(-1)!.id, words: 'right now' };
    const no = await refusal(submitCommand(db.app, a, 1042, command(a, 'record.sign', signed, seq)));
    expect(no).toMatchObject({ status: 409 });
    expect(no!.message).toContain('a record without a proof');
    // What nobody can have seen is told, and changes nothing.
    const ahead = command(a, 'note.add', { id: randomUUID(), text: 'x' }, seq + 1);
    expect(await refusal(submitCommand(db.app, a, 1042, ahead))).toMatchObject({ status: 409, code: 'ahead' });
    expect((await jobSnapshot(db.app, a, 1042)).seq).toBe(seq);
  });
});

describe('people of a shop', () => {
  it('are seen by everyone of it, and by nobody else; what was done to them by the owner alone', async () => {
    const seen = await listPeople(db.app, as('viewer'));
    expect(seen.people.map((p) => p.handle).sort()).toEqual(ROLES.map((r) => r.id).sort());
    expect(JSON.stringify(seen)).not.toMatch(/argon2|password/);
    expect(seen.acts).toEqual([]);
    const stranger: Actor = { ...as('owner'), shopId: other };
    expect((await listPeople(db.app, stranger)).people).toEqual([]);
    expect(await refusal(changePeople(db.app, stranger, { do: 'let-go', person: as('lead').personId }))).toMatchObject({
      status: 404,
    });
  });

  it('come by an invitation that works once, and sign in with the password they chose', async () => {
    const { invitation } = await changePeople(db.app, as('owner'), {
      do: 'add',
      handle: 'dana',
      name: 'Dana',
      role: 'technician',
    });
    const token = invitation!.split('/').at(-1)!;
    expect(await refusal(signIn(db.app, 'dana', '-', { allowDemo: true, address: '1' }))).toMatchObject({
      status: 401,
    });
    expect(await invitationOf(db.app, token)).toEqual({ name: 'Dana', handle: 'dana', shop: 'Shop' });
    expect(await invitationOf(db.app, `${token.slice(0, -1)}!`)).toBeUndefined();
    for (const [bad, says] of [
      ['short', 'at least 12'],
      ['dana and some more', 'sign-in name'],
    ] as const)
      expect((await refusal(acceptInvitation(db.app, token, bad)))!.message).toContain(says);
    // Two at once: one of them is in.
    const both = await Promise.allSettled([
      acceptInvitation(db.app, token, 'four plain words here'),
      acceptInvitation(db.app, token, 'four other words there'),
    ]);
    expect(both.map((b) => b.status).sort()).toEqual(['fulfilled', 'rejected']);
    expect(await invitationOf(db.app, token)).toBeUndefined();
    const chosen = both[0].status === 'fulfilled' ? 'four plain words here' : 'four other words there';
    const session = await whole(signIn(db.app, 'dana', chosen, { allowDemo: true, address: '1' }));
    expect(await actorOf(db.app, session)).toMatchObject({ name: 'Dana', role: 'technician', shopId: shop });
    // The table holds no token that would open it.
    expect(JSON.stringify(await db.owner('invitations'))).not.toContain(token);
  });

  it('given a new link lose the old one, and their sessions once it is used; one that ran out opens nothing', async () => {
    const dana = (await listPeople(db.app, as('owner'))).people.find((p) => p.handle === 'dana')!;
    const link = async () =>
      (await changePeople(db.app, as('owner'), { do: 'invite', person: dana.id })).invitation!.slice(12);
    const [first, second] = [await link(), await link()];
    expect(await invitationOf(db.app, first.replace('/', ''))).toBeUndefined();
    const old = await openSession(db.app, { shopId: shop, personId: dana.id });
    const next = await acceptInvitation(db.app, second.replace('/', ''), 'a third set of words');
    expect(await actorOf(db.app, old)).toBeUndefined();
    expect(await actorOf(db.app, next!)).toMatchObject({ name: 'Dana' });
    const third = (await link()).replace('/', '');
    await db
      .owner('invitations')
      .whereNull('used_at')
      .update({ expires_at: db.owner.raw("now() - interval '1 minute'") });
    expect(await refusal(acceptInvitation(db.app, third, 'a fourth set of words'))).toMatchObject({ status: 404 });
  });

  it('let go are out at once, everywhere, and cannot come in; taken back they can', async () => {
    const dana = (await listPeople(db.app, as('owner'))).people.find((p) => p.handle === 'dana')!;
    const session = await openSession(db.app, { shopId: shop, personId: dana.id });
    await changePeople(db.app, as('owner'), { do: 'let-go', person: dana.id });
    expect(await actorOf(db.app, session)).toBeUndefined();
    expect(await refusal(changePeople(db.app, as('owner'), { do: 'invite', person: dana.id }))).toMatchObject({
      status: 409,
    });
    expect(
      await refusal(signIn(db.app, 'dana', 'a third set of words', { allowDemo: true, address: '2' })),
    ).toMatchObject({ status: 401 });
    await changePeople(db.app, as('owner'), { do: 'take-back', person: dana.id });
    expect(await actorOf(db.app, session)).toBeUndefined();
    await signIn(db.app, 'dana', 'a third set of words', { allowDemo: true, address: '2' });
  });

  it('never lose their last owner, two at once included', async () => {
    const owner = as('owner');
    for (const change of [
      { do: 'let-go', person: owner.personId },
      { do: 'role', person: owner.personId, role: 'lead' },
    ])
      expect(await refusal(changePeople(db.app, owner, change))).toMatchObject({ status: 409, code: 'last-owner' });
    const second = as('lead');
    await changePeople(db.app, owner, { do: 'role', person: second.personId, role: 'owner' });
    const both = await Promise.allSettled([
      changePeople(db.app, owner, { do: 'role', person: second.personId, role: 'lead' }),
      changePeople(db.app, { ...second, role: 'owner' }, { do: 'role', person: owner.personId, role: 'lead' }),
    ]);
    expect(both.map((b) => b.status).sort()).toEqual(['fulfilled', 'rejected']);
    await db.owner('people').where({ id: owner.personId }).update({ role: 'owner' });
    await db.owner('people').where({ id: second.personId }).update({ role: 'lead' });
  });

  it('have names and sign-in names of their own', async () => {
    const add = (handle: string, name: string) =>
      refusal(changePeople(db.app, as('owner'), { do: 'add', handle, name, role: 'viewer' }));
    expect(await add('dana', 'Somebody')).toMatchObject({ status: 409, code: 'taken' });
    expect(await add('somebody', ' DANA ')).toMatchObject({ status: 409, code: 'taken' });
    expect(await add('No Handle', 'x')).toMatchObject({ status: 400 });
  });

  it('are watched in what they do to each other', async () => {
    const { acts } = await listPeople(db.app, as('owner'));
    expect(acts.map((a) => a.act)).toEqual(
      expect.arrayContaining(['added as technician', 'let go: may not sign in', 'taken back', 'lead made owner']),
    );
    await expect(db.app.raw('UPDATE people_acts SET act = ?', ['nothing'])).rejects.toThrow('permission denied');
  });

  it('sign out everywhere at once', async () => {
    const at = { shopId: shop, personId: as('viewer').personId };
    const sessions = [await openSession(db.app, at), await openSession(db.app, at)];
    await signOutEverywhere(db.app, as('viewer'));
    for (const s of sessions) expect(await actorOf(db.app, s)).toBeUndefined();
  });
});

describe('tries at signing in', () => {
  const tries = async (handle: string, address: string, count: number) => {
    const ends: (number | undefined)[] = [];
    for (let k = 0; k < count; k++)
      ends.push((await refusal(signIn(db.app, handle, `wrong ${k}`, { allowDemo: true, address })))?.status);
    return ends;
  };
  const later = (minutes: number) =>
    db.owner.raw(`UPDATE sign_in_tries SET shut_until = shut_until - make_interval(mins => ?)`, [minutes]);

  it('that are wrong make one wait, each time longer; the right password then still comes in', async () => {
    expect(await tries('technician', '10.1.1.1', 7)).toEqual([401, 401, 401, 401, 401, 429, 429]);
    await later(1);
    expect(await tries('technician', '10.1.1.1', 2)).toEqual([401, 429]);
    const { shut } = (await db.owner('sign_in_tries').max('shut_until as shut').first()) as { shut: Date };
    expect(shut.getTime() - Date.now()).toBeGreaterThan(20_000);
    await later(1);
    await signIn(db.app, 'technician', 'right horse', { allowDemo: true, address: '10.1.1.1' });
    expect(await tries('technician', '10.1.1.1', 1)).toEqual([401]);
  });

  it('of a stranger elsewhere do not shut out who stands at the bench', async () => {
    expect((await tries('apprentice', '203.0.113.9', 8)).at(-1)).toBe(429);
    await signIn(db.app, 'apprentice', 'right horse', { allowDemo: true, address: '10.1.1.2' });
  });

  it('many at once are counted one by one', async () => {
    const ends = await Promise.all(
      Array.from({ length: 30 }, (_, k) =>
        refusal(signIn(db.app, 'front-desk', `wrong ${k}`, { allowDemo: true, address: '10.1.1.3' })),
      ),
    );
    // Each waits for the one before it in the database: no more get through than are free.
    expect(ends.filter((e) => e?.status === 401).length).toBeLessThanOrEqual(6);
  });

  it('at many names from one address are stopped by the address', async () => {
    const ends: (number | undefined)[] = [];
    for (let k = 0; k < 34; k++) ends.push((await tries(`name${k}`, '203.0.113.77', 1))[0]);
    expect(ends.slice(0, 29)).not.toContain(429);
    expect(ends.at(-1)).toBe(429);
  });

  it('that are right all day are no tries at all', async () => {
    for (let k = 0; k < 40; k++)
      await signIn(db.app, 'viewer', 'right horse', { allowDemo: true, address: '10.1.1.4' });
  });

  it('say nothing of anybody where they are kept, and are nobody’s to read', async () => {
    const rows = await db.owner('sign_in_tries');
    expect(rows.length).toBeGreaterThan(0);
    expect(JSON.stringify(rows)).not.toMatch(/technician|203\.0/);
    await expect(db.app('sign_in_tries').first()).rejects.toThrow('permission denied');
  });
});

describe('who did what', () => {
  it('is told line by line with both clocks, of this shop’s jobs only', async () => {
    const lines = await jobTrail(db.app, as('viewer'), 1042);
    expect(lines.map((l) => l.by)).toContain('The apprentice');
    lines.forEach((l, i) => {
      expect(l.seq).toBe(i + 1);
      expect(l.at).toBe('2026-11-24T17:00:00.000Z');
      expect(Math.abs(new Date(l.received).getTime() - Date.now())).toBeLessThan(600_000);
    });
    expect(await refusal(jobTrail(db.app, { ...as('owner'), shopId: other }, 1042))).toMatchObject({ status: 404 });
  });
});
