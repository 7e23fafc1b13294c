/** A test as a technician reads it: where, what it costs, and what each outcome would leave. */
import type { Measurement } from '../probe/measurement';
import type { Belief } from './belief';
import type { RankedTest } from './nextTest';
import type { ObservationKind } from './observations/observationKind';

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

/** Effective number of things still open: two to the entropy of the classes. */
function openClasses(probabilities: readonly number[]): number {
  return probabilities.reduce((s, p) => s - (p > 0 ? p * Math.log2(p) : 0), 0);
}

/** An answer in its question's own words. */
export const answerWords = (question: ObservationKind, answer: string): string =>
  question.answers.find((a) => a.id === answer)?.label ?? answer;

/** A ranked test in words. */
export function nextTest(belief: Belief, t: RankedTest): NextTest {
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
