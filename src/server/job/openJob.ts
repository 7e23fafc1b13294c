/** Opening a job: a rig drawn up from choices, and a first revision of it. */
import type { Knex } from 'knex';
import type { Job } from '../../core/job/jobSchema';
import { SCHEMA_VERSION } from '../../core/job/schemaVersion';
import { EMPTY_INTAKE, EMPTY_USAGE } from '../../core/job/job';
import { validateOpenJob } from '../../core/openFormats/validate';
import { toPractice } from '../../core/diagnose/practiceRig';
import { drawRig } from '../../core/rig/archetypes/families';
import { mayOrRefuse, Refused, type Actor } from '../actor';
import { withShop } from '../db';
import { insertJob } from './jobStore';
import { randomUUID } from 'node:crypto';

/** Asking again with the same id answers with the job that was opened the first time. */
export async function openJob(
  db: Knex,
  actor: Actor,
  data: unknown,
  now: Date,
): Promise<{ number: number; again: boolean }> {
  mayOrRefuse(actor, 'open');
  const checked = validateOpenJob(data);
  if (!checked.ok) {
    const issue = checked.error[0]!;
    throw new Refused(400, 'invalid', `${issue.pointer}: found ${issue.found}, wanted ${issue.wanted}`, checked.error);
  }
  const { id, nickname, complaint, rig, practice } = checked.value;
  return withShop(db, actor.shopId, async (tx) => {
    // Two people opening jobs at once must not take the same number.
    await tx.raw('SELECT pg_advisory_xact_lock(hashtext(?))', [`open job ${actor.shopId}`]);
    const known = (await tx('jobs').where({ id }).first('number')) as { number: number } | undefined;
    if (known) return { number: known.number, again: true };
    const last = (await tx('jobs').max('number as most').first()) as { most: number | null };
    const number = (last.most ?? 1000) + 1;
    const rigId = await freeRigId(tx, nickname);
    await tx('rigs').insert({ shop_id: actor.shopId, id: rigId, nickname: nickname.trim() });
    const at = now.toISOString();
    const drawn = drawRig(rigId.slice(0, 40), nickname.trim(), rig);
    const doc = practice ? toPractice(drawn, id) : drawn;
    const job: Job = {
      schemaVersion: SCHEMA_VERSION,
      number,
      rigId,
      status: 'in-the-bay',
      complaint,
      intake: EMPTY_INTAKE,
      instruments: [],
      rigState: { id: 'rested', since: at },
      blackLead: `${doc.reference.part}.${doc.reference.terminal}`,
      revisions: [{ id: randomUUID(), kind: 'as-found', epoch: 0, at, doc }],
      readings: [],
      observations: [],
      verdicts: [],
      approvals: [],
      repairs: [],
      usage: EMPTY_USAGE,
      choices: [],
      photos: [],
    };
    await insertJob(tx, actor.shopId, id, job);
    return { number, again: false };
  });
}

/** A rig's id from its nickname; a second rig of the same name gets a number. */
async function freeRigId(tx: Knex.Transaction, nickname: string): Promise<string> {
  const letters = nickname
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[^a-z]+|-+$/g, '');
  const base = letters.slice(0, 34) || 'rig';
  const taken = new Set(
    ((await tx('rigs').where('id', 'like', `${base}%`).select('id')) as { id: string }[]).map((r) => r.id),
  );
  let id = base;
  for (let n = 2; taken.has(id); n++) id = `${base}-${n}`;
  return id;
}
