/**
 * `./surrik bench load`: a shop under load, on a server and a database of its own. Readings are written by separate
 * requests over fifty jobs with synchronous_commit on, as a shop writes them; then the board, the search and a job's
 * snapshot are asked for with fifty thousand jobs in the database; then two hundred people at their tablets.
 */
import { randomUUID } from 'node:crypto';
import autocannon from 'autocannon';
import { demoJobAs } from '../db/demo/copies';
import { DEMO_PEOPLE, DEMO_SHOP } from '../db/demo/shop';
import { secret, TestServer } from '../scripts/testServer';
import { seededRng } from '../src/core/units/rng';
import { connect } from '../src/server/db';
import { Ledger } from '../tests/ledger';
import { insertJob } from '../src/server/job/jobStore';

const JOBS = 50;
const BOARD_JOBS = Number(process.env['SURRIK_BENCH_JOBS'] ?? 50_000);
const SECONDS = 15;
/** Who enters: more than one, as one alone may only enter so much a minute. */
const WHO = DEMO_PEOPLE.slice(0, 3);
const BAY2 = DEMO_PEOPLE[1];

const server = await TestServer.on('surrik_load');
const db = connect(
  { host: '127.0.0.1', port: Number(process.env['SURRIK_DB_PORT']), name: 'surrik_load' },
  'surrik_owner',
  secret('OWNER_PASSWORD'),
);

const signedIn = await Promise.all(
  WHO.map(async ({ id, name }) => {
    const person = { shopId: DEMO_SHOP.id, personId: id, name };
    const cookie = await Ledger.signIn(db, person, secret('COOKIE_SECRET'));
    return { name, headers: { cookie, 'content-type': 'application/json', origin: server.url } };
  }),
);
const { headers } = signedIn[1]!;
const say = (what: string, r: autocannon.Result) =>
  console.log(
    `${what}: ${r.requests.average.toFixed(0)} a second, p50 ${r.latency.p50} ms, ` +
      `p97.5 ${r.latency.p97_5} ms, p99 ${r.latency.p99} ms; ` +
      `${r['2xx']} taken, ${r.non2xx} refused, ${r.errors} without an answer`,
  );

// ---------- readings ----------
for (let k = 0; k < JOBS; k++)
  await db.transaction(async (tx) => {
    // Each its own rig: the visits of one rig are told on each of its jobs.
    await tx('rigs').insert({ shop_id: DEMO_SHOP.id, id: `load-${k}`, nickname: `Rig ${k}` });
    await insertJob(tx, DEMO_SHOP.id, randomUUID(), { ...demoJobAs(20_000 + k), rigId: `load-${k}` });
  });
const before = Number(((await db('readings').count('* as n').first()) as { n: string }).n);
let n = 0;
const reading = (by: string) => ({
  id: randomUUID(),
  type: 'reading.keep',
  version: 1,
  baseSeq: 0,
  at: new Date().toISOString(),
  actor: by,
  payload: {
    id: randomUUID(),
    state: 'idle',
    probe: 'coach-bank.plus',
    ref: 'frame.bay-2',
    status: 'measured',
    value: 12 + (n % 100) / 100,
    unit: 'V',
    secondsInState: 60,
  },
});
const write = (connections: number, seconds: number) =>
  autocannon({
    url: server.url,
    connections,
    duration: seconds,
    requests: [
      {
        method: 'POST',
        setupRequest: (request: autocannon.Request) => {
          const by = signedIn[++n % signedIn.length]!;
          return {
            ...request,
            path: `/api/commands?job=${20_000 + (n % JOBS)}`,
            headers: by.headers,
            body: JSON.stringify(reading(by.name)),
          };
        },
      },
    ],
  });
await write(10, 3);
const written = await write(16, SECONDS);
say(`readings, ${JOBS} jobs, 16 at once`, written);
const after = Number(((await db('readings').count('* as n').first()) as { n: string }).n);
const commit = ((await db.raw('SHOW synchronous_commit')) as { rows: { synchronous_commit: string }[] }).rows[0]!;
console.log(`synchronous_commit ${commit.synchronous_commit}; ${after - before} readings in the table`);

// ---------- the board ----------
const [like] = (await db('jobs').where({ number: 20_000 }).select('id')) as { id: string }[];
// A rig comes back now and then: ten visits each.
await db.raw(
  `INSERT INTO rigs (shop_id, id, nickname) SELECT ?, 'bench-' || g, 'Rig ' || g FROM generate_series(0, ?) g`,
  [DEMO_SHOP.id, Math.ceil(BOARD_JOBS / 10)],
);
await db.raw(
  `INSERT INTO jobs (shop_id, id, number, rig_id, status, complaint_codes, complaint_words, rig_state, rig_state_since, black_lead, ticket)
   SELECT j.shop_id, gen_random_uuid(), 100000 + g, 'bench-' || (g / 10),
          CASE WHEN g % 200 = 0 THEN 'waiting' ELSE 'done' END, j.complaint_codes, j.complaint_words || ' ' || g, j.rig_state,
          j.rig_state_since, j.black_lead, j.ticket
   FROM jobs j, generate_series(1, ?) g WHERE j.id = ?`,
  [BOARD_JOBS, like!.id],
);
await db.raw(
  `INSERT INTO observations (shop_id, job_id, id, position, epoch, kind, text, at, by_name)
   SELECT j.shop_id, j.id, gen_random_uuid(), 0, 0, 'note', 'Isolator warm after the climb, job ' || j.number, now(), ?
   FROM jobs j WHERE j.number > 100000`,
  [BAY2.name],
);
await db.raw('ANALYZE');

const quantile = (list: number[], q: number) => [...list].sort((a, b) => a - b)[Math.floor((list.length - 1) * q)]!;
/** Asks one after another, or `together` at once, and says what it took. */
async function ask(what: string, path: string, together = 1): Promise<void> {
  const took: number[] = [];
  const statuses = new Set<number>();
  const one = async () => {
    for (let k = 0; k < 30; k++) {
      const began = performance.now();
      const response = await fetch(`${server.url}${path}`, { headers });
      await response.arrayBuffer();
      took.push(performance.now() - began);
      statuses.add(response.status);
    }
  };
  await one();
  took.length = 0;
  await Promise.all(Array.from({ length: together }, one));
  const ms = (q: number) => quantile(took, q).toFixed(0);
  console.log(
    `${what}: p50 ${ms(0.5)} ms, p95 ${ms(0.95)} ms, longest ${ms(1)} ms; status ${[...statuses].join(', ')}`,
  );
}
await ask(`board of ${BOARD_JOBS} jobs`, '/api/jobs');
await ask('the same, ten at once', '/api/jobs', 10);
await ask('search for a number', '/api/search?q=149999');
await ask('search for words of notes', '/api/search?q=after%20the%20climb');
await ask('search for what is nowhere', '/api/search?q=qqqqqq');
await ask('a job’s snapshot', '/api/jobs/20000/snapshot');
await ask('the calendar', '/api/calendar');

// ---------- two hundred at their tablets ----------
/** What somebody at the bench asks for and gives, every five seconds: seldom a page, mostly whether anything is new. */
const USERS = 200;
const EVERY_S = 5;
const users = await Promise.all(
  Array.from({ length: USERS }, async (_, k) => {
    const [id, name] = [randomUUID(), `Technician ${k}`];
    await db('people').insert({
      shop_id: DEMO_SHOP.id,
      id,
      handle: `load-${k}`,
      name,
      role: 'technician',
      password_hash: 'nobody signs in by it',
    });
    const cookie = await Ledger.signIn(db, { shopId: DEMO_SHOP.id, personId: id, name }, secret('COOKIE_SECRET'));
    return { name, headers: { cookie, 'content-type': 'application/json', origin: server.url } };
  }),
);
const stamps = await Promise.all(
  Array.from({ length: JOBS }, async (_, k) => {
    const answer = await fetch(`${server.url}/api/jobs/${20_000 + k}/snapshot`, { headers });
    return ((await answer.json()) as { stamp: string }).stamp;
  }),
);
const MIX: readonly [share: number, path: (k: number) => string][] = [
  [55, (k) => `/api/jobs/${20_000 + k}/snapshot?since=${encodeURIComponent(stamps[k]!)}`],
  [10, (k) => `/api/jobs/${20_000 + k}/snapshot`],
  [12, () => '/api/jobs'],
  [3, () => '/api/search?q=isolator'],
  [2, () => '/api/calendar'],
  [1, (k) => `/jobs/${20_000 + k}/readings`],
];
const dice = seededRng(1);
const drawn = (): string | undefined => {
  let at = 100 * dice.uniform();
  for (const [share, path] of MIX) if ((at -= share) < 0) return path(Math.floor(JOBS * dice.uniform()));
  return undefined;
};
const took: number[] = [];
const answers = new Map<number, number>();
const until = Date.now() + 2 * SECONDS * 1000;
/** One of them: asks, reads the answer, looks at the rig for some seconds, asks again. */
async function one(by: (typeof users)[number]): Promise<void> {
  for (;;) {
    await new Promise((r) => setTimeout(r, -1000 * EVERY_S * Math.log(1 - dice.uniform())));
    if (Date.now() > until) return;
    const path = drawn();
    const began = performance.now();
    const answer = await fetch(
      `${server.url}${path ?? `/api/commands?job=${20_000 + Math.floor(JOBS * dice.uniform())}`}`,
      path === undefined
        ? { method: 'POST', headers: by.headers, body: JSON.stringify(reading(by.name)) }
        : { headers: by.headers },
    );
    const said = await answer.text();
    took.push(performance.now() - began);
    // What one was shown is what one asks after.
    const job = /^\/api\/jobs\/(\d+)\/snapshot/.exec(path ?? '')?.[1];
    if (job !== undefined && answer.status === 200)
      stamps[Number(job) - 20_000] = (JSON.parse(said) as { stamp: string }).stamp;
    answers.set(answer.status, (answers.get(answer.status) ?? 0) + 1);
  }
}
await Promise.all(users.map(one));
console.log(
  `${USERS} people, each asking every ${EVERY_S} s, a sixth of it readings: ` +
    `${(took.length / (2 * SECONDS)).toFixed(0)} a second, p50 ${quantile(took, 0.5).toFixed(0)} ms, ` +
    `p95 ${quantile(took, 0.95).toFixed(0)} ms, longest ${quantile(took, 1).toFixed(0)} ms; ` +
    [...answers].map(([status, times]) => `${times} × ${status}`).join(', '),
);
await db.destroy();
await server.stop();
