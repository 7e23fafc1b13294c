/**
 * `./surrik trials [N] [report …]`: how often the diagnosis is right on rigs that hide a fault, how honest
 * its confidence is, how many minutes it asks for. Long; figures belong in docs/benchmarks.md with the commit.
 */
import { compileRig, type CompiledRig } from '../src/core/compile/compile';
import { LINK_CHOICES } from '../src/core/rig/archetypes/choices';
import { motorhome, USUAL_MOTORHOME } from '../src/core/rig/archetypes/motorhome';
import { readingGains } from './draws';
import { editTrial } from './edits';
import { drawCases, solveCase } from './optimum';
import { runTrial } from './runs';
import { runTrials, type TrialOptions } from './trial';
import { truthTrials } from './truth/trials';

const usual = compileRig(motorhome('trials', 'Trial coach'));
const percent = (a: number, b: number) => `${((100 * a) / Math.max(1, b)).toFixed(1)} %`;
const p95 = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length * 0.95)]!;

function report(name: string, compiled: CompiledRig, options: TrialOptions): void {
  const r = runTrials(compiled, options, () => performance.now());
  console.log(`\n${name}: ${options.trials} rigs, seed ${options.seed}`);
  console.log(
    `  stop reached ${percent(r.stopped, r.trials)}; right at the stop ` +
      `${percent(r.rightOfStopped, r.stopped)}; right in all ${percent(r.right, r.trials)}`,
  );
  console.log(
    `  mean ${r.meanMinutes.toFixed(1)} min, ${r.meanTests.toFixed(1)} tests, ` +
      `${r.meanQuestions.toFixed(1)} of them looked at or tried; update p95 ` +
      `${p95(r.updateMs).toFixed(0)} ms, answer p95 ${p95(r.rankMs).toFixed(0)} ms`,
  );
  console.log(`  claimed ${(100 * r.claimed).toFixed(1)} %, observed ${percent(r.right, r.trials)}`);
  r.deciles.forEach(
    ([n, right], d) =>
      n > 0 && console.log(`    claimed ${d * 10}–${d * 10 + 10} %: ${n} rigs, right ${percent(right, n)}`),
  );
  if (r.checklist.whole > 0) {
    const { ours, whole, stopped } = r.checklist;
    console.log(
      `  on the first ${options.checklists} of them, minutes against the whole ` +
        `checklist ${(ours / whole).toFixed(2)}× (reach 0.35), against the checklist ` +
        `with the same stop rule ${(ours / stopped).toFixed(2)}× (reach 0.6)`,
    );
  }
  for (const [what, count] of [...r.confusions].sort((a, b) => b[1] - a[1]).slice(0, 6))
    console.log(`    ${count} × ${what}`);
}

const wide = { widen: 1.5, blunderShare: 0.03 };
const REPORTS: Record<string, (trials: number) => void> = {
  wide: (n) =>
    report('spreads 1.5 times wider than assumed, blunders 3 %', usual, {
      trials: n,
      seed: 90_001,
      ...wide,
      checklists: Math.min(12, n),
    }),
  meters: (n) =>
    report('the same, measuring only: nothing looked at or tried', usual, {
      trials: quarter(n),
      seed: 90_007,
      ...wide,
      metersOnly: true,
    }),
  stated: (n) =>
    report('spreads as assumed, blunders 3 %', usual, {
      trials: quarter(n),
      seed: 90_002,
      widen: 1,
      blunderShare: 0.03,
    }),
  pairs: (n) =>
    report('two faults at once, either counts, spreads 1.5 times wider, blunders 3 %', usual, {
      trials: quarter(n),
      seed: 90_005,
      ...wide,
      pairs: true,
    }),
  nothing: (n) =>
    report('nothing wrong, spreads 1.5 times wider, blunders 3 %', usual, {
      trials: quarter(n),
      seed: 90_004,
      ...wide,
      truth: 'nothing-wrong',
    }),
  silent: (n) =>
    report('no complaint stated, spreads 1.5 times wider, blunders 3 %', usual, {
      trials: quarter(n),
      seed: 90_003,
      ...wide,
      complaints: [],
    }),
  links: (n) => {
    for (const { id: link, label } of LINK_CHOICES.filter((l) => l.id !== USUAL_MOTORHOME.link))
      report(
        `${label}, spreads 1.5 times wider, blunders 3 %`,
        compileRig(motorhome('trials', 'Trial coach', { ...USUAL_MOTORHOME, link, boost: link !== 'diode' })),
        {
          trials: Math.max(1, Math.round(n / 20)),
          seed: 90_100,
          ...wide,
          complaints: ['coach-not-charging'],
        },
      );
  },
  draws: (n) => {
    console.log(`\nreadings drawn from the model, ${n} rigs: what each adds to the log-probability of the truth, nats`);
    readingGains(usual, n, 11).forEach(({ mean, error }, k) =>
      console.log(`  reading ${k + 1}: ${mean.toFixed(3)} ± ${error.toFixed(3)} (reach: not under −3 standard errors)`),
    );
  },
  optimum: (n) => {
    const count = Math.min(120, Math.max(10, Math.round(n / 5)));
    const { belief, cases } = drawCases(usual, count, 90_006);
    const solved = cases.map((c) => solveCase(belief, c));
    const ratios = solved.map((s) => s.ours / s.best).sort((a, b) => a - b);
    const sum = (of: 'ours' | 'best') => solved.reduce((t, s) => t + s[of], 0);
    console.log(
      `\nchoice of tests against the exhaustive optimum, ${count} cases of 6 faults × 6 tests, ` +
        `minutes and wrong calls together: ${(sum('ours') / sum('best')).toFixed(3)}× in all (reach 1.10), ` +
        `median ${ratios[ratios.length >> 1]!.toFixed(3)}×, worst ${ratios.at(-1)!.toFixed(2)}×`,
    );
  },
};
/** Reports that are no statistics of diagnoses: asked for by name, with a count of their own. */
const APART: Record<string, { usual: number; run(n: number): void }> = {
  edits: { usual: 10_000, run: (n) => editTrial(n, 90_200) },
  runs: { usual: 10_000, run: (n) => runTrial(n, 0) },
};
const quarter = (n: number) => Math.max(1, Math.round(n / 4));

const args = process.argv.slice(2);
if (args.includes('truth')) {
  await truthTrials(args.filter((a) => a !== 'truth'));
  process.exit(0);
}
const apart = args.find((a) => a in APART);
if (apart !== undefined) {
  const count = args.find((a) => /^\d+$/.test(a));
  APART[apart]!.run(count === undefined ? APART[apart]!.usual : Number(count));
  process.exit(0);
}
const [first, ...rest] = args;
const trials = Number(first ?? 1000);
const unknown = rest.find((name) => !(name in REPORTS));
if (!Number.isInteger(trials) || trials < 1 || unknown !== undefined) {
  console.error(
    unknown === undefined
      ? 'trials: wanted a whole number, like ./surrik trials 200'
      : `trials: no report ${unknown}; there are ${Object.keys(REPORTS).join(', ')}`,
  );
  process.exit(2);
}
for (const [name, run] of Object.entries(REPORTS)) if (rest.length === 0 || rest.includes(name)) run(trials);
