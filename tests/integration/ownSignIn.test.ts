/** One's own sign-in on a real database: codes of the time, codes on paper, a PIN on a shared tablet. */
import { randomUUID } from 'node:crypto';
import { TOTP, Secret } from 'otpauth';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Actor, Refused } from '../../src/server/actor';
import { changeOwnSignIn, ownSignIn } from '../../src/server/ownSignIn';
import { hashPassword } from '../../src/server/password';
import { acceptInvitation, changePeople, listPeople } from '../../src/server/people';
import { knownOnDevice, peopleOfDevice, takeOver } from '../../src/server/quickSwitch';
import { stepOf } from '../../src/server/secondFactor';
import { actorOf, signIn, signInWithCode, signOutEverywhere } from '../../src/server/signIn';
import { testDatabase, whole, type TestDatabase } from './database';

let db: TestDatabase;
const shop = randomUUID();
const other = randomUUID();
const PASSWORD = 'right horse';
const person = (handle: string, role: Actor['role'], shopId = shop): Actor => ({
  shopId,
  sessionId: randomUUID(),
  personId: randomUUID(),
  name: handle.toUpperCase(),
  role,
});
const [ana, ben, kim, owner, stranger] = [
  person('ana', 'technician'),
  person('ben', 'apprentice'),
  person('kim', 'technician'),
  person('olga', 'owner'),
  person('stig', 'owner', other),
];
const NOW = new Date('2026-11-30T12:00:10Z');
const later = (seconds: number) => new Date(NOW.getTime() + seconds * 1000);
const refusal = (work: Promise<unknown>): Promise<Refused | undefined> =>
  work.then(
    () => undefined,
    (e: Refused) => e,
  );
const from = (address: string) => ({ allowDemo: true, address });
/** What a phone would show. */
const codeAt = (secret: string, at: Date): string =>
  new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: at.getTime() });
/** Turns the second factor on, `at` the code of then. */
async function turnOn(who: Actor, at: Date): Promise<{ secret: string; codes: string[] }> {
  const { secret } = await changeOwnSignIn(db.app, who, { do: 'second-begin', password: PASSWORD }, at);
  const { codes } = await changeOwnSignIn(db.app, who, { do: 'second-confirm', code: codeAt(secret!, at) }, at);
  return { secret: secret!, codes: codes! };
}

beforeAll(async () => {
  db = await testDatabase();
  await db.owner('shops').insert([
    { id: shop, name: 'Shop' },
    { id: other, name: 'Other' },
  ]);
  const password_hash = await hashPassword(PASSWORD);
  for (const p of [ana, ben, kim, owner, stranger])
    await db.owner('people').insert({
      shop_id: p.shopId,
      id: p.personId,
      handle: p.name.toLowerCase(),
      name: p.name,
      role: p.role,
      password_hash,
    });
});
afterAll(() => db.drop());

describe('a code of the time', () => {
  it.each([
    [59, '287082'],
    [1111111109, '081804'],
    [1111111111, '050471'],
    [1234567890, '005924'],
    [2000000000, '279037'],
  ])('is RFC 6238’s own: its test values of appendix B, SHA-1, the last six digits (at %s s)', (seconds, code) => {
    // The RFC's secret, "12345678901234567890", in base 32.
    const secret = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ';
    const at = new Date(seconds * 1000);
    const step = Math.floor(seconds / 30);
    expect(stepOf(secret, code, at)).toBe(step);
    // A clock half a minute off is a phone's; one of two steps is not.
    expect(stepOf(secret, code, new Date((step + 1) * 30_000 + 1))).toBe(step);
    expect(stepOf(secret, code, new Date((step + 2) * 30_000 + 1))).toBeUndefined();
    expect(stepOf(secret, `${code.slice(0, 3)} ${code.slice(3)}`, at)).toBe(step);
    for (const bad of ['', code.slice(1), `${code}0`, 'abcdef']) expect(stepOf(secret, bad, at)).toBeUndefined();
  });
});

describe('a second factor', () => {
  it('is asked for once it was shown to work, takes each code once, and is not there before', async () => {
    const begun = await changeOwnSignIn(db.app, ana, { do: 'second-begin', password: PASSWORD }, NOW);
    expect(begun.picture).toMatch(/^data:image\/png;base64,/);
    // Begun and not finished: nobody is asked.
    await whole(signIn(db.app, 'ana', PASSWORD, from('1')));
    expect(await ownSignIn(db.app, ana)).toMatchObject({ second: false, paper: 0 });
    expect(await refusal(changeOwnSignIn(db.app, ana, { do: 'second-confirm', code: '000000' }, NOW))).toMatchObject({
      status: 400,
      code: 'code',
    });
    const { secret, codes } = await turnOn(ana, NOW);
    expect(new Set(codes).size).toBe(10);
    expect(await ownSignIn(db.app, ana)).toMatchObject({ second: true, paper: 10 });
    expect(await refusal(changeOwnSignIn(db.app, ana, { do: 'second-begin', password: PASSWORD }, NOW))).toMatchObject({
      status: 409,
    });

    const result = await signIn(db.app, 'ana', PASSWORD, from('1'));
    expect(result).toEqual({ half: { shopId: shop, personId: ana.personId } });
    const half = { shopId: shop, personId: ana.personId };
    const show = (code: string, at: Date) => signInWithCode(db.app, half, code, { address: '1', at });
    // The code it was turned on with is used.
    expect(await refusal(show(codeAt(secret, NOW), NOW))).toMatchObject({ status: 401 });
    const at = later(60);
    expect(await actorOf(db.app, await show(codeAt(secret, at), at))).toMatchObject({ name: 'ANA' });
    // Twice at once with one code: one of the two is in.
    const next = later(120);
    const both = await Promise.allSettled([show(codeAt(secret, next), next), show(codeAt(secret, next), next)]);
    expect(both.map((b) => b.status).sort()).toEqual(['fulfilled', 'rejected']);
    // Off the paper, each once, however it is written.
    await show(codes[0]!.toUpperCase().replace('-', ' '), later(200));
    expect(await refusal(show(codes[0]!, later(200)))).toMatchObject({ status: 401 });
    expect(await ownSignIn(db.app, ana)).toMatchObject({ paper: 9 });
    // Nothing in the database opens it.
    const kept = JSON.stringify([await db.owner('second_factors'), await db.owner('recovery_codes')]);
    expect(kept).not.toContain(secret);
    for (const c of codes) expect(kept).not.toContain(c.replace('-', ''));
  });

  it('is not guessed: wrong codes are counted though the password is right each time', async () => {
    const half = { shopId: shop, personId: ana.personId };
    const tries: (string | undefined)[] = [];
    for (let k = 0; k < 8; k++) {
      await signIn(db.app, 'ana', PASSWORD, from('9'));
      tries.push((await refusal(signInWithCode(db.app, half, '000000', { address: '9', at: later(300) })))?.code);
    }
    expect(tries.slice(0, 4)).toEqual(['code', 'code', 'code', 'code']);
    expect(tries.at(-1)).toBe('too-many');
    await db.owner('sign_in_tries').delete();
  });

  it('is taken off with the password, or by the owner, who signs its person out everywhere', async () => {
    const off = (password: string) => changeOwnSignIn(db.app, ana, { do: 'second-off', password }, NOW);
    expect(await refusal(off('wrong'))).toMatchObject({ status: 403, code: 'password' });
    await off(PASSWORD);
    const session = await whole(signIn(db.app, 'ana', PASSWORD, from('1')));
    expect(await ownSignIn(db.app, ana)).toMatchObject({ second: false, paper: 0 });
    const { secret, codes } = await turnOn(ana, later(600));
    await changePeople(db.app, owner, { do: 'second-off', person: ana.personId });
    expect(await actorOf(db.app, session)).toBeUndefined();
    await whole(signIn(db.app, 'ana', PASSWORD, from('1')));
    // What opened the old one opens nothing any more.
    const again = await turnOn(ana, later(900));
    const half = { shopId: shop, personId: ana.personId };
    for (const old of [codes[1]!, codeAt(secret, later(1000))])
      expect(await refusal(signInWithCode(db.app, half, old, { address: '1', at: later(1000) }))).toBeDefined();
    expect(again.secret).not.toBe(secret);
    const { people, acts } = await listPeople(db.app, owner);
    expect(people.find((p) => p.handle === 'ana')!.second).toBe(true);
    expect(acts.map((a) => a.act)).toContain('turned their second factor on');
    expect(acts.map((a) => a.act)).toContain('second factor turned off');
  });

  it('is not passed by a link for a new password: that opens no session, and the code is asked for as before', async () => {
    const { invitation } = await changePeople(db.app, owner, { do: 'invite', person: ana.personId });
    const words = 'another set of words';
    expect(await acceptInvitation(db.app, invitation!.split('/').at(-1)!, words)).toBeUndefined();
    expect(await signIn(db.app, 'ana', words, from('1'))).toMatchObject({ half: { personId: ana.personId } });
  });

  it('never says a password again in a refusal', async () => {
    const no = await refusal(changeOwnSignIn(db.app, ana, { do: 'pin', pin: 'abcd', password: 'secret words' }, NOW));
    expect(JSON.stringify([no!.message, no!.detail])).not.toMatch(/secret words|abcd/);
  });
});

describe('a PIN', () => {
  const tablet = { shopId: shop, deviceId: randomUUID() };
  const elsewhere = { shopId: shop, deviceId: randomUUID() };

  it('takes over a device on which its person has signed in wholly, and no other', async () => {
    for (const [bad, says] of [
      ['1234', 'first anybody tries'],
      ['7777', 'first anybody tries'],
      ['87654321', 'first anybody tries'],
    ] as const)
      expect(
        (await refusal(changeOwnSignIn(db.app, ben, { do: 'pin', pin: bad, password: PASSWORD }, NOW)))!.message,
      ).toContain(says);
    await changeOwnSignIn(db.app, ben, { do: 'pin', pin: '2580', password: PASSWORD }, NOW);
    expect(await ownSignIn(db.app, ben)).toMatchObject({ pin: true });
    expect(await refusal(takeOver(db.app, tablet, ben.personId, '2580'))).toMatchObject({ code: 'unknown' });
    await knownOnDevice(db.app, tablet, ben.personId);
    await knownOnDevice(db.app, tablet, kim.personId);
    // Kim has no PIN: nothing to tap.
    expect(await peopleOfDevice(db.app, tablet)).toEqual([{ id: ben.personId, name: 'BEN', role: 'apprentice' }]);
    expect(await peopleOfDevice(db.app, elsewhere)).toEqual([]);
    expect(await peopleOfDevice(db.app, { ...tablet, shopId: other })).toEqual([]);
    const session = await takeOver(db.app, tablet, ben.personId, '2580');
    expect(await actorOf(db.app, session)).toMatchObject({ name: 'BEN', role: 'apprentice' });
    for (const where of [elsewhere, { ...tablet, shopId: other }])
      expect(await refusal(takeOver(db.app, where, ben.personId, '2580'))).toMatchObject({ code: 'unknown' });
    expect(await refusal(takeOver(db.app, tablet, kim.personId, '2580'))).toMatchObject({ code: 'unknown' });
  });

  it('is worth nothing after five wrong ones, many at once included, until a whole sign-in', async () => {
    expect((await refusal(takeOver(db.app, tablet, ben.personId, '2581')))!.message).toContain('4 tries are left');
    // A right one begins the count anew.
    await takeOver(db.app, tablet, ben.personId, '2580');
    const many = await Promise.all(
      Array.from({ length: 12 }, (_, k) => refusal(takeOver(db.app, tablet, ben.personId, `90${10 + k}`))),
    );
    expect(many.filter((m) => m!.code === 'pin')).toHaveLength(5);
    expect(await refusal(takeOver(db.app, tablet, ben.personId, '2580'))).toMatchObject({ code: 'unknown' });
    expect(await peopleOfDevice(db.app, tablet)).toEqual([]);
    await knownOnDevice(db.app, tablet, ben.personId);
    await takeOver(db.app, tablet, ben.personId, '2580');
  });

  it('ends with everything of its person: signed out everywhere, let go, taken away, two weeks later', async () => {
    const knows = async () => (await peopleOfDevice(db.app, tablet)).length > 0;
    const again = () => knownOnDevice(db.app, tablet, ben.personId);
    await signOutEverywhere(db.app, ben);
    expect(await knows()).toBe(false);
    await again();
    expect(await knows()).toBe(true);
    await changePeople(db.app, owner, { do: 'let-go', person: ben.personId });
    expect(await knows()).toBe(false);
    await changePeople(db.app, owner, { do: 'take-back', person: ben.personId });
    expect(await knows()).toBe(false);
    await again();
    await db.owner('device_people').update({ until: db.owner.raw("now() - interval '1 second'") });
    expect(await knows()).toBe(false);
    await again();
    await changeOwnSignIn(db.app, ben, { do: 'pin-off', password: PASSWORD }, NOW);
    expect(await knows()).toBe(false);
    expect(await ownSignIn(db.app, ben)).toMatchObject({ pin: false });
  });
});
