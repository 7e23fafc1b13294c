/** Whether a person of the shop may give a command on a job: asked by the server before it stores, by screens before they send. */
import { actOfSigning, may, whoMay, type Act, type Role, type Signing } from '../people/roles';
import { definitionOf } from './applyCommand';
import type { Command } from './command';
import type { Job } from './job';

export interface Giver {
  name: string;
  role: Role;
}

const forWhom = (act: Act): string => `This is for ${whoMay(act)} to do.`;

/** Why not, in a sentence; undefined where he may. A kind of command that only a newer Surrik knows is not ours to judge. */
export function notAllowed(
  giver: Giver,
  job: Job,
  command: Pick<Command, 'type' | 'payload'>,
  signing: Signing,
): string | undefined {
  const definition = definitionOf(command.type);
  if (!definition) return undefined;
  const act = command.type === 'record.sign' ? actOfSigning(signing) : definition.needs;
  if (!may(giver.role, act)) return `${forWhom(act)} You are signed in as ${giver.name}.`;
  const { takesBack } = definition;
  const whose = takesBack?.of(job, command.payload);
  if (takesBack && whose !== undefined && whose !== giver.name && !may(giver.role, takesBack.needs))
    return `${whose} entered this. ${forWhom(takesBack.needs)} Or ask ${whose}.`;
  return undefined;
}
