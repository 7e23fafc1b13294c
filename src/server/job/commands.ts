/**
 * Taking in a command: checked, made part of the record exactly once, applied. The same id with the same
 * content is acknowledged again; with other content it is refused. A decision somebody else made meanwhile
 * on the same matter is never overwritten.
 */
import type { Knex } from 'knex';
import { notAllowed } from '../../core/job/allowed';
import { applyCommand, matterInWords, matterOf } from '../../core/job/applyCommand';
import type { Command } from '../../core/job/command';
import { contentInWords } from '../../core/job/contentInWords';
import { validateCommand } from '../../core/openFormats/validate';
import { Refused, type Actor } from '../actor';
import { withShop } from '../db';
import { saveIdentity } from '../identity';
import { loadShop } from '../shop';
import { loadJob, saveJob, type StoredJob } from './jobStore';
import { logReceived } from './logs';
import { photoReceived } from './photos';
import { checkedCommand, hashOf, takenBefore, type Acknowledged } from '../commandIntake';
import { refuseStaleStatement } from './statement';

export async function submitCommand(db: Knex, actor: Actor, jobNumber: number, data: unknown): Promise<Acknowledged> {
  const command = checkedCommand(validateCommand(data), actor);
  const hash = hashOf(jobNumber, command);
  return withShop(db, actor.shopId, async (tx) => {
    const stored = await loadJob(tx, jobNumber, true);
    if (!stored) throw new Refused(404, 'no-job', `There is no job ${jobNumber} in this shop.`);

    const before = await takenBefore(tx, 'commands', { shop_id: actor.shopId, id: command.id }, hash);
    if (before) return before;

    // How the shop signs is asked where somebody signs.
    const signing = command.type === 'record.sign' ? (await loadShop(tx)).shop.settings.signing : 'technician';
    const no = notAllowed(actor, stored.job, command, signing);
    if (no) throw new Refused(403, 'role', no);

    // A device cannot have seen what never was here: taken as it is, it would hide whatever comes until then.
    if (command.baseSeq > stored.seq)
      throw new Refused(
        409,
        'ahead',
        'This device has seen changes that this server does not have. Look at the job as it is now, then enter yours again.',
      );

    const matter = matterOf(command);
    if (matter !== undefined) {
      const newer = (await tx('commands as c')
        .join('people as p', (on) => on.on('p.shop_id', 'c.shop_id').andOn('p.id', 'c.person_id'))
        .where({ 'c.shop_id': actor.shopId, 'c.job_id': stored.id, 'c.matter': matter })
        .where('c.seq', '>', command.baseSeq)
        .orderBy('c.seq', 'desc')
        .first('p.name', 'c.type', 'c.payload')) as (Pick<Command, 'type' | 'payload'> & { name: string }) | undefined;
      if (newer)
        throw new Refused(
          409,
          'conflict',
          `Meanwhile ${newer.name} changed ${matterInWords(matter)}. Theirs, which stands: ${contentInWords(newer)}. ` +
            `Yours: ${contentInWords(command)}.`,
        );
    }

    await refuseStaleStatement(tx, actor, stored, command);

    const next = applyCommand(stored.job, command);
    if (!next.ok) throw new Refused(409, 'refused', `Not possible: ${next.error.found}. Wanted: ${next.error.wanted}.`);

    await besideTheRecord(tx, actor, stored, command);

    const seq = stored.seq + 1;
    await tx('commands').insert({
      shop_id: actor.shopId,
      job_id: stored.id,
      seq,
      id: command.id,
      type: command.type,
      version: command.version,
      base_seq: command.baseSeq,
      at: command.at,
      person_id: actor.personId,
      matter: matter ?? null,
      payload: JSON.stringify(command.payload),
      content_hash: hash,
    });
    await saveJob(tx, actor.shopId, stored, next.value, seq);
    return { id: command.id, seq, again: false };
  });
}

/** What a command needs that is no part of the record: files that were sent before, other jobs, the customer. */
async function besideTheRecord(tx: Knex.Transaction, actor: Actor, stored: StoredJob, command: Command): Promise<void> {
  if (command.type === 'photo.keep' && !(await photoReceived(tx, stored.id, command.payload.sha256)))
    throw new Refused(409, 'no-file', 'The photo itself has not arrived. Choose it again.');
  if (
    command.type === 'log.set' &&
    command.payload.set?.file &&
    !(await logReceived(tx, { shop_id: actor.shopId, job_id: stored.id }, command.payload.set.file.sha256))
  )
    throw new Refused(409, 'no-file', 'The log itself has not arrived. Keep it again.');
  if (
    command.type === 'visit.link' &&
    command.payload.set &&
    !(await tx('jobs').where({ number: command.payload.set.job, rig_id: stored.job.rigId }).first('id'))
  )
    throw new Refused(409, 'refused', `Not possible: job ${command.payload.set.job} is no earlier job of this rig.`);
  if (command.type === 'identity.set') await saveIdentity(tx, actor.shopId, stored.job.rigId, command.payload.set);
}
