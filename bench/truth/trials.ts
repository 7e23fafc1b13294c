/**
 * `./surrik trials truth [N] [form] [shard/of]`: the diagnosis on rigs that are not its own model's. N rigs of each
 * form: half with one fault of its list, a tenth outside it, a tenth with two, three tenths sound.
 */
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
