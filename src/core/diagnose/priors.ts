/** Where the search starts: how common each fault is, times what the intake says about it. */
import type { Assumptions } from './assumptions';
import { NOTHING_WRONG } from './catalogue/nothingWrong';
import { faultKey, type Fault } from './faults';
import { INTAKE_FACTS, clueSays, isComplaint, type IntakeClue, type IntakeFact } from './intake';

type ByComplaint = Pick<Assumptions, 'unexplained' | 'asDesigned' | 'priorFactors'>;

/** What a shop's own closed jobs make of a fault's prior; of a pair, the larger of its two. */
export const learntFactor = (fault: Fault, { priorFactors }: Pick<Assumptions, 'priorFactors'>): number =>
  fault.members
    ? Math.max(...fault.answersTo.map(([key]) => priorFactors[key!] ?? 1))
    : (priorFactors[faultKey(fault)] ?? 1);

/** Factor of one clue on one fault. A pair takes the larger of its two: either half may be what it tells of. */
export function clueFactor(fault: Fault, clue: IntakeClue, a: ByComplaint): number {
  if (isComplaint(clue)) {
    if (!fault.explains.includes(clue)) return a.unexplained;
    return fault.id === NOTHING_WRONG.id ? a.asDesigned : 1;
  }
  const { weighs }: IntakeFact = INTAKE_FACTS[clue];
  const factors = fault.answersTo.map((refs) => weighs[refs.find((r) => weighs[r] !== undefined) ?? ''] ?? 1);
  return Math.max(...factors);
}

/** What a fault weighs given the intake, before all weights are made to add up to one. */
export const priorWeight = (fault: Fault, clues: readonly IntakeClue[], a: ByComplaint): number =>
  clues.reduce((w, c) => w * clueFactor(fault, c, a), fault.prior * learntFactor(fault, a));

/** Prior probabilities given the intake; they add up to one. */
export function priors(faults: readonly Fault[], clues: readonly IntakeClue[], a: ByComplaint): Float64Array {
  const weights = Float64Array.from(faults, (f) => priorWeight(f, clues, a));
  const total = weights.reduce((s, w) => s + w, 0);
  return weights.map((w) => w / total);
}

export interface PriorLine {
  fault: string;
  name: string;
  /** Share before the intake, and after it. */
  before: number;
  after: number;
  /** What moved it, strongest first; factors against the average of all faults are left out. */
  because: { clue: IntakeClue; says: string; factor: number }[];
  /** What the shop's own closed jobs did to it before that; 1 where nothing was taken over. */
  learnt: number;
}

/** How the intake sets the start, fault by fault, likeliest first. */
export function explainPriors(faults: readonly Fault[], clues: readonly IntakeClue[], a: ByComplaint): PriorLine[] {
  const before = priors(faults, [], a);
  const after = priors(faults, clues, a);
  return faults
    .map((f, i) => ({
      fault: f.id,
      name: f.name,
      before: before[i]!,
      after: after[i]!,
      learnt: learntFactor(f, a),
      because: clues
        .map((clue) => ({ clue, says: clueSays(clue), factor: clueFactor(f, clue, a) }))
        .filter((c) => c.factor !== 1)
        .sort((x, y) => Math.abs(Math.log(y.factor)) - Math.abs(Math.log(x.factor))),
    }))
    .sort((x, y) => y.after - x.after);
}
