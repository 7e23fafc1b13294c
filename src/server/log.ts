/** The server's own log: one JSON line each, with its time, never with a person's name or what they wrote. */
import { pino, stdTimeFunctions } from 'pino';

export const log = pino({ base: null, timestamp: stdTimeFunctions.isoTime });
