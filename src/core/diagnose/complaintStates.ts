/**
 * Where a complaint shows: the state in which somebody must have measured before a verdict, sound or not. A master
 * first sees for himself what the owner tells. Common practice.
 */
import type { OperatingState } from '../operate/states';
import type { Complaint } from '../parts/complaints';
import { is } from '../parts/kinds';
import type { Belief } from './belief';
import { NOTHING_WRONG } from './catalogue/nothingWrong';
import { isComplaint, type IntakeClue } from './intake';
import { CHARGED, PROVES } from './witness';

/** States in which it shows; the first one a rig has. */
export const SHOWS_IN: Readonly<Record<Complaint, readonly string[]>> = {
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

/** Whether there is a state in which a sound rig would show it, for a complaint this rig has a state for. */
export const isShown = (belief: Belief, complaint: Complaint): boolean =>
  stateToProve(belief, complaint) !== undefined ||
  !SHOWS_IN[complaint].some((s) => belief.workspace.states.some((x) => x.id === s));

/** States with more volts than an idle, in which a link that waits for volts closes. */
const MORE_VOLTS = ['fast-idle', 'boost-engine-on'] as const;

/**
 * State in which a sound rig shows that it does what the owner misses. A link that still waits for volts where the
 * complaint shows proves nothing there: it is the first state in which it closes; none where it never does.
 */
export function stateToProve(belief: Belief, complaint: Complaint): string | undefined {
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
