/** How a command is refused, and the two small things every command does. */
import { err, type Result } from '../units/result';
import type { Job } from './job';

export interface Refusal {
  found: string;
  wanted: string;
}

type Listed = { id: string };
export const replace = <T extends Listed>(list: readonly T[], id: string, change: (item: T) => T): T[] =>
  list.map((item) => (item.id === id ? change(item) : item));

export const refuse = (found: string, wanted: string): Result<Job, Refusal> => err({ found, wanted });
