/**
 * Hidden-fault trials: a rig with a fault drawn from the priors, its numbers drawn wider than assumed, a
 * meter with blunders; the diagnosis asks, the simulated meter answers, until it says stop.
 */
import type { CompiledRig } from '../src/core/compile/compile';
import type { IntakeClue } from '../src/core/diagnose/intake';
import type { Observed } from '../src/core/diagnose/observations';
import { NOT_ON_LIST } from '../src/core/diagnose/catalogue/notOnList';
import { Belief, type Evidence } from '../src/core/diagnose/belief';
import { diagnose, type Diagnosis } from '../src/core/diagnose/diagnose';
import { HiddenRig } from '../src/core/diagnose/hiddenRig';
import { takesAgree } from '../src/core/probe/meter';
import { rigMeasurements } from '../src/core/probe/measurement';
import { testMinutes } from '../src/core/diagnose/nextTest';
import { seededRng } from '../src/core/units/rng';

export interface TrialOptions {
  trials: number;
  seed: number;
  widen: number;
  blunderShare: number;
  complaints?: readonly IntakeClue[];
  /** Asks no questions, measures only. */
  metersOnly?: boolean;
  /** The fault every rig hides; absent, drawn from the priors. */
  truth?: string;
  /** Each rig hides two faults of different owners; naming either counts as right. */
  pairs?: boolean;
  /** On how many of the rigs the fixed checklist is walked as well. */
  checklists?: number;
}

export interface TrialResult {
  trials: number;
  stopped: number;
  right: number;
  rightOfStopped: number;
  meanMinutes: number;
  meanTests: number;
  /** Of the tests, those that look, listen or try instead of measuring. */
  meanQuestions: number;
  /** Per tenth of claimed confidence: trials, right. */
  deciles: [number, number][];
  claimed: number;
  updateMs: number[];
  rankMs: number[];
  confusions: Map<string, number>;
  /** On the rigs the checklist was walked on too: minutes of ours, of all of it, of it with our stop rule. */
  checklist: { ours: number; whole: number; stopped: number };
}

const MOST_TESTS = 30;

export function runTrials(compiled: CompiledRig, options: TrialOptions, clock: () => number = () => 0): TrialResult {
  const belief = new Belief(compiled, options.complaints ?? ['coach-not-charging', 'boost-dead']);
  const rng = seededRng(options.seed);
  const result: TrialResult = {
    trials: options.trials,
    stopped: 0,
    right: 0,
    rightOfStopped: 0,
    meanMinutes: 0,
    meanTests: 0,
    meanQuestions: 0,
    deciles: Array.from({ length: 10 }, (): [number, number] => [0, 0]),
    claimed: 0,
    updateMs: [],
    rankMs: [],
    confusions: new Map(),
    checklist: { ours: 0, whole: 0, stopped: 0 },
  };
  for (let n = 0; n < options.trials; n++) {
    // What is not on the list is nothing this model could hide.
    const prior = belief.prior.map((p, i) => (belief.faults[i]!.id === NOT_ON_LIST.id ? 0 : p));
    let u = rng.uniform() * prior.reduce((sum, p) => sum + p, 0);
    let f = 0;
    while (f < prior.length - 1 && u > prior[f]!) u -= prior[f++]!;
    const fault = belief.faults.find((x) => x.id === options.truth) ?? belief.faults[f]!;
    const others = belief.faults.filter((x) => x.owner !== undefined && x.owner !== fault.owner && !x.members);
    const second =
      options.pairs && fault.owner !== undefined ? others[Math.floor(rng.uniform() * others.length)] : undefined;
    const hidden = new HiddenRig(
      compiled,
      second ? `${fault.id}+${second.id}` : fault.id,
      options.seed + 7919 * (n + 1),
      options,
    );
    const evidence: Evidence[] = [];
    const observed: Observed[] = [];
    const takes = new Map<string, number>();
    const open = new Set<string>();
    let state = 'rested';
    let minutes = 0;
    let answer: Diagnosis | undefined;
    for (let k = 0; k < MOST_TESTS; k++) {
      const t0 = clock();
      belief.setEvidence(evidence, observed);
      const t1 = clock();
      answer = diagnose(belief, {
        state,
        openPlaces: [...open],
        ...(options.metersOnly ? { unreachable: belief.questions.map((q) => q.id) } : {}),
      });
      result.updateMs.push(t1 - t0);
      result.rankMs.push(clock() - t1);
      const next = answer.next[0];
      if (answer.stop.reached || !next) break;
      minutes += next.minutes;
      state = next.state;
      open.add(next.place);
      const question = belief.questions.find((q) => q.id === next.test);
      if (question) {
        observed.push({ id: question.id, what: question.id, answer: hidden.answer(question) });
        result.meanQuestions += 1 / options.trials;
        continue;
      }
      const id = `${next.state}/${next.test}`;
      const take = takes.get(id) ?? 0;
      takes.set(id, take + 1);
      const { value, unit } = hidden.read(next.state, next.probe!, next.ref, take);
      const old = evidence.findIndex((e) => e.id === id);
      const confirmed = old >= 0 && takesAgree(unit, evidence[old]!.value, value);
      const reading: Evidence = {
        id,
        state: next.state,
        probe: next.probe!,
        ...(next.ref === undefined ? {} : { ref: next.ref }),
        value,
        ...(confirmed ? { confirmed: true } : {}),
      };
      if (old >= 0) evidence[old] = reading;
      else evidence.push(reading);
    }
    const top = answer!.classes[0]!;
    // Drawn from the priors, a pair must be named whole; of two faults put together at random either half counts.
    const right = second
      ? hidden.faults.some((x) => top.class.split(' + ').includes(x.class))
      : top.class === fault.class;
    if (right) result.right++;
    if (answer!.stop.reached) {
      result.stopped++;
      if (right) result.rightOfStopped++;
    }
    if (!right) {
      const key = `${fault.id} taken for ${top.class}`;
      result.confusions.set(key, (result.confusions.get(key) ?? 0) + 1);
    }
    const decile = result.deciles[Math.min(9, Math.floor(top.probability * 10))]!;
    decile[0]++;
    if (right) decile[1]++;
    result.claimed += top.probability / options.trials;
    result.meanMinutes += minutes / options.trials;
    result.meanTests += (takes.size + observed.length) / options.trials;
    if (n < (options.checklists ?? 0)) {
      const walked = checklist(compiled, belief, hidden);
      result.checklist.ours += minutes;
      result.checklist.whole += walked.whole;
      result.checklist.stopped += walked.stopped;
    }
  }
  return result;
}

/** Readings after which a checklist that has not stopped is taken to stop: to its favour. */
const CHECKLIST_MOST = 40;

/**
 * The checklist, fixed: states rested, idle, boost, shore in that order; probes nose to tail. Minutes for
 * all of it, and up to where the same stop rule as ours would end it.
 */
function checklist(compiled: CompiledRig, belief: Belief, hidden: HiddenRig): { whole: number; stopped: number } {
  const measurements = rigMeasurements(compiled.rig)
    .filter((m) => m.kind !== 'drop')
    .sort((a, b) => a.station - b.station);
  const open = new Set<string>();
  const evidence: Evidence[] = [];
  let whole = 0;
  let stopped: number | undefined;
  let now = 'rested';
  for (const state of ['rested', 'idle', 'boost-engine-off', 'shore']) {
    for (const m of measurements) {
      whole += testMinutes(m, state, { state: now, openPlaces: open, done: new Set() }, belief.assumptions);
      now = state;
      open.add(m.place);
      if (stopped !== undefined) continue;
      evidence.push({
        id: `${state}/${m.id}`,
        state,
        probe: m.red,
        ...(m.black === undefined ? {} : { ref: m.black }),
        value: hidden.read(state, m.red, m.black).value,
      });
      belief.setEvidence(evidence);
      if (evidence.length >= CHECKLIST_MOST || diagnose(belief, { state, openPlaces: [...open] }).stop.reached)
        stopped = whole;
    }
  }
  return { whole, stopped: stopped ?? whole };
}
