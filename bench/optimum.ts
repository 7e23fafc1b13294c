/**
 * The engine's choice of tests against the best there is: reduced cases (a few faults, a few tests, outcomes
 * in a few bins) small enough to try every order of tests to the end. Costs are expected minutes plus the
 * price of a wrong call; both sides count access, change of state and the test alike.
 */
import type { CompiledRig } from '../src/core/compile/compile';
import { Belief } from '../src/core/diagnose/belief';
import { Outcomes, testMinutes, worthTesting } from '../src/core/diagnose/nextTest';
import { rigMeasurements } from '../src/core/probe/measurement';
import { seededRng } from '../src/core/units/rng';

interface CaseTest {
  place: string;
  state: string;
  minutes: number;
  /** P(outcome | fault). */
  table: number[][];
}

export interface Case {
  prior: number[];
  classOf: number[];
  tests: CaseTest[];
}

const FAULTS = 6;
const TESTS = 6;
const BINS = 4;
/** Blunders: any outcome may be a slip. */
const SLIP = 0.03;
const CELLS = [-1.3998, -0.5319, 0, 0.5319, 1.3998];

/** Cases drawn from a rig's own faults, probes and questions. */
export function drawCases(compiled: CompiledRig, count: number, seed: number): { belief: Belief; cases: Case[] } {
  const belief = new Belief(compiled, ['coach-not-charging']);
  const measurements = rigMeasurements(compiled.rig);
  const rng = seededRng(seed);
  const pick = <T>(list: readonly T[], n: number): T[] => {
    const left = [...list];
    return Array.from(
      { length: Math.min(n, left.length) },
      () => left.splice(Math.floor(rng.uniform() * left.length), 1)[0]!,
    );
  };
  const cases: Case[] = [];
  while (cases.length < count) {
    const components = pick(
      belief.components.map((_, i) => i).filter((i) => belief.weight[i]! > 0.003),
      FAULTS,
    );
    const total = components.reduce((s, c) => s + belief.weight[c]!, 0);
    const classes = components.map((c) => belief.faults[belief.components[c]!.faultIndex]!.class);
    const names = [...new Set(classes)];
    if (names.length < 3) continue;
    const volts = pick(measurements, TESTS - 1).map((m): CaseTest => {
      const state = belief.workspace.states[Math.floor(rng.uniform() * belief.workspace.states.length)]!;
      const red = belief.rowOf(state.id, m.red)!;
      const black = m.black === undefined ? -1 : belief.rowOf(state.id, m.black)!;
      const draws = components.map((c) => {
        const { mean, sd } = belief.predictive(c, red, black);
        return CELLS.map((x) => mean + x * sd);
      });
      return { place: m.place, state: state.id, minutes: m.minutes, table: binned(draws) };
    });
    const asked = pick(belief.questions, 1).map((q): CaseTest => ({
      place: q.place,
      state: q.state ?? 'rested',
      minutes: q.minutes,
      table: components.map((c) => q.answers.map((a) => belief.answerChance(q, a.id, c))),
    }));
    cases.push({
      prior: components.map((c) => belief.weight[c]! / total),
      classOf: classes.map((c) => names.indexOf(c)),
      tests: [...volts, ...asked],
    });
  }
  return { belief, cases };
}

/** A few bins at equal shares of all the draws; with slips spread evenly. */
function binned(draws: readonly number[][]): number[][] {
  const all = draws.flat().sort((a, b) => a - b);
  const edges = Array.from({ length: BINS - 1 }, (_, k) => all[Math.floor((all.length * (k + 1)) / BINS)]!);
  return draws.map((list) => {
    const row = new Array<number>(BINS).fill(SLIP / BINS);
    for (const x of list) {
      const b = edges.filter((e) => x >= e).length;
      row[b] = row[b]! + (1 - SLIP) / list.length;
    }
    return row;
  });
}

interface Node {
  /** Unnormalised weight of each fault with the outcomes so far. */
  weights: number[];
  state: string;
  open: ReadonlySet<string>;
  left: readonly number[];
}

const wrong = (c: Case, weights: readonly number[], price: number): number => {
  const share = new Map<number, number>();
  weights.forEach((w, i) => share.set(c.classOf[i]!, (share.get(c.classOf[i]!) ?? 0) + w));
  const total = weights.reduce((s, w) => s + w, 0);
  return price * (1 - Math.max(...share.values()) / total);
};

function children(c: Case, node: Node, t: number): { p: number; node: Node }[] {
  const test = c.tests[t]!;
  const total = node.weights.reduce((s, w) => s + w, 0);
  const outcomes = test.table[0]!.length;
  return Array.from({ length: outcomes }, (_, o) => {
    const weights = node.weights.map((w, i) => w * test.table[i]![o]!);
    const p = weights.reduce((s, w) => s + w, 0) / total;
    return {
      p,
      node: {
        weights,
        state: test.state,
        open: new Set([...node.open, test.place]),
        left: node.left.filter((x) => x !== t),
      },
    };
  }).filter((x) => x.p > 1e-9);
}

/** Expected cost of the best policy, and of the engine's, on a case. */
export function solveCase(belief: Belief, c: Case): { best: number; ours: number } {
  const a = belief.assumptions;
  const minutes = (node: Node, t: number) =>
    testMinutes(c.tests[t]!, c.tests[t]!.state, { state: node.state, openPlaces: node.open, done: new Set() }, a);
  const memo = new Map<string, number>();
  const key = (n: Node) => `${n.left.join()}|${n.state}|${n.weights.map((w) => w.toPrecision(6)).join()}`;
  const best = (node: Node): number => {
    const k = key(node);
    const known = memo.get(k);
    if (known !== undefined) return known;
    let value = wrong(c, node.weights, a.wrongCallMinutes);
    for (const t of node.left) {
      const now = minutes(node, t);
      if (now >= value) continue;
      let cost = now;
      for (const { p, node: next } of children(c, node, t)) cost += p * best(next);
      value = Math.min(value, cost);
    }
    memo.set(k, value);
    return value;
  };
  const ours = (node: Node): number => {
    const total = node.weights.reduce((s, w) => s + w, 0);
    const classWeight = new Float64Array(Math.max(...c.classOf) + 1);
    node.weights.forEach((w, i) => (classWeight[c.classOf[i]!] = classWeight[c.classOf[i]!]! + w / total));
    const outcomes = new Outcomes(classWeight, a);
    const ranked = node.left.map((t) => {
      outcomes.clear();
      c.tests[t]!.table.forEach((row, i) =>
        row.forEach((p, o) => outcomes.add(o, c.classOf[i]!, (p * node.weights[i]!) / total)),
      );
      return { t, minutes: minutes(node, t), ...outcomes.worth(0) };
    });
    const useful = ranked.filter((r) => r.bits > 0.01).sort((x, y) => y.bits / y.minutes - x.bits / x.minutes);
    const top = useful[0];
    if (!top || !worthTesting(useful, a)) return wrong(c, node.weights, a.wrongCallMinutes);
    return top.minutes + children(c, node, top.t).reduce((s, { p, node: next }) => s + p * ours(next), 0);
  };
  const root: Node = { weights: c.prior, state: 'rested', open: new Set(), left: c.tests.map((_, i) => i) };
  return { best: best(root), ours: ours(root) };
}
