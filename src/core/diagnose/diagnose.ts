/**
 * The answer a technician reads: suspects with what speaks for and against each, the next best test with
 * what each outcome would mean, whether to stop, and which reading to take again.
 */
import { measurementId, rigMeasurements, type Measurement } from '../probe/measurement';
import type { Belief } from './belief';
import { addedProbes, type AddedProbe } from './addedProbes';
import { contradictions, type Contradiction } from './contradictions';
import { rankTests, testMinutes, worthTesting, type Circumstances, type RankedTest } from './nextTest';
import type { ObservationKind } from './observations/observationKind';

export type { Contradiction } from './contradictions';

export interface Clue {
  /** Id of the reading or observation. */
  reading: string;
  /** The operating state of a reading; absent on an observation. */
  state?: string;
  /** Probe label, or the question that was answered. */
  label: string;
  /** Of an observation: what was answered, in words. */
  answer?: string;
  /** Natural-log odds it adds to the suspect: positive points at it. */
  logOdds: number;
  strength: 'strong' | 'some' | 'weak';
}

export interface Suspect {
  fault: string;
  name: string;
  class: string;
  repair: string;
  /** How it shows, in words. */
  shows: string;
  /** How it is proved before anything is taken apart. */
  confirm?: string;
  /** Minutes of work and dollars for parts to put it right, from and to. Assumed. */
  minutes?: readonly [number, number];
  parts?: readonly [number, number];
  caution?: string;
  part?: string;
  probability: number;
  prior: number;
  for: Clue[];
  against: Clue[];
}

export type TestOutcome = {
  /** The suspects that would make it come out so, and their share together. */
  names: string[];
  probability: number;
} & (
  | { lo: number; hi: number; answer?: never }
  /** Of a question: the answer in words. */
  | { answer: string; lo?: never; hi?: never }
);

export interface NextTest {
  /** Measurement or question, by id. */
  test: string;
  kind: Measurement['kind'] | ObservationKind['group'];
  name: string;
  /** Of the probes; absent on a question. */
  label?: string;
  place: string;
  state: string;
  /** Absent on a question. */
  probe?: string;
  ref?: string;
  caution?: string;
  minutes: number;
  changeMinutes: number;
  bits: number;
  /** About how many suspects are left after it, of how many now. */
  leaves: { of: number; about: number };
  /** What it may read and which suspects that would leave, likeliest first. */
  outcomes: TestOutcome[];
  /** Set when it is a reading already taken, asked for again. */
  retake?: boolean;
}

export interface Stop {
  reached: boolean;
  class?: string;
  /** In words: why stop, or why not. */
  why: string;
}

export interface Diagnosis {
  suspects: Suspect[];
  next: NextTest[];
  stop: Stop;
  contradiction: Contradiction[];
  /** Where no probe tells the leaders apart: points to touch that would. */
  added: AddedProbe[];
  /** What each unanswered question is expected to tell now, bits, by its id. */
  telling: Record<string, number>;
  /** Repair classes with their probability, likeliest first. */
  classes: { class: string; repair: string; probability: number }[];
}

export interface DiagnoseOptions {
  state: string;
  openPlaces?: readonly string[];
  /** Where the black lead is, so that the next test is asked for from there. */
  blackLead?: string;
  /** Measurements that cannot be reached, as `state/measurementId`. */
  unreachable?: readonly string[];
}

export function diagnose(belief: Belief, options: DiagnoseOptions): Diagnosis {
  const measurements = rigMeasurements(belief.compiled.rig, options.blackLead);
  const left = belief.leaveOneOut();
  const suspects = suspectList(belief, left);
  const classes = classList(belief);
  const top = classes[0]!;
  const now: Circumstances = {
    state: options.state,
    openPlaces: new Set(options.openPlaces ?? []),
    done: new Set([
      ...(options.unreachable ?? []),
      ...belief.evidence.map((e) => `${e.state}/${measurementId(e.probe, e.ref)}`),
      ...belief.observed.map((o) => o.what),
    ]),
  };
  const ranked = rankTests(belief, measurements, now);
  const useful = ranked.filter((t) => t.bits > 0.01);
  const paying = worthTesting(useful, belief.assumptions);
  const contradiction = contradictions(belief);
  const weakest = paying ? undefined : weakestLink(belief, left, top.class);
  let next = withAlternatives(useful, ranked).map((t) => nextTest(belief, t));
  let stop: Stop;
  let added: AddedProbe[] = [];
  if (paying) {
    stop = { reached: false, why: 'A test still pays: it is likelier to save a wrong call than it costs.' };
  } else if (weakest !== undefined) {
    const again = retake(belief, weakest, measurements, now);
    if (again) next = [again, ...next];
    stop = { reached: false, why: 'The verdict depends on one reading: take that one again before acting on it.' };
  } else if (top.probability >= belief.assumptions.confirmAt) {
    stop = {
      reached: true,
      class: top.class,
      why: 'No further test is worth its minutes, and no single reading carries the verdict.',
    };
  } else {
    added = addedProbes(belief);
    stop = {
      reached: false,
      class: top.class,
      why:
        added.length > 0
          ? 'No probe of this rig tells the leading suspects apart: one more would.'
          : 'No probe of this rig tells the leading suspects apart: look, swap, or put the likelier one right and measure again.',
    };
  }
  const telling = Object.fromEntries(ranked.flatMap((t) => (t.question ? [[t.question.id, t.bits] as const] : [])));
  return { suspects, next, stop, contradiction, added, telling, classes };
}

/**
 * The best test and two others. The others are in another place or state where such a test tells anything:
 * three drops on one stud are no choice.
 */
function withAlternatives(useful: readonly RankedTest[], ranked: readonly RankedTest[]): RankedTest[] {
  const [best, ...rest] = useful.length > 0 ? useful : ranked.filter((t) => t.bits > 1e-4);
  if (!best) return [];
  const where = (t: RankedTest) => `${(t.measurement ?? t.question).place}/${t.state}`;
  const chosen = [best];
  for (const t of rest) if (chosen.length < 3 && chosen.every((c) => where(c) !== where(t))) chosen.push(t);
  for (const t of rest) if (chosen.length < 3 && !chosen.includes(t)) chosen.push(t);
  return chosen;
}

function classList(belief: Belief): Diagnosis['classes'] {
  const repair = new Map(belief.faults.map((f) => [f.class, f.repair]));
  return [...belief.classes()]
    .map(([id, probability]) => ({ class: id, repair: repair.get(id)!, probability }))
    .sort((a, b) => b.probability - a.probability);
}

const logit = (p: number) => Math.log(Math.max(p, 1e-12) / Math.max(1 - p, 1e-12));

/** Every suspect, likeliest first, with what points at it and what clears it. `left`: what stays when each reading is left out. */
export function suspectList(belief: Belief, left: readonly Float64Array[] = belief.leaveOneOut()): Suspect[] {
  const labels = new Map(belief.compiled.rig.probes.map((p) => [p.key, p.label]));
  const questions = new Map(belief.questions.map((o) => [o.id, o]));
  const unseen = belief.withoutObservation();
  const list = belief.faults.map((fault, f): Suspect => {
    const speaks = (without: Float64Array) => {
      const logOdds = logit(belief.probability[f]!) - logit(without[f]!);
      const size = Math.abs(logOdds);
      return {
        logOdds,
        strength: size > 2.3 ? ('strong' as const) : size > 0.7 ? ('some' as const) : ('weak' as const),
      };
    };
    const read = belief.evidence.map((e, r): Clue => ({
      reading: e.id,
      state: e.state,
      label: [e.probe, ...(e.ref && labels.has(e.ref) ? [e.ref] : [])].map((k) => labels.get(k) ?? k).join('–'),
      ...speaks(left[r]!),
    }));
    const seen = belief.observed.map((o, r): Clue => ({
      reading: o.id,
      label: questions.get(o.what)!.ask,
      answer: answerWords(questions.get(o.what)!, o.answer),
      ...speaks(unseen[r]!),
    }));
    const clues = [...read, ...seen].filter((c) => Math.abs(c.logOdds) > 0.1);
    return {
      fault: fault.id,
      name: fault.name,
      class: fault.class,
      repair: fault.repair,
      shows: fault.shows,
      ...(fault.confirm === undefined ? {} : { confirm: fault.confirm }),
      ...(fault.minutes === undefined ? {} : { minutes: fault.minutes }),
      ...(fault.parts === undefined ? {} : { parts: fault.parts }),
      ...(fault.caution === undefined ? {} : { caution: fault.caution }),
      ...(fault.part === undefined ? {} : { part: fault.part }),
      probability: belief.probability[f]!,
      prior: belief.prior[f]!,
      for: clues.filter((c) => c.logOdds > 0).sort((a, b) => b.logOdds - a.logOdds),
      against: clues.filter((c) => c.logOdds < 0).sort((a, b) => a.logOdds - b.logOdds),
    };
  });
  return list.sort((a, b) => b.probability - a.probability);
}

/** Effective number of things still open: two to the entropy of the classes. */
function openClasses(probabilities: readonly number[]): number {
  return probabilities.reduce((s, p) => s - (p > 0 ? p * Math.log2(p) : 0), 0);
}

const answerWords = (question: ObservationKind, answer: string): string =>
  question.answers.find((a) => a.id === answer)?.label ?? answer;

function nextTest(belief: Belief, t: RankedTest): NextTest {
  const entropy = openClasses([...belief.classes().values()]);
  const effort = {
    state: t.state,
    minutes: t.minutes,
    changeMinutes: t.changeMinutes,
    bits: t.bits,
    leaves: { of: Math.round(Math.pow(2, entropy)), about: Math.max(1, Math.round(Math.pow(2, entropy - t.bits))) },
  };
  if (t.question) {
    const { id, group, ask, place, caution } = t.question;
    return {
      test: id,
      kind: group,
      name: ask,
      place,
      ...(caution === undefined ? {} : { caution }),
      ...effort,
      outcomes: answerOutcomes(belief, t.question),
    };
  }
  const { measurement: m } = t;
  return {
    test: m.id,
    kind: m.kind,
    name: m.name,
    label: m.label,
    place: m.place,
    probe: m.red,
    ...(m.black === undefined ? {} : { ref: m.black }),
    ...effort,
    outcomes: outcomes(belief, t.state, m),
  };
}

/** What each answer would leave: the suspects that keep a fair share after it. */
function answerOutcomes(belief: Belief, question: ObservationKind): TestOutcome[] {
  return question.answers
    .map(({ id, label }): TestOutcome => {
      const share = new Map<string, number>();
      let total = 0;
      belief.weight.forEach((w, i) => {
        const p = w * belief.answerChance(question, id, i);
        const { name } = belief.faults[belief.components[i]!.faultIndex]!;
        share.set(name, (share.get(name) ?? 0) + p);
        total += p;
      });
      const leaders = [...share].filter(([, p]) => p > 0.15 * total).sort((x, y) => y[1] - x[1]);
      return { names: leaders.map(([name]) => name), probability: total, answer: label };
    })
    .filter((o) => o.names.length > 0)
    .sort((x, y) => y.probability - x.probability);
}

/** Suspects below this share are left out of what an outcome would mean. */
const MIN_OUTCOME_SHARE = 0.02;

/**
 * What the test would read under the leading suspects, ±2 standard deviations; suspects whose ranges overlap
 * are one outcome, since the test does not part them.
 */
function outcomes(belief: Belief, state: string, m: Measurement): TestOutcome[] {
  const red = belief.rowOf(state, m.red)!;
  const black = m.black === undefined ? -1 : belief.rowOf(state, m.black)!;
  const ranges: { names: string[]; probability: number; lo: number; hi: number }[] = [];
  belief.components.forEach((c, i) => {
    const weight = belief.weight[i]!;
    if (weight < MIN_OUTCOME_SHARE / 2) return;
    const { mean, sd } = belief.predictive(i, red, black);
    ranges.push({
      names: [belief.faults[c.faultIndex]!.name],
      probability: weight,
      lo: mean - 2 * sd,
      hi: mean + 2 * sd,
    });
  });
  ranges.sort((x, y) => x.lo - y.lo);
  const merged: (typeof ranges)[number][] = [];
  for (const range of ranges) {
    const last = merged[merged.length - 1];
    if (last && range.lo <= last.hi) {
      last.hi = Math.max(last.hi, range.hi);
      last.probability += range.probability;
      for (const name of range.names) if (!last.names.includes(name)) last.names.push(name);
    } else merged.push(range);
  }
  return merged
    .filter((o) => o.probability >= MIN_OUTCOME_SHARE)
    .sort((x, y) => y.probability - x.probability)
    .slice(0, 3);
}

/** The reading without which the leading class falls below confirmation, unless it was taken twice. */
function weakestLink(belief: Belief, left: readonly Float64Array[], topClass: string): number | undefined {
  let worst: number | undefined;
  let lowest = belief.assumptions.confirmAt;
  if ((belief.classes().get(topClass) ?? 0) < belief.assumptions.confirmAt) return undefined;
  left.forEach((p, r) => {
    const e = belief.evidence[r]!;
    if (e.confirmed) return;
    const share = belief.classes(p).get(topClass) ?? 0;
    if (share < lowest) {
      lowest = share;
      worst = r;
    }
  });
  return worst;
}

function retake(
  belief: Belief,
  reading: number,
  measurements: readonly Measurement[],
  now: Circumstances,
): NextTest | undefined {
  const e = belief.evidence[reading]!;
  const id = measurementId(e.probe, e.ref);
  const m = measurements.find((x) => x.id === id);
  if (!m) return undefined;
  const minutes = testMinutes(m, e.state, now, belief.assumptions);
  return {
    ...nextTest(belief, { measurement: m, state: e.state, minutes, changeMinutes: 0, bits: 0, saves: 0 }),
    retake: true,
  };
}
