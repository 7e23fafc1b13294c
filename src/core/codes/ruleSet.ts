/**
 * What a country's rules ask of the low-voltage wiring of a rig. Every figure names its clause and edition; all of
 * them are from memory, so none makes a rig pass: where a figure is stricter than the physics it adds a danger, where
 * it is laxer the physics stands.
 */
import type { Jurisdiction } from '../units/preferences';
import type { AwgGauge } from '../units/wire';

/** Where a figure stands. All are from memory: check the edition. */
export interface Clause {
  standard: string;
  clause: string;
  edition?: string;
}

/** "NEC 551.10(E)(1), 2023 edition (from memory)": how a clause is cited everywhere. */
export const cited = ({ standard, clause, edition }: Clause): string =>
  `${standard} ${clause}`.trim() + `${edition ? `, ${edition} edition` : ''} (from memory)`;

/** m: 7 in, 33 CFR 183.455, for boats: the common guide for RVs (from memory). */
export const BOAT_GUIDE_METRES = 0.18;
/** m: 40 in, what the same section allows a sheathed conductor (from memory). */
export const SHEATHED_METRES = 1.016;

/** Cable sold by something else than its copper. */
export interface SoldAs {
  label: string;
  /** mm² of copper in it. */
  square: number;
}

export interface RuleSet {
  id: Jurisdiction;
  /** The standards it goes by, as one line. */
  standards: string;
  /** Most A a fuse may be rated on a conductor of so little copper, whatever its insulation; none where not said. */
  smallWire?: { amps: Readonly<Partial<Record<AwgGauge, number>>>; from: Clause };
  /** m of conductor from a battery to its fuse: what to aim at, and what is too much. */
  fuseWithin: { guide: number; most: number; says: string };
  /** What a trailer's breakaway has to do, and from how many kg, loaded, it is wanted; nothing where the mass does not decide. */
  breakaway: { says: string; from: Clause; fromKg?: number };
  /** Least copper, mm², behind the pins of a connector: of some by name, of the rest. */
  pinCopper?: {
    connector: string;
    square: Readonly<Record<string, number>>;
    otherwise: number;
    from: Clause;
  };
  /** Where driving has to cut the habitation loads of what is towed: where it stands. */
  habitationCut?: Clause;
  /** W of a three-way fridge's element on 12 V, as they are usually sold here. From memory. */
  fridgeWatts: number;
  /** How cable is sold here, and the trap in it. */
  cable: { says: string; sold: readonly SoldAs[]; from: string };
  /** The plug a trailer usually has here: ids of a connector and of its convention. */
  plug: { connector: string; convention: string };
}
