/** What a shop's cases make of the assumptions: two conjugate updates, each with what the assumption itself is worth. */
import { ASSUMPTIONS } from '../diagnose/assumptions';
import type { Cases } from './cases';

/**
 * How often a fault has to have been expected before a shop's own count weighs as much as the assumed prior. Assumed: a
 * shop's first cases are few, and its rigs alike.
 */
export const PRIOR_WORTH = 4;
/** Jobs after which a shop's own spreads weigh as much as the assumed ones. Assumed. */
export const SPREAD_WORTH = 10;
/** No factor moves a prior further than this either way: readings decide, not habit. */
export const MOST_FACTOR = 4;
/** A case of another shop counts for this much of one's own: other rigs, other roads. Assumed. */
export const OTHERS_COUNT = 0.5;

/**
 * Factors on the priors: a fault's rate against the assumed one has a Gamma prior of mean 1 worth PRIOR_WORTH expected
 * cases, its count is Poisson, so the posterior mean is (worth + seen) / (worth + expected). What was neither seen nor
 * expected stays. Source: the conjugate pair, any text on Bayesian statistics.
 */
export function priorFactors({ faults }: Cases): Record<string, number> {
  const factors: Record<string, number> = {};
  for (const [key, { seen, expected }] of Object.entries(faults)) {
    const factor = (PRIOR_WORTH + seen) / (PRIOR_WORTH + expected);
    factors[key] = Math.min(MOST_FACTOR, Math.max(1 / MOST_FACTOR, factor));
  }
  return factors;
}

/**
 * How many times wider than stated the spreads are: the square of it has the assumed one's value worth SPREAD_WORTH jobs,
 * each job's mean squared deviation counts once however many readings it has, since they share a rig. Mean of the scaled
 * inverse chi-squared, to the same source.
 */
export function spreadFactor({ spread }: Cases): number {
  const assumed = ASSUMPTIONS.spreadFactor ** 2;
  return Math.sqrt((SPREAD_WORTH * assumed + spread.squares) / (SPREAD_WORTH + spread.jobs));
}
