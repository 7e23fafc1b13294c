/**
 * What one sees, hears and feels, as evidence. A row is a question with yes or no for an answer, what of the
 * rig it is about, and how often the answer is yes when that is so and when it is not. Chances are assumed;
 * that these things tell is common practice.
 */
import type { Effect } from '../operate/effects';
import type { Rig } from '../rig/schema';

/** What makes the answer yes: a link that closes in a state, or a fault that does this to an element. */
export type About =
  | { closes: string; state: string }
  | { effect: Effect['do']; element: string };

export interface ObservationKind {
  id: string;
  /** The question, for a button beside Yes and No. */
  ask: string;
  /** How to look or listen. */
  how: string;
  /** Parts the rig must have, by id. */
  needs: readonly string[];
  about: About;
  /** Chance of "yes" when it is so, and when it is not. Assumed. */
  yesIfSo: number;
  yesIfNot: number;
}

export const OBSERVATIONS: readonly ObservationKind[] = [
  {
    id: 'click-boost',
    ask: 'Isolator clicks when boost is pressed',
    how: 'Engine off; a helper presses boost for a second, an ear or a finger at the isolator.',
    needs: ['boost'],
    about: { closes: 'link', state: 'boost-engine-off' },
    yesIfSo: 0.93,
    yesIfNot: 0.04,
  },
  {
    id: 'click-running',
    ask: 'Isolator clicks some time after the engine starts',
    how: 'Brake on, wheels chocked, engine in the open; stand clear of belt and fan.',
    needs: ['link-fuse'],
    about: { closes: 'link', state: 'idle' },
    yesIfSo: 0.9,
    yesIfNot: 0.04,
  },
  {
    id: 'wedge',
    ask: 'A wedge under the boost switch, or its marks',
    how: 'Coins, a golf tee, a pen; worn edges of the rocker count.',
    needs: ['boost'],
    about: { effect: 'stuck-closed', element: 'boost.contact' },
    yesIfSo: 0.75,
    yesIfNot: 0.04,
  },
  {
    id: 'boost-fuse-seen-blown',
    ask: 'The boost fuse is seen to be blown',
    how: 'Pull it and look against the light; a hairline break is easily missed.',
    needs: ['boost'],
    about: { effect: 'open', element: 'boost.fuse' },
    yesIfSo: 0.95,
    yesIfNot: 0.01,
  },
  {
    id: 'link-fuse-seen-blown',
    ask: 'The link fuse is seen to be blown',
    how: 'Through its window, or cover off with both banks isolated.',
    needs: ['link-fuse'],
    about: { effect: 'open', element: 'link-fuse.element' },
    yesIfSo: 0.95,
    yesIfNot: 0.01,
  },
  {
    id: 'coach-ground-corroded',
    ask: 'The coach ground bolt is loose or corroded',
    how: 'White or green bloom, lifted paint, a washer that turns.',
    needs: ['coach-bank'],
    about: { effect: 'add-ohms', element: 'coach-negative' },
    yesIfSo: 0.75,
    yesIfNot: 0.12,
  },
];

/** An answer as evidence. */
export interface Observed {
  /** The stored observation's id. */
  id: string;
  what: string;
  answer: boolean;
}

/** The questions worth asking of a rig. */
export const observationsOf = (rig: Rig): ObservationKind[] =>
  OBSERVATIONS.filter((o) => o.needs.every((id) => rig.parts.some((p) => p.id === id)));

/** Probability of an answer under a component: what it does, and what its link does in each state. */
export function answerProbability(kind: ObservationKind, answer: boolean, effects: readonly Effect[], closes: (part: string, state: string) => boolean): number {
  const { about } = kind;
  const so = 'closes' in about ? closes(about.closes, about.state) : effects.some((e) => e.do === about.effect && 'element' in e && e.element === about.element);
  const yes = so ? kind.yesIfSo : kind.yesIfNot;
  return answer ? yes : 1 - yes;
}
