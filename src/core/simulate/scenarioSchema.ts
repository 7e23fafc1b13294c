/** A scenario: how this customer uses the rig, leg after leg. What is checked and stored; the types derive from it. */
import Type from 'typebox';
import { LOAD_IDS } from './loadTable';

const omit = { additionalProperties: false } as const;

export const LEG_KINDS = ['drive', 'idle', 'stand', 'shore', 'generator'] as const;

export const LegSchema = Type.Object(
  {
    id: Type.String({ pattern: '^[a-z0-9-]{1,40}$' }),
    name: Type.String({ minLength: 1, maxLength: 60 }),
    kind: Type.Enum([...LEG_KINDS], {
      description: 'drive, idle parked, stand without a charger, on shore power, on the generator',
    }),
    hours: Type.Number({ minimum: 0.05, maximum: 4400 }),
    idleShare: Type.Optional(Type.Number({ minimum: 0, maximum: 1, description: 'of a drive, standing in traffic' })),
    celsius: Type.Number({ minimum: -40, maximum: 55, description: 'air outside, °C' }),
    sunHours: Type.Number({ minimum: 0, maximum: 9, description: 'hours of full sun a day on the panels' }),
    loads: Type.Array(Type.Enum([...LOAD_IDS]), { uniqueItems: true, maxItems: 20 }),
    moreAmps: Type.Optional(Type.Number({ minimum: 0, maximum: 500, description: 'house amps beside the loads' })),
    disconnectOpen: Type.Optional(Type.Boolean({ description: 'coach disconnect turned off' })),
    uncoupled: Type.Optional(Type.Boolean({ description: 'tow connector pulled' })),
    boostWedged: Type.Optional(Type.Boolean({ description: 'boost switch held down all along' })),
    fridgeOnBattery: Type.Optional(Type.Boolean({ description: 'three-way fridge set to 12 V' })),
    held: Type.Optional(Type.Boolean({ description: 'charging of the bank behind held off by hand' })),
    lampsOn: Type.Optional(Type.Boolean({ description: 'marker lights' })),
  },
  omit,
);
export type Leg = Type.Static<typeof LegSchema>;

export const ScenarioSchema = Type.Object(
  {
    id: Type.String({ pattern: '^[a-z0-9-]{1,40}$' }),
    name: Type.String({ minLength: 1, maxLength: 60 }),
    startHour: Type.Number({ minimum: 0, maximum: 24, description: 'hour of the day it begins' }),
    /** Charge of a battery at the start, by part; as the rig document says where absent. */
    startSoc: Type.Optional(Type.Record(Type.String(), Type.Number({ minimum: 0, maximum: 1 }))),
    legs: Type.Array(LegSchema, { minItems: 1, maxItems: 60 }),
  },
  omit,
);
export type Scenario = Type.Static<typeof ScenarioSchema>;
