/**
 * Maintenance over core and server, called by the surrik command: migrate, seed the demo, write the example
 * job files. Connects as the owner role.
 */
import { randomUUID } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { demoJobs, DEMO_PEOPLE, DEMO_SHOP } from '../../db/demo/jobs';
import { migrationSource } from '../../db/migrations';
import { currentRevision } from '../core/formats/job';
import { readSecrets } from '../server/config';
import { connect } from '../server/db';
import { insertJob } from '../server/jobStore';
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
      await tx('shops').insert({ ...DEMO_SHOP, demo: true });
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
    const name = job.number === 1042 ? 'heron' : `heron-${job.number}`;
    writeFileSync(`examples/${name}.surrik.json`, `${JSON.stringify(job, null, 2)}\n`);
  }
}

const TASKS: Record<string, () => Promise<void> | void> = {
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
  await task();
} catch (e) {
  console.error(`surrik: ${process.argv[2]} failed: ${(e as Error).message}`);
  process.exit(1);
}
