/** What every command goes through before it does anything: its shape, its person, and whether it came before. */
import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import { canonical } from '../core/units/canonical';
import type { DocumentIssue } from '../core/rig/issue';
import type { Result } from '../core/units/result';
import type { ApiAnswer } from '../core/openFormats/answers';
import { Refused, type Actor } from './actor';

export type Acknowledged = ApiAnswer<'acknowledged'>;

interface Envelope {
  id: string;
  type: string;
  version: number;
  at: string;
  actor: string;
  payload: unknown;
}

/** Whether a command is well made but of a kind, or a version, that only a newer Surrik knows. */
const isNewer = (issues: readonly DocumentIssue[]): boolean =>
  issues.some(
    (i) =>
      (i.pointer === '/type' && /^"[a-zA-Z]+\.[a-zA-Z-]+"$/.test(i.found)) ||
      (i.pointer === '/version' && /^[2-9]\d{0,3}$/.test(i.found)),
  );

/** The command, or a refusal that names the place or the other person. */
export function checkedCommand<C extends Envelope>(checked: Result<C, DocumentIssue[]>, actor: Actor): C {
  if (!checked.ok) {
    const issue = checked.error[0]!;
    if (isNewer(checked.error))
      throw new Refused(
        409,
        'newer-command',
        'This server does not know such an entry yet. It is kept on this device: bring the server up to date, then send it again.',
      );
    throw new Refused(400, 'invalid', `${issue.pointer}: found ${issue.found}, wanted ${issue.wanted}`, checked.error);
  }
  const command = checked.value;
  if (command.actor !== actor.name)
    throw new Refused(
      403,
      'other-person',
      `This was entered as ${command.actor}, but ${actor.name} is signed in. Sign in as ${command.actor} to send it.`,
    );
  return command;
}

/** The content of a command to a target as one hash. */
export const hashOf = (target: number | 'shop', c: Envelope): string =>
  createHash('sha256')
    .update(canonical([target, c.type, c.version, c.at, c.actor, c.payload]))
    .digest('hex');

/** The acknowledgement of a command that came before with the same content; other content under its id is refused. */
export async function takenBefore(
  tx: Knex.Transaction,
  table: 'commands' | 'shop_commands',
  command: { shop_id: string; id: string },
  hash: string,
): Promise<Acknowledged | undefined> {
  const known = (await tx(table).where(command).first('seq', 'content_hash')) as
    { seq: number; content_hash: string } | undefined;
  if (!known) return undefined;
  if (known.content_hash === hash) return { id: command.id, seq: known.seq, again: true };
  throw new Refused(
    409,
    'id-reused',
    'This entry was sent before with other content. It is kept on this device; enter it again.',
  );
}
