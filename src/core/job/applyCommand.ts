/**
 * What a command does to a job, and what takes it back: one pure function each, used by the server before it
 * stores and by the client to show what is still on its way.
 */
import type { Result } from '../units/result';
import type { Command } from './command';
import type { CommandDefinition, Undoing } from './commandDefinition';
import { COMMANDS } from './commands';
import { currentRevision, standingSignOff, type Job } from './job';
import { refuse, type Refusal } from './refusal';

/** The definition of a command's type; undefined where a newer Surrik made it. */
export const definitionOf = (type: string): CommandDefinition<unknown> | undefined =>
  Object.hasOwn(COMMANDS, type) ? (COMMANDS[type as keyof typeof COMMANDS] as CommandDefinition<unknown>) : undefined;

/** The job after the command, or what stands in its way and what would do. Lists that did not change stay the same object. */
export function applyCommand(job: Job, command: Command): Result<Job, Refusal> {
  const definition = definitionOf(command.type);
  if (!definition) return refuse(`an entry of kind ${command.type}`, 'a Surrik new enough to know it: it is kept');
  if (standingSignOff(job) && !definition.afterSigning)
    return refuse('a record that is signed', 'the record opened again first, under Prove, with a reason');
  const { epoch } = currentRevision(job);
  return definition.apply(job, command.payload, { by: command.actor, at: command.at, epoch });
}

/**
 * What takes a command back, from the job as it was before; undefined where there is nothing to take back. Undo is
 * another command: nothing that was said is unsaid.
 * @param newId makes ids for what has to be entered anew
 */
export const inverseOf = (before: Job, command: Command, newId: () => string): Undoing | undefined =>
  definitionOf(command.type)?.inverse(command.payload, before, newId);

/** The matter a command decides for everybody; undefined where it collides with nothing. */
export const matterOf = (command: Command): string | undefined => definitionOf(command.type)?.collides(command.payload);

const MATTERS: Readonly<Record<string, string>> = {
  verdict: 'the verdict or its repair',
  status: 'the status of the job',
  revision: 'the rig',
  tow: 'the tow plug',
  waivers: 'what was set aside',
  line: 'what is ordered',
  step: 'this step',
  order: 'the order of the steps',
  intake: 'the intake',
  identity: 'whose rig it is',
  visit: 'which visit it came back from',
  approval: 'the approval',
  usage: 'how the rig is used',
  choice: 'which link was picked',
  signature: 'the signature',
};

/** A matter in the words of a message. */
export const matterInWords = (matter: string): string =>
  MATTERS[matter.split(' ')[0]!] ?? `this ${matter.split(' ')[0]}`;

/** What an undo of a command takes back, in words; its type where a newer Surrik made it. */
export const undoWords = (type: string): string => definitionOf(type)?.undoWords ?? type;
