/** `./surrik trials runs N`: random legal rigs and uses through time: what a run costs, which ran out of their budget. */
import { compileRig } from '../src/core/compile/compile';
import { NoOperatingPoint, simulate } from '../src/core/simulate/simulate';
import { randomRun } from '../tests/randomUse';
import { progress } from './progress';

/** CPU s no run may take. */
const REACH_SECONDS = 10;
/** Share of the runs that may run out of their budget. */
const REACH_SHARE = 0.001;

export function runTrial(count: number, firstSeed: number): void {
  const took: { seed: number; seconds: number }[] = [];
  const out: number[] = [];
  const stuck: number[] = [];
  const refused = new Map<string, number[]>();
  const broken: string[] = [];
  const from = performance.now();
  for (let seed = firstSeed; seed < firstSeed + count; seed++) {
    const { rig, use } = randomRun(seed);
    const before = process.cpuUsage();
    try {
      const { summary, events } = simulate(compileRig(rig), use, { series: false });
      const why = events.findLast((e) => e.kind === 'limit' && e.what.startsWith('The simulation ends here'))?.why;
      if (summary.ranOutAt !== undefined) (why?.includes('no operating point') ? stuck : out).push(seed);
    } catch (e) {
      if (!(e instanceof NoOperatingPoint))
        broken.push(`${seed}: ${e instanceof Error ? (e.stack ?? e.message) : String(e)}`);
      else {
        const says = e.message.replace(/[\d.]+ h/, '… h');
        refused.set(says, [...(refused.get(says) ?? []), seed]);
      }
    }
    const { user, system } = process.cpuUsage(before);
    took.push({ seed, seconds: (user + system) / 1e6 });
    progress('runs', seed - firstSeed + 1, count, from);
  }
  took.sort((a, b) => b.seconds - a.seconds);
  const at = (share: number) => took[Math.floor((1 - share) * (took.length - 1))]!.seconds;
  const mean = took.reduce((sum, r) => sum + r.seconds, 0) / took.length;
  console.log(`\n${count} random legal rigs and uses, seeds from ${firstSeed}, one run each:`);
  console.log(
    `  CPU mean ${(1000 * mean).toFixed(0)} ms, median ${(1000 * at(0.5)).toFixed(0)}, p95 ${(1000 * at(0.95)).toFixed(0)}, ` +
      `p99.9 ${at(0.999).toFixed(1)} s, longest ${took[0]!.seconds.toFixed(1)} s (seed ${took[0]!.seed}; reach ${REACH_SECONDS} s)`,
  );
  console.log(
    `  out of their budget ${out.length} (${((100 * out.length) / count).toFixed(2)} %, reach ${100 * REACH_SHARE} %)` +
      (out.length > 0 ? `: seeds ${out.join(', ')}` : ''),
  );
  if (stuck.length > 0)
    console.log(`  without an operating point some way in ${stuck.length}: seeds ${stuck.join(', ')}`);
  for (const [says, seeds] of refused)
    console.log(`  ${seeds.length} × refused: ${says} (seeds ${seeds.slice(0, 8).join(', ')})`);
  for (const b of broken.slice(0, 10)) console.log(`  broken, ${b}`);
}
