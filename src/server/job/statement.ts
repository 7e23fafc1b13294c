/**
 * A signature, an approval and a verdict speak for a part of the record as their giver saw it. One that arrives when
 * that part is another is refused, with what it was.
 */
import type { Knex } from 'knex';
import { definitionOf, undoWords } from '../../core/job/applyCommand';
import type { Command } from '../../core/job/command';
import { fingerprint } from '../../core/job/fingerprint';
import type { Job } from '../../core/job/job';
import type { Covers } from '../../core/job/jobSchema';
import { Refused, type Actor } from '../actor';

interface Newer {
  name: string;
  type: string;
  at: Date;
  person_id: string;
}

/** Changes named in a refusal; more are counted. */
const NAMED = 4;

/** Refuses a statement whose part of the record changed after its giver saw it. */
export async function refuseStaleStatement(
  tx: Knex.Transaction,
  actor: Actor,
  stored: { id: string; job: Job },
  command: Command,
): Promise<void> {
  const definition = definitionOf(command.type);
  if (!definition?.speaksFor) return;
  const covers = (command.payload as { covers?: Covers }).covers;
  if (covers && covers.hash === fingerprint(stored.job, definition.speaksFor)) return;
  const newer = (
    (await tx('commands as c')
      .join('people as p', (on) => on.on('p.shop_id', 'c.shop_id').andOn('p.id', 'c.person_id'))
      .where({ 'c.shop_id': actor.shopId, 'c.job_id': stored.id })
      .where('c.seq', '>', covers?.seq ?? command.baseSeq)
      .orderBy('c.seq')
      .select('p.name', 'c.type', 'c.at', 'c.person_id')) as Newer[]
  ).filter((n) => !definitionOf(n.type)?.afterSigning);
  if (covers) throw stale(newer);
  // A device that does not say yet what it saw: what others did since is what it cannot have seen.
  const strangers = newer.filter((n) => n.person_id !== actor.personId);
  if (strangers.length > 0) throw stale(strangers);
}

function stale(newer: readonly Newer[]): Refused {
  const said = newer
    .slice(-NAMED)
    .map((n) => `${n.name}, ${n.at.toISOString().slice(11, 16)} UTC: ${undoWords(n.type)}`)
    .join('; ');
  const more = newer.length > NAMED ? `; and ${newer.length - NAMED} before that` : '';
  return new Refused(
    409,
    'stale-statement',
    newer.length === 0
      ? 'The record is not as it stood on this device when this was given: an entry ' +
          'of yours did not arrive. Look at it as it is now, then give it again.'
      : `This was given for the record as it stood before (${said}${more}). Look at it as it is now, then give it again.`,
  );
}
