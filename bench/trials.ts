/**
 * `./surrik trials [N]`: how often the diagnosis is right on rigs that hide a fault, how honest its
 * confidence is, how many minutes it asks for. Long; figures belong in docs/benchmarks.md with the commit.
 */
import { compileRig } from '../src/core/compile/compile';
import { motorhome } from '../src/core/rig/archetypes/motorhome';
import { drawCases, solveCase } from './optimum';
import { runTrials, type TrialOptions, type TrialResult } from './trial';

const trials = Number(process.argv[2] ?? 1000);
if (!Number.isInteger(trials) || trials < 1) {
  console.error('trials: wanted a whole number, like ./surrik trials 200');
  process.exit(2);
}
const compiled = compileRig(motorhome('trials', 'Trial coach'));
const percent = (a: number, b: number) => `${((100 * a) / Math.max(1, b)).toFixed(1)} %`;
const p95 = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length * 0.95)]!;

function report(name: string, count: number, options: Omit<TrialOptions, 'trials'>): TrialResult {
  const r = runTrials(compiled, { trials: count, ...options }, () => performance.now());
  console.log(`\n${name}: ${count} rigs, seed ${options.seed}`);
  console.log(`  stop reached ${percent(r.stopped, r.trials)}; right at the stop ${percent(r.rightOfStopped, r.stopped)}; right in all ${percent(r.right, r.trials)}`);
  console.log(`  mean ${r.meanMinutes.toFixed(1)} min, ${r.meanTests.toFixed(1)} tests, ${r.meanQuestions.toFixed(1)} of them looked at or tried; update p95 ${p95(r.updateMs).toFixed(0)} ms, answer p95 ${p95(r.rankMs).toFixed(0)} ms`);
  console.log(`  claimed ${(100 * r.claimed).toFixed(1)} %, observed ${percent(r.right, r.trials)}`);
  r.deciles.forEach(([n, right], d) => n > 0 && console.log(`    claimed ${d * 10}–${d * 10 + 10} %: ${n} rigs, right ${percent(right, n)}`));
  if (r.checklist.whole > 0) {
    const { ours, whole, stopped } = r.checklist;
    console.log(`  on the first ${options.checklists} of them, minutes against the whole checklist ${(ours / whole).toFixed(2)}× (reach 0.35), against the checklist with the same stop rule ${(ours / stopped).toFixed(2)}× (reach 0.6)`);
  }
  for (const [what, count] of [...r.confusions].sort((a, b) => b[1] - a[1]).slice(0, 6)) console.log(`    ${count} × ${what}`);
  return r;
}

const part = Math.max(1, Math.round(trials / 4));
report('spreads 1.5 times wider than assumed, blunders 3 %', trials, { seed: 90_001, widen: 1.5, blunderShare: 0.03, checklists: Math.min(12, trials) });
report('spreads as assumed, blunders 3 %', part, { seed: 90_002, widen: 1, blunderShare: 0.03 });
report('two faults at once, either counts, spreads 1.5 times wider, blunders 3 %', part, { seed: 90_005, widen: 1.5, blunderShare: 0.03, pairs: true });
report('nothing wrong, spreads 1.5 times wider, blunders 3 %', part, { seed: 90_004, widen: 1.5, blunderShare: 0.03, truth: 'nothing-wrong' });
report('no complaint stated, spreads 1.5 times wider, blunders 3 %', part, { seed: 90_003, widen: 1.5, blunderShare: 0.03, complaints: [] });

const cases = Math.min(120, Math.max(10, Math.round(trials / 5)));
const { belief, cases: drawn } = drawCases(compiled, cases, 90_006);
const solved = drawn.map((c) => solveCase(belief, c));
const ratios = solved.map((s) => s.ours / s.best).sort((a, b) => a - b);
const sum = (of: 'ours' | 'best') => solved.reduce((t, s) => t + s[of], 0);
console.log(`\nchoice of tests against the exhaustive optimum, ${cases} cases of 6 faults × 6 tests, minutes and wrong calls together: ${(sum('ours') / sum('best')).toFixed(3)}× in all (reach 1.10), median ${ratios[ratios.length >> 1]!.toFixed(3)}×, worst ${ratios.at(-1)!.toFixed(2)}×`);
