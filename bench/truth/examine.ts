/**
 * The closed loop: the diagnosis asks, a hidden rig of another truth answers, until it says stop. Nothing is known to
 * the diagnosis but the drawing and what the owner says.
 */
import type { CompiledRig } from '../../src/core/compile/compile';
import { Belief, type Evidence } from '../../src/core/diagnose/belief';
import { diagnose, type Diagnosis, type NextTest } from '../../src/core/diagnose/diagnose';
import type { IntakeClue } from '../../src/core/diagnose/intake';
import type { Observed } from '../../src/core/diagnose/observations';
import { grade, type GradeId } from '../../src/core/diagnose/observations/grades';
import { takesAgree } from '../../src/core/probe/meter';
import type { Group } from './hidden';
import type { Technician } from './technician';

export interface Outcome {
  rig: string;
  group: Group;
  kind: string;
  stopped: boolean;
  right: boolean;
  /** Stopped on a repair of something that was fine, on a sound rig. */
  sold: boolean;
  /** Either half of a pair was named. */
  half: boolean;
  verdict: string;
  claimed: number;
  /** What it said of going on or stopping, at the end. */
  why: string;
  minutes: number;
  /** Waiting for rest or a charger to work, minutes. */
  waiting: number;
  tests: number;
  questions: number;
  updateMs: number[];
  rankMs: number[];
}

const MOST_TESTS = 25;
/** What the product calls a rig with nothing wrong, and one that nothing it knows explains. */
const SOUND = 'nothing-wrong';
const UNKNOWN = 'not-on-list';

export function examine(rig: string, compiled: CompiledRig, hand: Technician, clock: () => number): Outcome {
  const { hidden } = hand;
  const belief = new Belief(compiled, hidden.complaints as readonly IntakeClue[]);
  const evidence: Evidence[] = [];
  const observed: Observed[] = [];
  const open = new Set<string>();
  const updateMs: number[] = [];
  const rankMs: number[] = [];
  let state = 'rested';
  let minutes = 0;
  let waiting = 0;
  let tests = 0;
  let answer!: Diagnosis;
  for (let k = 0; k <= MOST_TESTS; k++) {
    const t0 = clock();
    belief.setEvidence(evidence, observed);
    const t1 = clock();
    answer = diagnose(belief, { state, openPlaces: [...open] });
    updateMs.push(t1 - t0);
    rankMs.push(clock() - t1);
    const next = answer.next[0];
    if (answer.stop.reached || !next || k === MOST_TESTS) break;
    tests++;
    minutes += next.minutes;
    if (next.state !== state) waiting += { rested: 3, shore: 9, generator: 9, uncoupled: 5 }[next.state] ?? 0;
    if (next.state !== state || next.probe !== undefined) hand.enter(next.state);
    state = next.state;
    open.add(next.place);
    const question = belief.questions.find((q) => q.id === next.test);
    if (question) observed.push(answered(question, hand, compiled));
    else measure(next, hand, evidence);
  }
  const verdict = answer.stop.class ?? answer.classes[0]!.class;
  const claimed = answer.classes.find((c) => c.class === verdict)?.probability ?? 0;
  const classes = (ids: readonly string[]) => ids.map((id) => belief.faults.find((f) => f.id === id)?.class ?? id);
  const parts = verdict.split(' + ');
  const named = hidden.right.map((ids) => classes(ids).some((c) => parts.includes(c)));
  const right = {
    single: named[0]! && parts.length === 1,
    pair: named.every(Boolean),
    outside: named[0]! || verdict === UNKNOWN,
    sound: named[0]! || verdict === SOUND,
  }[hidden.group];
  const stopped = answer.stop.reached;
  return {
    rig,
    group: hidden.group,
    kind: hidden.kind,
    stopped,
    right,
    sold: stopped && hidden.group === 'sound' && !right && verdict !== UNKNOWN,
    half: named.some(Boolean),
    verdict,
    claimed,
    why: answer.stop.why,
    minutes,
    waiting,
    tests,
    questions: observed.length,
    updateMs,
    rankMs,
  };

  function answered(question: (typeof belief.questions)[number], by: Technician, of: CompiledRig): Observed {
    const found = by.answer(question.id);
    const nominal = of.rig.vehicles[0]!.nominalVolts;
    const said = typeof found === 'string' ? found : grade(question.grade as GradeId, found, nominal).answer;
    return { id: question.id, what: question.id, answer: said };
  }
}

/** One reading; a second take of the same stands for both where they agree. */
function measure(next: NextTest, hand: Technician, evidence: Evidence[]): void {
  const id = `${next.state}/${next.test}`;
  const value = hand.read(next.probe!, next.ref);
  const unit = next.probe!.endsWith('.clamp') ? 'A' : 'V';
  const old = evidence.findIndex((e) => e.id === id);
  const confirmed = old >= 0 && takesAgree(unit, evidence[old]!.value, value);
  const reading: Evidence = {
    id,
    state: next.state,
    probe: next.probe!,
    ...(next.ref === undefined ? {} : { ref: next.ref }),
    value,
    secondsInState: hand.seconds,
    ...(confirmed ? { confirmed: true } : {}),
  };
  if (old >= 0) evidence[old] = reading;
  else evidence.push(reading);
}
