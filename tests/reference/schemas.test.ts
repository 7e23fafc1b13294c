/**
 * The published schemas stand alone: a validator of the open standard (Ajv on the files themselves, none of our own
 * code between) takes the examples and refuses what is spoiled. Shapes that are shared are the shapes they replace.
 */
import { Ajv } from 'ajv';
import addFormats from 'ajv-formats';
import fc from 'fast-check';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { sharedDefinitions } from '../../scripts/sharedDefinitions';
import { JobSchema } from '../../src/core/job/jobSchema';
import { validateJobDocument } from '../../src/core/openFormats/validate';

const root = join(import.meta.dirname, '../..');
const published = (name: string) =>
  JSON.parse(readFileSync(join(root, `schemas/${name}.schema.json`), 'utf8')) as Record<string, unknown>;
const ajv = new Ajv({ strict: false, allErrors: true });
addFormats.default(ajv);
const job = ajv.compile(published('job'));
const examples = readdirSync(join(root, 'examples')).filter((f) => f.endsWith('.surrik.json'));
const example = (name: string) =>
  JSON.parse(readFileSync(join(root, 'examples', name), 'utf8')) as Record<string, unknown>;

describe('the published schema of a job', () => {
  it.each(examples)('takes %s', (name) => {
    expect(job(example(name)) ? [] : job.errors).toEqual([]);
  });

  it('and the program refuse the same spoiled documents', () => {
    const base = example('heron.surrik.json');
    const keys = Object.keys(base);
    fc.assert(
      fc.property(
        fc.constantFrom(...keys),
        fc.constantFrom<unknown>(null, -1, 'x\u0001y', {}, [[]], undefined),
        (key, bad) => {
          const spoiled = { ...base, [key]: bad };
          if (bad === undefined) delete (spoiled as Record<string, unknown>)[key];
          const ours = validateJobDocument(JSON.parse(JSON.stringify(spoiled)));
          if (!job(JSON.parse(JSON.stringify(spoiled)))) expect(ours.ok).toBe(false);
        },
      ),
      { numRuns: 80 },
    );
  });

  it.each(['job', 'rig', 'command', 'shop'])('%s names no definition it does not hold', (name) => {
    const text = JSON.stringify(published(name));
    const defs = Object.keys(published(name)['$defs'] as object);
    for (const [, ref] of text.matchAll(/"\$ref":"#\/\$defs\/([^"]+)"/g)) expect(defs).toContain(ref);
  });
});

describe('shared definitions', () => {
  /** Every reference put back where it stands. */
  const whole = (value: unknown, defs: Record<string, unknown>): unknown => {
    if (Array.isArray(value)) return value.map((v) => whole(v, defs));
    if (typeof value !== 'object' || value === null) return value;
    const ref = (value as { $ref?: string }).$ref;
    if (ref !== undefined) return whole(defs[ref.replace('#/$defs/', '')], defs);
    return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, whole(v, defs)]));
  };

  it('put back give the schema they were taken from', () => {
    const { schemas, defs } = sharedDefinitions({ job: JobSchema }, '#/$defs/');
    expect(whole(schemas.job, defs)).toEqual(JSON.parse(JSON.stringify(JobSchema)));
    expect(Object.keys(defs).length).toBeGreaterThan(2);
    expect(JSON.stringify({ schemas, defs }).length).toBeLessThan(JSON.stringify(JobSchema).length);
  });

  it('are those that stand twice and are worth it, under names of their own', () => {
    const big = {
      type: 'object',
      properties: Object.fromEntries('abcdefghij'.split('').map((k) => [k, { type: 'number', minimum: 0 }])),
    };
    const { schemas, defs } = sharedDefinitions(
      { a: { properties: { x: big, y: big } }, b: { properties: { x: { type: 'string' }, z: { type: 'string' } } } },
      '#',
    );
    expect(Object.keys(defs)).toEqual(['x']);
    expect(schemas.b).toEqual({ properties: { x: { type: 'string' }, z: { type: 'string' } } });
  });
});
