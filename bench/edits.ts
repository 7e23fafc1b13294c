/** Random legal edits of every rig the archetypes draw, every verb asked after each: what failed, and how often. */
import { seededRng } from '../src/core/units/rng';
import { exampleJob } from '../tests/answers';
import { EVERY_RIG } from '../tests/everyRig';
import { askEveryVerb, jobAbout } from '../tests/everyVerb';
import { randomEdit } from '../tests/randomEdits';
import { progress } from './progress';

/** Edits in a row on one rig before it is drawn anew; after how many of them the heavy verbs are asked too. */
const IN_A_ROW = 20;
const HEAVY_EVERY = 10;

export function editTrial(count: number, seed: number): void {
  const like = exampleJob('heron');
  const failures = new Map<string, { times: number; after: string }>();
  const rng = seededRng(seed);
  let rig = EVERY_RIG[0]![1];
  let done: string[] = [];
  let asked = 0;
  const from = performance.now();
  for (let n = 0; n < count; n++) {
    if (n % IN_A_ROW === 0) {
      const [name, drawn] = EVERY_RIG[Math.floor(rng.uniform() * EVERY_RIG.length)]!;
      rig = drawn;
      done = [name];
    }
    const edit = randomEdit(rig, rng);
    rig = edit.rig;
    done.push(edit.what);
    asked++;
    progress('edits', n, count, from);
    const heavy = n % HEAVY_EVERY === HEAVY_EVERY - 1;
    for (const { verb, says } of askEveryVerb(jobAbout(like, rig), rig, heavy, heavy)) {
      const key = `${verb}: ${says}`;
      const known = failures.get(key);
      failures.set(key, { times: (known?.times ?? 0) + 1, after: known?.after ?? done.join(', ') });
    }
  }
  console.log(
    `\n${asked} legal edits, seed ${seed}, every verb after each (the heavy ones after every ${HEAVY_EVERY}th):`,
  );
  if (failures.size === 0) console.log('  an answer or a refusal in words, every time');
  for (const [key, { times, after }] of [...failures].sort((a, b) => b[1].times - a[1].times).slice(0, 20))
    console.log(`  ${times} × ${key}\n      first after: ${after}`);
}
