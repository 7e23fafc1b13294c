/**
 * Edits of one part or one conductor of a rig document. An edit says what stood there and what stands there
 * now, so that its inverse is the same edit the other way round.
 */
import Type from 'typebox';
import { ConductorSchema, LampSchema, ParameterSchema, PartSchema } from './schema';

const omit = { additionalProperties: false } as const;

export const PartChangeSchema = Type.Object(
  {
    name: Type.Optional(PartSchema.properties.name),
    note: Type.Optional(Type.String({ maxLength: 60 })),
    station: Type.Optional(PartSchema.properties.station),
    options: Type.Optional(Type.Record(Type.String(), Type.String({ maxLength: 40 }))),
    params: Type.Optional(Type.Record(Type.String(), ParameterSchema)),
    lamps: Type.Optional(Type.Array(LampSchema, { maxItems: 6 })),
  },
  { ...omit, minProperties: 1 },
);
export type PartChange = Type.Static<typeof PartChangeSchema>;

export const ConductorChangeSchema = Type.Object(
  {
    gauge: Type.Optional(ConductorSchema.properties.gauge),
    length: Type.Optional(ConductorSchema.properties.length),
    joints: Type.Optional(ParameterSchema),
    insulation: ConductorSchema.properties.insulation,
    inEngineSpace: ConductorSchema.properties.inEngineSpace,
    bundled: ConductorSchema.properties.bundled,
    ends: ConductorSchema.properties.ends,
    looked: ConductorSchema.properties.looked,
  },
  { ...omit, minProperties: 1 },
);
export type ConductorChange = Type.Static<typeof ConductorChangeSchema>;

const EndsSchema = Type.Object(
  {
    from: ConductorSchema.properties.from,
    to: ConductorSchema.properties.to,
    length: ConductorSchema.properties.length,
  },
  omit,
);

/** Parts and conductors put into a rig or taken out of it, and conductors whose ends move with them. */
export const piecesSchema = {
  parts: Type.Array(PartSchema, { maxItems: 20 }),
  conductors: Type.Array(ConductorSchema, { maxItems: 60 }),
  moved: Type.Optional(
    Type.Array(Type.Object({ conductor: ConductorSchema.properties.id, was: EndsSchema, set: EndsSchema }, omit), {
      maxItems: 20,
    }),
  ),
};
export type Pieces = Type.Static<Type.TObject<typeof piecesSchema>>;
