/** What a verb is, and how it reads its options. */
import type { Job, Revision } from '../core/job/job';
import type { DocumentIssue } from '../core/rig/issue';

/** What is wrong with what was given: a line for each place. */
export class BadInput extends Error {
  readonly issues: readonly DocumentIssue[];
  constructor(pointer: string, found: string, wanted: string);
  constructor(issues: readonly DocumentIssue[]);
  constructor(at: string | readonly DocumentIssue[], found = '', wanted = '') {
    const issues = typeof at === 'string' ? [{ pointer: at, found, wanted }] : at;
    super(issues.map((i) => `${i.pointer}: found ${i.found}, wanted ${i.wanted}`).join('\n'));
    this.issues = issues;
  }
}

export interface VerbContext {
  job: Job;
  revision: Revision;
  options: Readonly<Record<string, string>>;
}

export interface Verb {
  about: string;
  example: string;
  options: string;
  run(context: VerbContext): object | string;
}

/** A verb that reads a file of its own rather than a job. */
export interface LogVerb {
  about: string;
  example: string;
  options: string;
  run(file: string, options: VerbContext['options']): object;
}

export function wholeNumber(options: VerbContext['options'], name: string, fallback?: number): number {
  const text = options[name];
  if (text === undefined && fallback !== undefined) return fallback;
  if (text === undefined || !/^\d{1,9}$/.test(text))
    throw new BadInput(`--${name}`, text ?? 'nothing', 'a whole number');
  return Number(text);
}
