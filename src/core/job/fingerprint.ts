/**
 * What a statement about a job was made on. A signature, an approval and a verdict speak for a part of the record:
 * they carry the newest change their giver had seen and a hash of that part, and are refused when it is another by
 * the time they arrive. SHA-256 by a library; the text that is hashed is canonical.
 */
import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils';
import { canonical } from '../units/canonical';
import { currentRevision, type Job } from './job';

/** Which part of the record a statement speaks for. */
export type SpokenFor = 'record' | 'evidence' | 'verdict';

/** What the desk does to a ticket is no part of what was found and done. */
const DESK: readonly (keyof Job)[] = ['status', 'followUps', 'bookings', 'logs', 'signOffs'];

const INSTANT = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/;

/**
 * The same content in the same words, whatever way it came: the device's own copy and the server's differ in how an
 * instant is written and in whether a flag that is off is written at all.
 */
function plain(value: unknown): unknown {
  if (typeof value === 'string') return INSTANT.test(value) ? Date.parse(value) : value;
  if (Array.isArray(value)) return value.length === 0 ? undefined : value.map(plain);
  if (typeof value !== 'object' || value === null) return value === false ? undefined : value;
  return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, plain(inner)]));
}

const standing = <T extends { retracted?: boolean }>(list: readonly T[]): T[] => list.filter((x) => !x.retracted);

/** The part of a job a statement speaks for. */
function partOf(job: Job, what: SpokenFor): unknown {
  const now = currentRevision(job);
  switch (what) {
    case 'record':
      return Object.fromEntries(Object.entries(job).filter(([key]) => !DESK.includes(key as keyof Job)));
    case 'evidence':
      return {
        rig: now.doc,
        epoch: now.epoch,
        complaint: job.complaint.codes,
        intake: job.intake.facts,
        readings: standing(job.readings).filter((r) => r.epoch === now.epoch),
        seen: standing(job.observations).filter((o) => o.epoch === now.epoch && o.kind === 'seen'),
      };
    case 'verdict':
      return job.verdicts.filter((v) => !v.withdrawn);
  }
}

/** SHA-256 of what a statement speaks for, as 64 hexadecimal digits. */
export const fingerprint = (job: Job, what: SpokenFor): string =>
  bytesToHex(sha256(utf8ToBytes(canonical(plain(partOf(job, what))))));
