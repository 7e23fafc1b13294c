/** The headless verbs, called as functions: whatever job and state they are given, plain data or a typed refusal. */
import { describe, expect, it } from 'vitest';
import { exampleJob } from '../../tests/answers';
import { currentRevision } from '../core/job/job';
import { statesOf } from '../core/operate/states';
import { BadInput, wholeNumber } from './verb';
import { VERBS } from './verbs';

const JOBS = ['heron', 'pika', 'dipper', 'marmot', 'osprey', 'wren'] as const;
const run = (name: string, verb: string, options: Record<string, string> = {}): unknown => {
  const job = exampleJob(name);
  return VERBS[verb]!.run({ job, revision: currentRevision(job), options });
};
/** Everything a JSON answer holds that JSON cannot. */
function unsayable(value: unknown, at = ''): string[] {
  if (typeof value === 'number') return Number.isFinite(value) ? [] : [`${at}: ${value}`];
  if (value instanceof Map || value instanceof Set || typeof value === 'function') return [`${at}: ${typeof value}`];
  if (typeof value !== 'object' || value === null || ArrayBuffer.isView(value)) return [];
  return Object.entries(value).flatMap(([k, v]) => unsayable(v, `${at}/${k}`));
}
const refusal = (f: () => unknown): BadInput => {
  try {
    f();
  } catch (e) {
    if (e instanceof BadInput) return e;
    throw e;
  }
  throw new Error('it was taken');
};

describe('every verb', () => {
  it('says what it is about, gives an example that begins with its name, and lists its options', () => {
    for (const [name, verb] of Object.entries(VERBS)) {
      expect(verb.about.length, name).toBeGreaterThan(10);
      expect(verb.example.startsWith(name), name).toBe(true);
      expect(typeof verb.options, name).toBe('string');
      for (const [option] of verb.example.matchAll(/--[a-z-]+/g))
        expect(verb.options, `${name} ${option}`).toContain(option);
    }
  });
});

describe.each(JOBS)('%s', (name) => {
  const { doc } = currentRevision(exampleJob(name));

  it.each(statesOf(doc).map((s) => s.id))('is solved at %s: a figure for every probe', (state) => {
    const answer = run(name, 'solve', { state }) as { probes?: unknown };
    expect(unsayable(answer)).toEqual([]);
    const text = JSON.stringify(answer);
    for (const p of doc.probes.filter((x) => !x.retired)) expect(text).toContain(`"${p.label}"`);
  });

  it('is predicted, diagnosed, sized and checked in plain data', () => {
    for (const verb of ['predict', 'diagnose', 'size', 'check']) expect(unsayable(run(name, verb)), verb).toEqual([]);
  });

  it('is measured the same for the same seed, and otherwise for another', () => {
    const probe = doc.probes.find((p) => !p.retired && !p.key.endsWith('.clamp'))!.label;
    const state = statesOf(doc)[0]!.id;
    const fault = 'nothing-wrong';
    const at = (seed: string) => {
      try {
        return JSON.stringify(run(name, 'measure', { state, probe, fault, seed }));
      } catch (e) {
        if (e instanceof BadInput) return undefined;
        throw e;
      }
    };
    expect(at('1')).toBe(at('1'));
  });
});

describe('what is wrong with what was given', () => {
  it('is told by its option, with what was found and what is wanted', () => {
    expect(refusal(() => run('heron', 'solve')).issues).toMatchObject([{ pointer: '--state', found: 'nothing' }]);
    const unknown = refusal(() => run('heron', 'solve', { state: 'flying' }));
    expect(unknown.issues[0]).toMatchObject({ pointer: '--state', found: 'flying' });
    expect(unknown.issues[0]!.wanted).toContain('idle');
    expect(unknown.message).toBe(`--state: found flying, wanted ${unknown.issues[0]!.wanted}`);
  });

  it('is a whole number where one is wanted, and nothing like one', () => {
    expect(wholeNumber({ n: '12' }, 'n')).toBe(12);
    expect(wholeNumber({}, 'n', 7)).toBe(7);
    for (const text of ['', '-1', '1.5', '1e3', 'twelve', '99999999999', ' 1'])
      expect(refusal(() => wholeNumber({ n: text }, 'n')).issues[0]).toMatchObject({
        pointer: '--n',
        wanted: 'a whole number',
      });
    expect(refusal(() => wholeNumber({}, 'n')).issues[0]!.found).toBe('nothing');
  });
});
