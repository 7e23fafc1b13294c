/** A design rule: what it looks for in a rig, what it saw in numbers, why it matters, and what mends it. */
import type { RuleSet } from '../codes/ruleSet';
import type { TraitName } from '../parts/traits';
import type { ConductorChange, PartChange, Pieces } from '../rig/edit';
import type { Conductor, Part, Rig } from '../rig/schema';
import type { Sizing } from '../size/sizing';

/** `look`: what was drawn as usual and nobody has seen yet; it is asked, not condemned. */
export type Severity = 'danger' | 'look' | 'will not work' | 'wears out' | 'tidy';
export const SEVERITIES: readonly Severity[] = ['danger', 'look', 'will not work', 'wears out', 'tidy'];

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
  /** What one may have found on the rig, each with what it makes of the description. */
  answers?: readonly { says: string; edit: Autofix }[];
}

export interface RuleContext {
  rig: Rig;
  sizing: Sizing;
  /** The rules of the place it was sized for. */
  rules: RuleSet;
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
  /** Where it stands, or "common practice"; a code's own clause where the place has one. */
  source: string | ((rules: RuleSet) => string);
  check(c: RuleContext): Violation[];
}

export interface Finding extends Violation {
  rule: string;
  severity: Severity;
  title: string;
  why: string;
  source: string;
}

export const PRACTICE = 'common practice';

/** Share of another’s copper from which a conductor counts as thick as it: one AWG step. */
export const SAME_COPPER_SHARE = 0.6;

/** What a rule saw at a part or conductor, in numbers, with its remedy. */
export const saw = (at: string, says: string, fix: string, mend?: Autofix): Violation => ({
  at,
  says,
  fix,
  ...(mend ? { mend } : {}),
});

/** V a unit is set to, as a change of its parameter. */
export const setTo = (value: number) => ({ value, spread: 0.06, provenance: 'nameplate' as const });
