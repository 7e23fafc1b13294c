/**
 * What the server's answers look like: one schema a shape, the server's and the client's types derived from it. In
 * development and in tests the client holds every answer against its schema.
 */
import Type from 'typebox';
import { IdentitySchema } from '../job/identity';
import { JobSchema } from '../job/jobSchema';
import { OwnSignInChangedSchema, OwnSignInSchema } from '../people/ownSignInSchema';
import { PeopleSchema } from '../people/peopleSchema';
import { ROLES } from '../people/roles';
import { ShopSchema } from '../shop/shopSchema';

const CLOSED = { additionalProperties: false } as const;
const text = Type.String();
const count = Type.Integer({ minimum: 0 });
const role = Type.Enum(ROLES.map((r) => r.id));
const actor = Type.Object({ name: text, role }, CLOSED);
const { number, status } = JobSchema.properties;

export const AcknowledgedSchema = Type.Object(
  { id: text, seq: count, again: Type.Boolean({ description: 'it had been taken in before' }) },
  CLOSED,
);

export const VisitSchema = Type.Object(
  { number, at: text, status, complaint: text, verdict: Type.Optional(text) },
  { ...CLOSED, description: 'another job of the same rig' },
);

export const JobSnapshotSchema = Type.Object(
  {
    stamp: Type.String({ description: 'of this state of the job, its rig’s other jobs and the shop’s settings' }),
    seq: count,
    job: JobSchema,
    actor,
    shop: ShopSchema,
    identity: Type.Unsafe<Type.Static<typeof IdentitySchema>>({
      ...IdentitySchema,
      description: 'whose rig it is; never part of the job’s document',
    }),
    visits: Type.Array(VisitSchema, { description: 'newest first' }),
    buildPace: Type.Record(text, Type.Object({ times: Type.Number({ minimum: 0 }), steps: count }, CLOSED), {
      description: 'what the shop’s own builds say of its minutes',
    }),
  },
  CLOSED,
);

export const TicketSchema = Type.Object(
  {
    rig: text,
    kind: text,
    changedAt: text,
    by: text,
    next: Type.Object({ station: text, words: text }, CLOSED),
  },
  CLOSED,
);

export const BoardPageSchema = Type.Object(
  {
    stamp: Type.String({ description: 'counts the changes: no two states of the board share one' }),
    shop: text,
    actor: text,
    tickets: Type.Array(Type.Object({ ...TicketSchema.properties, number, status, complaint: text }, CLOSED)),
    counts: Type.Record(status, count, { description: 'jobs by status, on this page or not' }),
    olderThan: Type.Optional(
      Type.Integer({ minimum: 1, description: 'where the next page of finished jobs begins, if there is one' }),
    ),
  },
  CLOSED,
);

export const ShopSnapshotSchema = Type.Object(
  {
    seq: count,
    shop: ShopSchema,
    actor,
    pace: Type.Array(Type.Object({ place: text, minutes: Type.Number(), times: count }, CLOSED), {
      description: 'what the shop’s own rounds say of its minutes',
    }),
  },
  CLOSED,
);

export const RigHistorySchema = Type.Object({ jobs: Type.Array(JobSchema) }, CLOSED);

/** Every answer that is checked, by name. A new one is a row. */
export const API_ANSWERS = {
  acknowledged: AcknowledgedSchema,
  jobSnapshot: JobSnapshotSchema,
  boardPage: BoardPageSchema,
  shopSnapshot: ShopSnapshotSchema,
  rigHistory: RigHistorySchema,
  people: PeopleSchema,
  ownSignIn: OwnSignInSchema,
  ownSignInChanged: OwnSignInChangedSchema,
} as const;

export type ApiAnswerName = keyof typeof API_ANSWERS;
export type ApiAnswer<N extends ApiAnswerName> = Type.Static<(typeof API_ANSWERS)[N]>;
