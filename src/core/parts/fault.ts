/**
 * A fault that a kind of part can have, in itself or on a wire at one of its terminals: what it does to the
 * electrical model, what it explains, how it is confirmed and put right. Priors are relative weights; priors,
 * minutes and money are assumed: a shop edits its own.
 */
import type { Complaint } from './complaints';

export type LocalEffect =
  | { do: 'open'; element: string }
  | { do: 'stuck-closed'; element: string }
  | { do: 'replace-ohms'; element: string; from: number; to: number }
  /** `behind` is a terminal whose lead lies on the far side of it. */
  | { do: 'add-ohms'; element: string; from: number; to: number; behind?: string }
  | { do: 'parallel-ohms'; element: string; from: number; to: number }
  | { do: 'shift-volts'; element: string; from: number; to: number }
  | { do: 'scale-param'; param: string; from: number; to: number }
  | { do: 'shift-param'; param: string; from: number; to: number }
  | { do: 'no-output'; element: string }
  | { do: 'open-battery' }
  | { do: 'dead-controller' };

/** What every fault says of itself, wherever it sits. `{owner}` stands for the part's or conductor's own name. */
export interface FaultWords {
  id: string;
  name: string;
  /** Elements and params are local to the owner; '' is the conductor or bond itself. */
  effects: readonly LocalEffect[];
  /** Another way it may be, with its share of the prior: what the effects leave of it is the usual way. */
  or?: { effects: readonly LocalEffect[]; share: number };
  prior: number;
  explains: readonly Complaint[];
  /** Faults of one owner with the same repair are one class: the repair is the same whichever it is. */
  repair: string;
  /** How it shows, in a sentence for the report. */
  shows: string;
  /** How it is proved before anything is taken apart. */
  confirm: string;
  /**
   * The same as data, where a reading at the owner is not enough: terminals of its part that must all have been read
   * in a state where the fault shows, terminals at one wire of which the amps must have been (with `speeds`, whatever they
   * tell, at idle and at fast idle), questions of which one must have been answered, and starts of the engine in as many
   * of which it must have shown.
   */
  proof?: {
    touch?: readonly string[];
    clamp?: readonly string[];
    speeds?: boolean;
    ask?: readonly string[];
    starts?: number;
  };
  /** Minutes of work to put it right, from and to. */
  minutes: readonly [number, number];
  /** Parts, in dollars, from and to. */
  parts: readonly [number, number];
  caution?: string;
}

export interface PartFault extends FaultWords {
  /** On the conductor that has this end at this terminal; absent: in the part itself. */
  wire?: { end: 'from' | 'to'; terminal: string };
  /** Only of parts on this side of the rig. */
  side?: 'engine' | 'coach' | 'both';
  /** Only of parts with this choice. */
  option?: { name: string; is: readonly string[] };
}
