/// <reference lib="webworker" />
/** Ways of linking the batteries, in workers of their own: a simulation must not hold up a diagnosis. */
import { partsWith, houseBankOf } from '../core/rig/value';
import { expose } from 'comlink';
import { compileRig } from '../core/compile/compile';
import type { Rates } from '../core/price/estimate';
import { currentRevision, type Job } from '../core/job/job';
import { auditJob, buildJob, jobCandidates, jobScenarios, sizedRevision, sizeJob } from '../core/jobAnswers/options';
import type { JobBuild } from '../core/plan/build/build';
import type { Rig } from '../core/rig/schema';
import type { Sized } from '../core/rules/sized';
import type { SizingAsks } from '../core/size/sizing';
import type { Jurisdiction } from '../core/units/preferences';
import type { TowReport } from '../core/rules/tow/report';
import { usualPick } from '../core/plan/candidates';
import { compare, type Comparison } from '../core/plan/compare';

import {
  howLate,
  howLong,
  howLongLasts,
  howLongStands,
  generatorCranks,
  type HoursAnswer,
} from '../core/plan/questions';
import {
  influences,
  sampleCandidate,
  spreadOf,
  type Influence,
  type Sampled,
  type Spread,
} from '../core/plan/sensitivity';
import { troublesOf } from '../core/plan/troubles';
import type { Asked, OptionList } from '../core/plan/asked';
import type { Scenario } from '../core/simulate/scenarioSchema';

const pick = (job: Job, ids: readonly string[]) => jobCandidates(job).filter((c) => ids.includes(c.id));

const api = {
  list(job: Job): OptionList {
    const candidates = jobCandidates(job);
    const { doc } = currentRevision(job);
    const scenarios = jobScenarios(job);
    const house = houseBankOf(doc);
    return {
      candidates,
      usual: usualPick(candidates),
      scenarios,
      ...(house ? { house: { id: house.id, name: house.name } } : {}),
      batteries: partsWith(doc, 'battery').map((p) => ({ id: p.id, name: p.name })),
      troubles: troublesOf(doc, scenarios),
    };
  },
  compare(
    job: Job,
    ids: readonly string[],
    scenarios: readonly Scenario[],
    rates: Rates,
    progress: (share: number) => void,
  ): Comparison {
    return compare(pick(job, ids), scenarios, rates, { complaints: job.complaint.codes, progress });
  },
  sample(
    job: Job,
    candidate: string,
    scenarios: readonly Scenario[],
    samples: number,
    seed: number,
    which: readonly number[],
  ): Sampled[] {
    return sampleCandidate(pick(job, [candidate])[0]!, scenarios, samples, seed, which);
  },
  spreads(
    job: Job,
    ids: readonly string[],
    drawn: readonly Sampled[],
    samples: number,
    seed: number,
  ): { spreads: Spread[]; influences: Record<string, Influence[]> } {
    const some = pick(job, ids);
    return {
      spreads: some.map((c) => spreadOf(c.id, drawn)),
      influences: Object.fromEntries(some.map((c) => [c.id, influences(c, drawn, samples, seed)])),
    };
  },
  size(job: Job, asks: SizingAsks, doc?: Rig): Sized {
    return sizeJob(job, doc && { ...sizedRevision(job), doc }, asks);
  },
  tow(job: Job, jurisdiction: Jurisdiction): TowReport | undefined {
    return auditJob(job, sizedRevision(job), jurisdiction);
  },
  build(job: Job): JobBuild | undefined {
    return buildJob(job);
  },
  ask(job: Job, { candidate, question, celsius, loads }: Asked): HoursAnswer {
    const c = pick(job, [candidate])[0]!;
    const bank = houseBankOf(c.rig);
    const of = {
      compiled: compileRig(c.rig),
      bank: bank?.id ?? '',
      celsius,
      loads,
      ...(c.effects ? { situation: { effects: c.effects } } : {}),
    };
    switch (question.ask) {
      case 'how-long':
        return howLong(of, question.kind, question.from, question.to);
      case 'how-late':
        return howLate(of, question.driveHours, question.from, question.to);
      case 'how-long-stands':
        return howLongStands(of);
      case 'how-long-lasts':
        return howLongLasts(of, question.from, question.floor);
      case 'generator-cranks':
        return generatorCranks(of, question.from) ?? { at: 0, says: 'No generator with a starter of its own here.' };
    }
  },
};

export type OptionsApi = typeof api;
expose(api);
