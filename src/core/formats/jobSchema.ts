/** The job: one visit about one rig, as it is stored, sent and filed. */
import Type from 'typebox';
import { COMPLAINTS } from '../diagnose/complaints';
import { STATE_IDS } from '../operate/states';
import { RigSchema } from '../rig/schema';

export const SCHEMA_VERSION = 1;

const uuid = Type.String({ pattern: '^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$' });
const instant = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}T\\d{2}:\\d{2}:\\d{2}(\\.\\d{1,3})?Z$', description: 'UTC' });
const key = Type.String({ pattern: '^[a-z][a-z0-9-]*\\.[a-z][a-z0-9-]*$' });
const person = Type.String({ minLength: 1, maxLength: 80, description: 'how a person is called in the shop' });

export const RevisionSchema = Type.Object(
  {
    id: uuid,
    kind: Type.Enum(['as-found', 'proposed', 'as-built']),
    parent: Type.Optional(uuid),
    epoch: Type.Integer({ minimum: 0, description: 'goes up when the rig itself was changed' }),
    at: instant,
    withdrawn: Type.Optional(Type.Boolean()),
    doc: RigSchema,
  },
  { additionalProperties: false },
);
export type Revision = Type.Static<typeof RevisionSchema>;

export const ReadingSchema = Type.Object(
  {
    id: uuid,
    epoch: Type.Integer({ minimum: 0 }),
    state: Type.Enum([...STATE_IDS]),
    probe: key,
    ref: Type.Optional(key),
    status: Type.Enum(['measured', 'overload', 'cannot-reach']),
    value: Type.Optional(Type.Number({ minimum: -2000, maximum: 2000 })),
    unit: Type.Enum(['V', 'A']),
    secondsInState: Type.Number({ minimum: 0 }),
    meter: Type.Optional(Type.String({ maxLength: 60 })),
    takenAt: instant,
    by: person,
    retracted: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);
export type Reading = Type.Static<typeof ReadingSchema>;

export const ObservationSchema = Type.Object(
  {
    id: uuid,
    epoch: Type.Integer({ minimum: 0 }),
    kind: Type.Enum(['note', 'seen']),
    text: Type.String({ minLength: 1, maxLength: 2000, description: 'the note, or the question that was answered' }),
    what: Type.Optional(Type.String({ pattern: '^[a-z][a-z0-9-]{0,39}$', description: 'which question; with kind seen only' })),
    answer: Type.Optional(Type.Boolean({ description: 'with kind seen only' })),
    at: instant,
    by: person,
    retracted: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);
export type Observation = Type.Static<typeof ObservationSchema>;

export const VerdictSchema = Type.Object(
  {
    id: uuid,
    epoch: Type.Integer({ minimum: 0 }),
    fault: Type.String({ minLength: 1, maxLength: 90 }),
    name: Type.String({ minLength: 1, maxLength: 160 }),
    repair: Type.String({ minLength: 1, maxLength: 200 }),
    probability: Type.Number({ minimum: 0, maximum: 1 }),
    settled: Type.Boolean({ description: 'the diagnosis itself said stop' }),
    at: instant,
    by: person,
    withdrawn: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);
export type Verdict = Type.Static<typeof VerdictSchema>;

export const RepairSchema = Type.Object(
  {
    id: uuid,
    verdict: uuid,
    revision: Type.Unsafe<string>({ ...uuid, description: 'the as-built revision it made' }),
    did: Type.String({ minLength: 1, maxLength: 400 }),
    at: instant,
    by: person,
    withdrawn: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);
export type Repair = Type.Static<typeof RepairSchema>;

export const JobSchema = Type.Object(
  {
    schemaVersion: Type.Literal(SCHEMA_VERSION),
    number: Type.Integer({ minimum: 1, maximum: 9999999 }),
    rigId: Type.String({ minLength: 1, maxLength: 60 }),
    status: Type.Enum(['waiting', 'in-the-bay', 'waiting-approval', 'waiting-parts', 'done']),
    complaint: Type.Object(
      {
        codes: Type.Array(Type.Enum(Object.keys(COMPLAINTS) as (keyof typeof COMPLAINTS)[]), { uniqueItems: true }),
        words: Type.String({ maxLength: 400 }),
      },
      { additionalProperties: false },
    ),
    rigState: Type.Object(
      { id: Type.Enum([...STATE_IDS]), since: instant },
      { additionalProperties: false, description: 'what the rig is doing now, and since when' },
    ),
    blackLead: key,
    revisions: Type.Array(RevisionSchema, { minItems: 1 }),
    readings: Type.Array(ReadingSchema),
    observations: Type.Array(ObservationSchema),
    verdicts: Type.Array(VerdictSchema),
    repairs: Type.Array(RepairSchema),
  },
  { additionalProperties: false },
);
export type Job = Type.Static<typeof JobSchema>;
