/** People of a shop, from the machine itself: the first ones, and a password that was forgotten. */
import { randomInt, randomUUID } from 'node:crypto';
import { hashPassword } from '../../server/password';
import { endSecondFactor } from '../../server/secondFactor';
import { endSessions } from '../../server/signIn';
import { owner } from './owner';

/** A password that can be read out and typed: four groups of five letters and digits, no look-alikes. */
function newPassword(): string {
  const letters = 'abcdefghjkmnpqrstuvwxyz23456789';
  return Array.from({ length: 4 }, () =>
    Array.from({ length: 5 }, () => letters[randomInt(letters.length)]).join(''),
  ).join('-');
}

/** A person of a shop; the shop is made when there is none of that name. */
export async function addPerson(handle = '', name = '', shopName = ''): Promise<void> {
  if (!/^[a-z0-9][a-z0-9._@-]{1,59}$/.test(handle))
    throw new Error(`handle "${handle}": wanted lower-case letters, digits and . _ @ -, two at least`);
  if (name.trim() === '' || name.length > 60) throw new Error('the name wants 1 to 60 letters');
  const { db } = owner();
  try {
    const password = newPassword();
    await db.transaction(async (tx) => {
      await tx.raw('LOCK TABLE shops IN EXCLUSIVE MODE');
      if (await tx('people').where({ handle }).first('id'))
        throw new Error(`${handle} is taken: use another handle, or ./surrik person password ${handle}`);
      const own = (await tx('shops').where({ demo: false }).select('id', 'name')) as { id: string; name: string }[];
      let shop = shopName === '' ? (own.length === 1 ? own[0] : undefined) : own.find((s) => s.name === shopName);
      if (!shop) {
        if (shopName === '')
          throw new Error(
            own.length === 0
              ? 'no shop yet: give its name as the third word'
              : `which shop? ${own.map((s) => s.name).join(', ')}`,
          );
        shop = { id: randomUUID(), name: shopName };
        await tx('shops').insert({ ...shop, demo: false });
      }
      if (await tx('people').where({ shop_id: shop.id }).whereRaw('lower(name) = lower(?)', [name.trim()]).first('id'))
        throw new Error(`there is a ${name.trim()} in ${shop.name} already: records could not tell the two apart`);
      // Somebody must be able to say who else works here.
      const owned = await tx('people').where({ shop_id: shop.id, role: 'owner', active: true }).first('id');
      await tx('people').insert({
        shop_id: shop.id,
        id: randomUUID(),
        handle,
        name: name.trim(),
        role: owned ? 'technician' : 'owner',
        password_hash: await hashPassword(password),
      });
      const more = owned ? 'The owner gives other roles' : 'The first of a shop is its owner and adds the others';
      const signs = `${name.trim()} of ${shop.name} signs in as ${handle} with ${password}`;
      console.log(`${signs}\nIt is shown this once. ${more} under People.`);
    });
  } finally {
    await db.destroy();
  }
}

/** A new password for a person, for the day all is lost: no code is asked for any more, every session of theirs ends. */
export async function resetPassword(handle = ''): Promise<void> {
  const { db } = owner();
  try {
    const password = newPassword();
    const [person] = (await db('people')
      .where({ handle })
      .update({ password_hash: await hashPassword(password) })
      .returning(['id', 'name'])) as { id: string; name: string }[];
    if (!person) throw new Error(`nobody signs in as "${handle}"`);
    await db.transaction(async (tx) => {
      await endSessions(tx, person.id);
      await endSecondFactor(tx, person.id);
    });
    console.log(
      `${person.name} signs in as ${handle} with ${password}\n` +
        'It is shown this once. If a code was asked for beside it, it is not any more.',
    );
  } finally {
    await db.destroy();
  }
}
