/** The demo shop: put into an empty database, written out as files, taken out again. */
import { randomUUID } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { demoJobs } from '../../../db/demo/jobs';
import { demoLog } from '../../../db/demo/log';
import { demoInstruments, DEMO_PEOPLE, DEMO_SHOP } from '../../../db/demo/shop';
import { currentRevision } from '../../core/job/job';
import { insertJob } from '../../server/job/jobStore';
import { hashPassword } from '../../server/password';
import { removeShop } from './data';
import { asOwner, owner } from './owner';

/** Puts the demo shop into an empty database. Never touches one that holds any shop. */
export async function seedDemo(): Promise<void> {
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
export function writeExamples(): void {
  for (const job of demoJobs(new Date('2026-11-24T16:00:00Z'))) {
    const name = job.number === 1009 ? 'heron-1009' : job.rigId;
    writeFileSync(`examples/${name}.surrik.json`, `${JSON.stringify(job, null, 2)}\n`);
    if (job.number === 1009) writeFileSync('examples/heron-trip.csv', demoLog(job, new Date('2026-11-20T17:00:00Z')));
  }
}

/** The demo shop and all that is in it, for good. */
export async function removeDemo(): Promise<void> {
  await asOwner(async (db) => {
    const demo = (await db('shops').where({ demo: true }).first('id')) as { id: string } | undefined;
    if (!demo) throw new Error('there is no demo shop here');
    await db.transaction((tx) => removeShop(tx, demo.id));
    console.log('the demo shop, its people and its jobs are gone; your own are as they were');
  });
}

/** The demo people sign in with what this instance prints, wherever their data came from. */
export async function resetDemoPassword(): Promise<void> {
  await asOwner(async (db, secrets) => {
    const demo = (await db('shops').where({ demo: true }).first('id')) as { id: string } | undefined;
    if (!demo) return;
    await db('people')
      .where({ shop_id: demo.id })
      .update({ password_hash: await hashPassword(secrets['DEMO_PASSWORD'] ?? '') });
  });
}
