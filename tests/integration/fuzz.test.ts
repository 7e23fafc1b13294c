/**
 * What nobody meant to send, on a real database: taken or refused in words, never anything else. The long run is
 * `./surrik trials fuzz`.
 */
import { randomUUID } from 'node:crypto';
import { strToU8, zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoJobs } from '../../db/demo/jobs';
import { commandSchema, COMMAND_TYPES } from '../../src/core/job/commandSchema';
import { OpenJobSchema } from '../../src/core/job/openJob';
import { checkedJobText, JOB_IN_ARCHIVE } from '../../src/core/openFormats/validate';
import { OwnSignInChangeSchema } from '../../src/core/people/ownSignInSchema';
import { PeopleChangeSchema } from '../../src/core/people/peopleSchema';
import { shopCommandSchema, SHOP_COMMAND_TYPES } from '../../src/core/shop/shopSchema';
import { seededRng } from '../../src/core/units/rng';
import { Refused, type Actor } from '../../src/server/actor';
import { withShop } from '../../src/server/db';
import { submitCommand } from '../../src/server/job/commands';
import { importJob } from '../../src/server/job/jobArchive';
import { insertJob } from '../../src/server/job/jobStore';
import { openJob } from '../../src/server/job/openJob';
import { changeOwnSignIn } from '../../src/server/ownSignIn';
import { hashPassword } from '../../src/server/password';
import { changePeople } from '../../src/server/people';
import { submitShopCommand } from '../../src/server/shop';
import { Fuzz, wordsOf } from '../fuzz';
import { testDatabase, type TestDatabase } from './database';

const shop = randomUUID();
const ana: Actor = { shopId: shop, sessionId: randomUUID(), personId: randomUUID(), name: 'Ana', role: 'owner' };
const NOW = new Date('2026-11-24T16:00:00Z');
const jobs = demoJobs(NOW);
let db: TestDatabase;
beforeAll(async () => {
  db = await testDatabase();
  await db.owner('shops').insert({ id: shop, name: 'Shop' });
  await db.owner('people').insert({
    shop_id: shop,
    id: ana.personId,
    handle: 'ana',
    name: 'Ana',
    role: 'owner',
    password_hash: await hashPassword('not to be guessed'),
  });
  await withShop(db.owner, shop, async (tx) => {
    for (const job of jobs) {
      await tx('rigs').insert({ shop_id: shop, id: job.rigId, nickname: 'N' }).onConflict(['shop_id', 'id']).ignore();
      await insertJob(tx, shop, randomUUID(), job);
    }
  });
});
afterAll(() => db.drop());

/** How it ended: taken, refused with its code; what is neither fails the test with what was sent. */
async function outcome(sent: unknown, work: () => Promise<unknown>): Promise<string> {
  try {
    await work();
    return 'taken';
  } catch (e) {
    if (e instanceof Refused) {
      expect(e.message.length).toBeGreaterThan(10);
      return e.code;
    }
    throw new Error(`neither taken nor refused: ${JSON.stringify(sent)?.slice(0, 2000)}`, { cause: e });
  }
}

describe('what nobody meant to send', () => {
  it('commands of every kind, hurt or not', async () => {
    const fuzz = new Fuzz(seededRng(19), wordsOf(jobs));
    const ends = new Set<string>();
    for (let k = 0; k < 600; k++) {
      const type = COMMAND_TYPES[k % COMMAND_TYPES.length]!;
      const job = fuzz.pick(jobs).number;
      const made = fuzz.shaped(commandSchema(type) as never) as Record<string, unknown>;
      const { seq } = (await db.owner('jobs').where({ shop_id: shop, number: job }).first('seq')) as { seq: number };
      const sent = fuzz.sometimesHurt({ ...made, id: randomUUID(), version: 1, actor: 'Ana', baseSeq: seq });
      ends.add(await outcome(sent, () => submitCommand(db.app, ana, job, sent)));
    }
    // It reaches the record, and is stopped at more than one gate.
    expect([...ends]).toEqual(expect.arrayContaining(['taken', 'invalid', 'refused']));
  });

  it('what concerns the shop, its people, its new jobs', async () => {
    const fuzz = new Fuzz(seededRng(20), wordsOf(jobs));
    const ends = new Set<string>();
    for (let k = 0; k < 150; k++) {
      const type = SHOP_COMMAND_TYPES[k % SHOP_COMMAND_TYPES.length]!;
      const made = fuzz.shaped(shopCommandSchema(type) as never) as Record<string, unknown>;
      const command = fuzz.sometimesHurt({ ...made, id: randomUUID(), version: 1, actor: 'Ana' });
      ends.add(await outcome(command, () => submitShopCommand(db.app, ana, command)));
      const people = fuzz.sometimesHurt(fuzz.shaped(PeopleChangeSchema as never));
      ends.add(await outcome(people, () => changePeople(db.app, ana, people)));
      const own = fuzz.sometimesHurt(fuzz.shaped(OwnSignInChangeSchema as never));
      ends.add(await outcome(own, () => changeOwnSignIn(db.app, ana, own, NOW)));
      const opened = fuzz.sometimesHurt(fuzz.shaped(OpenJobSchema as never));
      ends.add(await outcome(opened, () => openJob(db.app, ana, opened, NOW)));
    }
    expect([...ends]).toEqual(expect.arrayContaining(['taken', 'invalid']));
  });

  it('job files, damaged in the text, in the zip, or on the way', async () => {
    const fuzz = new Fuzz(seededRng(21), wordsOf(jobs));
    const ends = new Set<string>();
    for (let k = 0; k < 120; k++) {
      const job = fuzz.pick(jobs);
      const text = JSON.stringify(fuzz.hurt(k % 3 === 0 ? job : fuzz.hurt(job)));
      const file = k % 2 ? strToU8(text) : zipSync({ [JOB_IN_ARCHIVE]: strToU8(text) });
      const sent = fuzz.chance(0.4) ? fuzz.damaged(file) : file;
      ends.add(await outcome(text, () => importJob(db.app, ana, sent, (t) => Promise.resolve(checkedJobText(t)))));
    }
    expect(ends.size).toBeGreaterThan(2);
  });
});
