/** Whether a round is over and, if not, what comes first: a master's order. */
import type { Effect } from '../operate/effects';
import type { Complaint } from '../parts/complaints';
import { is } from '../parts/kinds';
import { measurementId, type Measurement } from '../probe/measurement';
import { addedProbes, type AddedProbe } from './addedProbes';
import type { Belief } from './belief';
import { NOTHING_WRONG } from './catalogue/nothingWrong';
import type { Contradiction } from './contradictions';
import { directTests } from './directTest';
import { membersOf } from './faults';
import { testMinutes, worthTesting, type Circumstances, type RankedTest } from './nextTest';
import { notRuledOut } from './notRuledOut';
import { refutedBy } from './refuted';
import { statesOfComplaints, statesToSee } from './complaintStates';
import { owedFirst, sidesUnread, unproved } from './proof';
import { againstSound, seemsSound } from './soundness';
import type { Unproved } from './witness';
import { clampsOn } from './witnessPoints';
import { nextTest, type NextTest } from './testInWords';

export interface Stop {
  reached: boolean;
  class?: string;
  /** In words: why stop, or why not. */
  why: string;
  /** What no reading of ours could have shown, so that the verdict is worth no more than its own share. */
  unseen?: string;
}

/** A repair class with its share. */
export interface ClassShare {
  class: string;
  repair: string;
  probability: number;
}

/** What is known when it is decided how to go on. */
export interface Round {
  belief: Belief;
  classes: readonly ClassShare[];
  left: readonly Float64Array[];
  measurements: readonly Measurement[];
  now: Circumstances;
  ranked: readonly RankedTest[];
  useful: readonly RankedTest[];
  contradiction: readonly Contradiction[];
}

export interface Standing {
  stop: Stop;
  /** What comes before the most telling test. */
  first?: NextTest;
  added?: AddedProbe[];
}

/** Whether it is over and, if not, what comes first: a master's order. */
export function howItStands(round: Round): Standing {
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
    const open = openSuspectTest(belief, measurements, now);
    if (open)
      return goOn(
        'It looks sound, but nothing read so far speaks against this suspect: its own test comes first.',
        nextTest(belief, open),
      );
    const unseen = jumpersUnseen(belief) ?? drawUnseen(belief);
    const why = 'It does what the owner misses, and no fault stands out: charge, load-test, and explain the use.';
    return {
      stop: { reached: true, class: top.class, why: unseen ? `${why} ${unseen}` : why, ...(unseen ? { unseen } : {}) },
    };
  }
  const against = againstSound(belief, classes);
  if (against !== undefined) {
    const again = retake(belief, against, measurements, now);
    if (again) return goOn('It looks sound but for one reading: take that one again.', again);
  }
  // What is as good as certain wants its own direct test, not one more that tells a little.
  if (top.probability < assumptions.directAt && worthTesting(useful, assumptions)) {
    const [owed] =
      belief.evidence.length + belief.observed.length >= OWED_FROM ? cheapest(owedFirst(belief), ranked) : [];
    if (owed)
      return goOn(
        'Several readings and no verdict: see for yourself first what the owner misses, where it would show.',
        nextTest(belief, owed),
      );
    const side = besideSure(belief, ranked);
    if (side) return goOn(BESIDE_SURE, nextTest(belief, side));
    const [own] =
      belief.evidence.length >= LONG && top.probability > LEADS
        ? directTestsOf(belief, top.class, measurements, now)
        : [];
    if (own)
      return goOn(
        'Many readings and no verdict: what is likeliest gets its own test now, and stands or falls by it.',
        nextTest(belief, own),
      );
    return goOn('A test still pays: it is likelier to save a wrong call than it costs.');
  }
  return ofVerdict(round, goOn);
}

/** What no reading of such a bank shows, where the owner tells of the bank itself. Common practice. */
function jumpersUnseen({ compiled, intake }: Belief): string | undefined {
  const sideBySide = compiled.rig.parts.some(
    (p) => is(p, 'battery') && p.side === 'coach' && (p.options?.['layout'] ?? '').includes('parallel'),
  );
  return sideBySide && intake.includes('coach-short-life')
    ? 'Its blocks stand side by side, and no reading here tells a bad jumper between them: clamp each one’s cable while ' +
        'it charges, they share alike.'
    : undefined;
}

/** The same of what is drawn from a battery that goes flat, where no clamp goes on its negative. Common practice. */
function drawUnseen(belief: Belief): string | undefined {
  const battery = belief.compiled.rig.parts.find((p) => is(p, 'battery') && p.side === 'engine');
  const told = belief.intake.some((c) => c === 'chassis-flat' || c === 'both-flat');
  return told && battery && clampsOn(belief, battery.id, 'minus').length === 0
    ? 'What is drawn from the start battery at rest was not measured, no clamp of this drawing goes on its negative: do ' +
        'that by hand, everything off and asleep.'
    : undefined;
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
  const together = withPairs(belief, top.class);
  if (together >= belief.assumptions.confirmAt) {
    const [direct] = directTestsOf(belief, top.class, measurements, now);
    if (direct)
      return goOn(
        'Its own direct test is still to be done: nothing is taken apart before that.',
        nextTest(belief, direct),
      );
    if (top.class === NOTHING_WRONG.id) return notYetSound(round, goOn);
    const shown = statesOfComplaints(belief.intake, belief.workspace.states);
    const leading = belief.heaviest(likeliestOf(belief, top.class));
    const unexplained = belief.evidence.some(
      (e, r) => e.confirmed && shown.includes(e.state) && isUnexplained(belief, leading, r),
    );
    if (unexplained)
      return goOn('A reading taken twice does not fit what leads: something more is wrong, or something else.');
    const refuted = refutedBy(
      belief,
      belief.faults.find((f) => f.id === likeliestOf(belief, top.class))!,
    );
    if (refuted !== undefined)
      return goOn(
        `It leads, yet its own test came out against it (${refuted}): ask that once more, and look beside it.`,
      );
    const [rest] = cheapest(unproved(belief, untoldBy(belief, likeliestOf(belief, top.class))), ranked);
    if (rest)
      return goOn(
        'It leaves something that the owner tells unexplained: see whether that is so.',
        nextTest(belief, rest),
      );
    const [side] = cheapest(sidesUnread(belief, likeliestOf(belief, top.class)), ranked);
    if (side)
      return goOn(
        'One bad joint may hide another: read the other side of the circuit before it is called the whole of it.',
        nextTest(belief, side),
      );
    const over = 'No further test is worth its minutes, and no single reading carries the verdict.';
    const behind = together - top.probability > MORE_BEHIND;
    const why = behind
      ? `${over} What lies behind it shows only once this is put right: measure again then before anything else is bought.`
      : over;
    return { stop: { reached: true, class: top.class, why } };
  }
  const side = besideSure(belief, ranked);
  if (side) return goOn(BESIDE_SURE, nextTest(belief, side));
  const added = addedProbes(belief);
  const why =
    added.length > 0
      ? 'No probe of this rig tells the leading suspects apart: one more would.'
      : 'No probe of this rig tells the leading suspects apart: look, swap, or put the likelier one right and measure again.';
  return { stop: { reached: false, class: top.class, why }, added };
}

/** Share of a second fault beside the verdict from which it is told that one may show afterwards. From memory. */
const MORE_BEHIND = 0.05;

/**
 * Share of a repair by itself, and of every pair it is half of where it hides the other: where no test tells them apart,
 * what both ask for first is the same. What is open, or gives nothing, hides what lies behind it until it is mended; what
 * only loses volts does not. Common practice.
 */
function withPairs(belief: Belief, repair: string, of?: Float64Array): number {
  const classes = belief.classes(of);
  const alone = classes.get(repair) ?? 0;
  const { effects } = belief.faults.find((f) => f.id === likeliestOf(belief, repair))!;
  if (!effects.some((e) => HIDES.has(e.do))) return alone;
  let share = 0;
  for (const [id, p] of classes) if (id === repair || id.split(' + ').includes(repair)) share += p;
  return share;
}
const HIDES: ReadonlySet<Effect['do']> = new Set(['open', 'no-output', 'dead-controller']);

/** Whether a complaint is one that a suspect, or either half of it, has nothing to do with. */
function untoldBy(belief: Belief, suspect: string): (complaint: Complaint) => boolean {
  const of = (id: string) => belief.faults.find((f) => f.id === id);
  const members = membersOf(of(suspect)!);
  // What is on no list may be behind anything.
  return (c) => members.every((id) => of(id)?.owner !== undefined && !of(id)!.explains.includes(c));
}

/**
 * The fault that is as good as sure, by itself or with another, while no verdict is: what is open is the other. Each
 * reading along the path tells of one piece only, so that none by itself seems to tell much; together they do.
 */
function sureHalf(belief: Belief): string | undefined {
  const share = new Map<string, number>();
  belief.faults.forEach((f, i) => {
    for (const id of membersOf(f)) share.set(id, (share.get(id) ?? 0) + belief.probability[i]!);
  });
  const [id, p] = [...share].sort((a, b) => b[1] - a[1])[0]!;
  const listed = belief.faults.some((f) => f.id === id && f.owner !== undefined);
  return listed && p >= belief.assumptions.directAt ? id : undefined;
}

const BESIDE_SURE =
  'One fault is as good as sure, a second beside it is not: read the path piece by piece where the amps flow.';

/** What is still unread beside a fault that is as good as sure while no verdict is. */
function besideSure(belief: Belief, ranked: readonly RankedTest[]): RankedTest | undefined {
  const half = sureHalf(belief);
  return half === undefined ? undefined : cheapest(sidesUnread(belief, half), ranked)[0];
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

/** Readings and answers after which the complaint's own proof comes before what would tell most. From memory. */
const OWED_FROM = 6;

/** Readings after which the likeliest suspect gets its own test, and how likely it must be. From memory. */
const LONG = 10;
const LEADS = 0.5;

/** Share of being a slip from which volts read twice where the complaint shows are no slip but unexplained. */
const UNEXPLAINED = 0.5;
/** The same of amps: by how many of its spreads, and by more than a clamp's own zero. From memory. */
const FAR_SPREADS = 4;
const CLAMP_OFF = 1;

/** Whether what was read twice is not what the leading suspect expects there. */
function isUnexplained(belief: Belief, leading: number, reading: number): boolean {
  if (belief.evidence[reading]!.ref !== undefined) return belief.blunder[reading]! > UNEXPLAINED;
  return Math.abs(belief.residual(leading, reading)) > CLAMP_OFF && belief.deviation(leading, reading) > FAR_SPREADS;
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

/** The direct test of the likeliest fault a sound verdict has not ruled out; nothing where none is left. */
function openSuspectTest(
  belief: Belief,
  measurements: readonly Measurement[],
  now: Circumstances,
): RankedTest | undefined {
  for (const fault of notRuledOut(belief)) {
    const [test] = directTests(belief, fault, measurements, now).left;
    if (test) return test;
  }
  return undefined;
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

/** The reading without which the leading class falls below confirmation, unless it was taken twice. */
function weakestLink(belief: Belief, left: readonly Float64Array[], topClass: string): number | undefined {
  let worst: number | undefined;
  let lowest = belief.assumptions.confirmAt;
  if (withPairs(belief, topClass) < belief.assumptions.confirmAt) return undefined;
  left.forEach((p, r) => {
    const e = belief.evidence[r]!;
    if (e.confirmed) return;
    const share = withPairs(belief, topClass, p);
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
