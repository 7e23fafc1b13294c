/** What a shop sets for itself, on the real database. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEFAULT_SETTINGS } from '../../src/core/shop/shop';
import { USUAL_INSTRUMENT } from '../../src/core/probe/instrument';
import type { Actor } from '../../src/server/actor';
import { shopSnapshot, submitShopCommand } from '../../src/server/shop';
import { testDatabase, type TestDatabase } from './database';

let db: TestDatabase;
const shops = [randomUUID(), randomUUID()] as const;
const actors = shops.flatMap((shopId, i) =>
  ['a', 'b'].map((n): Actor => ({
    shopId,
    sessionId: randomUUID(),
    personId: randomUUID(),
    name: `${n}${i}`,
    role: 'lead',
  })),
);
const [ana, ben, eve] = actors as [Actor, Actor, Actor];

beforeAll(async () => {
  db = await testDatabase();
  for (const id of shops) await db.owner('shops').insert({ id, name: 'Shop' });
  for (const a of actors)
    await db.owner('people').insert({
      shop_id: a.shopId,
      id: a.personId,
      handle: `tech-${a.name}`,
      name: a.name,
      role: 'lead',
      password_hash: 'x',
    });
});
afterAll(() => db.drop());

const command = (actor: Actor, type: string, payload: unknown, baseSeq = 0) => ({
  id: randomUUID(),
  type,
  version: 1,
  baseSeq,
  at: '2026-11-25T10:00:00Z',
  actor: actor.name,
  payload,
});
const rate = (actor: Actor, labourPerHour: number, baseSeq: number) =>
  command(actor, 'settings.set', { was: { labourPerHour: 150 }, set: { labourPerHour } }, baseSeq);

describe('a shop’s settings', () => {
  it('are the usual ones until set, and then its own, not another shop’s', async () => {
    expect((await shopSnapshot(db.app, ana)).shop.settings).toEqual(DEFAULT_SETTINGS);
    const first = rate(ana, 170, 0);
    expect(await submitShopCommand(db.app, ana, first)).toMatchObject({ seq: 1, again: false });
    expect(await submitShopCommand(db.app, ana, first)).toMatchObject({ seq: 1, again: true });
    expect((await shopSnapshot(db.app, ben)).shop.settings.labourPerHour).toBe(170);
    expect((await shopSnapshot(db.app, eve)).shop.settings.labourPerHour).toBe(DEFAULT_SETTINGS.labourPerHour);
    await expect(
      submitShopCommand(db.app, ana, { ...first, payload: { was: {}, set: { labourPerHour: 1 } } }),
    ).rejects.toMatchObject({ status: 400 });
    await expect(
      submitShopCommand(db.app, ana, { ...first, payload: { was: { labourPerHour: 1 }, set: { labourPerHour: 2 } } }),
    ).rejects.toMatchObject({ code: 'id-reused' });
  });

  it('set by two at once: the same field is told, another field is not in the way', async () => {
    const { seq } = await shopSnapshot(db.app, ana);
    await submitShopCommand(db.app, ana, rate(ana, 180, seq));
    await expect(submitShopCommand(db.app, ben, rate(ben, 190, seq))).rejects.toMatchObject({
      status: 409,
      message: expect.stringContaining('a0 changed the same setting') as string,
    });
    await submitShopCommand(
      db.app,
      ben,
      command(ben, 'settings.set', { was: { vocabulary: 'north-america' }, set: { vocabulary: 'europe' } }, seq),
    );
    expect((await shopSnapshot(db.app, ana)).shop.settings).toMatchObject({ labourPerHour: 180, vocabulary: 'europe' });
  });

  it('out of their limits are refused with the place, and change nothing', async () => {
    const before = await shopSnapshot(db.app, ana);
    const bad = [
      { labourPerHour: -1 },
      { vocabulary: 'martian' },
      { likelihoods: { ...DEFAULT_SETTINGS.likelihoods, blunderShare: 0.9 } },
      { openMinutes: { Dash: 1e9 } },
      { secret: 1 },
      {},
    ];
    for (const set of bad)
      await expect(
        submitShopCommand(db.app, ana, command(ana, 'settings.set', { was: { labourPerHour: 1 }, set }, before.seq)),
      ).rejects.toMatchObject({ status: 400 });
    await expect(submitShopCommand(db.app, ana, rate(ben, 1, before.seq))).rejects.toMatchObject({
      code: 'other-person',
    });
    expect(await shopSnapshot(db.app, ana)).toEqual(before);
  });

  it('of an older Surrik are completed with what it did not know yet', async () => {
    const { bitMinutes: _, ...known } = DEFAULT_SETTINGS.likelihoods;
    await db
      .owner('shops')
      .where({ id: shops[1] })
      .update({ settings: JSON.stringify({ labourPerHour: 90, likelihoods: { ...known, confirmAt: 0.9 } }) });
    expect((await shopSnapshot(db.app, eve)).shop.settings).toEqual({
      ...DEFAULT_SETTINGS,
      labourPerHour: 90,
      likelihoods: { ...DEFAULT_SETTINGS.likelihoods, confirmAt: 0.9 },
    });
  });

  it('hold a register of instruments: added, changed, retired, never lost', async () => {
    const meter = { ...USUAL_INSTRUMENT, id: 'bay-3', name: 'Bay 3' };
    const { seq } = await shopSnapshot(db.app, ana);
    await submitShopCommand(db.app, ana, command(ana, 'instrument.set', { set: meter }, seq));
    await submitShopCommand(
      db.app,
      ana,
      command(ana, 'instrument.set', { was: meter, set: { ...meter, calibratedOn: '2026-11-01' } }, seq + 1),
    );
    expect((await shopSnapshot(db.app, ana)).shop.instruments).toEqual([{ ...meter, calibratedOn: '2026-11-01' }]);
    await submitShopCommand(
      db.app,
      ana,
      command(ana, 'instrument.set', { was: meter, set: { ...meter, retired: true } }, seq + 2),
    );
    expect((await shopSnapshot(db.app, ana)).shop.instruments).toHaveLength(1);
    await expect(
      submitShopCommand(
        db.app,
        ana,
        command(ana, 'instrument.set', { set: { ...meter, calibratedOn: 'yesterday' } }, seq + 3),
      ),
    ).rejects.toMatchObject({ status: 400 });
  });

  it('cannot be renamed or given to another by the application', async () => {
    await expect(
      db.app.transaction(async (tx) => {
        await tx.raw("SELECT set_config('surrik.shop', ?, true)", [shops[0]]);
        await tx('shops').where({ id: shops[0] }).update({ name: 'Mine' });
      }),
    ).rejects.toThrow(/permission denied/);
  });
});
