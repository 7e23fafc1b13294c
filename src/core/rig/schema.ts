/**
 * The rig document: real parts at real places. One schema per shape; the types derive from it.
 * Everything is SI; stations are metres from the nose of the foremost vehicle.
 */
import Type from 'typebox';
import { PART_KIND_IDS } from '../parts/kinds';
import { INSULATIONS } from '../units/ampacity';
import { GAUGES } from '../units/wire';
import { MotorhomeChoicesSchema } from './archetypes/choicesSchema';
import { WIRE_ENDS, type WireEnds } from './ends';
import { BenchChoicesSchema } from './archetypes/benchSchema';
import { CoupledChoicesSchema } from './archetypes/coupledSchema';
import { TowInterfaceSchema } from './towSchema';

const id = Type.String({ pattern: '^[a-z][a-z0-9-]{0,39}$', description: 'kebab-case, permanent' });
const text = Type.String({ minLength: 1, maxLength: 120 });

export const ParameterSchema = Type.Object(
  {
    value: Type.Number(),
    spread: Type.Number({ minimum: 0, description: 'one standard deviation; natural-log units for ratio scales' }),
    provenance: Type.Enum(['measured', 'nameplate', 'assumed']),
    source: Type.Optional(Type.String({ maxLength: 200 })),
  },
  { additionalProperties: false },
);

export const EndpointSchema = Type.Object(
  { part: id, terminal: id },
  { additionalProperties: false, description: 'a terminal of a part, or a named point of a ground' },
);
export type Endpoint = Type.Static<typeof EndpointSchema>;

export const VehicleSchema = Type.Object(
  {
    id,
    role: Type.Enum(['motorhome', 'tow-vehicle', 'trailer', 'camper', 'towed-car', 'van', 'bench']),
    length: Type.Number({ exclusiveMinimum: 0, maximum: 30, description: 'metres' }),
    engineAt: Type.Optional(Type.Enum(['front', 'rear'])),
    nominalVolts: Type.Union([Type.Literal(12), Type.Literal(24), Type.Literal(48)]),
    coupledTo: Type.Optional(id),
  },
  { additionalProperties: false },
);

/** A row of the table of lamps printed on a unit. */
export const LampSchema = Type.Object(
  {
    shows: Type.String({ minLength: 1, maxLength: 40, description: 'what one sees: green steady' }),
    means: Type.Enum(['closed', 'waiting', 'dark'], { description: 'what the unit says with it' }),
  },
  { additionalProperties: false },
);
export type Lamp = Type.Static<typeof LampSchema>;

export const PartSchema = Type.Object(
  {
    id,
    kind: Type.Enum([...PART_KIND_IDS]),
    vehicle: id,
    station: Type.Number({ minimum: -5, maximum: 60 }),
    side: Type.Enum(['engine', 'coach', 'both']),
    place: text,
    name: text,
    named: Type.Optional(Type.Literal(true, { description: 'a person gave it its name: no vocabulary changes it' })),
    note: Type.Optional(Type.String({ maxLength: 60, description: 'rating or kind, printed under the name' })),
    params: Type.Record(Type.String(), ParameterSchema),
    options: Type.Optional(
      Type.Record(Type.String(), Type.String({ maxLength: 40 }), {
        description: 'choices of the kind that differ from its usual ones',
      }),
    ),
    lamps: Type.Optional(
      Type.Array(LampSchema, { maxItems: 6, description: 'the table of lamps on the unit’s own label' }),
    ),
  },
  { additionalProperties: false },
);
export type Part = Type.Static<typeof PartSchema>;

export const ConductorSchema = Type.Object(
  {
    id,
    name: text,
    use: Type.Enum(['feed', 'return', 'control']),
    from: EndpointSchema,
    to: EndpointSchema,
    gauge: Type.Enum([...GAUGES]),
    length: Type.Number({ exclusiveMinimum: 0, maximum: 100, description: 'metres, one way' }),
    joints: ParameterSchema,
    insulation: Type.Optional(
      Type.Enum([...INSULATIONS], { description: '°C read off its jacket; 80 where nobody has read it' }),
    ),
    inEngineSpace: Type.Optional(Type.Boolean({ description: 'runs where the air is hot' })),
    bundled: Type.Optional(
      Type.Integer({
        minimum: 1,
        maximum: 60,
        description: 'current-carrying conductors in its jacket or loom, itself one',
      }),
    ),
    ends: Type.Optional(
      Type.Enum(WIRE_ENDS.map((e) => e.id) as WireEnds[], {
        description: 'how its ends and splices are made; crimped where not stated',
      }),
    ),
    looked: Type.Optional(
      Type.Boolean({ description: 'somebody has followed it: it has the fuses that are drawn, and no others' }),
    ),
  },
  { additionalProperties: false },
);
export type Conductor = Type.Static<typeof ConductorSchema>;

export const GroundSchema = Type.Object(
  {
    id,
    vehicle: id,
    name: text,
    metal: Type.Optional(
      Type.Enum(['steel', 'aluminum'], { description: 'what a joint on it is made to; steel where not stated' }),
    ),
    points: Type.Array(
      Type.Object({ id, label: text, station: Type.Number(), place: text }, { additionalProperties: false }),
      { minItems: 1 },
    ),
  },
  { additionalProperties: false, description: 'one electrical node: a frame, a body, an engine block' },
);

export type Ground = Type.Static<typeof GroundSchema>;

export const BondSchema = Type.Object(
  { id, name: text, from: EndpointSchema, to: EndpointSchema, resistance: ParameterSchema },
  { additionalProperties: false, description: 'metal to metal: a bolted mount, a splice of two frames' },
);
export type Bond = Type.Static<typeof BondSchema>;

export const ProbeSchema = Type.Object(
  {
    key: Type.String({
      pattern: '^[a-z][a-z0-9-]*\\.[a-z][a-z0-9-]*$',
      description: 'part.terminal, or conductor.clamp',
    }),
    label: Type.String({ pattern: '^P[1-9][0-9]{0,2}$', description: 'given once, never renumbered or reused' }),
    name: text,
    retired: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);
export type Probe = Type.Static<typeof ProbeSchema>;

/** The archetype a rig was drawn up from, so that other links can be drawn into it. */
export const MadeSchema = Type.Union([
  Type.Object({ family: Type.Literal('motorhome'), choices: MotorhomeChoicesSchema }, { additionalProperties: false }),
  Type.Object({ family: Type.Literal('coupled'), choices: CoupledChoicesSchema }, { additionalProperties: false }),
  Type.Object({ family: Type.Literal('bench'), choices: BenchChoicesSchema }, { additionalProperties: false }),
]);
export type Made = Type.Static<typeof MadeSchema>;

export const RigSchema = Type.Object(
  {
    made: Type.Optional(MadeSchema),
    id,
    name: text,
    kind: text,
    vehicles: Type.Array(VehicleSchema, { minItems: 1 }),
    parts: Type.Array(PartSchema),
    conductors: Type.Array(ConductorSchema),
    grounds: Type.Array(GroundSchema, { minItems: 1 }),
    bonds: Type.Array(BondSchema),
    probes: Type.Array(ProbeSchema),
    reference: EndpointSchema,
    tow: Type.Optional(TowInterfaceSchema),
    practice: Type.Optional(
      Type.Object(
        {
          fault: Type.String({ minLength: 1, maxLength: 120 }),
          seed: Type.Integer({ minimum: 0 }),
        },
        { additionalProperties: false, description: 'made up to learn on, and what it hides: no vehicle' },
      ),
    ),
  },
  { additionalProperties: false },
);
export type Rig = Type.Static<typeof RigSchema>;
