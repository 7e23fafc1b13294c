/**
 * `./surrik trials fuzz [N] [seed]`: N requests nobody meant to a served shop, and N damaged job files to what takes them
 * in. Each is answered, taken or refused in words, within two seconds, and the server lives.
 */
import { randomUUID } from 'node:crypto';
import { gzipSync, strToU8, zipSync } from 'fflate';
import { demoJobs } from '../db/demo/jobs';
import { DEMO_PEOPLE, DEMO_SHOP } from '../db/demo/shop';
import { secret, TestServer } from '../scripts/testServer';
import { commandSchema, COMMAND_TYPES } from '../src/core/job/commandSchema';
import { OpenJobSchema } from '../src/core/job/openJob';
import { CaseFileSchema } from '../src/core/learn/caseFile';
import { checkedJobText, JOB_IN_ARCHIVE } from '../src/core/openFormats/validate';
import { OwnSignInChangeSchema } from '../src/core/people/ownSignInSchema';
import { PeopleChangeSchema } from '../src/core/people/peopleSchema';
import { shopCommandSchema, SHOP_COMMAND_TYPES } from '../src/core/shop/shopSchema';
import { seededRng } from '../src/core/units/rng';
import { Refused, type Actor } from '../src/server/actor';
import { connect } from '../src/server/db';
import { importJob } from '../src/server/job/jobArchive';
import { Fuzz, wordsOf } from '../tests/fuzz';
import { Ledger } from '../tests/ledger';

const N = Number(process.argv[2] ?? 2000);
const seed = Number(process.argv[3] ?? 1);
/** What nobody waits longer for, in ms; and requests on their way at once. */
const PATIENCE_MS = 2000;
const AT_ONCE = 8;

const server = await TestServer.on('surrik_fuzz');
const at = { host: '127.0.0.1', port: Number(process.env['SURRIK_DB_PORT']), name: 'surrik_fuzz' };
const owner = connect(at, 'surrik_owner', secret('OWNER_PASSWORD'));
const app = connect(at, 'surrik_app', secret('APP_PASSWORD'));
const jobs = demoJobs(new Date());
const fuzz = new Fuzz(seededRng(seed), [...wordsOf(jobs), ...DEMO_PEOPLE.flatMap((p) => [p.id, p.handle, p.name])]);

/** Somebody who may do anything, signed in anew each time what was sent has signed them out. */
const boss = DEMO_PEOPLE.find((p) => p.role === 'owner')!;
const person = { shopId: DEMO_SHOP.id, personId: boss.id, name: boss.name };
let cookie = '';
async function signIn(): Promise<void> {
  await owner('people').where({ id: boss.id }).update({ role: boss.role, name: boss.name, active: true });
  cookie = await Ledger.signIn(owner, person, secret('COOKIE_SECRET'));
}
await signIn();
// How often one may ask is another test's.
const turns = setInterval(() => void owner('turns').delete().then(), 500);

interface Sent {
  method: string;
  path: string;
  body?: Uint8Array | string;
  type?: string;
}
const json = (path: string, document: unknown): Sent => ({
  method: 'POST',
  path,
  body: fuzz.chance(0.03) ? fuzz.damaged(strToU8(JSON.stringify(document))) : JSON.stringify(document),
  type: 'application/json',
});
const envelope = { version: 1, actor: boss.name };
const numberOf = () => (fuzz.chance(0.9) ? String(fuzz.pick(jobs).number) : String(fuzz.below(1e8)));

/** One grey pixel. */
const PIXEL = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNoAAAAggCBd81ytgAAAABJRU5ErkJggg==';
const POSTS: readonly (() => Sent)[] = [
  ...Array.from({ length: 8 }, () => () => {
    const made = fuzz.shaped(commandSchema(fuzz.pick(COMMAND_TYPES)) as never) as object;
    const sent = { ...made, ...envelope, id: randomUUID(), baseSeq: fuzz.below(3) };
    return json(`/api/commands?job=${numberOf()}`, fuzz.sometimesHurt(sent));
  }),
  () => {
    const made = fuzz.shaped(shopCommandSchema(fuzz.pick(SHOP_COMMAND_TYPES)) as never) as object;
    return json('/api/commands?shop', fuzz.sometimesHurt({ ...made, ...envelope, id: randomUUID() }));
  },
  () => json('/api/jobs', fuzz.sometimesHurt(fuzz.shaped(OpenJobSchema as never))),
  () => json('/api/people', fuzz.sometimesHurt(fuzz.shaped(PeopleChangeSchema as never))),
  () => json('/api/me', fuzz.sometimesHurt(fuzz.shaped(OwnSignInChangeSchema as never))),
  () => json('/api/shop/cases', fuzz.sometimesHurt(fuzz.shaped(CaseFileSchema as never))),
  () => ({
    method: 'POST',
    path: `/api/jobs/${numberOf()}/photos`,
    body: fuzz.damaged(Buffer.from(PIXEL, 'base64')),
    type: fuzz.pick(['image/png', 'image/jpeg', 'image/unknown', 'text/html']),
  }),
  () => ({
    method: 'POST',
    path: `/api/jobs/${numberOf()}/logs`,
    body: fuzz.damaged(gzipSync(strToU8(`time,V\n${'2026-01-01 10:00,12.4\n'.repeat(fuzz.below(40))}`))),
    type: 'application/gzip',
  }),
];

const SHA = 'a'.repeat(64);
const GETS: readonly (() => string)[] = [
  () => '/api/jobs',
  () => `/api/jobs?before=${numberOf()}`,
  () => `/api/jobs?since=${fuzz.below(9)}-${fuzz.below(9)}`,
  () => `/api/search?q=${encodeURIComponent(fuzz.pick(['isolator', '1042', 'fr*', '%', '_', '"a b', "'"]))}`,
  () => `/api/jobs/${numberOf()}/snapshot`,
  () => `/api/jobs/${numberOf()}/snapshot?since=${fuzz.below(9)}-${fuzz.below(9)}`,
  () => `/api/jobs/${numberOf()}/history`,
  () => `/api/jobs/${numberOf()}/file`,
  () => `/api/jobs/${numberOf()}/trail.csv`,
  () => `/api/jobs/${numberOf()}/follow-ups.ics`,
  () => `/api/jobs/${numberOf()}/photos/${SHA}`,
  () => `/api/jobs/${numberOf()}/logs/${SHA}`,
  () => '/api/calendar',
  () => '/api/calendar.ics',
  () => '/api/shop',
  () => '/api/people',
  () => '/api/me',
  () => `/jobs/${numberOf()}/${fuzz.pick(['readings', 'fault', 'report', 'trail', 'nowhere'])}`,
];

function draw(): Sent {
  if (fuzz.chance(0.25))
    return { method: fuzz.pick(['GET', 'GET', 'GET', 'DELETE']), path: fuzz.address(fuzz.pick(GETS)()) };
  const sent = fuzz.pick(POSTS)();
  const path = fuzz.chance(0.1) ? fuzz.address(sent.path) : sent.path;
  return { ...sent, path, ...(fuzz.chance(0.03) ? { type: 'text/plain' } : {}) };
}

const statuses = new Map<number, number>();
const findings: string[] = [];
let slowest = 0;
async function ask(sent: Sent): Promise<void> {
  const began = performance.now();
  const tell = (what: string) => {
    const body = typeof sent.body === 'string' ? sent.body.slice(0, 1500) : `${sent.body?.length ?? 0} bytes`;
    findings.push(`${what}: ${sent.method} ${sent.path} ${body}`);
  };
  try {
    const response = await fetch(`${server.url}${sent.path}`, {
      method: sent.method,
      redirect: 'manual',
      headers: { cookie, origin: server.url, ...(sent.type === undefined ? {} : { 'content-type': sent.type }) },
      ...(sent.body === undefined ? {} : { body: sent.body as BodyInit }),
      signal: AbortSignal.timeout(60_000),
    });
    const said = await response.text();
    statuses.set(response.status, (statuses.get(response.status) ?? 0) + 1);
    if (response.status >= 500) tell(`${response.status} ${said.slice(0, 300)}`);
    else if (
      response.status >= 400 &&
      sent.path.startsWith('/api/') &&
      response.status !== 405 &&
      !/"message":"[^"]{8,}/.test(said)
    )
      // An address there is none of is answered by the framework's own page.
      if (!/<html/i.test(said)) tell(`${response.status} without words: ${said.slice(0, 200)}`);
    if (response.status === 401 || response.status === 403) await signIn();
  } catch (e) {
    tell(`no answer (${String(e).slice(0, 100)})`);
  }
  const took = performance.now() - began;
  slowest = Math.max(slowest, took);
  if (took > PATIENCE_MS) tell(`${Math.round(took)} ms`);
}

try {
  let sent = 0;
  await Promise.all(
    Array.from({ length: AT_ONCE }, async () => {
      while (sent < N) {
        if (++sent % 5000 === 0) console.log(`${sent} of ${N} requests, ${findings.length} findings`);
        await ask(draw());
      }
    }),
  );
  const counts = [...statuses].sort(([a], [b]) => a - b).map(([status, n]) => `${n} × ${status}`);
  console.log(`${N} requests: ${counts.join(', ')}; slowest ${Math.round(slowest)} ms`);

  const actor: Actor = { ...person, sessionId: randomUUID(), role: 'owner' };
  const ends = new Map<string, number>();
  let longest = 0;
  for (let k = 0; k < N; k++) {
    if (k > 0 && k % 10_000 === 0) console.log(`${k} of ${N} job files, ${findings.length} findings`);
    const job = fuzz.pick(jobs);
    const text = JSON.stringify(fuzz.hurt(fuzz.sometimesHurt(job)));
    // A zip is packed once in twenty: packing takes longer than what is looked at.
    const whole = fuzz.chance(0.05) ? zipSync({ [JOB_IN_ARCHIVE]: strToU8(text) }) : strToU8(text);
    const file = fuzz.chance(0.3) ? fuzz.damaged(whole) : whole;
    const began = performance.now();
    let end = 'taken';
    try {
      await importJob(app, actor, file, (t) => Promise.resolve(checkedJobText(t)));
    } catch (e) {
      if (e instanceof Refused) end = e.code;
      else findings.push(`job file: ${String(e)} ${text.slice(0, 300)}`);
    }
    const took = performance.now() - began;
    longest = Math.max(longest, took);
    // A file that is taken is looked through by a worker, which has a budget of its own.
    if (took > PATIENCE_MS && end !== 'taken') findings.push(`job file: ${Math.round(took)} ms, ${end}`);
    ends.set(end, (ends.get(end) ?? 0) + 1);
  }
  console.log(
    `${N} job files: ${[...ends].map(([end, n]) => `${n} ${end}`).join(', ')}; longest ${Math.round(longest)} ms`,
  );
  const alive = await fetch(`${server.url}/api/ready`).then((r) => r.ok);
  if (!alive) findings.push('the server is not ready at the end');
} finally {
  clearInterval(turns);
  await server.stop();
  await owner.destroy();
  await app.destroy();
}
console.log(`findings: ${findings.length}`);
for (const line of findings.slice(0, 30)) console.log(`  ${line}`);
process.exit(findings.length === 0 ? 0 : 1);
