/**
 * What the program answers on its examples, as plain data: the headless verbs on every example job, the drawings of
 * every rig family, the documents of the demo jobs, the calculators, a log; and what stored files rely on in the
 * catalogues. `tests/reference/answers.test.ts` holds the
 * answers against the hashes in `tests/fixtures/answers.json`.
 */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { VERBS } from '../src/cli/verbs';
import type { VerbContext } from '../src/cli/verb';
import { INTAKE_FACTS } from '../src/core/diagnose/intake';
import { ownerCard } from '../src/core/documents/ownerCard';
import { reportOf } from '../src/core/documents/report';
import { wiringOf } from '../src/core/documents/wiring/sheet';
import { currentRevision, type Job } from '../src/core/job/job';
import { auditJob, jobCandidates, sizeJob } from '../src/core/jobAnswers/options';
import { trendsOf } from '../src/core/jobAnswers/trends';
import { statesOf } from '../src/core/operate/states';
import { CHEMISTRIES, CHARGE_VOLTS } from '../src/core/parts/chemistry';
import { CONNECTORS } from '../src/core/parts/connectors';
import { FUSE_KINDS } from '../src/core/parts/fuses';
import { PART_KINDS, partKind } from '../src/core/parts/kinds';
import type { ElementSpec, ElementValue } from '../src/core/parts/part';
import { PIN_USES } from '../src/core/parts/pinUses';
import { buildPlan } from '../src/core/plan/build/build';
import { rigChecks } from '../src/core/prove/checks';
import { analyseLog } from '../src/core/recorderLog/analyse';
import { faceOf, readLog } from '../src/core/recorderLog/readLog';
import { coupledRig, USUAL_COUPLED } from '../src/core/rig/archetypes/coupled';
import { COUPLED_FAMILIES, linksFor } from '../src/core/rig/archetypes/coupledChoices';
import { motorhome } from '../src/core/rig/archetypes/motorhome';
import { DEFAULT_SETTINGS } from '../src/core/shop/shop';
import { CALCULATORS } from '../src/core/size/calculators';
import { VARIETY } from './motorhomes';

const EXAMPLES = ['heron', 'heron-1009', 'pika', 'dipper', 'marmot', 'osprey', 'wren'] as const;
const examplesFolder = join(import.meta.dirname, '../examples');
export const exampleJob = (name: string): Job =>
  JSON.parse(readFileSync(join(examplesFolder, `${name}.surrik.json`), 'utf8')) as Job;

/** An answer by its name; worked out when it is asked for. */
export type Answers = Readonly<Record<string, () => unknown>>;

const verb = (job: Job, name: string, options: VerbContext['options'] = {}): unknown =>
  VERBS[name]!.run({ job, revision: currentRevision(job), options });

function ofVerbs(): Answers {
  const list: Record<string, () => unknown> = {};
  for (const name of EXAMPLES) {
    const job = exampleJob(name);
    for (const { id } of statesOf(currentRevision(job).doc))
      list[`${name}: solve at ${id}`] = () => verb(job, 'solve', { state: id });
    for (const each of ['predict', 'diagnose', 'size', 'check']) list[`${name}: ${each}`] = () => verb(job, each);
    list[`${name}: simulate`] = () => verb(job, 'simulate', { series: 'yes' });
    list[`${name}: netlist`] = () => verb(job, 'netlist', { state: 'idle' });
  }
  for (const name of ['heron', 'pika'] as const)
    list[`${name}: compare`] = () => verb(exampleJob(name), 'compare', { samples: '2' });
  return list;
}

/** The drawing of every family with every link it can have. */
function ofDrawings(): Answers {
  const list: Record<string, () => unknown> = {};
  VARIETY.forEach((choices, i) => {
    list[`motorhome ${i}: ${choices.link}, ${choices.nominalVolts} V`] = () => motorhome('t', 'T', choices);
  });
  for (const { id: family } of COUPLED_FAMILIES)
    for (const { id: link } of linksFor(family))
      list[`${family}: ${link}`] = () =>
        coupledRig('t', 'T', { ...USUAL_COUPLED[family], link, solar: true, fridge: family !== 'towed-car' });
  return list;
}

function ofDocuments(): Answers {
  const list: Record<string, () => unknown> = {};
  for (const name of EXAMPLES) {
    const job = exampleJob(name);
    const { doc } = currentRevision(job);
    list[`${name}: wiring`] = () => wiringOf(doc, DEFAULT_SETTINGS);
    list[`${name}: sized, with the tow plug`] = () => [sizeJob(job), auditJob(job)];
    list[`${name}: checks of the finished rig`] = () => rigChecks({ rig: doc, from: undefined, made: 'build' });
    list[`${name}: plans of what can be built`] = () =>
      jobCandidates(job).map((c) => [c.id, c.name, c.school, c.minutes, c.parts, buildPlan(doc, c.rig)]);
  }
  list['heron: report'] = () => reportOf(exampleJob('heron-1009'), DEFAULT_SETTINGS);
  list['heron: owner’s card'] = () => ownerCard(exampleJob('heron-1009'), DEFAULT_SETTINGS);
  list['heron: trends'] = () => trendsOf([exampleJob('heron-1009'), exampleJob('heron')]);
  return list;
}

function ofCalculators(): Answers {
  return Object.fromEntries(
    CALCULATORS.map((c) => [
      `calculator: ${c.id}`,
      () => {
        const value = (id: string) => c.inputs.find((i) => i.id === id)!.value;
        return c.answer({ number: (id) => Number(value(id)), choice: (id) => String(value(id)) });
      },
    ]),
  );
}

/** The numbers of an element with its kind's usual parameters, whatever picks between them. */
function numbersOf(kind: string, element: ElementSpec): unknown {
  const { params } = partKind(kind);
  const options = Object.fromEntries(Object.entries(partKind(kind).options ?? {}).map(([k, o]) => [k, o.default]));
  const numbers = (value: ElementValue): unknown =>
    'by' in value
      ? Object.fromEntries(Object.entries(value.of).map(([mode, v]) => [mode, numbers(v)]))
      : (['off', 'idle', 'road'] as const).map((engine) =>
          value.value(
            value.params.map((p) => params[p]!.default.value),
            { engine, key: engine !== 'off' } as never,
            { options, nominal: 12 },
          ),
        );
  return Object.fromEntries(
    Object.entries(element).map(([key, v]) => [
      key,
      typeof v === 'object' && ('by' in v || 'params' in v) ? numbers(v as ElementValue) : v,
    ]),
  );
}

/** What a stored rig or job relies on without holding it: usual values, limits, weights, ratings. */
function ofCatalogues(): Answers {
  const kinds = [...PART_KINDS.values()].map((kind): [string, () => unknown] => [
    `part kind: ${kind.id}`,
    () => [kind.terminals, kind.params, kind.options, kind.faults, kind.elements.map((e) => numbersOf(kind.id, e))],
  ]);
  return {
    ...Object.fromEntries(kinds),
    'intake facts': () => INTAKE_FACTS,
    'fuses, connectors, chemistries': () => [FUSE_KINDS, CONNECTORS, PIN_USES, CHEMISTRIES, CHARGE_VOLTS],
    'what the calculators ask': () => CALCULATORS.map((c) => [c.id, c.inputs]),
  };
}

function ofLogs(): Answers {
  return {
    'log of a trip': () => {
      const text = readFileSync(join(examplesFolder, 'heron-trip.csv'), 'utf8');
      const face = faceOf(text, 'UTC');
      return analyseLog(readLog(text, face, face.map), { nominal: 12, chemistry: 'flooded' });
    },
  };
}

export const answers = (): Answers => ({
  ...ofVerbs(),
  ...ofDrawings(),
  ...ofDocuments(),
  ...ofCalculators(),
  ...ofCatalogues(),
  ...ofLogs(),
});
