/**
 * What has a memory: batteries, alternators, coils. Each offers its effect over a step of h seconds as values
 * of the network ("companion model"), so that one solve gives the implicit end point of the step.
 */
import type { RigNetwork } from '../operate/rigNetwork';

/** Something that passed a limit on the way, to be told. */
export interface News {
  what: string;
  why: string;
}

export interface Dynamic {
  readonly part: string;
  /** Takes what depends on the operating inputs, after `writeValues`, before `offer`. */
  refresh(net: RigNetwork): void;
  /** Where a straight continuation puts the end of a step. */
  predict(h: number): void;
  /** Writes its values for a step of h seconds whose end is as predicted. */
  offer(net: RigNetwork, h: number): void;
  /** Reads the solved end of the step; returns how far it is from the prediction, A. */
  read(net: RigNetwork): number;
  /** Error of the step just read against a straight continuation, Ah. */
  error(h: number): number;
  /** Makes the end of the step the start of the next. With h = 0 only the current jumps. */
  commit(h: number): void;
  /** Forgets a slope that no longer holds. */
  jump(): void;
  /** What has passed a limit since last asked. */
  news?(): News | undefined;
  save(): readonly number[];
  restore(saved: readonly number[]): void;
}
