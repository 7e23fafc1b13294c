/** Candidates on the owner's scenarios, side by side. */
import { has } from '../rig/value';
import { compileRig } from '../compile/compile';
import { estimate, type Estimate, type Rates } from '../price/estimate';
import type { Scenario } from '../simulate/scenarioSchema';
import type { SimResult } from '../simulate/result';
import type { Candidate } from './candidates';
import type { Complaint } from '../parts/complaints';
import type { Asked } from './criteria';
import { outcomeOf, simulateCandidate, type CandidateOutcome } from './outcome';
import { recommend, scoreOf, type Recommendation, type Scored } from './recommend';
import { argue, type SchoolArgument } from './schools';

export interface Compared {
  candidate: Candidate;
  /** One a scenario. */
  results: SimResult[];
  outcome: CandidateOutcome;
  estimate: Estimate;
  scored: Scored;
}

export interface Comparison {
  scenarios: string[];
  rows: Compared[];
  recommendation?: Recommendation;
  schools: SchoolArgument[];
}

export interface CompareOptions {
  /** What the owner complained of: it counts. */
  complaints?: readonly Complaint[];
  /** Told the share done. */
  progress?: (share: number) => void;
}

/**
 * Simulates every candidate and judges them. Prices are scored in the catalogue's dollars at the shop's own
 * labour rate, so that a currency does not change what is recommended.
 */
export function compare(
  candidates: readonly Candidate[],
  scenarios: readonly Scenario[],
  rates: Rates,
  { complaints = [], progress }: CompareOptions = {},
): Comparison {
  const hadBoost = candidates.some((c) => c.differences.length === 0 && has(c.rig, 'boost'));
  const asked: Asked = { hadBoost, complaints };
  const rows = candidates.map((candidate, i): Compared => {
    const compiled = compileRig(candidate.rig);
    const results = scenarios.map((scenario) => simulateCandidate(candidate, compiled, scenario));
    const outcome = outcomeOf(candidate, results, compiled);
    const cost = estimate({ minutes: candidate.minutes, parts: candidate.parts }, rates);
    progress?.((i + 1) / candidates.length);
    return { candidate, results, outcome, estimate: cost, scored: scoreOf(candidate, outcome, cost.total, asked) };
  });
  const outcomes = new Map(rows.map((r) => [r.candidate.id, r.outcome]));
  const recommendation = recommend(
    outcomes,
    rows.map((r) => r.scored),
    asked,
  );
  return {
    scenarios: scenarios.map((s) => s.id),
    rows,
    ...(recommendation ? { recommendation } : {}),
    schools: argue(candidates, outcomes, hadBoost),
  };
}
