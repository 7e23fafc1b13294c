/** A recorder's log of a demo rig, made by simulating its trip: noise of a small recorder, one gap, the starter's dip. */
import { compileRig } from '../../src/core/compile/compile';
import { currentRevision, type Job } from '../../src/core/job/job';
import { jobScenarios } from '../../src/core/jobAnswers/options';
import { simulate } from '../../src/core/simulate/simulate';
import { seededRng } from '../../src/core/units/rng';

const EVERY = 10;
const HOURS = 22;

/** The log's text. `from` is when it begins. */
export function demoLog(job: Job, from: Date, seed = 7): string {
  const { doc } = currentRevision(job);
  const scenario = jobScenarios(job)[0]!;
  const run = simulate(compileRig(doc), scenario, { series: true });
  const of = (part: string, unit: string) => run.series.find((s) => s.part === part && s.unit === unit)?.values;
  const link = run.series.find(
    (s) => s.unit === 'A' && doc.parts.some((p) => p.id === s.part && p.kind === 'link-solenoid'),
  )?.values;
  const columns: [name: string, values: Float64Array | undefined, noise: number, digits: number][] = [
    ['Start battery (V)', of('chassis-bank', 'V'), 0.012, 2],
    ['Coach battery (V)', of('coach-bank', 'V'), 0.012, 2],
    ['Isolator current (A)', link, 0.3, 1],
    ['Coach battery current (A)', of('coach-bank', 'A'), 0.3, 1],
  ];
  const used = columns.filter((c) => c[1] !== undefined);
  const rng = seededRng(seed);
  const starts = run.legs.filter((l) => l.kind === 'drive').map((l) => l.from);
  const rows = [['Time', ...used.map((c) => c[0])].join(',')];
  let k = 0;
  for (let t = 0; t <= HOURS * 3600; t += EVERY) {
    while (k + 2 < run.t.length && run.t[k + 1]! <= t) k++;
    // A quarter of an hour the recorder was without power.
    if (t > 4 * 3600 && t < 4.25 * 3600) continue;
    const share = Math.min(1, Math.max(0, (t - run.t[k]!) / (run.t[k + 1]! - run.t[k]! || 1)));
    const stamp = new Date(from.getTime() + t * 1000).toISOString().slice(0, 19).replace('T', ' ');
    const cranks = starts.some((s) => t < s && s - t <= EVERY);
    rows.push(
      [
        stamp,
        ...used.map(([name, v, noise, digits]) =>
          (
            (cranks && name.startsWith('Start') ? 10.6 : v![k]! + share * (v![k + 1]! - v![k]!)) +
            noise * rng.normal()
          ).toFixed(digits),
        ),
      ].join(','),
    );
  }
  return `${rows.join('\r\n')}\r\n`;
}
