/**
 * What a question about the rig is that no probe answers: something seen, heard, felt or tried. A template is
 * a row of a table; asked of a rig it becomes one question for each part or wire it is about.
 */
import type { TraitName } from '../../parts/traits';
import type { OwnerParts } from '../catalogue/faultKind';
import type { GradeId } from './grades';

/** Chance of each answer; they add up to one. Assumed throughout. */
export type Chances = Readonly<Record<string, number>>;

export interface Answer {
  id: string;
  label: string;
}

/** A figure the question asks for. */
export interface Field {
  id: string;
  label: string;
  unit: '°C' | 'ohm' | 'V' | 'A' | 'min' | '';
  min: number;
  max: number;
}

/**
 * Whose question it is: every part with a trait; the thin or heavy wires that can have faults; or once a rig, of its
 * first part with a trait, where it also has a part with another.
 */
export type ObservationContext = OwnerParts | { wires: 'thin' | 'heavy' } | { first: TraitName; with?: TraitName };

export interface ObservationTemplate {
  id: string;
  of: ObservationContext;
  /** {owner} stands for the part's or wire's name. */
  ask: string;
  /** How to look, listen or try it. */
  how: string;
  group: 'look' | 'listen' | 'feel' | 'try';
  /** Operating state it is asked in; absent where any will do. */
  state?: string;
  /** Minutes beyond getting to the place. Assumed. */
  minutes: number;
  caution?: string;
  answers: readonly Answer[];
  /** Figures that are graded into an answer. */
  fields?: readonly Field[];
  grade?: GradeId;
  /** Chances under a fault of the owner, by the fault's kind. */
  faults?: Readonly<Record<string, Chances>>;
  /** Chances under any fault of the owner that does this to the circuit. */
  does?: Readonly<Record<string, Chances>>;
  /** Of a test by ohms: added ohms under this pass it. */
  seesOhms?: number;
  /** Chances by what the rig’s solenoid does in a state. */
  closes?: { state: string; so: Chances; not: Chances };
  /** Chances by whether a healthy meter would find battery volts at a terminal of the part in the state. */
  live?: { terminal: string; so: Chances; not: Chances };
  /** Everything else. */
  otherwise: Chances;
}

/** A question of one rig: plain data, so that a page can hold it. */
export interface ObservationKind extends Omit<
  ObservationTemplate,
  'of' | 'faults' | 'does' | 'seesOhms' | 'closes' | 'live'
> {
  place: string;
  closes?: { part: string; state: string; so: Chances; not: Chances };
  live?: { probe: string; so: Chances; not: Chances };
  /** Chances by fault id. */
  faults: Readonly<Record<string, Chances>>;
}

export const YES_NO: readonly Answer[] = [
  { id: 'yes', label: 'Yes' },
  { id: 'no', label: 'No' },
];
export const yes = (p: number): Chances => ({ yes: p, no: 1 - p });
