/** Photos, identity and the PDF on the real database; the PDF is read back by poppler's pdftotext. */
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoJobs } from '../../db/demo/jobs';
import type { CommandType, Payload } from '../../src/core/job/command';
import { DEFAULT_SETTINGS } from '../../src/core/shop/shop';
import type { Actor } from '../../src/server/actor';
import { submitCommand } from '../../src/server/job/commands';
import { insertJob } from '../../src/server/job/jobStore';
import { jobSnapshot } from '../../src/server/job/snapshot';
import { cleanPhoto, photoContent, storePhoto } from '../../src/server/job/photos';
import { reportPdf } from '../../src/server/pdf/report';
import { cardPdf } from '../../src/server/pdf/ownerCard';
import { wiringPdf } from '../../src/server/pdf/wiring';
import { wiringOf } from '../../src/core/documents/wiring/sheet';
import { testDatabase, type TestDatabase } from './database';

let db: TestDatabase;
const NOW = new Date('2026-11-24T16:00:00Z');
const shop = randomUUID();
const other = randomUUID();
const person = (shopId: string, name: string): Actor => ({
  shopId,
  sessionId: randomUUID(),
  personId: randomUUID(),
  name,
  role: 'technician',
});
const ana = person(shop, 'Ana');
const eve = person(other, 'Eve');
const folder = mkdtempSync(join(tmpdir(), 'surrik-report-'));

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
    for (const id of new Set(demoJobs(NOW).map((j) => j.rigId)))
      await db.owner('rigs').insert({ shop_id: a.shopId, id, nickname: id });
    await db.owner.transaction(async (tx) => {
      for (const job of demoJobs(NOW)) await insertJob(tx, a.shopId, randomUUID(), job);
    });
  }
});
afterAll(async () => {
  rmSync(folder, { recursive: true, force: true });
  await db.drop();
});

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
const picture = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#357' } });

/** A camera's JPEG: with a place, a camera and a turn in its EXIF. */
const camera = async () =>
  picture(3000, 2000)
    .withMetadata({ orientation: 6 })
    .withExifMerge({
      IFD0: { Make: 'SECRETCAMERA' },
      IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1', GPSLongitudeRef: 'W', GPSLongitude: '0/1 7/1 0/1' },
    })
    .jpeg()
    .toBuffer();

describe('photos', () => {
  it('keep the picture and nothing of where or with what it was taken', async () => {
    const raw = await camera();
    expect(raw.includes('SECRETCAMERA')).toBe(true);
    expect((await sharp(raw).metadata()).exif).toBeDefined();
    const { content, width, height } = await cleanPhoto(raw);
    const kept = await sharp(content).metadata();
    expect(kept.exif).toBeUndefined();
    expect(kept.format).toBe('jpeg');
    expect(content.includes('SECRETCAMERA')).toBe(false);
    expect(Math.max(width, height)).toBeLessThanOrEqual(1800);
    // Turned upright: the camera said it was lying on its side.
    expect(height).toBeGreaterThan(width);
  });

  it('hide nothing behind the picture, and a transparent one gets white', async () => {
    const tail = Buffer.concat([await picture(40, 40).png().toBuffer(), Buffer.from('PK-HIDDEN-PAYLOAD')]);
    expect((await cleanPhoto(tail)).content.includes('HIDDEN')).toBe(false);
    const glass = await sharp({
      create: { width: 8, height: 8, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } },
    })
      .png()
      .toBuffer();
    const { data } = await sharp((await cleanPhoto(glass)).content)
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect(Math.min(...data)).toBeGreaterThan(245);
  });

  it('that are no photos are refused with what to do, and nothing is kept', async () => {
    const svg = Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><image href="file:///etc/passwd"/></svg>',
    );
    const jpeg = await picture(400, 400).jpeg().toBuffer();
    for (const bad of [Buffer.from('hello'), Buffer.alloc(0), svg, jpeg.subarray(0, 60), Buffer.from('%PDF-1.4')])
      await expect(storePhoto(db.app, ana, 1042, bad)).rejects.toMatchObject({ status: 400 });
    await expect(cleanPhoto(Buffer.alloc(21 * 1024 * 1024))).rejects.toMatchObject({ status: 413 });
    expect(await db.owner('photo_files').count('* as n').first()).toEqual({ n: '0' });
  });

  it('become part of the job by a command, only once their file is there, and only in their shop', async () => {
    const stored = await storePhoto(db.app, ana, 1042, await picture(50, 40).jpeg().toBuffer());
    const photo = { id: randomUUID(), ...stored, caption: 'link box' };
    await expect(send('photo.keep', { ...photo, sha256: 'f'.repeat(64) })).rejects.toMatchObject({ code: 'no-file' });
    await send('photo.keep', photo);
    expect((await jobSnapshot(db.app, ana, 1042)).job.photos).toMatchObject([
      { caption: 'link box', width: 50, height: 40, by: 'Ana' },
    ]);
    expect((await sharp(await photoContent(db.app, ana, 1042, stored.sha256)).metadata()).width).toBe(50);
    await expect(photoContent(db.app, eve, 1042, stored.sha256)).rejects.toMatchObject({ status: 404 });
    await expect(photoContent(db.app, ana, 1009, stored.sha256)).rejects.toMatchObject({ status: 404 });
    await send('photo.retract', { id: photo.id });
    expect((await jobSnapshot(db.app, ana, 1042)).job.photos[0]!.retracted).toBe(true);
  });
});

describe('whose rig it is', () => {
  it('stands with the shop’s customers and never in the job document', async () => {
    const set = {
      customer: 'Lab of the lagoon',
      contact: 'lab@example.invalid',
      plate: 'LAG 00N',
      odometer: '41,200 mi',
    };
    await send('identity.set', { was: {}, set });
    const mine = await jobSnapshot(db.app, ana, 1042);
    expect(mine.identity).toEqual(set);
    expect(JSON.stringify(mine.job)).not.toMatch(/lagoon|LAG 00N/);
    // The same rig's other visit shows the same; another shop's rig of the same name nothing.
    expect((await jobSnapshot(db.app, ana, 1009)).identity).toEqual(set);
    expect((await jobSnapshot(db.app, eve, 1042)).identity).toEqual({});
    await send('identity.set', { was: set, set: { plate: 'NEW 1' } });
    expect((await jobSnapshot(db.app, ana, 1042)).identity).toEqual({ plate: 'NEW 1' });
    await send('identity.set', { was: { plate: 'NEW 1' }, set });
  });

  it('and earlier visits are of this rig only', async () => {
    expect((await jobSnapshot(db.app, ana, 1042)).visits).toMatchObject([
      { number: 1009, status: 'done', verdict: 'Coach ground joint bad' },
    ]);
    await expect(send('visit.link', { set: { job: 4444, warranty: true } })).rejects.toMatchObject({ status: 409 });
    await send('visit.link', { set: { job: 1009, warranty: true } });
    expect((await jobSnapshot(db.app, ana, 1042)).job.cameBack).toEqual({ job: 1009, warranty: true });
  });
});

describe('the PDF', () => {
  const text = async (snapshot: Awaited<ReturnType<typeof jobSnapshot>>) => read(await reportPdf(snapshot, NOW));
  const read = (pdf: Buffer) => {
    const file = join(folder, `${randomUUID()}.pdf`);
    writeFileSync(file, pdf);
    const info = execFileSync('pdfinfo', [file], { encoding: 'utf8' });
    return {
      words: execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' }).replace(/\s+/g, ' '),
      info,
    };
  };

  it('says on one page what the job’s report says, read back by another program', async () => {
    const { words, info } = await text(await jobSnapshot(db.app, ana, 1009));
    expect(info).toMatch(/Pages:\s+1\b/);
    expect(info).toMatch(/Title:\s+Job 1009, Heron/);
    for (const part of [
      'Job 1009, Heron',
      'Shop of Ana',
      'Lab of the lagoon',
      'Found, put right, and proven right by measurement.',
      'Coach ground joint bad',
      'Practically certain, 98 %',
      'Approved up to $220',
      'star washer',
      'It is right now',
      'Local codes',
    ])
      expect(words).toContain(part);
    // Every reading of the evidence stands there with its unit.
    for (const r of (await jobSnapshot(db.app, ana, 1009)).job.readings)
      expect(words).toContain(r.unit === 'A' ? ' A' : Math.abs(r.value!) < 0.0999 ? 'mV' : r.value!.toFixed(2));
    // Letters the fonts do not have would come back as boxes or nothing.
    expect(words).not.toMatch(/[\u0000-\u0008\ufffd\u25a1]/);
  });

  it('of an open job in another vocabulary, on the paper of the place', async () => {
    const open = await jobSnapshot(db.app, ana, 1042);
    const uk = {
      ...open,
      shop: {
        ...open.shop,
        settings: { ...DEFAULT_SETTINGS, vocabulary: 'europe' as const, jurisdiction: 'uk' as const },
      },
    };
    const { words, info } = await text(uk);
    expect(words).toContain('Not yet found.');
    // What the customer said stays as they said it; what was only ticked is said in the shop's words.
    expect(words).toContain('Coach bank not charging on the road');
    const ticked = { ...uk, job: { ...uk.job, complaint: { ...uk.job.complaint, words: '' } } };
    expect((await text(ticked)).words).toContain('Leisure battery does not charge on the road');
    expect(info).toMatch(/Page size:\s+595\.\d+ x 841\.\d+ pts \(A4\)/);
  });

  it('of the wiring: every wire of the schedule on the sheet, across on letter or A4', async () => {
    const { job, shop } = await jobSnapshot(db.app, ana, 1042);
    const { words, info } = read(await wiringPdf(1042, job.revisions[0]!, shop, NOW));
    for (const w of wiringOf(job.revisions[0]!.doc, shop.settings).wires)
      expect(words.split(new RegExp(`\\b${w.wire}\\b`)).length - 1, w.wire).toBe(2);
    expect(words).toContain('Isolator');
    expect(words).toContain('1/0');
    expect(words).not.toMatch(/[\u0000-\u0008\ufffd\u25a1]/);
    expect(info).toMatch(/Pages:\s+2\b/);
    expect(info).toMatch(/Page size:\s+792 x 612 pts \(letter\)/);
    const a4 = read(
      await wiringPdf(1042, job.revisions[0]!, { ...shop, settings: { ...shop.settings, jurisdiction: 'uk' } }, NOW),
    );
    expect(a4.info).toMatch(/Page size:\s+841\.\d+ x 595\.\d+ pts \(A4\)/);
  });

  it('of the owner’s card: one page an owner can keep', async () => {
    const { words, info } = read(await cardPdf(await jobSnapshot(db.app, ana, 1042)));
    expect(info).toMatch(/Pages:\s+1\b/);
    for (const part of [
      'Heron: your batteries',
      'Never wedge it',
      'driving from 20 % to 80 %',
      'hot stud',
      'Shop of Ana',
    ])
      expect(words).toContain(part);
  });
});
