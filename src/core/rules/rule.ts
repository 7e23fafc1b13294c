/** A design rule: what it looks for in a rig, what it saw in numbers, why it matters, and what mends it. */
import type { TraitName } from '../parts/traits';
import type { ConductorChange, PartChange, Pieces } from '../rig/edit';
import type { Conductor, Part, Rig } from '../rig/schema';
import type { Sizing } from '../size/sizing';

export type Severity = 'danger' | 'will not work' | 'wears out' | 'tidy';
export const SEVERITIES: readonly Severity[] = ['danger', 'will not work', 'wears out', 'tidy'];

/** An edit that mends it without a judgement: one button. */
export type Autofix =
  { part: string; set: PartChange } | { conductors: readonly string[]; set: ConductorChange } | { pieces: Pieces };

export interface Violation {
  /** Part or conductor it is about. */
  at: string;
  /** What it saw, in numbers. */
  says: string;
  fix: string;
  mend?: Autofix;
}

export interface RuleContext {
  rig: Rig;
  sizing: Sizing;
  /** Parts with a trait, or with one of several. */
  parts(trait: TraitName | readonly TraitName[]): Part[];
  part(id: string): Part | undefined;
  option(part: Part, name: string): string;
  value(part: Part, name: string): number;
  /** 12 V blocks its side is made of: 1, 2 or 4. */
  blocks(part: Part): number;
  /** Conductors on a terminal. */
  on(part: string, terminal: string): Conductor[];
}

export interface DesignRule {
  id: string;
  severity: Severity;
  title: string;
  why: string;
  source: string;
  check(c: RuleContext): Violation[];
}

export interface Finding extends Violation {
  rule: string;
  severity: Severity;
  title: string;
  why: string;
  source: string;
}
