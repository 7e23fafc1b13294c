/**
 * A second factor by codes of the time (RFC 6238: SHA-1, six digits, thirty seconds), and ten codes on paper for the day
 * the phone is lost. A code is taken once, and from one step before or after at most.
 */
import { createHash } from 'node:crypto';
import { sealData, unsealData } from 'iron-session';
import type { Knex } from 'knex';
import { Secret, TOTP } from 'otpauth';
import { Refused, type Actor } from './actor';
import { serverConfig } from './config';
import { withShop } from './db';

const STEP_S = 30;
/** Steps a device's clock may be off. */
const OFF = 1;
const PAPER_CODES = 10;
/** Bytes of a secret: RFC 4226 asks for 16 at least and recommends 20. */
const SECRET_BYTES = 20;

type Whose = Pick<Actor, 'shopId' | 'personId'>;

const sealing = () => ({ password: serverConfig().cookieSecret, ttl: 0 });
const hashOf = (code: string): string =>
  createHash('sha256').update(code.toLowerCase().replace(/[\s-]/g, '')).digest('hex');
/** Ten letters and digits, fifty bits, in two groups. */
const paperCode = (): string => {
  const letters = new Secret({ size: 7 }).base32.slice(0, 10).toLowerCase();
  return `${letters.slice(0, 5)}-${letters.slice(5)}`;
};

/** The step a code belongs to, or undefined where it is none of now. @param secret base 32 */
export function stepOf(secret: string, code: string, at: Date): number | undefined {
  const digits = code.replace(/\s/g, '');
  if (!/^\d{6}$/.test(digits)) return undefined;
  const totp = new TOTP({ secret: Secret.fromBase32(secret), period: STEP_S });
  const off = totp.validate({ token: digits, timestamp: at.getTime(), window: OFF });
  return off === null ? undefined : Math.floor(at.getTime() / 1000 / STEP_S) + off;
}

/** Whether a sign-in asks for a code, and how many of those on paper are left. */
export async function secondFactorOf(tx: Knex.Transaction, personId: string): Promise<{ on: boolean; paper: number }> {
  const row = (await tx('second_factors').where({ person_id: personId }).first('on_since')) as
    { on_since: Date | null } | undefined;
  const [left] = (await tx('recovery_codes').where({ person_id: personId }).whereNull('gone_at').count()) as {
    count: string;
  }[];
  return { on: Boolean(row?.on_since), paper: row?.on_since ? Number(left!.count) : 0 };
}

/**
 * A new secret, not yet asked for. Begun again, the earlier one is worth nothing.
 * @returns the secret in base 32, and the address an app on a phone reads from a picture
 */
export async function beginSecondFactor(db: Knex, actor: Actor): Promise<{ secret: string; address: string }> {
  const secret = new Secret({ size: SECRET_BYTES });
  const sealed = await sealData(secret.base32, sealing());
  const address = new TOTP({ issuer: 'Surrik', label: actor.name, secret, period: STEP_S }).toString();
  await withShop(db, actor.shopId, async (tx) => {
    if ((await secondFactorOf(tx, actor.personId)).on)
      throw new Refused(409, 'on', 'A code is asked for already. Turn that off first.');
    await tx('second_factors')
      .insert({ shop_id: actor.shopId, person_id: actor.personId, secret_sealed: sealed })
      .onConflict(['shop_id', 'person_id'])
      .merge({ secret_sealed: sealed, last_step: 0 });
  });
  return { secret: secret.base32, address };
}

/** From now on a code is asked for, once one was shown to be right. @returns the codes for paper, shown this once */
export async function confirmSecondFactor(db: Knex, actor: Actor, code: string, at: Date): Promise<string[]> {
  return withShop(db, actor.shopId, async (tx) => {
    if ((await secondFactorOf(tx, actor.personId)).on) throw new Refused(409, 'on', 'A code is asked for already.');
    if (!(await codeOfTheTime(tx, actor.personId, code, at)))
      throw new Refused(400, 'code', 'This is not the code of now. Check that the clock of the phone is right.');
    await tx('second_factors').where({ person_id: actor.personId }).update({ on_since: tx.fn.now() });
    await papersGone(tx, actor.personId);
    const codes = Array.from({ length: PAPER_CODES }, paperCode);
    await tx('recovery_codes').insert(
      codes.map((c) => ({ shop_id: actor.shopId, person_id: actor.personId, code_hash: hashOf(c) })),
    );
    return codes;
  });
}

/** A password alone is enough again. */
export async function endSecondFactor(tx: Knex.Transaction, personId: string): Promise<void> {
  await tx('second_factors').where({ person_id: personId }).update({ on_since: null });
  await papersGone(tx, personId);
}

const papersGone = (tx: Knex.Transaction, personId: string) =>
  tx('recovery_codes').where({ person_id: personId }).whereNull('gone_at').update({ gone_at: tx.fn.now() });

/** Takes a code, of the time or off the paper; no code is taken twice. */
export const takeCode = (db: Knex, whose: Whose, code: string, at: Date): Promise<boolean> =>
  withShop(
    db,
    whose.shopId,
    async (tx) => (await codeOfTheTime(tx, whose.personId, code, at)) || (await codeOnPaper(tx, whose.personId, code)),
  );

async function codeOfTheTime(tx: Knex.Transaction, personId: string, code: string, at: Date): Promise<boolean> {
  const row = (await tx('second_factors').where({ person_id: personId }).first('secret_sealed')) as
    { secret_sealed: string } | undefined;
  const secret = row && (await unsealData<string>(row.secret_sealed, sealing()));
  // Sealed under another key (a backup put back elsewhere) it opens to nothing.
  const step = typeof secret === 'string' ? stepOf(secret, code, at) : undefined;
  if (step === undefined) return false;
  // Twice at once: one of the two has taken it.
  return (
    (await tx('second_factors')
      .where({ person_id: personId })
      .where('last_step', '<', step)
      .update({ last_step: step })) === 1
  );
}

const codeOnPaper = async (tx: Knex.Transaction, personId: string, code: string): Promise<boolean> =>
  (await tx('recovery_codes')
    .where({ person_id: personId, code_hash: hashOf(code) })
    .whereNull('gone_at')
    .update({ gone_at: tx.fn.now() })) === 1;
