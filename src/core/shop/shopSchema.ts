/** What a shop sets for itself: units, words, rates, minutes, likelihoods, and its instruments. */
import Type from 'typebox';
import { ASSUMPTION_LIMITS, type EditableAssumption } from '../diagnose/assumptionLimits';
import { InstrumentSchema } from '../probe/instrumentSchema';
import { CURRENCIES } from '../units/money';
import { GAUGE_UNITS, JURISDICTIONS, LENGTH_UNITS, TEMPERATURE_UNITS } from '../units/preferences';
import { VOCABULARIES } from '../units/vocabulary';
import { SIGNING, type Act } from '../people/roles';
import { envelope, type Enveloped } from '../job/envelope';
import { LOG_ROLES } from '../recorderLog/series';

const omit = { additionalProperties: false } as const;
const ids = <T extends readonly { id: string }[]>(list: T) => Type.Enum(list.map((c) => c.id) as T[number]['id'][]);
const likelihoods = Object.fromEntries(
  Object.entries(ASSUMPTION_LIMITS).map(([key, { min, max }]) => [key, Type.Number({ minimum: min, maximum: max })]),
) as Record<EditableAssumption, ReturnType<typeof Type.Number>>;

/** What each column of a recorder's table is. */
export const LogMapSchema = Type.Object(
  {
    time: Type.Integer({ minimum: 0, maximum: 500 }),
    clock: Type.Optional(Type.Integer({ minimum: 0, maximum: 500 })),
    format: Type.Enum(['iso', 'day-first', 'month-first', 'seconds', 'milliseconds', 'elapsed']),
    zone: Type.String({ maxLength: 60 }),
    decimal: Type.Enum(['.', ',']),
    columns: Type.Array(
      Type.Object(
        {
          index: Type.Integer({ minimum: 0, maximum: 500 }),
          role: Type.Enum(LOG_ROLES.map((r) => r.id)),
          name: Type.String({ maxLength: 120 }),
          times: Type.Number(),
        },
        omit,
      ),
      { maxItems: 40 },
    ),
    header: Type.Integer({ minimum: 0, maximum: 60 }),
  },
  omit,
);

export const SettingsSchema = Type.Object(
  {
    length: ids(LENGTH_UNITS),
    gauge: ids(GAUGE_UNITS),
    temperature: ids(TEMPERATURE_UNITS),
    vocabulary: ids(VOCABULARIES),
    jurisdiction: ids(JURISDICTIONS),
    currency: Type.Enum([...CURRENCIES]),
    labourPerHour: Type.Number({ minimum: 0, maximum: 2000, description: 'in the currency' }),
    partsTimes: Type.Number({
      minimum: 0.1,
      maximum: 20,
      description: 'factor on the catalogue’s parts prices, which are in US dollars without mark-up',
    }),
    openMinutes: Type.Record(Type.String({ pattern: '^.{1,40}$' }), Type.Number({ minimum: 0, maximum: 120 }), {
      description: 'to open up a place for the first time',
    }),
    likelihoods: Type.Object(likelihoods, omit),
    signing: Type.Enum(
      SIGNING.map((s) => s.id),
      { description: 'who signs a record' },
    ),
    bays: Type.Array(Type.String({ minLength: 1, maxLength: 40, pattern: '\\S' }), {
      minItems: 1,
      maxItems: 30,
      uniqueItems: true,
    }),
    hours: Type.Object(
      {
        from: Type.Integer({ minimum: 0, maximum: 23 }),
        to: Type.Integer({ minimum: 1, maximum: 24 }),
        days: Type.Array(Type.Integer({ minimum: 0, maximum: 6 }), {
          uniqueItems: true,
          maxItems: 7,
          description: '0 is Sunday',
        }),
      },
      { ...omit, description: 'when the shop works, by its own clock' },
    ),
    learnt: Type.Object(
      {
        factors: Type.Record(
          Type.String({ pattern: '^[A-Za-z0-9@.-]{1,80}$' }),
          Type.Number({ minimum: 0.1, maximum: 10 }),
          { description: 'on the prior of a fault, by its name over all rigs' },
        ),
        jobs: Type.Integer({ minimum: 0, description: 'the shop’s own closed and proved jobs they rest on' }),
        others: Type.Integer({ minimum: 0, description: 'the same of other shops, taken in as files' }),
        on: Type.Optional(Type.String({ format: 'date' })),
      },
      { ...omit, description: 'what closed jobs made of the priors, taken over by hand' },
    ),
    logMaps: Type.Record(Type.String({ pattern: '^.{1,300}$' }), LogMapSchema, {
      description: 'how the columns of a recorder’s table were mapped, by its header',
    }),
  },
  omit,
);
export type Settings = Type.Static<typeof SettingsSchema>;

export const ShopSchema = Type.Object(
  {
    name: Type.String({ minLength: 1, maxLength: 120 }),
    settings: SettingsSchema,
    instruments: Type.Array(InstrumentSchema, { maxItems: 100 }),
  },
  omit,
);
export type Shop = Type.Static<typeof ShopSchema>;

const change = Type.Partial(SettingsSchema, { ...omit, minProperties: 1 });
export type SettingsChange = Type.Static<typeof change>;

export const SHOP_PAYLOADS = {
  'settings.set': Type.Object({ was: change, set: change }, omit),
  'instrument.set': Type.Object({ was: Type.Optional(InstrumentSchema), set: InstrumentSchema }, omit),
} as const;
export type ShopCommandType = keyof typeof SHOP_PAYLOADS;
export const SHOP_COMMAND_TYPES = Object.keys(SHOP_PAYLOADS) as ShopCommandType[];
export type ShopPayload<T extends ShopCommandType> = Type.Static<(typeof SHOP_PAYLOADS)[T]>;

export const shopCommandSchema = <T extends ShopCommandType>(type: T) => envelope(type, SHOP_PAYLOADS[type]);
export type ShopCommandOf<T extends ShopCommandType> = Enveloped<T, ShopPayload<T>>;
export type ShopCommand = { [T in ShopCommandType]: ShopCommandOf<T> }[ShopCommandType];

/** What of the shop a command decides: the fields it sets, or one instrument. */
export const shopMatter = (c: ShopCommand): string[] =>
  c.type === 'settings.set' ? Object.keys(c.payload.set) : [`instrument ${c.payload.set.id}`];

/** What one must be allowed to do to give it. How a recorder's columns were mapped is remembered by whoever read a log. */
export const actOfShopCommand = (c: ShopCommand): Act =>
  c.type === 'settings.set' && Object.keys(c.payload.set).every((k) => k === 'logMaps') ? 'work' : 'settings';
