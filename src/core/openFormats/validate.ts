/**
 * The edge: unknown data in, a typed document or a list of issues out. Each issue names the place as a JSON
 * pointer, what stands there and what is wanted.
 */
import { compileRig } from '../compile/compile';
import { RigModel } from '../operate/settle';
import { statesOf } from '../operate/states';
import { checkRig } from '../rig/check';
import { shown, type DocumentIssue } from '../rig/issue';
import { err, ok, type Result } from '../units/result';
import type { Command } from '../job/command';
import { COMMAND_TYPES } from '../job/commandSchema';
import { inconsistencies } from './jobConsistency';
import { MAX_ISSUES, unstorableText } from './storable';
import { SHOP_COMMAND_TYPES, type ShopCommand } from '../shop/shopSchema';
import * as validators from './validators';
import type { SchemaError, Validator } from './validators';
import type { Job } from '../job/job';
import type { OpenJob } from '../job/openJob';
import type { CaseFile } from '../learn/caseFile';
import type { OwnSignInChange } from '../people/ownSignInSchema';
import type { PeopleChange } from '../people/peopleSchema';

/** Largest file read as a job: far above any real one, far below what would hurt. */
export const JOB_FILE_LIMIT_BYTES = 8 * 1024 * 1024;
/** Name of the job file in an exported archive. */
export const JOB_IN_ARCHIVE = 'job.surrik.json';

function at(data: unknown, pointer: string): unknown {
  let here: unknown = data;
  for (const raw of pointer.split('/').slice(1)) {
    const key = raw.replace(/~1/g, '/').replace(/~0/g, '~');
    if (typeof here !== 'object' || here === null) return undefined;
    here = (here as Record<string, unknown>)[key];
  }
  return here;
}

function issueOf(data: unknown, e: SchemaError): DocumentIssue {
  const p = e.params;
  switch (e.keyword) {
    case 'required':
      return {
        pointer: `${e.instancePath}/${String(p['missingProperty'])}`,
        found: 'nothing',
        wanted: 'this property',
      };
    case 'additionalProperties':
      return {
        pointer: `${e.instancePath}/${String(p['additionalProperty'])}`,
        found: String(p['additionalProperty']),
        wanted: 'no such property here',
      };
    case 'enum':
      return {
        pointer: e.instancePath || '/',
        found: shown(at(data, e.instancePath)),
        wanted: `one of ${(p['allowedValues'] as unknown[]).map(String).join(', ')}`,
      };
    default:
      return {
        pointer: e.instancePath || '/',
        found: shown(at(data, e.instancePath)),
        wanted: (e.message ?? e.keyword).replace(/^must /, 'it to '),
      };
  }
}

/** Everything a schema finds wrong, each place once; then text that no database would take. */
function schemaIssues(validate: Validator, data: unknown): DocumentIssue[] {
  if (validate(data)) return unstorableText(data);
  const errors = validate.errors ?? [];
  // Of a choice that none of its forms fits, what the forms lack says more than that none fits.
  const telling = errors.filter(
    (e) => e.keyword !== 'anyOf' || !errors.some((x) => x !== e && x.instancePath.startsWith(e.instancePath)),
  );
  const issues = telling.map((e) => issueOf(data, e));
  return [...new Map(issues.map((issue) => [`${issue.pointer} ${issue.wanted}`, issue])).values()].slice(0, MAX_ISSUES);
}

/** Text of a job file to JSON, with size and syntax checked. */
export function parseJobText(text: string): Result<unknown, DocumentIssue[]> {
  if (text.length > JOB_FILE_LIMIT_BYTES)
    return err([{ pointer: '/', found: `${text.length} characters`, wanted: `at most ${JOB_FILE_LIMIT_BYTES}` }]);
  try {
    return ok(JSON.parse(text));
  } catch (e) {
    return err([{ pointer: '/', found: (e as Error).message, wanted: 'a JSON document' }]);
  }
}

/** A job document, whole and consistent, whose every revision has an operating point. */
export function validateJobDocument(data: unknown): Result<Job, DocumentIssue[]> {
  const issues = schemaIssues(validators.validateJob, data);
  if (issues.length > 0) return err(issues);
  const job = data as Job;
  job.revisions.forEach((revision, i) => issues.push(...checkRig(revision.doc, `/revisions/${i}/doc`)));
  if (issues.length > 0) return err(issues);

  issues.push(...inconsistencies(job));
  if (issues.length > 0) return err(issues);

  job.revisions.forEach((revision, i) => {
    const model = new RigModel(compileRig(revision.doc));
    const unsolved = statesOf(revision.doc).find((state) => !model.settle(state.id).solved)?.id;
    if (unsolved)
      issues.push({
        pointer: `/revisions/${i}/doc`,
        found: `no operating point at ${unsolved}`,
        wanted: 'a rig whose circuit can be solved: look for a loop of almost no resistance',
      });
  });
  return issues.length > 0 ? err(issues) : ok(job);
}

/** The text of a job file: what it holds, or every place where it is none. */
export function checkedJobText(text: string): Result<Job, DocumentIssue[]> {
  const parsed = parseJobText(text);
  return parsed.ok ? validateJobDocument(parsed.value) : parsed;
}

/** A file of another shop's cases. */
export function validateCaseFile(data: unknown): Result<CaseFile, DocumentIssue[]> {
  const issues = schemaIssues(validators.validateCases, data);
  return issues.length > 0 ? err(issues) : ok(data as CaseFile);
}

/** A change of who works in the shop. */
export function validatePeopleChange(data: unknown): Result<PeopleChange, DocumentIssue[]> {
  const issues = schemaIssues(validators.validatePeopleChange, data);
  return issues.length > 0 ? err(issues) : ok(data as PeopleChange);
}

/** A change of one's own sign-in. What was typed wrong is not said again: it may be a password. */
export function validateOwnSignInChange(data: unknown): Result<OwnSignInChange, DocumentIssue[]> {
  const issues = schemaIssues(validators.validateOwnSignInChange, data);
  return issues.length > 0 ? err(issues.map((i) => ({ ...i, found: 'something else' }))) : ok(data as OwnSignInChange);
}

/** A request to open a job. */
export function validateOpenJob(data: unknown): Result<OpenJob, DocumentIssue[]> {
  const issues = schemaIssues(validators.validateOpenJob, data);
  return issues.length > 0 ? err(issues) : ok(data as OpenJob);
}

function validateByType<T>(types: readonly string[], data: unknown): Result<T, DocumentIssue[]> {
  const type = (data as { type?: unknown } | null)?.type;
  if (typeof type !== 'string' || !types.includes(type))
    return err([{ pointer: '/type', found: shown(type), wanted: `one of ${types.join(', ')}` }]);
  const validate = (validators as unknown as Record<string, Validator>)[`validate_${type.replace(/\W/g, '_')}`]!;
  const issues = schemaIssues(validate, data);
  return issues.length > 0 ? err(issues) : ok(data as T);
}

/** A command envelope with the payload its type asks for. */
export const validateCommand = (data: unknown): Result<Command, DocumentIssue[]> => validateByType(COMMAND_TYPES, data);

/** The same for what a shop sets for itself. */
export const validateShopCommand = (data: unknown): Result<ShopCommand, DocumentIssue[]> =>
  validateByType(SHOP_COMMAND_TYPES, data);
