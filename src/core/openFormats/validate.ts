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
import { SHOP_COMMAND_TYPES, type ShopCommand } from '../shop/shopSchema';
import * as validators from './validators';
import type { SchemaError, Validator } from './validators';
import type { Job } from '../job/job';
import type { OpenJob } from '../job/openJob';

/** Largest file read as a job: far above any real one, far below what would hurt. */
export const JOB_FILE_LIMIT_BYTES = 8 * 1024 * 1024;

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

function schemaIssues(validate: Validator, data: unknown): DocumentIssue[] {
  return validate(data) ? [] : (validate.errors ?? []).map((e) => issueOf(data, e));
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

  const add = (pointer: string, found: unknown, wanted: string) =>
    issues.push({ pointer, found: shown(found), wanted });
  const unique = (list: readonly { id: string }[], name: string) => {
    const seen = new Set<string>();
    list.forEach((item, i) => {
      if (seen.has(item.id)) add(`/${name}/${i}/id`, item.id, 'an id of its own');
      seen.add(item.id);
    });
  };
  unique(job.revisions, 'revisions');
  unique(job.readings, 'readings');
  unique(job.observations, 'observations');
  unique(job.verdicts, 'verdicts');
  unique(job.approvals, 'approvals');
  unique(job.repairs, 'repairs');
  unique(job.photos, 'photos');
  unique(job.choices, 'choices');
  unique(job.waivers ?? [], 'waivers');
  unique(job.checks ?? [], 'checks');
  unique(job.signOffs ?? [], 'signOffs');
  unique(job.followUps ?? [], 'followUps');
  unique(job.bookings ?? [], 'bookings');
  unique(job.planChanges ?? [], 'planChanges');
  unique(job.logs ?? [], 'logs');
  unique(job.usage.scenarios, 'usage/scenarios');
  unique(job.instruments, 'instruments');

  const epochs = new Set(job.revisions.map((r) => r.epoch));
  const keys = new Set(
    job.revisions.flatMap((r) => [
      ...r.doc.probes.map((p) => p.key),
      ...r.doc.grounds.flatMap((g) => g.points.map((p) => `${g.id}.${p.id}`)),
    ]),
  );
  if (!keys.has(job.blackLead)) add('/blackLead', job.blackLead, 'a probe or ground point of the rig');
  job.readings.forEach((r, i) => {
    if (!epochs.has(r.epoch)) add(`/readings/${i}/epoch`, r.epoch, `an epoch of a revision: ${[...epochs].join(', ')}`);
    if (!keys.has(r.probe)) add(`/readings/${i}/probe`, r.probe, 'a probe of the rig');
    if (r.ref !== undefined && !keys.has(r.ref)) add(`/readings/${i}/ref`, r.ref, 'a probe or ground point of the rig');
    if ((r.status === 'measured') !== (r.value !== undefined))
      add(`/readings/${i}/value`, r.value, r.status === 'measured' ? 'a number' : 'no value with this status');
  });
  job.observations.forEach((o, i) => {
    const answered = o.what !== undefined && o.answer !== undefined;
    if (answered !== (o.kind === 'seen'))
      add(
        `/observations/${i}/answer`,
        o.answer,
        o.kind === 'seen' ? 'what was asked and the answer' : 'no answer on a note',
      );
  });
  const meters = new Set(job.instruments.map((m) => m.id));
  if (job.meter !== undefined && !meters.has(job.meter)) add('/meter', job.meter, 'an instrument of this job');
  job.readings.forEach((r, i) => {
    if (r.meter !== undefined && !meters.has(r.meter))
      add(`/readings/${i}/meter`, r.meter, 'an instrument of this job');
  });
  job.approvals.forEach((a, i) => {
    if (!job.verdicts.some((v) => v.id === a.verdict))
      add(`/approvals/${i}/verdict`, a.verdict, 'the id of a verdict of this job');
  });
  job.signOffs?.forEach((s, i) => {
    if (!job.revisions.some((r) => r.id === s.revision))
      add(`/signOffs/${i}/revision`, s.revision, 'the id of a revision of this job');
  });
  job.choices.forEach((c, i) => {
    if (!job.revisions.some((r) => r.id === c.revision && r.kind === 'proposed'))
      add(`/choices/${i}/revision`, c.revision, 'the id of a proposed revision of this job');
  });
  job.repairs.forEach((r, i) => {
    if (!job.verdicts.some((v) => v.id === r.verdict))
      add(`/repairs/${i}/verdict`, r.verdict, 'the id of a verdict of this job');
  });
  if (issues.length > 0) return err(issues);

  job.revisions.forEach((revision, i) => {
    const model = new RigModel(compileRig(revision.doc));
    const unsolved = statesOf(revision.doc).find((state) => !model.settle(state.id).solved)?.id;
    if (unsolved)
      add(
        `/revisions/${i}/doc`,
        `no operating point at ${unsolved}`,
        'a rig whose circuit can be solved: look for a loop of almost no resistance',
      );
  });
  return issues.length > 0 ? err(issues) : ok(job);
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
