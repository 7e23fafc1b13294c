/** One's own sign-in: a second factor, and a PIN for tablets one shares. */
import type { Knex } from 'knex';
import { toDataURL } from 'qrcode';
import type { ApiAnswer } from '../core/openFormats/answers';
import { validateOwnSignInChange } from '../core/openFormats/validate';
import { Refused, type Actor } from './actor';
import { withShop } from './db';
import { keepAct } from './people';
import { hasPin, setPin } from './quickSwitch';
import { beginSecondFactor, confirmSecondFactor, endSecondFactor, secondFactorOf } from './secondFactor';
import { isOwnPassword } from './signIn';

/** How one's sign-in stands. */
export const ownSignIn = (db: Knex, actor: Actor): Promise<ApiAnswer<'ownSignIn'>> =>
  withShop(db, actor.shopId, async (tx) => {
    const { on, paper } = await secondFactorOf(tx, actor.personId);
    return { name: actor.name, role: actor.role, second: on, paper, pin: await hasPin(tx, actor.personId) };
  });

/**
 * Changes it.
 * @param at now, by the server's clock
 * @throws Refused 400 where it is no change, 403 where the password is wrong, and what each change refuses
 */
export async function changeOwnSignIn(
  db: Knex,
  actor: Actor,
  data: unknown,
  at: Date,
): Promise<ApiAnswer<'ownSignInChanged'>> {
  const checked = validateOwnSignInChange(data);
  if (!checked.ok) {
    const issue = checked.error[0]!;
    throw new Refused(400, 'invalid', `${issue.pointer}: wanted ${issue.wanted}`, checked.error);
  }
  const change = checked.value;
  if (change.do === 'second-confirm') {
    const codes = await confirmSecondFactor(db, actor, change.code, at);
    await act(db, actor, 'turned their second factor on');
    return { codes };
  }
  if (!(await isOwnPassword(db, actor, change.password)))
    throw new Refused(403, 'password', 'This is not your password.');
  switch (change.do) {
    case 'second-begin': {
      const { secret, address } = await beginSecondFactor(db, actor);
      return { secret, picture: await toDataURL(address, { margin: 1, scale: 5 }) };
    }
    case 'second-off':
      await withShop(db, actor.shopId, (tx) => endSecondFactor(tx, actor.personId));
      await act(db, actor, 'turned their second factor off');
      return {};
    case 'pin':
      await withShop(db, actor.shopId, (tx) => setPin(tx, actor, change.pin));
      await act(db, actor, 'set a PIN');
      return {};
    case 'pin-off':
      await withShop(db, actor.shopId, (tx) => setPin(tx, actor, undefined));
      await act(db, actor, 'took their PIN away');
      return {};
  }
}

const act = (db: Knex, actor: Actor, what: string): Promise<void> =>
  withShop(db, actor.shopId, (tx) => keepAct(tx, actor, actor.personId, what));
