/**
 * What closed jobs teach, summed: how often a fault was what it was against how often it was to be expected, and how far
 * the readings of rigs put right lay from what a sound one was to read. Nothing of any one job, no rig, name or word, is
 * in the sum.
 */
export interface Cases {
  /** Jobs that were closed and proved. */
  jobs: number;
  /** By fault as catalogues name it: how often it was, and how often it was to be expected before any reading. */
  faults: Record<string, { seen: number; expected: number }>;
  /** Jobs with readings of a rig put right, and the sum over them of the mean squared deviation in stated spreads. */
  spread: { jobs: number; squares: number };
}

export const NO_CASES: Cases = { jobs: 0, faults: {}, spread: { jobs: 0, squares: 0 } };

/** Both together; the second counts for less than it is, if so wished. @param weight share, 0 to 1 */
export function together(a: Cases, b: Cases, weight = 1): Cases {
  const faults = { ...a.faults };
  for (const [key, { seen, expected }] of Object.entries(b.faults)) {
    const own = faults[key] ?? { seen: 0, expected: 0 };
    faults[key] = { seen: own.seen + weight * seen, expected: own.expected + weight * expected };
  }
  return {
    jobs: a.jobs + b.jobs,
    faults,
    spread: {
      jobs: a.spread.jobs + weight * b.spread.jobs,
      squares: a.spread.squares + weight * b.spread.squares,
    },
  };
}
