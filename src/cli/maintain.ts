/**
 * Maintenance over core and server, called by the surrik command: migrate, seed the demo, write the example
 * job files. Connects as the owner role.
 */
import { randomInt, randomUUID } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { demoJobs } from '../../db/demo/jobs';
import { demoLog } from '../../db/demo/log';
import { demoInstruments, DEMO_PEOPLE, DEMO_SHOP } from '../../db/demo/shop';
import { migrationSource } from '../../db/migrations';
import { currentRevision } from '../core/job/job';
import { readSecrets } from '../server/config';
import { connect } from '../server/db';
import { insertJob } from '../server/job/jobStore';
import { hashPassword } from '../server/password';

function owner() {
  const base = process.env['SURRIK_BASE'];
  const port = Number(process.env['SURRIK_DB_PORT']);
  if (!base || !port) throw new Error('SURRIK_BASE and SURRIK_DB_PORT are not set: use ./surrik');
  const secrets = readSecrets(base);
  const name = process.env['SURRIK_DB_NAME'] ?? 'surrik';
  return { db: connect({ host: '127.0.0.1', port, name }, 'surrik_owner', secrets['OWNER_PASSWORD'] ?? ''), secrets };
}

/** Migrations not yet run; one runner at a time. */
async function migrate(checkOnly: boolean): Promise<void> {
  const { db } = owner();
  try {
    const [, pending] = (await db.migrate.list({ migrationSource })) as [unknown[], unknown[]];
    if (checkOnly) {
      console.log(pending.length);
      return;
    }
    await db.migrate.latest({ migrationSource });
    if (pending.length > 0) console.log(`migrated: ${pending.length} step${pending.length === 1 ? '' : 's'}`);
  } finally {
    await db.destroy();
  }
}

/** Puts the demo shop into an empty database. Never touches one that holds any shop. */
async function seedDemo(): Promise<void> {
  const { db, secrets } = owner();
  try {
    await db.transaction(async (tx) => {
      await tx.raw('LOCK TABLE shops IN EXCLUSIVE MODE');
      if (await tx('shops').first('id')) return;
      const password = secrets['DEMO_PASSWORD'];
      if (!password) throw new Error('DEMO_PASSWORD is missing from the secrets file');
      await tx('shops').insert({ ...DEMO_SHOP, demo: true, instruments: JSON.stringify(demoInstruments(new Date())) });
      for (const person of DEMO_PEOPLE) {
        await tx('people').insert({ shop_id: DEMO_SHOP.id, ...person, password_hash: await hashPassword(password) });
      }
      const rigs = new Set<string>();
      for (const job of demoJobs(new Date())) {
        if (!rigs.has(job.rigId)) {
          rigs.add(job.rigId);
          await tx('rigs').insert({ shop_id: DEMO_SHOP.id, id: job.rigId, nickname: currentRevision(job).doc.name });
        }
        await insertJob(tx, DEMO_SHOP.id, randomUUID(), job);
      }
      console.log('demo shop put in');
    });
  } finally {
    await db.destroy();
  }
}

/** The demo jobs as open job files, dated as the issue of the format. */
function writeExamples(): void {
  for (const job of demoJobs(new Date('2026-11-24T16:00:00Z'))) {
    const name = job.number === 1009 ? 'heron-1009' : job.rigId;
    writeFileSync(`examples/${name}.surrik.json`, `${JSON.stringify(job, null, 2)}\n`);
    if (job.number === 1009) writeFileSync('examples/heron-trip.csv', demoLog(job, new Date('2026-11-20T17:00:00Z')));
  }
}

/** A password that can be read out and typed: four groups of five letters and digits, no look-alikes. */
function newPassword(): string {
  const letters = 'abcdefghjkmnpqrstuvwxyz23456789';
  return Array.from({ length: 4 }, () =>
    Array.from({ length: 5 }, () => letters[randomInt(letters.length)]).join(''),
  ).join('-');
}

/** A person of a shop; the shop is made when there is none of that name. */
async function addPerson(handle = '', name = '', shopName = ''): Promise<void> {
  if (!/^[a-z0-9][a-z0-9._@-]{1,59}$/.test(handle))
    throw new Error(`handle "${handle}": wanted lower-case letters, digits and . _ @ -, two at least`);
  if (name.trim() === '' || name.length > 60) throw new Error('the name wants 1 to 60 letters');
  const { db } = owner();
  try {
    const password = newPassword();
    await db.transaction(async (tx) => {
      await tx.raw('LOCK TABLE shops IN EXCLUSIVE MODE');
      if (await tx('people').where({ handle }).first('id'))
        throw new Error(`${handle} is taken: use another handle, or ./surrik person password ${handle}`);
      const own = (await tx('shops').where({ demo: false }).select('id', 'name')) as { id: string; name: string }[];
      let shop = shopName === '' ? (own.length === 1 ? own[0] : undefined) : own.find((s) => s.name === shopName);
      if (!shop) {
        if (shopName === '')
          throw new Error(
            own.length === 0
              ? 'no shop yet: give its name as the third word'
              : `which shop? ${own.map((s) => s.name).join(', ')}`,
          );
        shop = { id: randomUUID(), name: shopName };
        await tx('shops').insert({ ...shop, demo: false });
      }
      await tx('people').insert({
        shop_id: shop.id,
        id: randomUUID(),
        handle,
        name: name.trim(),
        role: 'technician',
        password_hash: await hashPassword(password),
      });
      console.log(`${name.trim()} of ${shop.name} signs in as ${handle} with ${password}\nIt is shown this once.`);
    });
  } finally {
    await db.destroy();
  }
}

/** A new password for a person; every session of theirs ends. */
async function resetPassword(handle = ''): Promise<void> {
  const { db } = owner();
  try {
    const password = newPassword();
    const [person] = (await db('people')
      .where({ handle })
      .update({ password_hash: await hashPassword(password) })
      .returning(['id', 'name'])) as { id: string; name: string }[];
    if (!person) throw new Error(`nobody signs in as "${handle}"`);
    await db('sessions').where({ person_id: person.id, ended_at: null }).update({ ended_at: db.fn.now() });
    console.log(`${person.name} signs in as ${handle} with ${password}\nIt is shown this once.`);
  } finally {
    await db.destroy();
  }
}

const TASKS: Record<string, (...words: string[]) => Promise<void> | void> = {
  'person-add': addPerson,
  'person-password': resetPassword,
  migrate: () => migrate(false),
  pending: () => migrate(true),
  seed: seedDemo,
  examples: writeExamples,
};

const task = TASKS[process.argv[2] ?? ''];
if (!task) {
  console.error(`usage: maintain ${Object.keys(TASKS).join('|')}`);
  process.exit(2);
}
try {
  await task(...process.argv.slice(3));
} catch (e) {
  console.error(`surrik: ${process.argv[2]} failed: ${(e as Error).message}`);
  process.exit(1);
}
