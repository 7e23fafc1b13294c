/** Whose rig it is: with the shop's customers, never in a job document. */
import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import type { Identity } from '../core/job/identity';

export async function loadIdentity(tx: Knex.Transaction, rigId: string): Promise<Identity> {
  const row = (await tx('rigs as r')
    .leftJoin('customers as c', (on) => on.on('c.shop_id', 'r.shop_id').andOn('c.id', 'r.customer_id'))
    .where('r.id', rigId)
    .first('r.identity', 'c.name', 'c.contact')) as { identity: Identity; name: string | null; contact: string | null };
  return {
    ...row.identity,
    ...(row.name ? { customer: row.name } : {}),
    ...(row.contact ? { contact: row.contact } : {}),
  };
}

export async function saveIdentity(
  tx: Knex.Transaction,
  shopId: string,
  rigId: string,
  identity: Identity,
): Promise<void> {
  const { customer = '', contact = '', ...vehicle } = identity;
  const rig = (await tx('rigs').where({ id: rigId }).first('customer_id')) as { customer_id: string | null };
  let customerId = rig.customer_id;
  if (customer.trim() === '' && contact.trim() === '') customerId = null;
  else if (customerId)
    await tx('customers')
      .where({ id: customerId })
      .update({ name: customer.trim() || 'Name not taken', contact: contact.trim() });
  else {
    customerId = randomUUID();
    await tx('customers').insert({
      shop_id: shopId,
      id: customerId,
      name: customer.trim() || 'Name not taken',
      contact: contact.trim(),
    });
  }
  await tx('rigs')
    .where({ id: rigId })
    .update({ customer_id: customerId, identity: JSON.stringify(vehicle) });
}
