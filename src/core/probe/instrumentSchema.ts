/** The shape of a row in the instrument register; apart, so that a page can ask about one without carrying it. */
import Type from 'typebox';

const day = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$', description: 'year-month-day' });

export const InstrumentSchema = Type.Object(
  {
    id: Type.String({ pattern: '^[a-z][a-z0-9-]{0,39}$' }),
    name: Type.String({ minLength: 1, maxLength: 60, pattern: '\\S', description: 'as the shop calls it' }),
    voltPercent: Type.Number({
      minimum: 0.01,
      maximum: 10,
      description: 'DC volts, ± per cent of the reading, of the data sheet',
    }),
    voltDigits: Type.Number({ minimum: 0, maximum: 50, description: 'and ± last digits' }),
    ampPercent: Type.Number({ minimum: 0.1, maximum: 20, description: 'DC clamp, ± per cent of the reading' }),
    ampFloor: Type.Number({ minimum: 0.01, maximum: 20, description: 'and ± amps near zero' }),
    calibratedOn: Type.Optional(day),
    months: Type.Integer({ minimum: 1, maximum: 120, description: 'a calibration holds' }),
    retired: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);
export type Instrument = Type.Static<typeof InstrumentSchema>;
