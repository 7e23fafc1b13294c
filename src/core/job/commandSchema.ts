/** The schema of every command: envelope and payload. */
import Type from 'typebox';
import type { CommandType } from './command';
import { PAYLOADS } from './commands/payloads';
import { envelope } from './envelope';

export const COMMAND_TYPES = Object.keys(PAYLOADS) as CommandType[];

/** Envelope and payload of one type: what a command of that type is checked against. */
export const commandSchema = <T extends CommandType>(type: T) => envelope(type, PAYLOADS[type]);

export const CommandSchema = Type.Union(COMMAND_TYPES.map((type) => commandSchema(type)));
