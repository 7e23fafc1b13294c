/** The whole diagnosis against rigs that hide a fault: a guard against a fall; `./surrik trials` measures. */
import { expect, it } from 'vitest';
import { compileRig } from '../../src/core/compile/compile';
import { motorhome } from '../../src/core/rig/archetypes/motorhome';
import { runTrials } from '../../bench/trial';

it('diagnosis finds the repair on hidden rigs drawn wider than assumed, blunders included', () => {
  const result = runTrials(compileRig(motorhome('belief', 'Belief coach')), {
    trials: 16,
    seed: 424_242,
    widen: 1.5,
    blunderShare: 0.03,
  });
  // So few trials cannot tell 95 % from 98 %: this guards against a fall, bench/trials measures.
  expect(result.stopped / result.trials).toBeGreaterThan(0.9);
  expect(result.rightOfStopped / result.stopped).toBeGreaterThan(0.88);
  // A sound verdict owes each open suspect its own test, a bank's complaint its load test and a zeroed clamp.
  expect(result.meanMinutes).toBeLessThan(41);
});
