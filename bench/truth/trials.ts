/**
 * `./surrik trials truth [N] [form …]`: the diagnosis on rigs that are not its own model's. N rigs of each
 * form: half with one fault of its list, a tenth outside it, a tenth with two, three tenths sound.
 */
import { spawn } from 'node:child_process';
import { availableParallelism } from 'node:os';
import { compileRig } from '../../src/core/compile/compile';
import { examine, type Outcome } from './examine';
import { FORMS } from './forms';
import { kindsOf, type Group } from './hidden';
import { TRUTH_RIGS } from './rigs';

export interface Wanted {
  form: string;
  group: Group;
  kind: string;
  seed: number;
}

/** What to examine: kinds in turn, so that every kind comes up about as often. */
export function plan(form: string, count: number, first = 1000): Wanted[] {
  const shares: readonly [Group, number][] = [
    ['single', 0.5],
    ['outside', 0.1],
    ['pair', 0.1],
    ['sound', 0.3],
  ];
  return shares.flatMap(([group, share]) => {
    const kinds = kindsOf(group);
    return Array.from({ length: Math.max(1, Math.round(count * share)) }, (_, n): Wanted => ({
      form,
      group,
      kind: kinds[n % kinds.length]!,
      seed: first + 17 * n + group.length * 100_000,
    }));
  });
}

const SHARDS = Math.max(1, Math.min(8, availableParallelism()));

/** 95 % interval of a share, by Wilson. */
function interval(k: number, n: number): [number, number] {
  if (n === 0) return [0, 1];
  const z = 1.96;
  const p = k / n;
  const middle = (p + (z * z) / (2 * n)) / (1 + (z * z) / n);
  const half = (z * Math.sqrt((p * (1 - p)) / n + (z * z) / (4 * n * n))) / (1 + (z * z) / n);
  return [middle - half, middle + half];
}

const share = (k: number, n: number): string => {
  const [lo, hi] = interval(k, n).map((x) => (100 * x).toFixed(0));
  return n === 0 ? '–' : `${((100 * k) / n).toFixed(1)} % (${k} of ${n}, ${lo}–${hi})`;
};
const mean = (list: readonly number[]): number => list.reduce((s, x) => s + x, 0) / Math.max(1, list.length);
const p95 = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length * 0.95)] ?? 0;

/** What came of a form: by group and kind, claimed against observed, parts sold for nothing, minutes. */
export function tell(form: string, all: readonly Outcome[], print: (line: string) => void): void {
  print(`\n${form}: ${all.length} rigs`);
  for (const group of ['single', 'outside', 'pair', 'sound'] as const) {
    const list = all.filter((o) => o.group === group);
    const stopped = list.filter((o) => o.stopped);
    const right = stopped.filter((o) => o.right).length;
    const sold = list.filter((o) => o.sold).length;
    print(
      `  ${group}: stop ${share(stopped.length, list.length)}; right at the stop ${share(right, stopped.length)}; ` +
        `claimed ${(100 * mean(stopped.map((o) => o.claimed))).toFixed(1)} %` +
        (group === 'sound' ? `; sold for nothing ${share(sold, list.length)}` : '') +
        (group === 'pair' ? `; a half named ${share(list.filter((o) => o.half).length, list.length)}` : '') +
        `; ${mean(list.map((o) => o.minutes)).toFixed(1)} min at hand, ${mean(list.map((o) => o.waiting)).toFixed(1)} waiting, ` +
        `${mean(list.map((o) => o.tests)).toFixed(1)} tests`,
    );
    for (const kind of [...new Set(list.map((o) => o.kind))]) {
      const own = list.filter((o) => o.kind === kind);
      print(
        `    ${kind}: right ${own.filter((o) => o.stopped && o.right).length} of ` +
          `${own.filter((o) => o.stopped).length} stopped, of ${own.length}`,
      );
    }
  }
  const stopped = all.filter((o) => o.stopped);
  const observed = stopped.filter((o) => o.right).length;
  const brier = mean(stopped.map((o) => (o.claimed - Number(o.right)) ** 2));
  const log = mean(stopped.map((o) => -Math.log(Math.max(1e-3, o.right ? o.claimed : 1 - o.claimed))));
  print(
    `  all: claimed ${(100 * mean(stopped.map((o) => o.claimed))).toFixed(1)} %, observed ${share(observed, stopped.length)}; ` +
      `Brier ${brier.toFixed(3)}, log ${log.toFixed(3)}`,
  );
  for (let d = 0; d < 10; d++) {
    const own = stopped.filter((o) => Math.min(9, Math.floor(o.claimed * 10)) === d);
    if (own.length > 0)
      print(`    claimed ${d * 10}–${d * 10 + 10} %: right ${share(own.filter((o) => o.right).length, own.length)}`);
  }
  print(
    `  update p95 ${p95(all.flatMap((o) => o.updateMs)).toFixed(0)} ms, ranking p95 ${p95(all.flatMap((o) => o.rankMs)).toFixed(0)} ms ` +
      `(${SHARDS} at once)`,
  );
}

/** `trials truth [N] [form]`: shares the rigs among as many processes as there are processors. */
export async function truthTrials(args: readonly string[]): Promise<void> {
  const count = Number(args.find((a) => /^\d+$/.test(a)) ?? 200);
  const named = args.filter((a) => a in FORMS);
  const shard = args.find((a) => a.startsWith('shard='))?.slice(6);
  if (shard !== undefined) {
    const list = plan(named[0]!, count).filter((_, i) => i % SHARDS === Number(shard));
    for (const w of list) process.stdout.write(`${JSON.stringify(run(w, () => performance.now()))}\n`);
    return;
  }
  for (const form of named.length > 0 ? named : Object.keys(FORMS)) {
    const parts = await Promise.all(
      Array.from({ length: SHARDS }, async (_, k) => {
        const [node, script] = [process.execPath, process.argv[1]!];
        const child = spawn(node, [...process.execArgv, script, 'truth', String(count), form, `shard=${k}`], {
          stdio: ['ignore', 'pipe', 'inherit'],
        });
        let text = '';
        for await (const chunk of child.stdout) text += String(chunk);
        return text.split('\n').flatMap((line) => (line ? [JSON.parse(line) as Outcome] : []));
      }),
    );
    tell(form, parts.flat(), (line) => console.log(line));
  }
}

/** Examines one; rigs in turn until one can have such a thing. */
export function run(w: Wanted, clock: () => number): Outcome {
  const names = Object.keys(TRUTH_RIGS);
  for (let k = 0; k < names.length; k++) {
    const name = names[(w.seed + k) % names.length]!;
    const rig = TRUTH_RIGS[name]!();
    const hand = FORMS[w.form]!(rig, w.seed, w.group, w.kind);
    if (hand) return examine(name, compileRig(rig), hand, clock);
  }
  throw new Error(`no drawing can have: ${w.kind}`);
}
