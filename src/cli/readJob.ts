/** The job a headless verb is asked about: an open job file, or the archive the logbook exports it in. */
import { unzipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import type { Job } from '../core/job/job';
import { JOB_FILE_LIMIT_BYTES, JOB_IN_ARCHIVE, parseJobText, validateJobDocument } from '../core/openFormats/validate';
import { BadInput } from './verb';

/** What the logbook exports with photos and logs is a zip: it begins so. */
const isArchive = (bytes: Buffer): boolean => bytes.subarray(0, 4).equals(Buffer.from([0x50, 0x4b, 3, 4]));

/** The job file in an exported archive; nothing else of it is unpacked. */
function jobInArchive(path: string, bytes: Buffer): string {
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => name === JOB_IN_ARCHIVE && originalSize <= JOB_FILE_LIMIT_BYTES,
    });
  } catch {
    throw new BadInput('/', `${path}: a zip that cannot be read`, 'an archive exported from the logbook, whole');
  }
  const job = files[JOB_IN_ARCHIVE];
  if (!job) throw new BadInput('/', `${path}: a zip without ${JOB_IN_ARCHIVE}`, 'an archive exported from the logbook');
  return Buffer.from(job).toString('utf8');
}

/** @param path a file, or - for the input stream. Throws BadInput with the place and what was wanted. */
export function readJob(path: string): Job {
  let bytes: Buffer;
  try {
    bytes = readFileSync(path === '-' ? 0 : path);
  } catch (e) {
    throw new BadInput(
      '/',
      `${path}: ${(e as NodeJS.ErrnoException).code ?? 'unreadable'}`,
      'a job file (*.surrik.json) or an exported archive (*.zip) that can be read',
    );
  }
  const parsed = parseJobText(isArchive(bytes) ? jobInArchive(path, bytes) : bytes.toString('utf8'));
  if (!parsed.ok) throw new BadInput(parsed.error);
  const job = validateJobDocument(parsed.value);
  if (!job.ok) throw new BadInput(job.error);
  return job.value;
}
