/**
 * Every change to a job is a command. The envelope is the same for all; the payload goes by type. A command is
 * never edited: taking something back is another command. Types only: the schemas are in commandSchema.ts.
 */
import type Type from 'typebox';
import type { PAYLOADS } from './commands/payloads';
import type { Enveloped } from './envelope';

export type { IntakeChange } from './commands/intake/intakeSet';

export type CommandType = keyof typeof PAYLOADS;
export type Payload<T extends CommandType> = Type.Static<(typeof PAYLOADS)[T]>;
export type CommandOf<T extends CommandType> = Enveloped<T, Payload<T>>;
export type Command = { [T in CommandType]: CommandOf<T> }[CommandType];
