/** The choices for a bench as a schema: two batteries, a shop charger, one unit on clips. */
import Type from 'typebox';
import { BENCH_UNITS, type BenchUnit } from './benchChoices';
import { BankChoiceSchema } from './choicesSchema';

export const BenchChoicesSchema = Type.Object(
  {
    unit: Type.Enum(BENCH_UNITS.map((u) => u.id) as BenchUnit[]),
    nominalVolts: Type.Union([Type.Literal(12), Type.Literal(24)]),
    chargerAt: Type.Enum(['first', 'second'], { description: 'the battery the shop charger is clipped to' }),
    chargerAmps: Type.Number({ minimum: 1, maximum: 100 }),
    first: BankChoiceSchema,
    second: BankChoiceSchema,
  },
  { additionalProperties: false },
);
export type BenchChoices = Type.Static<typeof BenchChoicesSchema>;
