/**
 * What a row of the fault catalogue is: a fault of a kind of part, conductor or bond, what it does to the
 * electrical model, what it explains, how it is confirmed and put right. Priors are relative weights;
 * priors, minutes and money are assumed: a shop edits its own.
 */
import type { Complaint } from '../../parts/complaints';

export type LocalEffect =
  | { do: 'open'; element: string }
  | { do: 'stuck-closed'; element: string }
  | { do: 'replace-ohms'; element: string; from: number; to: number }
  | { do: 'add-ohms'; element: string; from: number; to: number }
  | { do: 'parallel-ohms'; element: string; from: number; to: number }
  | { do: 'shift-volts'; element: string; from: number; to: number }
  | { do: 'scale-param'; param: string; from: number; to: number }
  | { do: 'shift-param'; param: string; from: number; to: number }
  | { do: 'no-output'; element: string }
  | { do: 'open-battery' }
  | { do: 'dead-controller' };

type SideOfRig = 'engine' | 'coach' | 'both';

/** What of the rig a fault belongs to. */
export type FaultOwner =
  | { part: string | readonly string[]; side?: SideOfRig; option?: { name: string; is: readonly string[] } }
  /** A conductor by one of its ends: a terminal of a kind of part. */
  | { conductor: { end: 'from' | 'to'; part: string | readonly string[]; terminal: string; side?: SideOfRig } }
  /** A strap between two grounds. */
  | { strap: 'ground-to-ground' }
  | { bond: 'frame-to-frame' | 'part-to-ground' };

export interface FaultKind {
  id: string;
  owner: FaultOwner;
  /** {owner} stands for the part's or conductor's own name. */
  name: string;
  /** Elements and params are local to the owner; '' is the conductor or bond itself. */
  effects: readonly LocalEffect[];
  prior: number;
  explains: readonly Complaint[];
  /** Faults of one owner with the same repair are one class: the repair is the same whichever it is. */
  repair: string;
  /** How it shows, in a sentence for the report. */
  shows: string;
  /** How it is proved before anything is taken apart. */
  confirm: string;
  /** Minutes of work to put it right, from and to. */
  minutes: readonly [number, number];
  /** Parts, in dollars, from and to. */
  parts: readonly [number, number];
  caution?: string;
}
