/** How often one person may ask for what is dear: counted in the database, exactly, for each by himself. */
import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Refused } from '../../src/server/actor';
import { failureResponse } from '../../src/server/http';
import { DOORS, takeTurn, type Door } from '../../src/server/turns';
import { testDatabase, type TestDatabase } from './database';

let db: TestDatabase;
const shop = randomUUID();
const [ana, ben] = ['ana', 'ben'].map((handle) => ({ shopId: shop, personId: randomUUID(), handle })) as [
  { shopId: string; personId: string; handle: string },
  { shopId: string; personId: string; handle: string },
];
beforeAll(async () => {
  db = await testDatabase();
  await db.owner('shops').insert({ id: shop, name: 'Shop' });
  for (const { personId, handle } of [ana, ben])
    await db.owner('people').insert({
      shop_id: shop,
      id: personId,
      handle,
      name: handle,
      role: 'technician',
      password_hash: '-',
    });
});
beforeEach(() => db.owner('turns').delete());
afterAll(() => db.drop());

/** How many of so many turns taken together are refused. */
const refused = async (who: typeof ana, door: Door, times: number): Promise<Refused[]> => {
  const ends = await Promise.allSettled(Array.from({ length: times }, () => takeTurn(db.app, who, door)));
  return ends.flatMap((e) => (e.status === 'rejected' ? [e.reason as Refused] : []));
};

describe('turns at a door', () => {
  it('are counted exactly, however many come at once, and refused with the time to wait', async () => {
    const { most, what } = DOORS.import;
    const late = await refused(ana, 'import', most + 7);
    expect(late).toHaveLength(7);
    for (const e of late) {
      expect(e).toMatchObject({ status: 429, code: 'too-many' });
      expect(e.message).toContain(`More than ${most} ${what} in a minute. Wait `);
    }
    const response = failureResponse(late[0]);
    expect(response.status).toBe(429);
    const wait = Number(response.headers.get('retry-after'));
    expect(wait).toBeGreaterThan(30);
    expect(wait).toBeLessThanOrEqual(60);
  });

  it('are each person’s own, and each door’s', async () => {
    await refused(ana, 'import', DOORS.import.most + 1);
    expect(await refused(ben, 'import', DOORS.import.most)).toEqual([]);
    expect(await refused(ana, 'upload', 3)).toEqual([]);
    expect(await refused(ana, 'import', 1)).toHaveLength(1);
  });

  it('come back whole when the minute is over, however many were refused in it', async () => {
    const { most } = DOORS.import;
    await refused(ana, 'import', 3 * most);
    const begun = (seconds: number) =>
      db.owner('turns').update({ began_at: db.owner.raw('now() - make_interval(secs => ?)', [seconds]) });
    await begun(55);
    const [late] = await refused(ana, 'import', 1);
    expect(Number(failureResponse(late).headers.get('retry-after'))).toBeLessThanOrEqual(5);
    await begun(60);
    expect(await refused(ana, 'import', most + 2)).toHaveLength(2);
  });

  it('go with whoever took them, and are nothing the app can change', async () => {
    await takeTurn(db.app, ben, 'search');
    for (const change of [db.app('turns').delete(), db.app('turns').update({ taken: 0 })])
      await expect(change).rejects.toThrow('permission denied');
    await expect(takeTurn(db.app, { ...ben, personId: randomUUID() }, 'search')).rejects.toThrow('foreign key');
    await db.owner('people').where({ id: ben.personId }).delete();
    expect(await db.owner('turns').where({ person_id: ben.personId })).toEqual([]);
  });
});

describe('a request that changes anything', () => {
  const routes = readdirSync('src/app/api', { recursive: true, encoding: 'utf8' })
    .filter((path) => path.endsWith('route.ts'))
    .map((path) => [path, readFileSync(`src/app/api/${path}`, 'utf8')] as const);
  it('has a door', () => {
    const doors = Object.keys(DOORS).join('|');
    const without = routes.flatMap(([path, text]) =>
      text
        .split(/(?=export (?:async )?function )/)
        .filter((f) => /function (POST|PUT|PATCH|DELETE)\b/.test(f) && !new RegExp(`'(${doors})'\\s*,?\\s*\\)`).test(f))
        .map(() => path),
    );
    expect(routes.filter(([, text]) => text.includes('function POST')).length).toBeGreaterThan(6);
    expect(without).toEqual([]);
  });
});
