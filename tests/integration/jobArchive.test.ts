/** A job file out and in on the real database, and everything hostile a file may be. */
import { strToU8, unzipSync, zipSync } from 'fflate';
import ICAL from 'ical.js';
import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { gunzipSync, gzipSync } from 'node:zlib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoJobs } from '../../db/demo/jobs';
import type { CommandType, Payload } from '../../src/core/job/command';
import type { Job } from '../../src/core/job/job';
import type { Actor } from '../../src/server/actor';
import { calendarFile } from '../../src/server/calendarFile';
import { submitCommand } from '../../src/server/job/commands';
import { rigHistory, searchShop, shopCalendar } from '../../src/server/job/history';
import { importJob, packJob } from '../../src/server/job/jobArchive';
import { insertJob } from '../../src/server/job/jobStore';
import { jobSnapshot } from '../../src/server/job/snapshot';
import { checkedLog, packedLog, storeLog } from '../../src/server/job/logs';
import { storePhoto } from '../../src/server/job/photos';
import { testDatabase, type TestDatabase } from './database';

let db: TestDatabase;
const NOW = new Date('2026-11-24T16:00:00Z');
const person = (name: string): Actor => ({
  shopId: randomUUID(),
  sessionId: randomUUID(),
  personId: randomUUID(),
  name,
  role: 'technician',
});
const ana = person('Ana');
const eve = person('Eve');

beforeAll(async () => {
  db = await testDatabase();
  for (const a of [ana, eve]) {
    await db.owner('shops').insert({ id: a.shopId, name: `Shop of ${a.name}` });
    await db.owner('people').insert({
      shop_id: a.shopId,
      id: a.personId,
      handle: a.name.toLowerCase(),
      name: a.name,
      role: 'technician',
      password_hash: 'x',
    });
  }
  for (const id of new Set(demoJobs(NOW).map((j) => j.rigId)))
    await db.owner('rigs').insert({ shop_id: ana.shopId, id, nickname: id });
  await db.owner.transaction(async (tx) => {
    for (const job of demoJobs(NOW)) await insertJob(tx, ana.shopId, randomUUID(), job);
  });
});
afterAll(async () => db.drop());

const jobOf = async (actor: Actor, number: number): Promise<Job> => (await jobSnapshot(db.app, actor, number)).job;
const send = async <T extends CommandType>(type: T, payload: Payload<T>, job = 1042) =>
  submitCommand(db.app, ana, job, {
    id: randomUUID(),
    type,
    version: 1,
    baseSeq: (await jobSnapshot(db.app, ana, job)).seq,
    at: NOW.toISOString(),
    actor: ana.name,
    payload,
  });
const count = async (): Promise<number> =>
  Number(((await db.owner('jobs').where({ shop_id: eve.shopId }).count('* as n').first()) as { n: string }).n);

describe('a job file', () => {
  it('goes out with its photos and comes in whole at another shop; the same again is the same job', async () => {
    const picture = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#753' } })
      .jpeg()
      .toBuffer();
    const kept = await storePhoto(db.app, ana, 1042, picture);
    await send('photo.keep', {
      id: randomUUID(),
      sha256: kept.sha256,
      width: kept.width,
      height: kept.height,
      bytes: kept.bytes,
      caption: 'Tray',
    });
    const file = await packJob(db.app, ana, 1042);
    const first = await importJob(db.app, eve, file);
    expect(first).toEqual({ number: 1042, again: false, was: 1042, photos: 1, logs: 0, missing: 0 });
    const [there, here] = [await jobOf(eve, 1042), await jobOf(ana, 1042)];
    const bare = ({ photos, cameBack: _, ...rest }: Job) => ({
      ...rest,
      photos: photos.map((p) => ({ ...p, sha256: '' })),
    });
    expect(bare(there)).toEqual(bare(here));
    // The record names the photo that is there.
    expect(
      await db.owner('photo_files').where({ shop_id: eve.shopId, sha256: there.photos[0]!.sha256 }).first('sha256'),
    ).toBeDefined();
    expect(await importJob(db.app, eve, file)).toMatchObject({ number: 1042, again: true });
    expect(await count()).toBe(1);
  });

  it('of a number that is taken gets the next; one that differs from its twin is refused with where it is', async () => {
    const job = demoJobs(NOW)[2]!;
    const other = JSON.parse(
      JSON.stringify({ ...job, number: 1042 }).replaceAll(job.revisions[0]!.id, randomUUID()),
    ) as Job;
    expect(await importJob(db.app, eve, strToU8(JSON.stringify(other)))).toMatchObject({ number: 1043, was: 1042 });
    const changed = { ...(await jobOf(eve, 1042)), complaint: { codes: [], words: 'Something else.' } };
    await expect(importJob(db.app, eve, strToU8(JSON.stringify(changed)))).rejects.toMatchObject({
      status: 409,
      message: expect.stringContaining('1042'),
    });
  });

  it('that is hostile or broken is said so, and nothing of it is kept', async () => {
    const before = await count();
    const good = strToU8(JSON.stringify({ ...demoJobs(NOW)[4]! }));
    const cases: [string, Uint8Array, RegExp][] = [
      ['empty', new Uint8Array(0), /empty/],
      ['no zip', Uint8Array.from([0x50, 0x4b, 3, 4, 9, 9, 9, 9]), /neither JSON nor a zip/],
      ['no JSON', strToU8('hello'), /JSON document/],
      ['another schema', strToU8('{"schemaVersion":1}'), /wanted this property/],
      [
        'path-climbing name',
        zipSync({ 'job.surrik.json': good, '../../etc/passwd': strToU8('x') }),
        /no place in a job file/,
      ],
      [
        'a name with a drive',
        zipSync({ 'job.surrik.json': good, 'C:\\evil.exe': strToU8('x') }),
        /no place in a job file/,
      ],
      ['a bomb', zipSync({ 'job.surrik.json': new Uint8Array(60_000_000) }, { level: 1 }), /unpacks to 57 MB/],
      [
        'too many files',
        zipSync(
          Object.fromEntries(
            Array.from({ length: 300 }, (_, i) => [`photos/${String(i).padStart(64, '0')}.jpg`, new Uint8Array(1)]),
          ),
        ),
        /more than 260 files/,
      ],
      [
        'a photo under a false name',
        zipSync({ 'job.surrik.json': good, [`photos/${'a'.repeat(64)}.jpg`]: strToU8('not a photo') }),
        /not the one its name says/,
      ],
      ['no job in it', zipSync({ [`photos/${'a'.repeat(64)}.jpg`]: strToU8('x') }), /There is no job.surrik.json/],
    ];
    for (const [name, bytes, says] of cases) await expect(importJob(db.app, eve, bytes), name).rejects.toThrow(says);
    const bad = JSON.parse(JSON.stringify(demoJobs(NOW)[4]!)) as Job;
    bad.readings[0]!.value = 'high' as never;
    await expect(importJob(db.app, eve, strToU8(JSON.stringify(bad)))).rejects.toThrow(/\/readings\/0\/value/);
    expect(await count()).toBe(before);
    expect(
      await db
        .owner('rigs')
        .where({ shop_id: eve.shopId, id: demoJobs(NOW)[4]!.rigId })
        .first('id'),
    ).toBeUndefined();
  });
});

describe('a recorder’s log', () => {
  const TEXT = `time;volts\n${Array.from({ length: 5000 }, (_, i) => `${i};${(12 + Math.sin(i / 50)).toFixed(3)}`).join('\n')}\n`;
  const sha256 = createHash('sha256').update(TEXT).digest('hex');
  const record = (file?: { sha256: string; bytes: number }) => ({
    id: randomUUID(),
    name: 'trip.csv',
    from: '2026-11-20T08:00:00Z',
    to: '2026-11-20T09:00:00Z',
    rows: 5000,
    says: ['It charged.'],
    estimates: [],
    at: NOW.toISOString(),
    by: ana.name,
    ...(file ? { file } : {}),
  });

  it('is kept as it came, once, for its own shop, and comes back to the byte', async () => {
    await expect(send('log.set', { set: record({ sha256, bytes: TEXT.length }) }, 1044)).rejects.toMatchObject({
      code: 'no-file',
    });
    const packed = gzipSync(TEXT);
    const kept = await storeLog(db.app, ana, 1044, packed);
    expect(kept).toEqual({ sha256, bytes: TEXT.length });
    expect(await storeLog(db.app, ana, 1044, gzipSync(TEXT, { level: 1 }))).toEqual(kept);
    expect(
      Number(((await db.owner('log_files').where({ shop_id: ana.shopId }).count('* as n').first()) as { n: string }).n),
    ).toBe(1);
    await send('log.set', { set: record(kept) }, 1044);
    expect(gunzipSync(await packedLog(db.app, ana, 1044, sha256)).toString()).toBe(TEXT);
    await expect(packedLog(db.app, eve, 1044, sha256)).rejects.toMatchObject({ status: 404 });
    await expect(packedLog(db.app, ana, 1042, sha256)).rejects.toMatchObject({ status: 404 });
  });

  it('goes out and comes in with its job, and a job without it says that it is missing', async () => {
    const file = await packJob(db.app, ana, 1044);
    expect(await importJob(db.app, eve, file)).toMatchObject({ was: 1044, logs: 1, missing: 0 });
    const there = (await searchShop(db.app, eve, 'trip.csv')).hits[0]!.job;
    expect(gunzipSync(await packedLog(db.app, eve, there, sha256)).toString()).toBe(TEXT);
    expect(await importJob(db.app, eve, file)).toMatchObject({ again: true, number: there });
    // Another shop gets the record alone.
    const { [`logs/${sha256}.gz`]: _, ...rest } = unzipSync(file);
    const sam = person('Sam');
    await db.owner('shops').insert({ id: sam.shopId, name: 'Shop of Sam' });
    await db.owner('people').insert({
      shop_id: sam.shopId,
      id: sam.personId,
      handle: 'sam',
      name: sam.name,
      role: 'technician',
      password_hash: 'x',
    });
    expect(await importJob(db.app, sam, zipSync(rest))).toMatchObject({ logs: 0, missing: 1 });
    expect((await jobOf(sam, 1044)).logs).toEqual([
      expect.not.objectContaining({ file: expect.anything() as unknown }),
    ]);
  });

  it('that is no log, is broken, or unpacks without end is refused, and nothing is kept', async () => {
    const whole = gzipSync(TEXT);
    const cases: [string, Uint8Array, RegExp][] = [
      ['not packed', strToU8(TEXT), /did not arrive whole/],
      ['cut short', whole.subarray(0, whole.length / 2), /did not arrive whole/],
      [
        'a flipped byte',
        Uint8Array.from(whole, (b, i) => (i === whole.length - 6 ? b ^ 1 : b)),
        /did not arrive whole/,
      ],
      ['a picture', gzipSync(Uint8Array.from([0x89, 0x50, 0, 1, 2])), /no text/],
      ['empty', gzipSync(''), /empty/],
      // As many members as it takes: each is a megabyte of blanks out of a kilobyte.
      ['a bomb', Buffer.concat(Array<Uint8Array>(230).fill(gzipSync(' '.repeat(1_000_000)))), /more than 200 MB/],
    ];
    for (const [name, packed, says] of cases) await expect(checkedLog(packed), name).rejects.toThrow(says);
    await expect(storeLog(db.app, ana, 9999, whole)).rejects.toMatchObject({ status: 404 });
    const good = unzipSync(await packJob(db.app, ana, 1044));
    await expect(
      importJob(db.app, person('No one'), zipSync({ ...good, [`logs/${'b'.repeat(64)}.gz`]: whole })),
    ).rejects.toThrow(/not the one its name says/);
  });

  it('fills a job to its limit and no further, whatever comes at once', async () => {
    // Letters in no order pack to three quarters: two of thirteen packed megabytes are more than 24.
    const noise = () => gzipSync(randomBytes(13_000_000).toString('base64'), { level: 1 });
    const results = await Promise.allSettled([
      storeLog(db.app, ana, 1045, noise()),
      storeLog(db.app, ana, 1045, noise()),
    ]);
    expect(results.map((r) => r.status).sort()).toEqual(['fulfilled', 'rejected']);
    expect((results.find((r) => r.status === 'rejected') as PromiseRejectedResult).reason).toMatchObject({
      status: 413,
      message: expect.stringContaining('at most 24 MB') as unknown,
    });
  });
});

describe('the shop’s calendar', () => {
  it('leaves as a file another library reads: times, bays, follow-ups with their alarm', async () => {
    const booking = {
      id: randomUUID(),
      bay: 'Bay 2, the long one; with a pit',
      start: '2026-12-01T15:00:00.000Z',
      minutes: 150,
      by: ana.name,
    };
    const follow = {
      id: randomUUID(),
      due: '2027-05-03',
      what: 'Drop across the contact, with its amps; tray',
      by: ana.name,
    };
    await send('booking.set', { set: booking });
    await send('followUp.set', { set: follow });
    await send('followUp.set', {
      set: { id: randomUUID(), due: '2026-12-24', what: 'Done already', done: NOW.toISOString(), by: ana.name },
    });
    const text = calendarFile('Shop of Ana', await shopCalendar(db.app, ana, NOW), NOW);
    expect(text.split('\r\n').every((l) => new TextEncoder().encode(l).length <= 75)).toBe(true);
    const events = new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent').map((c) => new ICAL.Event(c));
    // The demo's own booking and follow-up are there too; what is done is not.
    expect(events).toHaveLength(4);
    expect(events.some((e) => e.summary.includes('Done already') || e.summary.includes('Re-torque'))).toBe(false);
    const bay = events.find((e) => e.uid === `booking-${booking.id}`)!;
    expect(bay.startDate.toJSDate().toISOString()).toBe(booking.start);
    expect((bay.endDate.toUnixTime() - bay.startDate.toUnixTime()) / 60).toBe(150);
    expect(bay.location).toBe(booking.bay);
    const due = events.find((e) => e.uid === `follow-up-${follow.id}`)!;
    expect(due.startDate.isDate).toBe(true);
    expect(due.startDate.toString()).toBe('2027-05-03');
    expect(due.summary).toContain(follow.what);
    expect(due.component.getAllSubcomponents('valarm')).toHaveLength(1);
  });

  it('tells what is booked and what has no time yet', async () => {
    const calendar = await shopCalendar(db.app, ana, NOW);
    expect(calendar.bookings.map((b) => b.job)).toContain(1042);
    expect(calendar.unbooked.map((u) => u.job)).toEqual([1043, 1044, 1045, 1046, 1047]);
  });

  it('is of one shop only', async () => {
    expect((await shopCalendar(db.app, eve, NOW)).bookings.every((b) => b.job !== 1009)).toBe(true);
  });
});

describe('looking back', () => {
  it('gives all jobs of the rig, oldest first', async () => {
    expect((await rigHistory(db.app, ana, 1042)).jobs.map((j) => j.number)).toEqual([1009, 1042]);
  });

  it('finds words wherever they were written, as they were written, in this shop alone', async () => {
    const where = async (q: string, a = ana) => (await searchShop(db.app, a, q)).hits.map((h) => `${h.job} ${h.where}`);
    expect(await where('ground')).toEqual(expect.arrayContaining(['1009 verdict', '1009 repair']));
    expect(await where('BIRD-BANDING')).toContain('1042 told at intake');
    expect(await where('wedge under')).toContain('1042 note');
    expect(await where('Drop across the contact')).toContain('1042 follow-up');
    expect(await where('100%')).toEqual([]);
    expect(await where('%')).toEqual([]);
    expect(await where(`'; DROP TABLE jobs; --`)).toEqual([]);
    expect((await where('ground joint', eve)).filter((x) => x.startsWith('1009'))).toEqual([]);
  });
});
