/**
 * Where a complaint shows: the state in which somebody must have measured before a verdict, sound or not. A master
 * first sees for himself what the owner tells. Common practice.
 */
import type { Complaint } from '../parts/complaints';
import type { OperatingState } from '../operate/states';
import type { Belief } from './belief';
import { NOTHING_WRONG } from './catalogue/nothingWrong';
import { isComplaint, type IntakeClue } from './intake';
import { is } from '../parts/kinds';
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
  | { post: string; of: TraitName; side?: Side }
  | { clampAt: TraitName; side?: Side }
  | { ask: readonly string[]; of: TraitName; side?: Side };
type Side = 'engine' | 'coach';

const BOTH_BANKS: readonly Witness[] = [
  { post: 'plus', of: 'battery', side: 'engine' },
  { post: 'plus', of: 'battery', side: 'coach' },
];
const CHARGED: readonly Witness[] = [
  ...BOTH_BANKS,
  { post: 'minus', of: 'battery', side: 'coach' },
  { clampAt: 'battery', side: 'coach' },
];

/** What shows that the rig does what the owner misses, in the complaint's state. Common practice. */
const PROVES: Readonly<Record<Complaint, readonly Witness[]>> = {
  'coach-not-charging': CHARGED,
  'slow-charging': CHARGED,
  'link-cycles': CHARGED,
  'hot-link': CHARGED,
  'boost-dead': BOTH_BANKS,
  'coach-short-life': [
    { post: 'plus', of: 'battery', side: 'coach' },
    { post: 'middle', of: 'battery', side: 'coach' },
    { clampAt: 'battery', side: 'coach' },
    { ask: ['load-test', 'gravity'], of: 'battery', side: 'coach' },
  ],
  'house-dead': [
    { post: 'plus', of: 'battery', side: 'coach' },
    { post: 'minus', of: 'battery', side: 'coach' },
    { post: 'house', of: 'disconnect' },
  ],
  'chassis-flat': [
    { post: 'plus', of: 'battery', side: 'engine' },
    { clampAt: 'battery', side: 'engine' },
    { ask: ['load-test'], of: 'battery', side: 'engine' },
  ],
  'both-flat': [...BOTH_BANKS, { clampAt: 'battery', side: 'engine' }],
  'link-always-on': BOTH_BANKS,
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
};

/** Whether nothing but the proof stands between the rig and being called sound: no fault stands out, nothing is flagged. */
export function seemsSound(belief: Belief, classes: readonly { class: string; probability: number }[]): boolean {
  const [top, second] = classes;
  if (top!.class !== NOTHING_WRONG.id || top!.probability < belief.assumptions.soundAt) return false;
  return (
    (second?.probability ?? 0) < IN_THE_WAY &&
    !belief.blunder.some((b, r) => b > 0.35 && !belief.evidence[r]!.confirmed) &&
    nothingAgainst(belief)
  );
}

/** Standard deviations off, and chance of an answer, from which a single piece of evidence speaks against a sound rig. */
const OFF = 3.5;
const ODD_ANSWER = 0.2;

/** Whether no reading where the complaint would show, and no answer, by itself speaks against a sound rig. */
function nothingAgainst(belief: Belief): boolean {
  const sound = belief.heaviest(NOTHING_WRONG.id);
  const kinds = new Map(belief.questions.map((q) => [q.id, q]));
  const seen = new Set(statesOfComplaints(belief.intake, belief.workspace.states));
  return (
    belief.evidence.every(
      (e, r) => !seen.has(e.state) || belief.blunder[r]! > 0.5 || belief.deviation(sound, r) < OFF,
    ) && belief.observed.every((o) => belief.answerChance(kinds.get(o.what)!, o.answer, sound) > ODD_ANSWER)
  );
}

export interface Unproved {
  state: string;
  /** Points any one of which would do; or questions. */
  points: string[];
  questions: string[];
}

/** What is still to be read before a sound rig has shown that it does what the owner misses. */
export function unproved(belief: Belief): Unproved[] {
  const known = new Set(belief.workspace.states.map((s) => s.id));
  const asked = new Set(belief.observed.map((o) => o.what));
  return belief.intake.filter(isComplaint).flatMap((complaint) => {
    const state = SHOWS_IN[complaint].find((s) => known.has(s));
    if (state === undefined) return [];
    const read = new Set(
      belief.evidence.flatMap((e) => (e.state === state ? [e.probe, ...(e.ref === undefined ? [] : [e.ref])] : [])),
    );
    return PROVES[complaint]
      .map((w) => ({ state, ...wayTo(belief, w) }))
      .filter(({ points, questions }) => points.length + questions.length > 0)
      .filter(({ points, questions }) => !points.some((p) => read.has(p)) && !questions.some((q) => asked.has(q)));
  });
}

function wayTo(belief: Belief, witness: Witness): { points: string[]; questions: string[] } {
  const { rig } = belief.compiled;
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
  const clamps = rig.conductors
    .filter((c) => [c.from, c.to].some((e) => e.part === part.id))
    .map((c) => `${c.id}.clamp`)
    .filter((k) => outputs.has(k));
  return { points: clamps, questions: [] };
}
