/**
 * Photos: decoded and encoded anew, so that nothing but the picture is kept (no place, no camera, nothing
 * hidden behind it), at a size that shows a crimp and fits a phone's memory.
 */
import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import sharp from 'sharp';
import { mayOrRefuse, Refused, type Actor } from '../actor';
import { withShop } from '../db';

/** Larger than any telephone's picture; what is beyond is no photo of a battery bay. */
export const PHOTO_LIMIT_BYTES = 20 * 1024 * 1024;
const MOST_PIXELS = 80_000_000;
const LONGEST_SIDE = 1800;
const MOST_IN_A_JOB = 200;

export interface StoredPhoto {
  sha256: string;
  width: number;
  height: number;
  bytes: number;
}

/** The picture alone, upright, as a JPEG. Refuses what is no picture. */
export async function cleanPhoto(input: Uint8Array): Promise<{ content: Buffer; width: number; height: number }> {
  if (input.length === 0) throw new Refused(400, 'no-photo', 'The photo is empty. Take it again.');
  if (input.length > PHOTO_LIMIT_BYTES)
    throw new Refused(
      413,
      'too-large',
      `A photo has at most ${PHOTO_LIMIT_BYTES / 1024 / 1024} MB. Take it at a lower resolution.`,
    );
  try {
    const image = sharp(input, { limitInputPixels: MOST_PIXELS, failOn: 'error', pages: 1 });
    const { format } = await image.metadata();
    // Vector and document formats can reach for other files: a camera makes none of them.
    if (!['jpeg', 'png', 'webp', 'heif', 'avif', 'gif', 'tiff'].includes(format)) throw new Error(format);
    const { data, info } = await image
      .rotate()
      .resize({ width: LONGEST_SIDE, height: LONGEST_SIDE, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 80 })
      .toBuffer({ resolveWithObject: true });
    return { content: data, width: info.width, height: info.height };
  } catch {
    throw new Refused(
      400,
      'not-a-photo',
      'This file is not a photo Surrik can read (JPEG, PNG, WebP). Nothing was kept; choose another.',
    );
  }
}

export async function storePhoto(db: Knex, actor: Actor, jobNumber: number, input: Uint8Array): Promise<StoredPhoto> {
  mayOrRefuse(actor, 'desk');
  const { content, width, height } = await cleanPhoto(input);
  const sha256 = createHash('sha256').update(content).digest('hex');
  return withShop(db, actor.shopId, async (tx) => {
    const job = (await tx('jobs').where({ number: jobNumber }).first('id')) as { id: string } | undefined;
    if (!job) throw new Refused(404, 'no-job', `There is no job ${jobNumber} in this shop.`);
    const { count } = (await tx('photo_files').where({ job_id: job.id }).count('* as count').first()) as {
      count: string;
    };
    if (Number(count) >= MOST_IN_A_JOB) throw new Refused(409, 'too-many', `A job holds ${MOST_IN_A_JOB} photos.`);
    await tx('photo_files')
      .insert({ shop_id: actor.shopId, job_id: job.id, sha256, width, height, content })
      .onConflict(['shop_id', 'job_id', 'sha256'])
      .ignore();
    return { sha256, width, height, bytes: content.length };
  });
}

export async function photoContent(db: Knex, actor: Actor, jobNumber: number, sha256: string): Promise<Buffer> {
  return withShop(db, actor.shopId, async (tx) => {
    const row = (await tx('photo_files as f')
      .join('jobs as j', (on) => on.on('j.shop_id', 'f.shop_id').andOn('j.id', 'f.job_id'))
      .where({ 'j.number': jobNumber, 'f.sha256': sha256 })
      .first('f.content')) as { content: Buffer } | undefined;
    if (!row) throw new Refused(404, 'no-photo', 'There is no such photo in this job.');
    return row.content;
  });
}

/** Whether the file a `photo.keep` names was received for this job. */
export async function photoReceived(tx: Knex.Transaction, jobId: string, sha256: string): Promise<boolean> {
  return (await tx('photo_files').where({ job_id: jobId, sha256 }).first('sha256')) !== undefined;
}
