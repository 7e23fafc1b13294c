/**
 * What a command is: everything about one kind of change in one place. A new command is a file in `commands/`
 * and a row in its two indexes.
 */
import type { Result } from '../units/result';
import type { Payload, CommandType } from './command';
import type { Job } from './job';
import type { Refusal } from './refusal';
import type { Act } from '../people/roles';

/** Who gave a command, when, and the epoch of the rig it was given on. */
export interface Given {
  by: string;
  at: string;
  epoch: number;
}

/** A command that takes another back. */
export type Undoing = { [T in CommandType]: { type: T; payload: Payload<T> } }[CommandType];

export interface CommandDefinition<P> {
  /** The job after it, or what stands in its way. Lists that do not change stay the same object. */
  apply(job: Job, payload: P, given: Given): Result<Job, Refusal>;
  /**
   * What takes it back, from the job as it was before; undefined where nothing does.
   * @param newId makes ids for what has to be entered anew
   */
  inverse(payload: P, before: Job, newId: () => string): Undoing | undefined;
  /**
   * The matter it decides for everybody: it is refused when another decision on the same matter came in that the
   * sender had not seen. Undefined where both may stand: readings and notes never collide.
   */
  collides(payload: P): string | undefined;
  /** What one must be allowed to do to give it. */
  needs: Act;
  /** Name of the person whose entry it takes back, and what that needs where it is another's. */
  takesBack?: { of(job: Job, payload: P): string | undefined; needs: Act };
  /** Whether a record that is signed still takes it. */
  afterSigning: boolean;
  /** What an undo of it takes back, in words. */
  undoWords: string;
  /**
   * What it speaks for, if it is a statement about the record: it is refused when any of that changed and its sender
   * had not seen it.
   */
  speaksFor?: 'record' | 'evidence' | 'verdict';
}
