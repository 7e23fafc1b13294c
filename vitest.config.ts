import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** The longest files first, so that no core idles at the end while one file runs on alone. */
const LONG = [
  'howItEnds.test',
  'belief.test',
  'cli.test',
  'beliefTrials.test',
  'truth.test',
  'sizing.test',
  'rules.test',
  'reference/tow.test',
  'ngspice.test',
  'backup.test',
  'optimum.test',
  'diagnose.test',
  'asDrawn.test',
  'agree.test',
  'neverLess.test',
  'everyFault.test',
  'edits.test',
  'allJobs.test',
  'findingsStay.test',
];
class LongFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const rank = (f: TestSpecification) => {
      const at = LONG.findIndex((l) => f.moduleId.includes(`/${l}`));
      return at < 0 ? LONG.length : at;
    };
    return [...(await super.sort(files))].sort((a, b) => rank(a) - rank(b));
  }
}

export default defineConfig({
  resolve: { alias: { '@': new URL('./src', import.meta.url).pathname } },
  test: {
    environment: 'node',
    // Far from what any test needs: a busy machine is slow in bursts, and no unit test measures time.
    testTimeout: 600_000,
    hookTimeout: 300_000,
    include: [
      'src/**/*.test.ts',
      'src/**/*.test.tsx',
      'scripts/**/*.test.ts',
      'tests/reference/**/*.test.ts',
      'tests/integration/**/*.test.ts',
    ],
    maxWorkers: 2,
    // The core keeps nothing between two calls: its modules are read once a worker, not once a file.
    isolate: false,
    sequence: { sequencer: LongFirst },
  },
});
