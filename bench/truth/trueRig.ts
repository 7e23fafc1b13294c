/** What every form of truth has, whatever computes it: pieces with figures that can be spoiled, and a way to be measured. */
import type { DocPart, RigDocument } from './document';
import type { Chance } from './random';
import type { Doing } from './doing';

export interface Hand {
  gain: number;
  clampGain: number;
  clampZero: number;
  /** Share of readings that are slips; share of changes of state that are not waited out. */
  slips: number;
  early: number;
}

export interface TrueBattery {
  readonly ah: number;
  /** Rated volts of this piece of the bank. */
  readonly rated: number;
  readonly cca: number;
  /** Cells that give nothing. */
  deadCells: number;
  /** Share of its charge; its ohms against new. */
  filled: number;
  worn: number;
}

export interface TrueContact {
  ohms: number;
  /** Burned open; welded. */
  open: boolean;
  welded: boolean;
  readonly closed: boolean;
}

export interface TrueRig {
  readonly rig: RigDocument;
  readonly chance: Chance;
  readonly hand: Hand;
  readonly celsius: number;
  /** Runs of wire, bonds and simple pieces by `id` or `part.piece`, ohms. */
  readonly ohms: ReadonlyMap<string, { ohms: number }>;
  readonly contacts: ReadonlyMap<string, TrueContact>;
  readonly batteries: ReadonlyMap<string, TrueBattery[]>;
  readonly alternators: ReadonlyMap<string, { strength: number; shift: number }>;
  /** What is wrong with a part that no figure says: `dead`, `stiff`. */
  readonly marks: Set<string>;
  /** One more path for current between two points. */
  join(id: string, a: string, b: string, ohms: number): void;
  /** Where the wires of a battery's post sit. */
  clampOf(point: string): string;
  now(doing: Partial<Doing>): void;
  wait(seconds: number): void;
  reading(probe: string, black?: string): number;
  /** Amps through a wire, piece or contact. */
  amps(id: string): number;
  /** Volts at a point with a lamp of some five amps on it. */
  lampAt(point: string): number;
  restSeconds(): number;
}

/** Rated volts of where a part is. */
export function nominalOf(rig: RigDocument, part: DocPart): number {
  if (part.options?.['nominal'] === '12') return 12;
  return rig.vehicles.find((v) => v.id === part.vehicle)?.nominalVolts ?? 12;
}
