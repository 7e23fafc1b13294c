/**
 * The direct test of a fault: what a master does before anything is taken apart. A verdict inside the model may still
 * be a verdict of the wrong model; a lead on the very piece is not.
 */
import { changeMinutes, operatingState } from '../operate/states';
import { measurementId, type Measurement } from '../probe/measurement';
import type { Belief } from './belief';
import { NOTHING_WRONG } from './catalogue/nothingWrong';
import { membersOf, type Fault } from './faults';
import { pointsOf } from './ownerPoints';
import { testMinutes, type Circumstances, type RankedTest } from './nextTest';
import type { ObservationKind } from './observations/observationKind';

/** Standard deviations between what the fault and what a sound rig would read, for a reading to be proof. */
const TELLS = 2.5;
/** The same of amps, which nobody knows beforehand: that they flow at all is what tells. */
const AMPS_TELL = 1.5;

/** The same of volts a regulator holds: nobody knows them well, and each start adds its word. */
const START_TELLS = 1;

export interface DirectTests {
  /** All that is asked for has been done, or cannot be. */
  done: boolean;
  /** What is still to be done, cheapest first. */
  left: RankedTest[];
}

/** What is left of the direct tests of a suspect; of a pair, of both halves. */
export function directTests(
  belief: Belief,
  suspect: Fault,
  measurements: readonly Measurement[],
  now: Circumstances,
): DirectTests {
  const left = membersOf(suspect).flatMap((id) => {
    const fault = belief.faults.find((f) => f.id === id)!;
    return fault.owner === undefined ? [] : leftOf(belief, suspect, fault, measurements, now);
  });
  return { done: left.length === 0, left: left.sort((a, b) => a.minutes - b.minutes) };
}

/** What is left of the test of one half, where all of the suspect stands. */
function leftOf(
  belief: Belief,
  suspect: Fault,
  fault: Fault,
  measurements: readonly Measurement[],
  now: Circumstances,
): RankedTest[] {
  const questions = ownQuestions(belief, fault);
  const asked = belief.observed.some((o) => questions.some((q) => q.id === o.what));
  // Along a wire volts are read first: a look at its ends then tells a bad end from a wire too thin.
  const ends = fault.proof?.touch ? [] : endsOf(belief, fault);
  const along = ends.length > 0 ? otherEnd(belief, fault, ends, measurements, now) : [];
  if (along.length > 0) return along;
  if (fault.proof?.ask) {
    if (asked || questions.length === 0) return [];
    return questions.map((q) => asTest(belief, q, now)).slice(0, 1);
  }
  if (ends.length > 0) return [];
  const touch = fault.proof?.touch?.map((t) => `${fault.part}.${t}`) ?? [];
  if (touch.length === 0) return asked ? [] : atThePiece(belief, fault, measurements, now);
  const inForce = statesInForce(belief, suspect, fault);
  const counts = (state: string) => inForce.size === 0 || inForce.has(state);
  const touched = new Set(
    belief.evidence.flatMap((e, r) =>
      belief.blunder[r]! < 0.5 && counts(e.state) ? [e.probe, ...(e.ref === undefined ? [] : [e.ref])] : [],
    ),
  );
  const rows = touch.filter((t) => !touched.has(t) && belief.outputs.some((o) => o.key === t));
  const [missing] = rows;
  if (missing === undefined) return clampsOf(belief, fault, measurements, now);
  return best(
    belief,
    fault,
    measurements,
    now,
    (m, state) => counts(state) && (m.red === missing || m.black === missing),
    inForce.size === 0 ? 0 : -1,
  );
}

/** What is left at the very piece, where no points of it are named. */
function atThePiece(
  belief: Belief,
  fault: Fault,
  measurements: readonly Measurement[],
  now: Circumstances,
): RankedTest[] {
  const own = new Set([...pointsOf(belief, fault.owner), `${fault.owner}.clamp`]);
  const atIt = (m: { red: string; black?: string | undefined }) =>
    own.has(m.red) || (m.black !== undefined && own.has(m.black));
  if (fault.proof?.speeds) return clampsAtBothSpeeds(belief, fault, measurements, now);
  if (fault.proof?.starts !== undefined) return anotherStart(belief, fault, measurements, now, atIt);
  return readings(belief, fault).some((key) => own.has(key)) ? [] : best(belief, fault, measurements, now, atIt);
}

/** What a machine does of its own accord it does anew at each start: one that shows in one alone is no fault yet. */
function anotherStart(
  belief: Belief,
  fault: Fault,
  measurements: readonly Measurement[],
  now: Circumstances,
  atIt: (m: { red: string; black?: string | undefined }) => boolean,
): RankedTest[] {
  let start = 0;
  const seenIn = new Set<number>();
  belief.evidence.forEach((e, r) => {
    if (runs(e.state) && !runs(belief.evidence[r - 1]?.state)) start++;
    const tells = belief.blunder[r]! < 0.5 && separation(belief, fault, e.state, e.probe, e.ref) > START_TELLS;
    if (runs(e.state) && tells && atIt({ red: e.probe, black: e.ref })) seenIn.add(start);
  });
  if (seenIn.size >= fault.proof!.starts!) return [];
  // One who reads with the engine off has stopped it: the next reading is of another start.
  const stopped = seenIn.size === 0 || !runs(belief.evidence.at(-1)?.state);
  return stopped
    ? best(belief, fault, measurements, now, (m, state) => runs(state) && atIt(m), START_TELLS)
    : best(belief, fault, measurements, now, (m, state) => !runs(state) && atIt(m), -1);
}

const runs = (state: string | undefined): boolean =>
  state !== undefined && operatingState(state).inputs.engine !== 'off';

/** The amps in a wire at the part, where they are part of its proof and nobody has read them where they tell. */
function clampsOf(
  belief: Belief,
  fault: Fault,
  measurements: readonly Measurement[],
  now: Circumstances,
): RankedTest[] {
  const clamps = proofClamps(belief, fault);
  const tell = (state: string, red: string) => separation(belief, fault, state, red) > AMPS_TELL;
  const read = belief.evidence.some(
    (e, r) => belief.blunder[r]! < 0.5 && clamps.has(e.probe) && tell(e.state, e.probe),
  );
  return read ? [] : best(belief, fault, measurements, now, (m) => clamps.has(m.red), AMPS_TELL);
}

/** Clamps round the wires whose amps are part of a fault's proof. */
function proofClamps(belief: Belief, fault: Fault): Set<string> {
  const at = new Set(fault.proof?.clamp?.map((t) => `${fault.part}.${t}`));
  return new Set(
    belief.compiled.rig.conductors
      .filter((c) => [c.from, c.to].some((e) => at.has(`${e.part}.${e.terminal}`)))
      .map((c) => `${c.id}.clamp`),
  );
}

/** What has reached its limit gives more as it turns faster; what is held back gives the same: both are to be read. */
function clampsAtBothSpeeds(
  belief: Belief,
  fault: Fault,
  measurements: readonly Measurement[],
  now: Circumstances,
): RankedTest[] {
  const clamps = proofClamps(belief, fault);
  const read = (state: string) => belief.evidence.some((e) => e.state === state && clamps.has(e.probe));
  const missing = SPEEDS.filter((state) => !read(state));
  return best(belief, fault, measurements, now, (m, state) => missing.includes(state) && clamps.has(m.red), -1);
}
const SPEEDS = ['idle', 'fast-idle'];

/**
 * States in which a fault makes a difference where the rest of the suspect stands: a coil nothing feeds, whatever is
 * wrong with it, reads the same.
 */
function statesInForce(belief: Belief, suspect: Fault, fault: Fault): Set<string> {
  const rest = suspect.members?.find((id) => id !== fault.id) ?? NOTHING_WRONG.id;
  const [all, without] = [belief.heaviest(suspect.id), belief.heaviest(rest)];
  const own = belief.outputs.filter((o) => o.key.startsWith(`${fault.part}.`)).map((o) => o.key);
  const differs = (state: string) =>
    own.some((red, i) =>
      own.slice(i + 1).some((black) => {
        const [row, other] = [belief.rowOf(state, red)!, belief.rowOf(state, black)!];
        const bad = belief.predictive(all, row, other);
        const good = belief.prior0(without, row, other);
        return Math.abs(bad.mean - good.mean) > TELLS * Math.hypot(bad.sd, good.sd);
      }),
    );
  return new Set(belief.workspace.states.flatMap(({ id }) => (differs(id) ? [id] : [])));
}

/** What is lost along a wire is seen where both its ends are read in one state: what is left of that. */
function otherEnd(
  belief: Belief,
  fault: Fault,
  ends: readonly string[],
  measurements: readonly Measurement[],
  now: Circumstances,
): RankedTest[] {
  const [first, second] = ends;
  const tells = new Map(belief.workspace.states.map(({ id }) => [id, shows(belief, fault, id, first!, second!)]));
  const read = new Map<string, Set<string>>();
  belief.evidence.forEach((e, r) => {
    if (belief.blunder[r]! > 0.5 || !tells.get(e.state)) return;
    const here = read.get(e.state) ?? new Set();
    for (const key of [e.probe, e.ref ?? '']) if (ends.includes(key)) here.add(key);
    read.set(e.state, here);
  });
  if ([...read.values()].some((here) => here.size === ends.length)) return [];
  const half = [...read].filter(([, here]) => here.size === 1).map(([state]) => state);
  const wanted = (m: Measurement, state: string) => {
    const missing = ends.filter((e) => !read.get(state)?.has(e));
    return half.length === 0
      ? m.red === first && tells.get(state) === true
      : half.includes(state) && missing.some((e) => m.red === e || m.black === e);
  };
  return best(belief, fault, measurements, now, wanted, 0);
}

/** Both ends of a wire that is open or has gained ohms: one end alone does not tell it from what feeds it. */
function endsOf(belief: Belief, fault: Fault): string[] {
  const wire = belief.compiled.rig.conductors.find((c) => c.id === fault.owner);
  if (!wire || !fault.effects.some((e) => e.do === 'add-ohms' || e.do === 'open')) return [];
  const ends = [`${wire.from.part}.${wire.from.terminal}`, `${wire.to.part}.${wire.to.terminal}`];
  return ends.every((e) => belief.outputs.some((o) => o.key === e)) ? ends : [];
}

/** The questions that ask about the very piece and tell this fault; with `ask`, only those. */
function ownQuestions(belief: Belief, fault: Fault): ObservationKind[] {
  const { ask } = fault.proof ?? {};
  return belief.questions.filter((q) => {
    if (q.faults[fault.id] === undefined) return false;
    return ask ? ask.some((a) => q.id === a || q.id.startsWith(`${a}.`)) : q.group === 'try';
  });
}

/** Points that were read where this fault would show, and were no slip. */
function readings(belief: Belief, fault: Fault): string[] {
  return belief.evidence.flatMap((e, r) =>
    belief.blunder[r]! < 0.5 && separation(belief, fault, e.state, e.probe, e.ref) > TELLS
      ? [e.probe, ...(e.ref === undefined ? [] : [e.ref])]
      : [],
  );
}

/** Standard deviations between a fault's and a sound rig's reading. */
function separation(belief: Belief, fault: Fault, state: string, red: string, black?: string): number {
  const row = belief.rowOf(state, red);
  const other = black === undefined ? -1 : belief.rowOf(state, black);
  if (row === undefined || other === undefined) return 0;
  const bad = belief.predictive(belief.heaviest(fault.id), row, other);
  const sound = belief.prior0(belief.heaviest(NOTHING_WRONG.id), row, other);
  return Math.abs(bad.mean - sound.mean) / Math.hypot(bad.sd, sound.sd);
}

/** Whether volts along a wire would lie beyond a sound one's there; how many there are, nobody knows before. */
function shows(belief: Belief, fault: Fault, state: string, red: string, black: string): boolean {
  const [row, other] = [belief.rowOf(state, red), belief.rowOf(state, black)];
  if (row === undefined || other === undefined) return false;
  const bad = belief.predictive(belief.heaviest(fault.id), row, other);
  const sound = belief.prior0(belief.heaviest(NOTHING_WRONG.id), row, other);
  const lost = Math.abs(bad.mean);
  // Where nobody knows what flows, a sound wire's own drop is anything: then it is told by being many times that.
  return (
    Math.abs(bad.mean - sound.mean) > TELLS * sound.sd ||
    (lost > CLEAR_VOLTS && lost > TIMES_A_SOUND_WIRE * Math.abs(sound.mean))
  );
}

/** V along a wire, and times what a sound one would lose, that are a bad one whatever flows. From memory. */
const CLEAR_VOLTS = 0.15;
const TIMES_A_SOUND_WIRE = 2.5;

function best(
  belief: Belief,
  fault: Fault,
  measurements: readonly Measurement[],
  now: Circumstances,
  fits: (m: Measurement, state: string) => boolean,
  tells = TELLS,
): RankedTest[] {
  const list = belief.workspace.states.flatMap(({ id: state }) =>
    measurements
      .filter((m) => fits(m, state) && !now.done.has(`${state}/${measurementId(m.red, m.black)}`))
      .map((measurement) => ({
        measurement,
        state,
        far: separation(belief, fault, state, measurement.red, measurement.black),
        minutes: testMinutes(measurement, state, now, belief.assumptions),
        changeMinutes: changeMinutes(now.state, state),
        bits: 0,
        saves: 0,
      }))
      .filter((t) => t.far > tells),
  );
  return list.sort((a, b) => b.far / (b.minutes + 3) - a.far / (a.minutes + 3)).slice(0, 1);
}

function asTest(belief: Belief, question: ObservationKind, now: Circumstances): RankedTest {
  const state = question.state ?? now.state;
  return {
    question,
    state,
    minutes: testMinutes(question, state, now, belief.assumptions),
    changeMinutes: changeMinutes(now.state, state),
    bits: 0,
    saves: 0,
  };
}
