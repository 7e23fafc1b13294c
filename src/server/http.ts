/** The web edge: who asks, from where, and how a refusal is said. */
import { randomUUID } from 'node:crypto';
import { getIronSession } from 'iron-session';
import { cookies } from 'next/headers';
import { Refused, type Actor } from './actor';
import { serverConfig } from './config';
import { appDb } from './db';
import { isOutage } from './failure';
import { log } from './log';
import type { Device } from './quickSwitch';
import { actorOf, type HalfSignedIn, type SignedIn } from './signIn';
import { takeTurn, type Door } from './turns';

const COOKIE = 'surrik';
const DEVICE_COOKIE = 'surrik-device';

async function sealed<T extends object>(cookieName: string, days: number) {
  const { cookieSecret, exposed } = serverConfig();
  return getIronSession<Partial<T>>((await cookies()) as never, {
    password: cookieSecret,
    cookieName,
    ttl: days * 24 * 3600,
    cookieOptions: { httpOnly: true, sameSite: 'lax', secure: exposed, path: '/' },
  });
}

/** Who is signed in, or whose password was right and whose code is awaited until then (ms). */
export interface Sealed extends SignedIn {
  half: HalfSignedIn & { until: number };
}

/** The sealed cookie: which session of which shop. Nothing else is in it. */
export const sealedSession = () => sealed<Sealed>(COOKIE, 14);

/** The sealed cookie of a device: which shop’s, and a number of its own. It outlives signing out. */
export const sealedDevice = () => sealed<Device>(DEVICE_COOKIE, 180);

/** The device that asks, where a shop knows it. */
export async function currentDevice(): Promise<Device | undefined> {
  const { shopId, deviceId } = await sealedDevice();
  return shopId && deviceId ? { shopId, deviceId } : undefined;
}

/** The signed-in person, or undefined. */
export async function currentActor(): Promise<Actor | undefined> {
  const { shopId, sessionId, personId } = await sealedSession();
  if (!shopId || !sessionId || !personId) return undefined;
  return actorOf(appDb(), { shopId, sessionId, personId });
}

async function requireActor(): Promise<Actor> {
  const actor = await currentActor();
  if (!actor) throw new Refused(401, 'signed-out', 'You are signed out. Sign in again.');
  return actor;
}

/** The host an Origin header names; `null` and what is no address name none. */
function hostOf(origin: string): string | undefined {
  return URL.canParse(origin) ? new URL(origin).host : undefined;
}

/** Refuses a change that another site's page asks the browser to make; `type` is how its content type begins. */
export function sameSite(request: Request, type = 'application/json'): void {
  const origin = request.headers.get('origin');
  const host = request.headers.get('host');
  const site = request.headers.get('sec-fetch-site');
  if (site !== null && site !== 'same-origin')
    throw new Refused(403, 'cross-site', 'Changes are only taken from Surrik itself.');
  if (origin !== null && hostOf(origin) !== host)
    throw new Refused(403, 'cross-site', 'Changes are only taken from Surrik itself.');
  if (!request.headers.get('content-type')?.startsWith(type))
    throw new Refused(400, 'content-type', `This is sent as ${type}.`);
}

const BODY_LIMIT = 256 * 1024;

/** A JSON body of bounded size, read no further than the limit. */
export async function jsonBody(request: Request): Promise<unknown> {
  const bytes = await boundedBody(
    request,
    BODY_LIMIT,
    () => new Refused(413, 'too-large', `A command has at most ${BODY_LIMIT / 1024} kB.`),
  );
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch {
    throw new Refused(400, 'not-json', 'The body is not JSON.');
  }
}

/** A body of bytes, read no further than the limit. */
export const binaryBody = (request: Request, limit: number): Promise<Uint8Array> =>
  boundedBody(
    request,
    limit,
    () => new Refused(413, 'too-large', `At most ${Math.round(limit / 1024 / 1024)} MB at once.`),
  );

async function boundedBody(request: Request, limit: number, tooLarge: () => Refused): Promise<Uint8Array> {
  if (Number(request.headers.get('content-length') ?? 0) > limit) throw tooLarge();
  const chunks: Uint8Array[] = [];
  let size = 0;
  for await (const chunk of (request.body ?? []) as AsyncIterable<Uint8Array>) {
    size += chunk.length;
    if (size > limit) throw tooLarge();
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

export function jobNumber(text: string | null): number {
  if (text === null || !/^[1-9]\d{0,6}$/.test(text)) throw new Refused(404, 'no-job', 'A job has a number, like 1042.');
  return Number(text);
}

/** The hash a kept file is named by. */
export function fileHash(text: string): string {
  if (!/^[0-9a-f]{64}$/.test(text))
    throw new Refused(404, 'no-file', 'A kept file is named by its hash: 64 digits, 0 to f.');
  return text;
}

/**
 * Runs a handler for the signed-in person and turns refusals into their status and sentence.
 * @param door where what is asked for is dear: a turn is taken there first
 */
export const answer = (work: (actor: Actor) => Promise<unknown>, door?: Door): Promise<Response> =>
  answerWith(async (actor) => Response.json(await work(actor), { headers: { 'cache-control': 'no-store' } }), door);

/** The same for an answer that is not JSON. */
export async function answerWith(work: (actor: Actor) => Promise<Response>, door?: Door): Promise<Response> {
  try {
    const actor = await requireActor();
    if (door) await takeTurn(appDb(), actor, door);
    return await work(actor);
  } catch (e) {
    return failureResponse(e);
  }
}

/** 204 where there is nothing newer than what the asker has. */
export const answerIfNewer = (work: (actor: Actor) => Promise<unknown>): Promise<Response> =>
  answerWith(async (actor) => {
    const found = await work(actor);
    const headers = { 'cache-control': 'no-store' };
    return found === undefined ? new Response(null, { status: 204, headers }) : Response.json(found, { headers });
  });

/**
 * A failure as an answer. Refused: its own status and sentence, with every issue of a document. An outage: 503, to be
 * sent again. Anything else is our fault: 500 under an id, the stack in the log, and nobody sends it again for ever.
 */
export function failureResponse(e: unknown): Response {
  const say = (status: number, error: object, more: Record<string, string> = {}) =>
    Response.json({ error }, { status, headers: { 'cache-control': 'no-store', ...more } });
  if (e instanceof Refused) {
    const wait = (e.detail as { retryAfter?: number } | undefined)?.retryAfter;
    return say(
      e.status,
      {
        code: e.code,
        message: e.message,
        ...(Array.isArray(e.detail) ? { issues: e.detail as unknown[] } : {}),
      },
      wait === undefined ? {} : { 'retry-after': String(wait) },
    );
  }
  if (isOutage(e)) {
    log.error({ err: e }, 'cannot reach data');
    return say(503, {
      code: 'unavailable',
      message: 'The server cannot reach its data just now. What you entered is kept on this device and sent again.',
    });
  }
  const id = randomUUID().slice(0, 8);
  log.error({ fault: id, err: e instanceof Error ? e : new Error(String(e)) }, `fault ${id}`);
  return say(500, {
    code: 'fault',
    id,
    message: `Surrik itself failed here (fault ${id} in the server’s log). What you entered is kept on this device.`,
  });
}
