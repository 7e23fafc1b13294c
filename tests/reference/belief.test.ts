/**
 * What a sound belief must do whatever the model: readings drawn from it bring it, on average, nearer the
 * hidden truth. (A file of its own: it is the longest, and the runner spreads files over the cores.)
 */
import { expect, it } from 'vitest';
import { readingGains } from '../../bench/draws';
import { compileRig } from '../../src/core/compile/compile';
import { motorhome } from '../../src/core/rig/archetypes/motorhome';

it('over 40 draws no reading lowers the mean log-probability of the truth by more than three standard errors', () => {
  // A guard against a fall; `./surrik trials 1000 draws` takes a thousand.
  const gains = readingGains(compileRig(motorhome('belief', 'Belief coach')), 40, 11);
  expect(gains).toHaveLength(2);
  for (const { mean, error } of gains) expect(mean).toBeGreaterThan(-3 * error);
  // And it does learn something.
  expect(gains[0]!.mean).toBeGreaterThan(0);
});
