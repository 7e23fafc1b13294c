/**
 * The answer a technician reads: suspects with what speaks for and against each, the next best test with
 * what each outcome would mean, whether to stop, and which reading to take again.
 */
import { measurementId, rigMeasurements, type Measurement } from '../probe/measurement';
import type { Belief } from './belief';
import { addedProbes, type AddedProbe } from './addedProbes';
import { NOTHING_WRONG } from './catalogue/nothingWrong';
import { changeOfMind, type ChangeOfMind } from './changeOfMind';
import { calibrationOf, claimed, type Calibration } from './calibration';
import { contradictions, type Contradiction } from './contradictions';
import { directTests } from './directTest';
import { rankTests, testMinutes, worthTesting, type Circumstances, type RankedTest } from './nextTest';
import type { ObservationKind } from './observations/observationKind';
import { seemsSound, sidesUnread, statesToSee, unproved, type Unproved } from './reproduce';

export type { ChangeOfMind } from './changeOfMind';
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
  /** The one test that would unseat the leading repair, and how it would have to come out. */
  changes?: ChangeOfMind;
  /** What was kept back of every share, and what that rests on. */
  calibration: Calibration;
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
  const contradiction = contradictions(belief);
  const round: Round = { belief, classes, left, measurements, now, ranked, useful, contradiction };
  const { stop, first, added = [] } = howItStands(round);
  const next = [...(first ? [first] : []), ...withAlternatives(useful, ranked).map((t) => nextTest(belief, t))];
  const calibration = calibrationOf(belief.compiled.rig);
  const changes = changeOfMind(belief, ranked);
  const telling = Object.fromEntries(ranked.flatMap((t) => (t.question ? [[t.question.id, t.bits] as const] : [])));
  return {
    suspects,
    next,
    stop,
    contradiction,
    added,
    telling,
    classes: classes.map((c) => ({ ...c, probability: claimed(c.class, c.probability, calibration) })),
    ...(changes ? { changes } : {}),
    calibration,
  };
}

/** What is known when it is decided how to go on. */
interface Round {
  belief: Belief;
  classes: Diagnosis['classes'];
  left: readonly Float64Array[];
  measurements: readonly Measurement[];
  now: Circumstances;
  ranked: readonly RankedTest[];
  useful: readonly RankedTest[];
  contradiction: readonly Contradiction[];
}

interface Standing {
  stop: Stop;
  /** What comes before the most telling test. */
  first?: NextTest;
  added?: AddedProbe[];
}

/** Whether it is over and, if not, what comes first: a master's order. */
function howItStands(round: Round): Standing {
  const { belief, classes, measurements, now, ranked, useful } = round;
  const { assumptions } = belief;
  const goOn = (why: string, first?: NextTest): Standing => ({
    stop: { reached: false, why },
    ...(first ? { first } : {}),
  });
  const odd = oddReading(belief, now.state, measurements, now);
  if (odd) return goOn('A reading just taken fits nothing here: take it again before going on.', odd);
  const top = classes[0]!;
  if (seemsSound(belief, classes)) {
    const [proof] = proofTests(belief, ranked);
    if (proof)
      return goOn(
        'It looks sound: what is left is to see that it does what the owner misses.',
        nextTest(belief, proof),
      );
    const why = 'It does what the owner misses, and no fault stands out: charge, load-test, and explain the use.';
    return { stop: { reached: true, class: top.class, why } };
  }
  // What is as good as certain wants its own direct test, not one more that tells a little.
  if (top.probability < assumptions.directAt && worthTesting(useful, assumptions))
    return goOn('A test still pays: it is likelier to save a wrong call than it costs.');
  return ofVerdict(round, goOn);
}

/** The same once no test pays any more: what a verdict still wants before it is one. */
function ofVerdict(round: Round, goOn: (why: string, first?: NextTest) => Standing): Standing {
  const { belief, classes, left, measurements, now, ranked, contradiction } = round;
  const top = classes[0]!;
  const again = takeAgain(belief, left, top.class, contradiction, measurements, now);
  if (again) return goOn('The verdict depends on one reading: take that one again before acting on it.', again);
  const [unseen] = unseenTests(belief, ranked);
  if (unseen)
    return goOn('What the owner tells has not been seen yet: measure where it shows.', nextTest(belief, unseen));
  if (top.probability >= belief.assumptions.confirmAt) {
    const [direct] = directTestsOf(belief, top.class, measurements, now);
    if (direct)
      return goOn(
        'Its own direct test is still to be done: nothing is taken apart before that.',
        nextTest(belief, direct),
      );
    if (top.class === NOTHING_WRONG.id) return notYetSound(round, goOn);
    const [side] = cheapest(sidesUnread(belief, likeliestOf(belief, top.class)), ranked);
    if (side)
      return goOn(
        'One bad joint may hide another: read the other side of the circuit before it is called the whole of it.',
        nextTest(belief, side),
      );
    const why = 'No further test is worth its minutes, and no single reading carries the verdict.';
    return { stop: { reached: true, class: top.class, why } };
  }
  const added = addedProbes(belief);
  const why =
    added.length > 0
      ? 'No probe of this rig tells the leading suspects apart: one more would.'
      : 'No probe of this rig tells the leading suspects apart: look, swap, or put the likelier one right and measure again.';
  return { stop: { reached: false, class: top.class, why }, added };
}

/** A sound rig ends by its proof alone: likely as it may be, what it does not do, or a reading against it, keeps it open. */
function notYetSound({ belief, ranked }: Round, goOn: (why: string, first?: NextTest) => Standing): Standing {
  const [proof] = proofTests(belief, ranked);
  if (proof)
    return goOn('It looks sound: what is left is to see that it does what the owner misses.', nextTest(belief, proof));
  return goOn(
    'It looks sound, but it was not seen to do what the owner misses, or a reading speaks against it: look there.',
  );
}

/** Share of being a slip from which a reading is taken again at once: two that contradict each other share the blame. */
const ODD = 0.35;

/** A reading of the present state that may well be a slip, and was taken once: cheapest to take again at once. */
function oddReading(
  belief: Belief,
  state: string,
  measurements: readonly Measurement[],
  now: Circumstances,
): NextTest | undefined {
  const odd = belief.evidence.findIndex((e, r) => e.state === state && !e.confirmed && belief.blunder[r]! > ODD);
  return odd < 0 ? undefined : retake(belief, odd, measurements, now);
}

/** The reading to take again before a verdict: the one it hangs on, or one that does not fit and was read only once. */
function takeAgain(
  belief: Belief,
  left: readonly Float64Array[],
  top: string,
  contradiction: readonly Contradiction[],
  measurements: readonly Measurement[],
  now: Circumstances,
): NextTest | undefined {
  const weakest = weakestLink(belief, left, top);
  if (weakest !== undefined) return retake(belief, weakest, measurements, now);
  const flagged = belief.evidence.findIndex((e) => !e.confirmed && contradiction.some((c) => c.reading === e.id));
  return flagged < 0 ? undefined : retake(belief, flagged, measurements, now);
}

/** The most telling test in a state that the complaint is about and nobody has measured in. */
function unseenTests(belief: Belief, ranked: readonly RankedTest[]): RankedTest[] {
  const states = new Set(statesToSee(belief));
  return ranked
    .filter((t) => t.measurement && states.has(t.state))
    .sort((x, y) => y.bits - x.bits)
    .slice(0, 1);
}

/** The cheapest test that still belongs to the proof of a sound rig. */
const proofTests = (belief: Belief, ranked: readonly RankedTest[]): RankedTest[] => cheapest(unproved(belief), ranked);

/** The cheapest of the tests left that does one of these. */
function cheapest(wanted: readonly Unproved[], ranked: readonly RankedTest[]): RankedTest[] {
  const fits = wanted.flatMap(({ state, points, questions, test }) =>
    ranked.filter((t) => {
      if (t.question) return questions.includes(t.question.id);
      const { id, red, black = '' } = t.measurement;
      return t.state === state && (id === test || points.includes(red) || points.includes(black));
    }),
  );
  return fits.sort((x, y) => x.minutes - y.minutes || y.bits - x.bits).slice(0, 1);
}

/** The likeliest fault of a class, by id. */
function likeliestOf(belief: Belief, top: string): string {
  let best = -1;
  belief.faults.forEach((f, i) => {
    if (f.class === top && (best < 0 || belief.probability[i]! > belief.probability[best]!)) best = i;
  });
  return belief.faults[best]!.id;
}

/** What is left of the direct tests of the likeliest fault of a class. */
function directTestsOf(belief: Belief, top: string, measurements: readonly Measurement[], now: Circumstances) {
  const fault = belief.faults.find((f) => f.id === likeliestOf(belief, top))!;
  return directTests(belief, fault, measurements, now).left.slice(0, 1);
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
  const calibration = calibrationOf(belief.compiled.rig);
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
      probability: claimed(fault.id, belief.probability[f]!, calibration),
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
