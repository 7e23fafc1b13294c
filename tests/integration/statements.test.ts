/**
 * A signature, an approval and a verdict speak for what their giver saw: whatever of it changed since, they are
 * refused with what it was. And an entry of a kind this server does not know is kept, not lost.
 */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Command, CommandType, Payload } from '../../src/core/job/command';
import { applyCommand, definitionOf } from '../../src/core/job/applyCommand';
import { fingerprint } from '../../src/core/job/fingerprint';
import { currentRevision, type Job } from '../../src/core/job/job';
import type { Actor } from '../../src/server/actor';
import { withShop } from '../../src/server/db';
import { submitCommand } from '../../src/server/job/commands';
import { insertJob } from '../../src/server/job/jobStore';
import { jobSnapshot } from '../../src/server/job/snapshot';
import { open, proved } from '../afternoon';
import { testDatabase, type TestDatabase } from './database';

const shop = randomUUID();
const person = (name: string, role: Actor['role'] = 'technician'): Actor => ({
  shopId: shop,
  sessionId: randomUUID(),
  personId: randomUUID(),
  name,
  role,
});
const [ana, ben, desk] = [person('Ana'), person('Ben', 'lead'), person('Desk', 'front-desk')];
let db: TestDatabase;
let job = 2000;

beforeAll(async () => {
  db = await testDatabase();
  await db.owner('shops').insert({ id: shop, name: 'Shop' });
  for (const a of [ana, ben, desk])
    await db.owner('people').insert({
      shop_id: shop,
      id: a.personId,
      handle: a.name.toLowerCase(),
      name: a.name,
      role: a.role,
      password_hash: 'x',
    });
});
afterAll(() => db.drop());

/** The next job, as it stands in an afternoon. */
async function put(afternoon: Job): Promise<void> {
  job++;
  const fresh = JSON.parse(
    JSON.stringify({ ...afternoon, number: job }).replace(
      /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g,
      (id) => `${id.slice(0, 28)}${String(job).padStart(8, '0')}`,
    ),
  ) as Job;
  await withShop(db.owner, shop, async (tx) => {
    await tx('rigs')
      .insert({ shop_id: shop, id: fresh.rigId, nickname: 'Heron' })
      .onConflict(['shop_id', 'id'])
      .ignore();
    await insertJob(tx, shop, randomUUID(), fresh);
  });
}
beforeEach(() => put(open));

/** A command as a page makes it: on what the device shows, with what it covers. */
async function onPage<T extends CommandType>(actor: Actor, type: T, payload: Payload<T>): Promise<Command> {
  const { seq, job: shown } = await jobSnapshot(db.app, actor, job);
  return asMade(actor, type, payload, seq, shown);
}
function asMade<T extends CommandType>(actor: Actor, type: T, payload: Payload<T>, seq: number, shown: Job): Command {
  const spoken = definitionOf(type)!.speaksFor;
  return {
    id: randomUUID(),
    type,
    version: 1,
    baseSeq: seq,
    at: '2026-11-24T17:00:00.000Z',
    actor: actor.name,
    payload: spoken ? { ...payload, covers: { seq, hash: fingerprint(shown, spoken) } } : payload,
  } as Command;
}
const send = (actor: Actor, c: Command) => submitCommand(db.app, actor, job, c);
const signature = async (actor: Actor) => {
  const { job: now } = await jobSnapshot(db.app, actor, job);
  return onPage(actor, 'record.sign', { id: randomUUID(), revision: currentRevision(now).id, words: 'Right.' });
};
const edit = async (actor: Actor) =>
  onPage(actor, 'part.edit', {
    part: 'link',
    was: { note: '200 A' },
    set: { note: '100 A' },
    means: 'described-wrong',
  });
const retract = async (actor: Actor) => {
  const { job: now } = await jobSnapshot(db.app, actor, job);
  return onPage(actor, 'reading.retract', { id: now.readings[0]!.id });
};

describe('a signature', () => {
  // A signature says that it is right now: only a rig that was repaired and measured is signed.
  beforeEach(() => put(proved));

  it('stands for what its signer saw, and keeps what that was', async () => {
    const sign = await signature(ana);
    await send(ana, sign);
    const { job: signed } = await jobSnapshot(db.app, ana, job);
    expect(signed.signOffs![0]!.covers).toEqual((sign.payload as { covers: object }).covers);
  });

  it.each([
    ['an edit of a part that keeps the revision', edit, 'the edit of the part'],
    ['a reading taken back', retract, 'taking the reading back'],
    ['a note', (a: Actor) => onPage(a, 'note.add', { id: randomUUID(), text: 'x' }), 'the note'],
  ])('is refused after %s of a colleague, with what it was', async (_, made, words) => {
    const sign = await signature(ana);
    await send(ben, await made(ben));
    await expect(send(ana, sign)).rejects.toMatchObject({
      status: 409,
      code: 'stale-statement',
      message: expect.stringMatching(new RegExp(`Ben, 17:00 UTC: ${words}`)) as string,
    });
    // Looked at again and given again, it stands.
    await send(ana, await signature(ana));
  });

  it('does not mind what the desk did to the ticket meanwhile', async () => {
    const sign = await signature(ana);
    await send(desk, await onPage(desk, 'job.set-status', { status: 'waiting-parts' }));
    await send(ana, sign);
  });

  it('is refused where an entry of the signer’s own did not arrive', async () => {
    const { seq, job: before } = await jobSnapshot(db.app, ana, job);
    const lost = asMade(ana, 'note.add', { id: randomUUID(), text: 'never arrives' }, seq, before);
    const shown = applyCommand(before, lost);
    if (!shown.ok) throw new Error('a note is always taken');
    const words = { id: randomUUID(), revision: currentRevision(before).id, words: 'Right.' };
    await expect(send(ana, asMade(ana, 'record.sign', words, seq, shown.value))).rejects.toMatchObject({
      message: expect.stringMatching(/did not arrive/) as string,
    });
  });

  it('counts the signer’s own entries, on their way with it, as seen', async () => {
    const { seq, job: before } = await jobSnapshot(db.app, ana, job);
    const note = asMade(ana, 'note.add', { id: randomUUID(), text: 'on its way' }, seq, before);
    const shown = applyCommand(before, note);
    if (!shown.ok) throw new Error('a note is always taken');
    const words = { id: randomUUID(), revision: currentRevision(before).id, words: 'Right.' };
    await send(ana, note);
    await send(ana, asMade(ana, 'record.sign', words, seq, shown.value));
  });

  it('of a device that does not say what it saw goes by the changes of others alone', async () => {
    const bare = (c: Command): Command => {
      const { covers: _, ...payload } = c.payload as { covers?: object };
      return { ...c, payload } as Command;
    };
    const sign = bare(await signature(ana));
    await send(ana, await onPage(ana, 'note.add', { id: randomUUID(), text: 'own' }));
    await send(ana, sign);
    const late = bare(await signature(ben));
    await expect(send(ben, late)).rejects.toMatchObject({ status: 409 });
  });
});

describe('a verdict and an approval', () => {
  const verdict = () => ({
    id: randomUUID(),
    fault: 'link.contact-open',
    name: 'Isolator contact burnt open',
    repair: 'Replace the isolator solenoid',
    probability: 0.97,
    settled: true,
  });

  it('are kept with what they were made on, and come out of the tables as they went in', async () => {
    const v = verdict();
    await send(ana, await onPage(ana, 'verdict.declare', v));
    const approval = await onPage(ana, 'approval.record', {
      id: randomUUID(),
      verdict: v.id,
      upTo: 300,
      currency: 'USD',
      who: 'owner',
      how: 'phone',
    });
    await send(ana, approval);
    const { job: now } = await jobSnapshot(db.app, ana, job);
    expect(now.verdicts[0]!.covers!.hash).toMatch(/^[0-9a-f]{64}$/);
    expect(now.approvals[0]!.covers).toEqual((approval.payload as { covers: object }).covers);
  });

  it('a verdict falls with its evidence, not with a note', async () => {
    const c = await onPage(ana, 'verdict.declare', verdict());
    await send(ben, await onPage(ben, 'note.add', { id: randomUUID(), text: 'x' }));
    await send(ana, c);
    await put(open);
    const late = await onPage(ana, 'verdict.declare', verdict());
    await send(ben, await retract(ben));
    await expect(send(ana, late)).rejects.toMatchObject({ code: 'stale-statement' });
  });

  it('an approval falls with its verdict', async () => {
    const v = verdict();
    await send(ana, await onPage(ana, 'verdict.declare', v));
    const approval = await onPage(ana, 'approval.record', {
      id: randomUUID(),
      verdict: v.id,
      upTo: 300,
      currency: 'USD',
      who: 'owner',
      how: 'phone',
    });
    await send(ben, await onPage(ben, 'verdict.withdraw', { id: v.id }));
    await expect(send(ana, approval)).rejects.toMatchObject({ code: 'stale-statement' });
  });

  it('are for a technician to declare; the desk may record what the customer agreed to', async () => {
    await expect(send(desk, await onPage(desk, 'verdict.declare', verdict()))).rejects.toMatchObject({
      status: 403,
      code: 'role',
    });
    const v = verdict();
    await send(ana, await onPage(ana, 'verdict.declare', v));
    await send(
      desk,
      await onPage(desk, 'approval.record', {
        id: randomUUID(),
        verdict: v.id,
        upTo: 300,
        currency: 'USD',
        who: 'owner',
        how: 'phone',
      }),
    );
  });
});

describe('an entry of a newer Surrik', () => {
  it('is answered as one to keep and send again, whether its kind or its version is new', async () => {
    const note = await onPage(ana, 'note.add', { id: randomUUID(), text: 'x' });
    for (const odd of [
      { ...note, type: 'rig.scan' },
      { ...note, version: 2 },
    ])
      await expect(send(ana, odd as Command)).rejects.toMatchObject({ status: 409, code: 'newer-command' });
  });

  it('leaves a job as it is on the device, and says so', () => {
    const odd = { id: randomUUID(), type: 'rig.scan', version: 1, at: 'x', actor: 'Ana', payload: {} };
    expect(applyCommand(open, odd as unknown as Command)).toMatchObject({
      ok: false,
      error: { found: 'an entry of kind rig.scan' },
    });
  });
});
