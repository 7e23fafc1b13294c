/**
 * Where a complaint shows: the state in which somebody must have measured before a verdict, sound or not. A master
 * first sees for himself what the owner tells. Common practice.
 */
import type { Complaint } from '../parts/complaints';
import type { OperatingState } from '../operate/states';
import type { Belief } from './belief';
import { NOTHING_WRONG } from './catalogue/nothingWrong';
import { isComplaint, type IntakeClue } from './intake';
import { is, partKind } from '../parts/kinds';
import { measurementId, rigMeasurements, type Measurement } from '../probe/measurement';
import type { TraitName } from '../parts/traits';

/** States in which it shows; the first one a rig has. */
const SHOWS_IN: Readonly<Record<Complaint, readonly string[]>> = {
  'coach-not-charging': ['idle'],
  'slow-charging': ['idle'],
  'boost-dead': ['boost-engine-off', 'boost-engine-on'],
  'coach-short-life': ['rested'],
  'house-dead': ['rested'],
  'chassis-flat': ['rested'],
  'both-flat': ['rested'],
  'link-always-on': ['rested'],
  'link-cycles': ['idle'],
  'hot-link': ['idle'],
  'chassis-not-charging': ['idle'],
  'shore-not-charging': ['shore', 'generator'],
  'chassis-not-on-shore': ['shore', 'generator'],
  'fridge-stays-on': ['rested'],
  'fridge-warm': ['idle'],
};

/** The states that must be measured in for what the owner tells. */
export function statesOfComplaints(clues: readonly IntakeClue[], states: readonly OperatingState[]): string[] {
  const known = new Set(states.map((s) => s.id));
  const list = clues.filter(isComplaint).flatMap((c) => SHOWS_IN[c].find((s) => known.has(s)) ?? []);
  return [...new Set(list)];
}

/** Of those, the ones nobody has read enough in yet. */
export function statesToSee(belief: Belief): string[] {
  return statesOfComplaints(belief.intake, belief.workspace.states).filter(
    (state) => belief.evidence.filter((e, r) => e.state === state && belief.blunder[r]! < 0.5).length < ENOUGH,
  );
}

/** Readings in the complaint's own state that a verdict wants at least. */
const ENOUGH = 2;

/** Share from which another class stands in the way of calling a rig sound. */
const IN_THE_WAY = 0.2;

/** A point that must have been read, as any of these: a bank's post, a clamp on what it takes or gives. */
type Witness =
  /** `atRestWhereUneven`: at rest, only where a middle does not stand halfway elsewhere: on a charger it may do so in either way. */
  | { post: string; of: TraitName; side?: Side; atRestWhereUneven?: true }
  /** With the engine running, wherever the complaint shows: what is flat was emptied, or never filled. */
  | { post: string; of: TraitName; side?: Side; running: true }
  | { clampAt: TraitName; side?: Side }
  /** `whereUneven`: only where its middle does not stand halfway. */
  | { ask: readonly string[]; of: TraitName; side?: Side; whereUneven?: true }
  /** Directly across its studs: two banks near each other in volts are not told to be joined by their posts. */
  | { across: TraitName }
  /** The same where it is open and one bank is worked: equal volts at rest are no sign that two banks are apart. */
  | { apart: TraitName };
type Side = 'engine' | 'coach';

const BOTH_BANKS: readonly Witness[] = [
  { post: 'plus', of: 'battery', side: 'engine' },
  { post: 'plus', of: 'battery', side: 'coach' },
];
const CHARGED: readonly Witness[] = [
  ...BOTH_BANKS,
  { post: 'minus', of: 'battery', side: 'coach' },
  { post: 'middle', of: 'battery', side: 'coach' },
  { clampAt: 'battery', side: 'coach' },
  { ask: ['load-test'], of: 'battery', side: 'coach', whereUneven: true },
  { post: 'plus', of: 'battery', side: 'coach', atRestWhereUneven: true },
  { post: 'middle', of: 'battery', side: 'coach', atRestWhereUneven: true },
];

/** What shows that the rig does what the owner misses, in the complaint's state. Common practice. */
const PROVES: Readonly<Record<Complaint, readonly Witness[]>> = {
  'coach-not-charging': CHARGED,
  'slow-charging': CHARGED,
  'link-cycles': CHARGED,
  'hot-link': CHARGED,
  'boost-dead': [...BOTH_BANKS, { across: 'solenoid' }],
  'coach-short-life': [
    { post: 'plus', of: 'battery', side: 'coach' },
    { post: 'middle', of: 'battery', side: 'coach' },
    { clampAt: 'battery', side: 'coach' },
    // Acid may be even and a plate dead: what it gives under load is the test.
    { ask: ['load-test'], of: 'battery', side: 'coach' },
  ],
  'house-dead': [
    { post: 'plus', of: 'battery', side: 'coach' },
    { post: 'minus', of: 'battery', side: 'coach' },
    { post: 'house', of: 'disconnect' },
  ],
  'chassis-flat': [
    { post: 'plus', of: 'battery', side: 'engine' },
    { post: 'plus', of: 'battery', side: 'engine', running: true },
    { clampAt: 'battery', side: 'engine' },
    { ask: ['load-test'], of: 'battery', side: 'engine' },
  ],
  'both-flat': [...BOTH_BANKS, { clampAt: 'battery', side: 'engine' }, { apart: 'solenoid' }],
  'link-always-on': [...BOTH_BANKS, { apart: 'solenoid' }],
  'chassis-not-charging': [
    { post: 'plus', of: 'battery', side: 'engine' },
    { post: 'minus', of: 'battery', side: 'engine' },
    { clampAt: 'battery', side: 'engine' },
  ],
  'shore-not-charging': [
    { post: 'plus', of: 'battery', side: 'coach' },
    { post: 'minus', of: 'battery', side: 'coach' },
    { clampAt: 'battery', side: 'coach' },
  ],
  'chassis-not-on-shore': BOTH_BANKS,
  'fridge-stays-on': [{ post: 'plus', of: 'fridge' }],
  'fridge-warm': [{ post: 'plus', of: 'fridge' }],
};

/** Whether nothing but the proof stands between the rig and being called sound: no fault stands out, nothing is flagged. */
export const seemsSound = (belief: Belief, classes: readonly ClassOdds[]): boolean =>
  leadsAsSound(belief, classes) &&
  readingsAgainst(belief).length === 0 &&
  halvesApart(belief) === undefined &&
  answersFit(belief);

/** The same with a reading that by itself speaks against it and was taken once: which one to take again, by its place. */
export function againstSound(belief: Belief, classes: readonly ClassOdds[]): number | undefined {
  if (!leadsAsSound(belief, classes) || !answersFit(belief)) return undefined;
  const apart = halvesApart(belief);
  return [...readingsAgainst(belief), ...(apart === undefined ? [] : [apart])].find(
    (r) => !belief.evidence[r]!.confirmed,
  );
}

interface ClassOdds {
  class: string;
  probability: number;
}

function leadsAsSound(belief: Belief, classes: readonly ClassOdds[]): boolean {
  const [top, second] = classes;
  if (top!.class !== NOTHING_WRONG.id || top!.probability < belief.assumptions.soundAt) return false;
  return (
    (second?.probability ?? 0) < IN_THE_WAY &&
    !belief.blunder.some((b, r) => b > 0.35 && !belief.evidence[r]!.confirmed) &&
    belief.intake.every((c) => !isComplaint(c) || isShown(belief, c))
  );
}

/** Whether there is a state in which a sound rig would show it, for a complaint this rig has a state for. */
const isShown = (belief: Belief, complaint: Complaint): boolean =>
  stateToProve(belief, complaint) !== undefined ||
  !SHOWS_IN[complaint].some((s) => belief.workspace.states.some((x) => x.id === s));

/** Standard deviations off, and chance of an answer, from which a single piece of evidence speaks against a sound rig. */
const OFF = 3.5;
const ODD_ANSWER = 0.2;

/** Readings where the complaint would show that by themselves speak against a sound rig, by their places. */
function readingsAgainst(belief: Belief): number[] {
  const sound = belief.heaviest(NOTHING_WRONG.id);
  const complaints = belief.intake.filter(isComplaint);
  const seen = new Set([
    ...statesOfComplaints(belief.intake, belief.workspace.states),
    ...complaints.map((c) => stateToProve(belief, c)),
    ...complaints.flatMap((c) => (PROVES[c].some((w) => 'running' in w) ? RUNNING : [])),
  ]);
  const apart = complaints.flatMap((c) =>
    PROVES[c].flatMap((w) =>
      'apart' in w
        ? apartOf(belief, w.apart).flatMap((u) => [u.test ?? '', ...u.points].map((k) => `${u.state}/${k}`))
        : [],
    ),
  );
  const counts = ({ state, probe, ref }: Belief['evidence'][number]) =>
    seen.has(state) || [measurementId(probe, ref), probe].some((k) => apart.includes(`${state}/${k}`));
  return belief.evidence.flatMap((e, r) =>
    counts(e) && belief.blunder[r]! <= 0.5 && belief.deviation(sound, r) >= OFF ? [r] : [],
  );
}

/** Whether no answer by itself speaks against a sound rig: none that what it speaks for has not been measured away. */
function answersFit(belief: Belief): boolean {
  const sound = belief.heaviest(NOTHING_WRONG.id);
  const kinds = new Map(belief.questions.map((q) => [q.id, q]));
  return belief.observed.every(({ what, answer }) => {
    const kind = kinds.get(what)!;
    const chance = belief.answerChance(kind, answer, sound);
    if (chance > ODD_ANSWER) return true;
    // What a load test fails is not sound, whatever else fits: it is the last word on a bank.
    if (kind.id.startsWith('load-test.')) return false;
    const speaksFor = belief.components.reduce(
      (sum, c, i) =>
        belief.answerChance(kind, answer, i) > TWICE * chance && !c.unknown ? sum + belief.weight[i]! : sum,
      0,
    );
    return speaksFor < MEASURED_AWAY;
  });
}

/** An answer speaks for a fault that makes it so many times as likely; refuted where all of those have less than this left. */
const TWICE = 2;
const MEASURED_AWAY = 0.1;

/** States with more volts than an idle, in which a link that waits for volts closes. */
const MORE_VOLTS = ['fast-idle', 'boost-engine-on'] as const;

/**
 * State in which a sound rig shows that it does what the owner misses. A link that still waits for volts where the
 * complaint shows proves nothing there: it is the first state in which it closes; none where it never does.
 */
function stateToProve(belief: Belief, complaint: Complaint): string | undefined {
  const known = new Set(belief.workspace.states.map((s) => s.id));
  const state = SHOWS_IN[complaint].find((s) => known.has(s));
  if (state === undefined || PROVES[complaint] !== CHARGED) return state;
  const sound = belief.components[belief.heaviest(NOTHING_WRONG.id)]!;
  const asDrawn = belief.components.find((c) => belief.faults[c.faultIndex]!.id === NOTHING_WRONG.id)!;
  const link = belief.compiled.rig.parts.find((p) => is(p, 'solenoid') && asDrawn.closes(p.id, state));
  return !link || sound.closes(link.id, state)
    ? state
    : MORE_VOLTS.find((s) => known.has(s) && sound.closes(link.id, s));
}

export interface Unproved {
  state: string;
  /** Points any one of which would do; or questions; or this very measurement. */
  points: string[];
  questions: string[];
  test?: string;
}

/**
 * What is still to be read before one bad joint is called the whole of it: it is seen on one side of the circuit, and a
 * second one on the other side, where little flows for the first one, would stay. Common practice: volts lost piece by
 * piece, on the plus side and on the minus side.
 */
export function sidesUnread(belief: Belief, fault: string): Unproved[] {
  const { effects } = belief.faults.find((f) => f.id === fault)!;
  const owed = owedFirst(belief);
  // What a bank gives for so long says nothing of what charges it, and the other way round.
  const bankTests = owed.filter(({ questions }) => questions.length > 0);
  // Nothing flows through what is open: the other side then shows nothing.
  if (!effects.some((e) => e.do === 'add-ohms')) return bankTests;
  const posts = owed.filter(({ points }) => points.length > 0 && points.every((p) => /\.(plus|minus)$/.test(p)));
  return [...bankTests, ...posts, ...dropsUnread(belief)];
}

/** Complaints that a bank itself may be behind, whatever else is found. */
const ABOUT_A_BANK: readonly Complaint[] = ['coach-short-life', 'chassis-flat', 'both-flat'];

/** Of the complaint's proof, what comes before any verdict: what is measured, and a bank's own test where it is about a bank. */
export const owedFirst = (belief: Belief): Unproved[] => [
  ...unproved(belief, (c) => ABOUT_A_BANK.includes(c)),
  ...unproved(belief, (c) => !ABOUT_A_BANK.includes(c)).filter(({ questions }) => questions.length === 0),
];

/** Direct drops over the heavy pieces between the banks that nobody has read in the complaint's own state. */
function dropsUnread(belief: Belief): Unproved[] {
  const { rig } = belief.compiled;
  const known = new Set(belief.workspace.states.map((s) => s.id));
  const complaints = belief.intake.filter((c): c is Complaint => isComplaint(c) && PROVES[c] === CHARGED);
  const state = complaints.map((c) => SHOWS_IN[c].find((s) => known.has(s))).find((s) => s !== undefined);
  if (state === undefined) return [];
  const heavy = new Set(
    rig.conductors
      .filter((c) => c.use === 'feed')
      .flatMap(({ from, to }) => [from, to].map((e) => `${e.part}.${e.terminal}`)),
  );
  const onPath = (key: string) =>
    rig.parts.some(
      (p) => p.id === key.split('.')[0] && ['inline', 'link'].includes(partKind(p.kind).role) && !is(p, 'disconnect'),
    );
  const isBankOrPath = (key: string) =>
    onPath(key) || rig.parts.some((p) => p.id === key.split('.')[0] && is(p, 'battery'));
  const read = new Set(
    belief.evidence.flatMap((e) => (e.state === state ? [`${e.probe}~${e.ref}`, `${e.ref}~${e.probe}`] : [])),
  );
  const all = rigMeasurements(rig);
  const drops = all
    .filter((m) => m.kind === 'drop' && heavy.has(m.red) && heavy.has(m.black!))
    .filter((m) => onPath(m.red) || onPath(m.black!));
  // Too long a cable to span with two leads: each of its ends is read from where the others are.
  const spanned = new Set(drops.flatMap((m) => [m.id, `${m.black}~${m.red}`]));
  const ends: readonly string[] = rig.conductors
    .filter((c) => c.use === 'feed')
    .map(({ from, to }) => [`${from.part}.${from.terminal}`, `${to.part}.${to.terminal}`] as const)
    .filter(([a, b]) => !spanned.has(`${a}~${b}`) && [a, b].every((k) => isBankOrPath(k)))
    .flatMap((ends) => ends.filter((e) => onPath(e)));
  const seenAlone = new Set(
    belief.evidence.flatMap((e) => (e.state === state && !spanned.has(`${e.probe}~${e.ref}`) ? [e.probe] : [])),
  );
  const alone = all.filter((m) => m.kind === 'volts' && ends.includes(m.red) && !seenAlone.has(m.red));
  return [...drops.filter((m) => !read.has(m.id)), ...alone].map((m) => ({
    state,
    points: [],
    questions: [],
    test: m.id,
  }));
}

/** What is still to be read before a sound rig has shown that it does what the owner misses. */
export function unproved(belief: Belief, about: (complaint: Complaint) => boolean = () => true): Unproved[] {
  const asked = new Set(belief.observed.map((o) => o.what));
  return belief.intake
    .filter(isComplaint)
    .filter(about)
    .flatMap((complaint) => {
      const state = stateToProve(belief, complaint);
      if (state === undefined) return [];
      const read = new Set(
        belief.evidence.flatMap((e) => [e.probe, e.ref].flatMap((key) => (key ? [`${e.state}/${key}`] : []))),
      );
      const taken = new Set(belief.evidence.map((e) => `${e.state}/${measurementId(e.probe, e.ref)}`));
      return PROVES[complaint]
        .filter((w) => !('whereUneven' in w || 'atRestWhereUneven' in w) || isUneven(belief, state, w))
        .flatMap((w): Unproved[] =>
          'apart' in w
            ? apartOf(belief, w.apart)
            : [
                { state: stateOfWitness(belief, w, state), ...wayTo(belief, w) },
                ...('running' in w && isLow(belief, w) ? lostOnTheWay(belief) : []),
              ],
        )
        .filter(({ points, questions, test }) => points.length + questions.length > 0 || test !== undefined)
        .filter(
          ({ points, questions, test, state: inState }) =>
            !points.some((p) => read.has(`${inState}/${p}`)) &&
            !questions.some((q) => asked.has(q)) &&
            !(test !== undefined && taken.has(`${inState}/${test}`)),
        );
    });
}

/** V of 12 V by which the middle of a bank may stand off half of it. Common practice: a weak block shows as some tenths. */
const UNEVEN_VOLTS = 0.05;
/** The same from which one block is weak, whatever else fits: halves 0.2 V apart. Common practice. */
const WEAK_VOLTS = 0.1;
const AT_REST = 'rested';
const RUNNING = ['idle', 'fast-idle'] as const;
/** Volts of a 12 V battery under which it is not charged at that speed: an alternator may need more of it. Common practice. */
const CHARGED_VOLTS = 13.1;

type PostWitness = Extract<Witness, { post: string }>;

/** The state a witness is read in, by the one its complaint is proved in. */
function stateOfWitness(belief: Belief, w: Exclude<Witness, { apart: TraitName }>, state: string): string {
  if ('atRestWhereUneven' in w) return AT_REST;
  return 'running' in w ? RUNNING[isLow(belief, w) ? 1 : 0] : state;
}

/** Whether a battery was read too low to be charged at idle, with a faster one to look at. */
function isLow(belief: Belief, w: PostWitness): boolean {
  const { points } = wayTo(belief, w);
  const { rig } = belief.compiled;
  return (
    belief.workspace.states.some((s) => s.id === RUNNING[1]) &&
    belief.evidence.some(
      (e, r) =>
        e.state === RUNNING[0] &&
        points.includes(e.probe) &&
        belief.blunder[r]! < 0.5 &&
        e.value < CHARGED_VOLTS * (rig.vehicles[0]!.nominalVolts / 12),
    )
  );
}

/** The drop from what charges the engine's battery to its post, where leads reach: low volts are made low, or lost. */
function lostOnTheWay({ compiled: { rig } }: Belief): Unproved[] {
  const ends = (of: TraitName, terminal: string) =>
    rig.parts.filter((p) => is(p, of) && p.side === 'engine').map((p) => `${p.id}.${terminal}`);
  const [sources, posts] = [ends('alternator', 'output'), ends('battery', 'plus')];
  const drop = rigMeasurements(rig).find(
    (m) => m.kind === 'drop' && [m.red, m.black!].every((k) => [...sources, ...posts].includes(k)),
  );
  return drop ? [{ state: RUNNING[1], points: [], questions: [], test: drop.id }] : [];
}

/** A bank whose halves stand too far apart at rest: the place of the reading of its middle. */
function halvesApart(belief: Belief): number | undefined {
  for (const bank of belief.compiled.rig.parts.filter((p) => is(p, 'battery')))
    if (isUneven(belief, AT_REST, { of: 'battery', bank: bank.id }, WEAK_VOLTS))
      return belief.evidence.findIndex((e) => e.state === AT_REST && e.probe === `${bank.id}.middle`);
  return undefined;
}

/** Whether a bank's middle, as read in a state, stands off half: what takes its amps like the others may hold none. */
function isUneven(
  belief: Belief,
  state: string,
  { of, side, bank: id }: { of: TraitName; side?: Side; bank?: string },
  most = UNEVEN_VOLTS,
): boolean {
  const { rig } = belief.compiled;
  const bank = rig.parts.find(
    (p) => is(p, of) && (side === undefined || p.side === side) && (id === undefined || p.id === id),
  );
  const at = (terminal: string) => {
    const read = belief.evidence.find(
      (e, r) => e.state === state && e.probe === `${bank?.id}.${terminal}` && belief.blunder[r]! < 0.5,
    );
    return read && { volts: read.value, from: read.ref };
  };
  const [plus, middle, minus] = [at('plus'), at('middle'), at('minus')];
  if (!plus || !middle || plus.from !== middle.from) return false;
  const low = minus && minus.from === plus.from ? minus.volts : 0;
  const whole = plus.volts - low;
  return Math.abs(middle.volts - low - whole / 2) > most * Math.max(1, Math.round(whole / 12));
}

/** The drop from stud to stud of the first part of a kind; none where nothing measures it. */
function acrossStuds({ rig }: Belief['compiled'], of: TraitName): Measurement | undefined {
  const part = rig.parts.find((p) => is(p, of));
  return rigMeasurements(rig).find(
    (m) =>
      m.kind === 'drop' &&
      [m.red, m.black!].every((k) => /^[^.]+\.[a-z]+-stud$/.test(k) && k.startsWith(`${part?.id}.`)),
  );
}

/** States in which one bank is charged or drawn on, and V by which two that are apart then differ. From memory. */
const ONE_IS_WORKED = ['shore', 'generator', 'idle-before-delay', 'key-on'] as const;
const APART_VOLTS = 0.1;

/**
 * What shows, in the first state in which a sound rig keeps its banks visibly apart, that it does: the drop over the
 * link where leads reach over it, else both posts; and a clamp on the bank that is left alone. A cable nobody drew, thin
 * or poorly joined, leaves the volts apart and lets amps through all the same.
 */
function apartOf(belief: Belief, of: TraitName): Unproved[] {
  const sound = belief.components[belief.heaviest(NOTHING_WRONG.id)]!;
  const { rig } = belief.compiled;
  const post = (side: Side) => rig.parts.find((p) => is(p, 'battery') && p.side === side)?.id;
  const posts = [post('engine'), post('coach')].map((id) => `${id}.plus`);
  const studs = acrossStuds(belief.compiled, of);
  const ends = studs ? [studs.red, studs.black!] : posts;
  const state = ONE_IS_WORKED.find((id) => {
    const [red, black] = ends.map((key) => belief.rowOf(id, key));
    return red !== undefined && black !== undefined && Math.abs(sound.value(red) - sound.value(black)) > APART_VOLTS;
  });
  if (state === undefined) return [];
  const volts = studs
    ? [{ state, points: [], questions: [], test: studs.id }]
    : posts.map((point) => ({ state, points: [point], questions: [] }));
  const amps = (clamps: readonly string[]) => Math.abs(sound.value(belief.rowOf(state, clamps[0]!)!));
  const [alone] = (['engine', 'coach'] as const)
    .map((side) => clampsOn(belief, post(side)))
    .filter((clamps) => clamps.length > 0)
    .sort((a, b) => amps(a) - amps(b));
  return [...volts, ...(alone ? [{ state, points: alone, questions: [] }] : [])];
}

/** Clamps that show what goes in and out of a battery: its lone negative cable, where it can be clamped, else its positives. */
function clampsOn(belief: Belief, battery: string | undefined): string[] {
  const at = (terminal?: string) =>
    belief.compiled.rig.conductors
      .filter((c) =>
        [c.from, c.to].some((e) => e.part === battery && (terminal === undefined || e.terminal === terminal)),
      )
      .map((c) => `${c.id}.clamp`)
      .filter((k) => belief.outputs.some((o) => o.key === k));
  // All that goes in and out goes through a lone negative cable; on the plus side of a bank there are several.
  const negative = at('minus');
  return negative.length > 0 ? negative : at();
}

function wayTo(belief: Belief, witness: Exclude<Witness, { apart: TraitName }>): Omit<Unproved, 'state'> {
  const { rig } = belief.compiled;
  if ('across' in witness) {
    const studs = acrossStuds(belief.compiled, witness.across);
    return { points: [], questions: [], ...(studs ? { test: studs.id } : {}) };
  }
  const trait = 'clampAt' in witness ? witness.clampAt : witness.of;
  const parts = rig.parts.filter((p) => is(p, trait) && (witness.side === undefined || p.side === witness.side));
  const outputs = new Set(belief.outputs.map((o) => o.key));
  // One of several banks on a side will do: the first is the one it is about.
  const part = parts[0];
  if (!part) return { points: [], questions: [] };
  if ('ask' in witness)
    return {
      points: [],
      questions: belief.questions.map((q) => q.id).filter((id) => witness.ask.some((a) => id === `${a}.${part.id}`)),
    };
  if ('post' in witness) {
    const point = `${part.id}.${witness.post}`;
    const probed = rig.probes.some((p) => p.key === point && !p.retired);
    return { points: probed && outputs.has(point) ? [point] : [], questions: [] };
  }
  return { points: clampsOn(belief, part.id), questions: [] };
}
