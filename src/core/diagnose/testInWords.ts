/** A test as a technician reads it: where, what it costs, and what each outcome would leave. */
import type { Measurement } from '../probe/measurement';
import type { Belief } from './belief';
import type { RankedTest } from './nextTest';
import type { ObservationKind } from './observations/observationKind';
import { leading, readingOutcomes } from './readingOutcomes';

export type TestOutcome = {
  /** The suspects that would make it come out so, and their share together. */
  names: string[];
  /** Those not named have more than a little of it together. */
  others?: true;
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
      return { ...leading(share, total), probability: total, answer: label };
    })
    .filter((o) => o.names.length > 0)
    .sort((x, y) => y.probability - x.probability);
}

/** Suspects below this share are left out of what an outcome would mean. */
const MIN_OUTCOME_SHARE = 0.02;

/** Outcomes told of a reading, at most. */
const TOLD = 3;

/** What the test may read, and which suspects each outcome would leave. */
function outcomes(belief: Belief, state: string, m: Measurement): TestOutcome[] {
  const red = belief.rowOf(state, m.red)!;
  const black = m.black === undefined ? -1 : belief.rowOf(state, m.black)!;
  const expected = belief.components.flatMap((c, i) => {
    const weight = belief.weight[i]!;
    if (weight < MIN_OUTCOME_SHARE / 2) return [];
    return [{ name: belief.faults[c.faultIndex]!.name, weight, ...belief.predictive(i, red, black) }];
  });
  return readingOutcomes(expected).slice(0, TOLD);
}
