'use client';
/** Calls to our own server, with errors a person can act on. */
import type { ApiAnswer, ApiAnswerName } from '../core/openFormats/answers';
import type { CommandType, Payload } from '../core/job/command';
import type { Job } from '../core/job/job';
import type { CaseFile } from '../core/learn/caseFile';
import type { OwnSignInChange } from '../core/people/ownSignInSchema';
import type { PeopleChange } from '../core/people/peopleSchema';
import type { ShopCommandType, ShopPayload } from '../core/shop/shopSchema';
import { checkedAnswer } from './checkedAnswers';
import type { OpenJob } from '../core/job/openJob';
import type { Hit, ShopCalendar } from '../server/job/history';
import type { Imported } from '../server/job/jobArchive';
import type { BoardPage } from '../server/job/board';
import type { JobSnapshot } from '../server/job/snapshot';
import type { StoredLog } from '../server/job/logs';
import type { StoredPhoto } from '../server/job/photos';
import type { ShopSnapshot } from '../server/shop';

export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
  ) {
    super(message);
  }
}

let clockOff = 0;
/** ms this device's clock is ahead of the server's, as of its last answer. */
export const clockAhead = (): number => clockOff;

async function request(path: string, init?: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, { ...init, headers: { accept: 'application/json', ...init?.headers } });
  } catch {
    throw new ApiError(
      0,
      'unreachable',
      'The server does not answer. What you enter is kept here and sent when it does.',
    );
  }
  const said = Date.parse(response.headers?.get('date') ?? '');
  if (Number.isFinite(said)) clockOff = Date.now() - said;
  if (response.ok) return response;
  const body = (await response.json().catch(() => undefined)) as
    { error?: { code: string; message: string } } | undefined;
  throw new ApiError(
    response.status,
    body?.error?.code ?? 'failed',
    body?.error?.message ?? 'The server could not do this now.',
  );
}

/** An answer whose shape is agreed: held against its schema where answers are checked. */
const agreed = async <N extends ApiAnswerName>(name: N, path: string, init?: RequestInit): Promise<ApiAnswer<N>> =>
  checkedAnswer(name, await (await request(path, init)).json());

const call = async <T>(path: string, init?: RequestInit): Promise<T> => (await (await request(path, init)).json()) as T;

/** An answer, or what one has where the server has nothing newer. */
async function ifNewer<N extends 'jobSnapshot' | 'boardPage'>(
  name: N,
  path: string,
  has: ApiAnswer<N> | undefined,
): Promise<ApiAnswer<N>> {
  const response = await request(has ? `${path}?since=${encodeURIComponent(has.stamp)}` : path);
  return response.status === 204 ? has! : checkedAnswer(name, await response.json());
}

/** The job as it stands. @param has the snapshot one has: the same object where nothing changed */
export const fetchSnapshot = (job: number, has?: JobSnapshot): Promise<JobSnapshot> =>
  ifNewer('jobSnapshot', `/api/jobs/${job}/snapshot`, has);

export const fetchShop = (): Promise<ShopSnapshot> => agreed('shopSnapshot', '/api/shop');

/** Sends a photo's file; the command that keeps it names what comes back. */
export const postPhoto = (job: number, file: Blob): Promise<StoredPhoto> =>
  call(`/api/jobs/${job}/photos`, {
    method: 'POST',
    headers: { 'content-type': file.type.startsWith('image/') ? file.type : 'image/unknown' },
    body: file,
  });

/** Sends a packed log; the command that keeps it names what comes back. */
export const postLog = (job: number, packed: Blob): Promise<StoredLog> =>
  call(`/api/jobs/${job}/logs`, { method: 'POST', headers: { 'content-type': 'application/gzip' }, body: packed });

/** A kept log, unpacked on the way. */
export const fetchLog = (job: number, sha256: string): Promise<Blob> =>
  request(`/api/jobs/${job}/logs/${sha256}`).then((r) => r.blob());

/** The board's first page. @param has the page one has: the same object where nothing changed */
export const fetchBoard = (has?: BoardPage): Promise<BoardPage> => ifNewer('boardPage', '/api/jobs', has);

/** Finished jobs older than a number. */
export const fetchOlder = (before: number): Promise<BoardPage> => agreed('boardPage', `/api/jobs?before=${before}`);

export const postOpenJob = (job: OpenJob): Promise<{ number: number; again: boolean }> =>
  call('/api/jobs', { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(job) });

export const postCommand = (to: number | 'shop', command: unknown): Promise<ApiAnswer<'acknowledged'>> =>
  agreed('acknowledged', `/api/commands?${to === 'shop' ? 'shop' : `job=${to}`}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(command),
  });

export const fetchHistory = (job: number): Promise<{ jobs: Job[] }> => agreed('rigHistory', `/api/jobs/${job}/history`);

/** Takes a job file in: zip or JSON. */
export const importJobFile = (file: Blob): Promise<Imported> =>
  call('/api/jobs/import', { method: 'POST', headers: { 'content-type': 'application/octet-stream' }, body: file });

export const fetchCalendar = (): Promise<ShopCalendar> => call('/api/calendar');

export const searchShop = (words: string): Promise<{ hits: Hit[]; more: boolean }> =>
  call(`/api/search?q=${encodeURIComponent(words)}`);

/** Has a file of another shop's cases looked through. */
export const postCases = (text: string): Promise<CaseFile> =>
  call('/api/shop/cases', { method: 'POST', headers: { 'content-type': 'application/json' }, body: text });

/** Changes what the shop sets for itself, from anywhere. */
export async function sendToShop<T extends ShopCommandType>(type: T, payload: ShopPayload<T>): Promise<void> {
  const { seq, actor } = await fetchShop();
  await postCommand('shop', {
    id: crypto.randomUUID(),
    type,
    version: 1,
    baseSeq: seq,
    at: new Date().toISOString(),
    actor: actor.name,
    payload,
  });
}

/** Changes a job from outside it, on whatever is there now. */
export async function sendToJob<T extends CommandType>(
  job: number,
  type: T,
  payload: (actor: string, now: Job) => Payload<T>,
): Promise<void> {
  const { seq, actor, job: now } = await fetchSnapshot(job);
  await postCommand(job, {
    id: crypto.randomUUID(),
    type,
    version: 1,
    baseSeq: seq,
    at: new Date().toISOString(),
    actor: actor.name,
    payload: payload(actor.name, now),
  });
}

/** Writes a note into a job from outside it. Notes never collide, so it may be sent on whatever is there now. */
export const sendNote = (job: number, text: string): Promise<void> =>
  sendToJob(job, 'note.add', () => ({ id: crypto.randomUUID(), text }));

/** A file the server makes, under the name it gives it. */
export async function fetchFile(path: string, signal: AbortSignal): Promise<{ name: string; blob: Blob }> {
  const response = await request(path, { signal });
  const name = /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'surrik-file';
  return { name, blob: await response.blob() };
}

export const fetchPeople = (): Promise<ApiAnswer<'people'>> => agreed('people', '/api/people');

/** One change of who works in the shop; where an invitation was made, the path of its link. */
export const postPeople = (change: PeopleChange): Promise<{ invitation?: string }> =>
  call('/api/people', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(change),
  });

export const fetchOwnSignIn = (): Promise<ApiAnswer<'ownSignIn'>> => agreed('ownSignIn', '/api/me');

/** One change of how one signs in; what is shown this once, where there is something. */
export const postOwnSignIn = (change: OwnSignInChange): Promise<ApiAnswer<'ownSignInChanged'>> =>
  agreed('ownSignInChanged', '/api/me', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(change),
  });
