/**
 * A tablet that many share: who has signed in on it with all that is asked of them takes it over with a PIN for two
 * weeks. A PIN is worth nothing elsewhere, and nothing after five wrong ones.
 */
import type { Knex } from 'knex';
import type { Role } from '../core/people/roles';
import { Refused } from './actor';
import { withShop } from './db';
import { hashPassword, passwordFits } from './password';
import { openSession, type SignedIn } from './signIn';

/** Days after a whole sign-in on a device, and wrong PINs in a row, for which a PIN will do. */
const DAYS = 14;
const WRONG = 5;

export interface Device {
  shopId: string;
  deviceId: string;
}
export interface Known {
  id: string;
  name: string;
  role: Role;
}

/** Why a PIN is none, in words; undefined where it will do. */
export function notAPin(pin: string): string | undefined {
  if (!/^\d{4,8}$/.test(pin)) return 'A PIN has four to eight digits.';
  const steps = new Set([...pin].slice(1).map((d, i) => Number(d) - Number(pin[i])));
  if (steps.size === 1 && [0, 1, -1].includes([...steps][0]!))
    return 'This PIN is one of the first anybody tries. Use another.';
  return undefined;
}

/** Sets a person's PIN; undefined takes it away. */
export async function setPin(tx: Knex.Transaction, whose: SignedIn, pin: string | undefined): Promise<void> {
  const no = pin === undefined ? undefined : notAPin(pin);
  if (no !== undefined) throw new Refused(400, 'pin', no);
  const pin_hash = pin === undefined ? null : await hashPassword(pin);
  await tx('pins')
    .insert({ shop_id: whose.shopId, person_id: whose.personId, pin_hash })
    .onConflict(['shop_id', 'person_id'])
    .merge({ pin_hash });
}

export const hasPin = async (tx: Knex.Transaction, personId: string): Promise<boolean> =>
  Boolean(await tx('pins').where({ person_id: personId }).whereNotNull('pin_hash').first('person_id'));

/** Who has just signed in with everything is known on this device from now on. */
export const knownOnDevice = (db: Knex, device: Device, personId: string): Promise<void> =>
  withShop(db, device.shopId, async (tx) => {
    const until = tx.raw('now() + make_interval(days => ?)', [DAYS]);
    await tx('device_people')
      .insert({ shop_id: device.shopId, device_id: device.deviceId, person_id: personId, until })
      .onConflict(['shop_id', 'device_id', 'person_id'])
      .merge({ until, wrong: 0 });
  });

const standing = (tx: Knex.Transaction, device: Device) =>
  tx('device_people as d')
    .join('people as p', (on) => on.on('p.shop_id', 'd.shop_id').andOn('p.id', 'd.person_id'))
    .join('pins as n', (on) => on.on('n.shop_id', 'd.shop_id').andOn('n.person_id', 'd.person_id'))
    .where('d.device_id', device.deviceId)
    .where('p.active', true)
    .where('d.wrong', '<', WRONG)
    .whereNotNull('n.pin_hash')
    .whereRaw('d.until > now()');

/** Who may take this device over with a PIN. */
export const peopleOfDevice = (db: Knex, device: Device): Promise<Known[]> =>
  withShop(
    db,
    device.shopId,
    async (tx) => (await standing(tx, device).orderBy('p.name').select('p.id', 'p.name', 'p.role')) as Known[],
  );

/**
 * Takes the device over.
 * @throws Refused `pin` where it is wrong (with what is left), `unknown` where a PIN will not do any more
 */
export async function takeOver(db: Knex, device: Device, personId: string, pin: string): Promise<SignedIn> {
  const found = await withShop(db, device.shopId, async (tx) => {
    const row = (await standing(tx, device).where('p.id', personId).first('n.pin_hash')) as
      { pin_hash: string } | undefined;
    if (!row) return undefined;
    // Counted before it is looked at, so that many at once are counted too.
    const [counted] = (await tx('device_people')
      .where({ device_id: device.deviceId, person_id: personId })
      .where('wrong', '<', WRONG)
      .update({ wrong: tx.raw('wrong + 1') })
      .returning('wrong')) as { wrong: number }[];
    return counted && { ...row, left: WRONG - counted.wrong };
  });
  if (!found) throw new Refused(401, 'unknown', 'A PIN will not do here any more. Sign in with name and password.');
  if (!(await passwordFits(found.pin_hash, pin)))
    throw new Refused(
      401,
      'pin',
      found.left === 0
        ? 'Wrong PIN, for the fifth time. Sign in with name and password.'
        : `Wrong PIN. ${found.left} ${found.left === 1 ? 'try is' : 'tries are'} left.`,
    );
  await withShop(db, device.shopId, (tx) =>
    tx('device_people').where({ device_id: device.deviceId, person_id: personId }).update({ wrong: 0 }),
  );
  return openSession(db, { shopId: device.shopId, personId });
}
