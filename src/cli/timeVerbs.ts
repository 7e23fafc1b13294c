/** Verbs that let time pass: simulate, compare. */
import { compileRig } from '../core/compile/compile';
import { jobCandidates, jobScenarios } from '../core/jobAnswers/options';
import { DEFAULT_SETTINGS } from '../core/shop/shop';
import { seriesCsv } from '../core/openFormats/seriesCsv';
import { compare } from '../core/plan/compare';
import { MAX_COMPARED, usualPick } from '../core/plan/candidates';
import { sampleCandidate, spreadOf } from '../core/plan/sensitivity';
import type { Scenario } from '../core/simulate/scenarioSchema';
import { simulate } from '../core/simulate/simulate';
import { BadInput, wholeNumber, type Verb, type VerbContext } from './verb';

/** Scenarios of the job, or the one named by number (from 1) or id. */
function scenarios({ job, options }: VerbContext): Scenario[] {
  const all = jobScenarios(job);
  const asked = options['scenario'];
  if (asked === undefined) return all;
  const found = all.find((s, i) => s.id === asked || String(i + 1) === asked);
  if (!found) throw new BadInput('--scenario', asked, `one of ${all.map((s, i) => `${i + 1} (${s.id})`).join(', ')}`);
  return [found];
}

export const TIME_VERBS: Readonly<Record<string, Verb>> = {
  simulate: {
    about: 'the rig through one of the job’s scenarios: events with their reasons, summary, series',
    example: 'simulate examples/heron.surrik.json --scenario trip',
    options: '  --scenario N|ID  (default: the first)  --series  with every point  --csv  the points as a table',
    run(context) {
      const [scenario] = scenarios({ ...context, options: { scenario: '1', ...context.options } });
      const r = simulate(compileRig(context.revision.doc), scenario!);
      if (context.options['csv']) return seriesCsv(r);
      return {
        scenario: scenario!.id,
        events: r.events,
        summary: r.summary,
        ...(context.options['series']
          ? { series: { t: [...r.t], columns: r.series.map((s) => ({ ...s, values: [...s.values] })) } }
          : {}),
      };
    },
  },
  compare: {
    about: 'ways of linking the batteries side by side on the job’s scenarios, with a recommendation',
    example: 'compare examples/heron.surrik.json --samples 20',
    options:
      '  --candidates ID,ID  (default: what the screen compares)  --scenario ' +
      'N|ID  --samples N  also the spread of N samples of the assumptions',
    run(context) {
      const all = jobCandidates(context.job);
      const asked = context.options['candidates']?.split(',');
      const ids = asked ?? usualPick(all);
      const unknown = ids.find((id) => !all.some((c) => c.id === id));
      if (unknown !== undefined)
        throw new BadInput('--candidates', unknown, `some of ${all.map((c) => c.id).join(', ')}`);
      if (ids.length > MAX_COMPARED)
        throw new BadInput('--candidates', `${ids.length} of them`, `at most ${MAX_COMPARED}`);
      const some = all.filter((c) => ids.includes(c.id));
      const use = scenarios(context);
      const { labourPerHour, partsTimes } = DEFAULT_SETTINGS;
      const c = compare(some, use, { labourPerHour, partsTimes }, { complaints: context.job.complaint.codes });
      const samples = wholeNumber(context.options, 'samples', 0);
      const which = Array.from({ length: samples }, (_, i) => i);
      const drawn = samples > 0 ? some.flatMap((x) => sampleCandidate(x, use, samples, 1, which)) : [];
      return {
        scenarios: c.scenarios,
        candidates: c.rows.map(({ candidate, outcome, estimate, scored }) => ({
          id: candidate.id,
          name: candidate.name,
          school: candidate.school,
          differences: candidate.differences.map((d) => d.says),
          outcome,
          estimate,
          points: scored.points,
          total: scored.total,
          ruledOut: scored.ruledOut,
          ...(samples > 0 ? { spread: spreadOf(candidate.id, drawn) } : {}),
        })),
        ...(c.recommendation ? { recommendation: c.recommendation } : {}),
        schools: c.schools,
        notCompared: all.filter((x) => !ids.includes(x.id)).map((x) => x.id),
      };
    },
  },
};
