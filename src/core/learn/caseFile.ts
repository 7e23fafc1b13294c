/**
 * Cases as a file for another shop: sums only. Nothing in it says whose rig, which rig, when or where; a fault that few
 * jobs have had is in it as a number beside all the others.
 */
import Type from 'typebox';
import type { Cases } from './cases';

const omit = { additionalProperties: false } as const;
const amount = Type.Number({ minimum: 0, maximum: 1e6 });

export const CaseFileSchema = Type.Object(
  {
    format: Type.Literal('surrik-cases'),
    version: Type.Literal(1),
    jobs: Type.Integer({ minimum: 1, maximum: 1_000_000, description: 'closed and proved' }),
    faults: Type.Record(
      Type.String({ pattern: '^[A-Za-z0-9@.-]{1,80}$' }),
      Type.Object({ seen: amount, expected: amount }, omit),
      { description: 'by fault: how often it was, and how often it was to be expected before any reading' },
    ),
    spread: Type.Object({ jobs: amount, squares: amount }, omit),
  },
  omit,
);
export type CaseFile = Type.Static<typeof CaseFileSchema>;

const rounded = (x: number) => Number(x.toFixed(3));

/** The file of these cases. */
export const caseFileOf = ({ jobs, faults, spread }: Cases): CaseFile => ({
  format: 'surrik-cases',
  version: 1,
  jobs,
  faults: Object.fromEntries(
    Object.entries(faults)
      .filter(([, f]) => f.seen > 0 || f.expected >= 0.001)
      .sort(([a], [b]) => a.localeCompare(b))
      .map(([key, f]) => [key, { seen: rounded(f.seen), expected: rounded(f.expected) }]),
  ),
  spread: { jobs: rounded(spread.jobs), squares: rounded(spread.squares) },
});
