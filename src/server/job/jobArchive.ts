/**
 * A job with its photos and logs as one file, out and in. In, nothing is trusted: size, number and names of
 * what is packed are bounded before anything is unpacked, the job goes through the same schema as everything
 * else, photos are decoded and encoded anew, logs looked through, and it is all taken or none of it.
 */
import { strToU8, unzip, zipSync, type Unzipped, type Zippable } from 'fflate';
import type { Knex } from 'knex';
import { createHash, randomUUID } from 'node:crypto';
import { canonical } from '../../core/units/canonical';
import { checkedJobText, JOB_FILE_LIMIT_BYTES, JOB_IN_ARCHIVE } from '../../core/openFormats/validate';
import type { Job } from '../../core/job/job';
import { mayOrRefuse, Refused, type Actor } from '../actor';
import { withShop } from '../db';
import { insertJob, loadJob, saveJob } from './jobStore';
import { checkedLog, insertLog, LOGS_LIMIT_BYTES, type StoredLog } from './logs';
import { cleanPhoto, PHOTO_LIMIT_BYTES } from './photos';

/** Packed and unpacked size of what is taken in, and how many files it may hold. */
export const ARCHIVE_LIMIT_BYTES = 64 * 1024 * 1024;
const UNPACKED_LIMIT = 256 * 1024 * 1024;
const MOST_FILES = 260;
/** What a byte may be packed from: more is a bomb. */
const MOST_RATIO = 200;
const PHOTO_NAME = /^photos\/([0-9a-f]{64})\.jpg$/;
const LOG_NAME = /^logs\/([0-9a-f]{64})\.gz$/;

/** The job as one file. Identity of the owner stays with the shop. */
export async function packJob(db: Knex, actor: Actor, number: number): Promise<Uint8Array> {
  return withShop(db, actor.shopId, async (tx) => {
    const stored = await loadJob(tx, number);
    if (!stored) throw new Refused(404, 'no-job', `There is no job ${number} in this shop.`);
    const files: Record<string, Uint8Array> = { [JOB_IN_ARCHIVE]: strToU8(`${JSON.stringify(stored.job, null, 2)}\n`) };
    const rows = (await tx('photo_files').where({ job_id: stored.id }).select('sha256', 'content')) as {
      sha256: string;
      content: Buffer;
    }[];
    for (const row of rows)
      if (stored.job.photos.some((p) => p.sha256 === row.sha256)) files[`photos/${row.sha256}.jpg`] = row.content;
    const logs = (await tx('log_files')
      .where({ shop_id: actor.shopId, job_id: stored.id })
      .select('sha256', 'packed')) as {
      sha256: string;
      packed: Buffer;
    }[];
    // Packed once is packed enough.
    const packed = logs
      .filter((l) => stored.job.logs?.some((k) => k.file?.sha256 === l.sha256))
      .map((l) => [`logs/${l.sha256}.gz`, [l.packed, { level: 0 }]] as const);
    return zipSync({ ...files, ...Object.fromEntries(packed) } as Zippable, { level: 6 });
  });
}

/** Files of an archive by name; refused before unpacking where the directory itself promises too much. */
async function unpack(bytes: Uint8Array): Promise<Unzipped> {
  let total = 0;
  let count = 0;
  let refused: Refused | undefined;
  const files = await new Promise<Unzipped>((resolve, reject) => {
    unzip(
      bytes,
      {
        filter: ({ name, originalSize, size }) => {
          count++;
          total += originalSize;
          const said = name.slice(0, 60);
          if (count > MOST_FILES)
            refused ??= new Refused(
              400,
              'too-many-files',
              `The file holds more than ${MOST_FILES} files: it is no job.`,
            );
          else if (
            originalSize > UNPACKED_LIMIT ||
            total > UNPACKED_LIMIT ||
            (size > 0 && originalSize / size > MOST_RATIO && originalSize > 1_000_000)
          )
            refused ??= new Refused(
              400,
              'too-large',
              `“${said}” unpacks to ${Math.round(originalSize / 1024 / 1024)} MB: nothing of this file was taken.`,
            );
          else if (name !== JOB_IN_ARCHIVE && !PHOTO_NAME.test(name) && !LOG_NAME.test(name))
            refused ??= new Refused(
              400,
              'foreign-file',
              `“${said}” has no place in a job file, which holds ${JOB_IN_ARCHIVE}, photos/… and logs/…: nothing was taken.`,
            );
          // Once refused nothing more is unpacked.
          return refused === undefined;
        },
      },
      (e, data) =>
        e
          ? reject(
              new Refused(
                400,
                'not-a-zip',
                'This is no job file: neither JSON nor a zip that can be read. Nothing was taken.',
              ),
            )
          : resolve(data),
    );
  });
  if (refused) throw refused;
  // What the directory promised and what came out are two things.
  if (Object.values(files).reduce((sum, f) => sum + f.length, 0) > UNPACKED_LIMIT)
    throw new Refused(400, 'too-large', 'The file unpacks to more than it says: nothing of it was taken.');
  return files;
}

export interface Imported {
  number: number;
  /** It is the very job that is here already. */
  again: boolean;
  /** It had another number where it came from. */
  was: number;
  photos: number;
  logs: number;
  /** Photos and logs the record names and the file does not hold: left out. */
  missing: number;
}

/** Looks a job's text through: seconds of work, for a server that goes on answering on another thread. */
export type CheckJob = (text: string) => Promise<ReturnType<typeof checkedJobText>>;

interface Unpacked {
  job: Job;
  /** By the hash the file gave them. */
  photos: Map<string, { content: Buffer; width: number; height: number }>;
  logs: Map<string, { log: StoredLog; packed: Uint8Array }>;
}

/** What a job file holds, each part looked through. Refuses the whole where one part is not what it should be. */
async function readArchive(bytes: Uint8Array, check: CheckJob): Promise<Unpacked> {
  if (bytes.length === 0) throw new Refused(400, 'empty', 'The file is empty.');
  if (bytes.length > ARCHIVE_LIMIT_BYTES)
    throw new Refused(413, 'too-large', `A job file has at most ${ARCHIVE_LIMIT_BYTES / 1024 / 1024} MB.`);
  const zipped = bytes[0] === 0x50 && bytes[1] === 0x4b;
  const files: Readonly<Record<string, Uint8Array>> = zipped ? await unpack(bytes) : { [JOB_IN_ARCHIVE]: bytes };
  const raw = files[JOB_IN_ARCHIVE];
  if (!raw) throw new Refused(400, 'no-job-file', `There is no ${JOB_IN_ARCHIVE} in this file.`);
  if (raw.length > JOB_FILE_LIMIT_BYTES)
    throw new Refused(413, 'too-large', `The job itself has at most ${JOB_FILE_LIMIT_BYTES / 1024 / 1024} MB.`);
  const checked = await check(new TextDecoder().decode(raw));
  if (!checked.ok) {
    const issue = checked.error[0]!;
    throw new Refused(
      400,
      'invalid',
      `${issue.pointer}: found ${issue.found}, wanted ${issue.wanted}. Nothing was taken.`,
      checked.error,
    );
  }
  const job = checked.value;
  const photos: Unpacked['photos'] = new Map();
  const logs: Unpacked['logs'] = new Map();
  for (const [name, content] of Object.entries(files)) {
    const log = LOG_NAME.exec(name)?.[1];
    if (log !== undefined) {
      const seen = await checkedLog(content);
      if (seen.sha256 !== log)
        throw new Refused(
          400,
          'log-changed',
          `A log is not the one its name says (${log.slice(0, 12)}…): the file was changed or damaged. Nothing was taken.`,
        );
      logs.set(log, { log: seen, packed: content });
    }
    const said = PHOTO_NAME.exec(name)?.[1];
    if (said === undefined) continue;
    if (content.length > PHOTO_LIMIT_BYTES)
      throw new Refused(
        413,
        'too-large',
        `A photo has at most ${PHOTO_LIMIT_BYTES / 1024 / 1024} MB: nothing was taken.`,
      );
    if (createHash('sha256').update(content).digest('hex') !== said)
      throw new Refused(
        400,
        'photo-changed',
        `A photo is not the one its name says (${said.slice(0, 12)}…): the file was changed or damaged. Nothing was taken.`,
      );
    photos.set(said, await cleanPhoto(content));
  }
  if ([...logs.values()].reduce((sum, l) => sum + l.packed.length, 0) > LOGS_LIMIT_BYTES)
    throw new Refused(
      413,
      'too-large',
      `A job keeps at most ${LOGS_LIMIT_BYTES / 1024 / 1024} MB of packed logs: nothing was taken.`,
    );
  return { job, photos, logs };
}

/**
 * Takes a job file in: a zip of ours, or the bare JSON.
 * @param check where the job itself is looked through; here, where not said
 */
export async function importJob(
  db: Knex,
  actor: Actor,
  bytes: Uint8Array,
  check: CheckJob = (text) => Promise.resolve(checkedJobText(text)),
): Promise<Imported> {
  mayOrRefuse(actor, 'import');
  const { job, photos, logs } = await readArchive(bytes, check);
  return withShop(db, actor.shopId, async (tx) => {
    await tx.raw('SELECT pg_advisory_xact_lock(hashtext(?))', [`open job ${actor.shopId}`]);
    // The first revision of a job is made once in the world: two with one id are one job.
    const first = job.revisions[0]!.id;
    const twin = (await tx('revisions as r')
      .join('jobs as j', (on) => on.on('j.shop_id', 'r.shop_id').andOn('j.id', 'r.job_id'))
      .where({ 'r.id': first })
      .first('j.number')) as { number: number } | undefined;
    if (twin) {
      const here = (await loadJob(tx, twin.number))!.job;
      if (sameJob(here, job))
        return { number: twin.number, again: true, was: job.number, photos: 0, logs: 0, missing: 0 };
      throw new Refused(
        409,
        'duplicate',
        `This job is here already as ${twin.number}, and the two differ. Nothing ` +
          `was taken: open ${twin.number}, or take what differs in by hand.`,
      );
    }
    const taken = (await tx('jobs').where({ number: job.number }).first('number')) as { number: number } | undefined;
    const last = (await tx('jobs').max('number as most').first()) as { most: number | null };
    const number = taken ? (last.most ?? 1000) + 1 : job.number;
    const rig = await tx('rigs').where({ id: job.rigId }).first('id');
    const nickname = job.revisions[0]!.doc.name.slice(0, 60);
    if (!rig) await tx('rigs').insert({ shop_id: actor.shopId, id: job.rigId, nickname });
    const id = randomUUID();
    const { cameBack, ...rest } = job;
    const known = cameBack && (await tx('jobs').where({ number: cameBack.job }).first('number'));
    // A photo that was encoded anew has another hash: the record follows it.
    const renamed = new Map([...photos].map(([old, p]) => [old, createHash('sha256').update(p.content).digest('hex')]));
    const withLogs = job.logs && {
      logs: job.logs.map(({ file, ...l }) =>
        file && logs.has(file.sha256) ? { ...l, file: logs.get(file.sha256)!.log } : l,
      ),
    };
    const inside: Job = {
      ...rest,
      ...withLogs,
      // Nobody signed in here gave these signatures: they are told as what the file says.
      ...(job.signOffs ? { signOffs: job.signOffs.map((s) => ({ ...s, elsewhere: true })) } : {}),
      ...(known ? { cameBack: cameBack! } : {}),
      number,
      photos: job.photos.flatMap((p) => (renamed.has(p.sha256) ? [{ ...p, sha256: renamed.get(p.sha256)! }] : [])),
    };
    const bare: Job = { ...inside, photos: [] };
    await insertJob(tx, actor.shopId, id, bare);
    for (const [old, p] of photos)
      await tx('photo_files')
        .insert({
          shop_id: actor.shopId,
          job_id: id,
          sha256: renamed.get(old)!,
          width: p.width,
          height: p.height,
          content: p.content,
        })
        .onConflict(['shop_id', 'job_id', 'sha256'])
        .ignore();
    const named = new Set(inside.logs?.flatMap((l) => (l.file ? [l.file.sha256] : [])));
    for (const [sha, { log, packed }] of logs) if (named.has(sha)) await insertLog(tx, actor.shopId, id, log, packed);
    // A record of a photo needs its file: now it is there.
    await saveJob(tx, actor.shopId, { id, seq: 0, job: bare }, inside, 0);
    const lost = (job.logs ?? []).filter((l) => l.file && !named.has(l.file.sha256)).length;
    return {
      number,
      again: false,
      was: job.number,
      photos: inside.photos.length,
      logs: named.size,
      missing: job.photos.length - inside.photos.length + lost,
    };
  });
}

/** One job twice, but for the number it has here, what its photos hash to, and logs that were left out. */
function sameJob(a: Job, b: Job): boolean {
  const bare = ({ number: _, photos, logs, cameBack: __, signOffs, ...rest }: Job) =>
    canonical({
      ...rest,
      ...(signOffs?.length ? { signOffs: signOffs.map(({ elsewhere: ____, ...s }) => s) } : {}),
      ...(logs?.length ? { logs: logs.map(({ file: ___, ...l }) => l) } : {}),
      photos: photos.map((p) => ({ ...p, sha256: '' })),
    });
  return bare(a) === bare(b);
}
