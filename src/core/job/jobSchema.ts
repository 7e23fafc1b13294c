/** The job: one visit about one rig, as it is stored, sent and filed. */
import Type from 'typebox';
import { COMPLAINTS } from '../parts/complaints';
import { INTAKE_FACT_IDS } from '../diagnose/intake';
import { CURRENCIES } from '../units/money';
import { STATE_IDS } from '../operate/states';
import { InstrumentSchema } from '../probe/instrumentSchema';
import { RigSchema } from '../rig/schema';
import { SCHEMA_VERSION } from './schemaVersion';
import { ScenarioSchema } from '../simulate/scenarioSchema';

const uuid = Type.String({ pattern: '^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$' });
const instant = Type.String({
  format: 'date-time',
  pattern: '^(19|20|21)\\d{2}-\\d{2}-\\d{2}T\\d{2}:\\d{2}:[0-5]\\d(\\.\\d{1,3})?Z$',
  description: 'UTC',
});
const key = Type.String({ pattern: '^[a-z][a-z0-9-]*\\.[a-z][a-z0-9-]*$' });
const person = Type.String({ minLength: 1, maxLength: 80, description: 'how a person is called in the shop' });

/** Changes of one rig within one job: far more than anybody makes, far fewer than an integer holds. */
const MAX_EPOCHS = 1_000_000;

export const RevisionSchema = Type.Object(
  {
    id: uuid,
    kind: Type.Enum(['as-found', 'proposed', 'as-built']),
    parent: Type.Optional(uuid),
    epoch: Type.Integer({ minimum: 0, maximum: MAX_EPOCHS, description: 'goes up when the rig itself was changed' }),
    at: instant,
    withdrawn: Type.Optional(Type.Boolean()),
    reason: Type.Optional(
      Type.String({ minLength: 1, maxLength: 400, description: 'why the record was opened again after it was signed' }),
    ),
    doc: RigSchema,
  },
  { additionalProperties: false },
);
export type Revision = Type.Static<typeof RevisionSchema>;

export const ReadingSchema = Type.Object(
  {
    id: uuid,
    epoch: Type.Integer({ minimum: 0, maximum: MAX_EPOCHS }),
    state: Type.Enum([...STATE_IDS]),
    probe: key,
    ref: Type.Optional(key),
    status: Type.Enum(['measured', 'overload', 'cannot-reach']),
    value: Type.Optional(Type.Number({ minimum: -2000, maximum: 2000 })),
    unit: Type.Enum(['V', 'A']),
    secondsInState: Type.Number({ minimum: 0 }),
    meter: Type.Optional(
      Type.Unsafe<string>({
        ...InstrumentSchema.properties.id,
        description: 'instrument of this job; the usual one where absent',
      }),
    ),
    takenAt: instant,
    by: person,
    retracted: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);
export type Reading = Type.Static<typeof ReadingSchema>;

export const QUESTION_ID = '^[a-z][a-z0-9-]{0,39}(\\.[a-z][a-z0-9-]{0,39})?$';
export const ANSWER_ID = '^[a-z][a-z0-9-]{0,39}$';

export const ObservationSchema = Type.Object(
  {
    id: uuid,
    epoch: Type.Integer({ minimum: 0, maximum: MAX_EPOCHS }),
    kind: Type.Enum(['note', 'seen']),
    text: Type.String({ minLength: 1, maxLength: 2000, description: 'the note, or the question that was answered' }),
    what: Type.Optional(Type.String({ pattern: QUESTION_ID, description: 'which question; with kind seen only' })),
    answer: Type.Optional(
      Type.String({ pattern: ANSWER_ID, description: 'one of the question’s answers; with kind seen only' }),
    ),
    values: Type.Optional(
      Type.Record(Type.String({ pattern: '^[a-z]{1,20}$' }), Type.Number({ minimum: -1e9, maximum: 1e9 }), {
        description: 'figures the answer was graded from',
      }),
    ),
    at: instant,
    by: person,
    retracted: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);
export type Observation = Type.Static<typeof ObservationSchema>;

/** What of the record a statement was made on; see fingerprint.ts. Absent on those of before it was kept. */
export const CoversSchema = Type.Object(
  {
    seq: Type.Integer({
      minimum: 0,
      maximum: 2_147_483_647,
      description: 'newest change of the job its giver had seen',
    }),
    hash: Type.String({ pattern: '^[0-9a-f]{64}$', description: 'SHA-256 of the part of the record it speaks for' }),
  },
  { additionalProperties: false },
);
export type Covers = Type.Static<typeof CoversSchema>;

export const VerdictSchema = Type.Object(
  {
    id: uuid,
    epoch: Type.Integer({ minimum: 0, maximum: MAX_EPOCHS }),
    fault: Type.String({ minLength: 1, maxLength: 90 }),
    name: Type.String({ minLength: 1, maxLength: 160 }),
    repair: Type.String({ minLength: 1, maxLength: 200 }),
    probability: Type.Number({ minimum: 0, maximum: 1 }),
    settled: Type.Boolean({ description: 'the diagnosis itself said stop' }),
    covers: Type.Optional(CoversSchema),
    at: instant,
    by: person,
    withdrawn: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);
export type DeclaredFault = Type.Static<typeof VerdictSchema>;

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

/** What the customer agreed to, and how we know. */
export const ApprovalSchema = Type.Object(
  {
    id: uuid,
    verdict: uuid,
    upTo: Type.Number({ minimum: 0, maximum: 1_000_000, description: 'in the currency' }),
    currency: Type.Enum([...CURRENCIES]),
    who: Type.String({
      minLength: 1,
      maxLength: 80,
      pattern: '\\S',
      description: 'who agreed: a role or a first name, as the shop writes it',
    }),
    how: Type.Enum(['in-person', 'phone', 'message', 'signed']),
    note: Type.Optional(Type.String({ maxLength: 300 })),
    covers: Type.Optional(CoversSchema),
    at: instant,
    by: person,
    withdrawn: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);
export type Approval = Type.Static<typeof ApprovalSchema>;

/** A picture; its file is kept apart, by the hash of its bytes. */
export const PhotoSchema = Type.Object(
  {
    id: uuid,
    sha256: Type.String({ pattern: '^[0-9a-f]{64}$' }),
    width: Type.Integer({ minimum: 1, maximum: 10_000 }),
    height: Type.Integer({ minimum: 1, maximum: 10_000 }),
    bytes: Type.Integer({ minimum: 1, maximum: 20_000_000 }),
    caption: Type.String({ maxLength: 160 }),
    step: Type.Optional(
      Type.String({ pattern: '^[a-z0-9][a-z0-9-]{0,79}$', description: 'step of the build it shows' }),
    ),
    at: instant,
    by: person,
    retracted: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);
export type Photo = Type.Static<typeof PhotoSchema>;

/** What the owner can tell of the use in numbers. */
export const ToldUseSchema = Type.Object(
  {
    driveHours: Type.Optional(Type.Number({ minimum: 0, maximum: 24, description: 'on a travel day' })),
    nights: Type.Optional(Type.Number({ minimum: 0, maximum: 365, description: 'off grid in a row' })),
    storedMonths: Type.Optional(Type.Number({ minimum: 0, maximum: 24, description: 'a year' })),
  },
  { additionalProperties: false },
);

export const IntakeSchema = Type.Object(
  {
    facts: Type.Array(Type.Enum([...INTAKE_FACT_IDS]), { uniqueItems: true }),
    usage: ToldUseSchema,
    told: Type.String({ maxLength: 2000, description: 'history and workarounds in the owner’s words; no names' }),
  },
  { additionalProperties: false },
);
export type Intake = Type.Static<typeof IntakeSchema>;

/** How the rig is used, hour by hour: what candidates are compared on. */
export const UsageSchema = Type.Object(
  { scenarios: Type.Array(ScenarioSchema, { maxItems: 6 }) },
  { additionalProperties: false },
);
export type Usage = Type.Static<typeof UsageSchema>;

const range = Type.Tuple([Type.Number({ minimum: 0 }), Type.Number({ minimum: 0 })]);

/** The link that was picked, why, and the proposed revision it made. */
export const ChoiceSchema = Type.Object(
  {
    id: uuid,
    candidate: Type.String({ pattern: '^[a-z][a-z0-9-]{0,59}$' }),
    name: Type.String({ minLength: 1, maxLength: 120 }),
    reasons: Type.String({ minLength: 1, maxLength: 2000, description: 'for the customer' }),
    minutes: range,
    parts: Type.Unsafe<[number, number]>({ ...range, description: 'catalogue dollars without mark-up' }),
    revision: Type.Unsafe<string>({ ...uuid, description: 'the proposed revision' }),
    at: instant,
    by: person,
    withdrawn: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);
export type OptionChoice = Type.Static<typeof ChoiceSchema>;

export const CameBackSchema = Type.Object(
  {
    job: Type.Integer({ minimum: 1, maximum: 9_999_999, description: 'number of the earlier job' }),
    warranty: Type.Boolean(),
  },
  { additionalProperties: false },
);

const buildId = Type.String({ pattern: '^[a-z0-9][a-z0-9-]{0,79}$' });
/** How far the build of a pick is: it is the pick's, so that one taken back and made again finds it as it was. */
export const BuildSchema = Type.Object(
  {
    candidate: ChoiceSchema.properties.candidate,
    ticks: Type.Record(buildId, Type.Enum(['have', 'ordered', 'arrived']), {
      description: 'by line of the bill of materials; not named: to get',
    }),
    done: Type.Array(
      Type.Object(
        {
          step: buildId,
          minutes: Type.Optional(Type.Number({ minimum: 0, maximum: 10_000 })),
          planned: Type.Optional(
            Type.Number({ minimum: 0, maximum: 10_000, description: 'minutes it was planned at then' }),
          ),
          at: instant,
          by: person,
        },
        { additionalProperties: false },
      ),
      { description: 'steps in the order they were done, minutes as they took' },
    ),
    order: Type.Optional(Type.Array(buildId, { maxItems: 400, description: 'the order the shop put the steps in' })),
  },
  { additionalProperties: false },
);
export type Build = Type.Static<typeof BuildSchema>;

/** A design rule set aside where it spoke, by somebody who answers for it. */
export const WaiverSchema = Type.Object(
  {
    id: uuid,
    rule: Type.String({ pattern: '^[a-z][a-z0-9-]{0,59}$' }),
    at: Type.String({ minLength: 1, maxLength: 60, description: 'part, conductor or position it spoke of' }),
    reason: Type.String({ minLength: 8, maxLength: 400, pattern: '\\S' }),
    when: instant,
    by: person,
    withdrawn: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);
export type Waiver = Type.Static<typeof WaiverSchema>;

/** A check of the finished rig that is more than one reading: a watch, brakes, lights; or one entry of a watch. */
export const CheckSchema = Type.Object(
  {
    id: uuid,
    epoch: Type.Integer({ minimum: 0, maximum: MAX_EPOCHS }),
    check: Type.String({ pattern: '^[a-z][a-z0-9-]{0,39}$' }),
    result: Type.Enum(['pass', 'fail', 'does-not-apply', 'entry']),
    values: Type.Optional(
      Type.Record(Type.String({ pattern: '^[a-z]{1,20}$' }), Type.Number({ minimum: -1e6, maximum: 1e6 }), {
        description: 'SI, by name',
      }),
    ),
    note: Type.Optional(Type.String({ maxLength: 400 })),
    at: instant,
    by: person,
    retracted: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);
export type CheckRecord = Type.Static<typeof CheckSchema>;

/** A signature under a revision. From then on the record stands; what comes later has a reason and a revision of its own. */
export const SignOffSchema = Type.Object(
  {
    id: uuid,
    revision: uuid,
    words: Type.String({ minLength: 1, maxLength: 400, description: 'what is signed' }),
    covers: Type.Optional(CoversSchema),
    at: instant,
    by: person,
    elsewhere: Type.Optional(
      Type.Boolean({ description: 'it came with a file: who signed was not checked by this shop' }),
    ),
    reopened: Type.Optional(
      Type.Object(
        {
          reason: Type.String({ minLength: 8, maxLength: 400, pattern: '\\S' }),
          revision: uuid,
          at: instant,
          by: person,
        },
        { additionalProperties: false },
      ),
    ),
  },
  { additionalProperties: false },
);
export type SignOff = Type.Static<typeof SignOffSchema>;

const day = Type.String({ format: 'date', pattern: '^(19|20|21)\\d{2}-\\d{2}-\\d{2}$' });

/** Something to look at again later. */
export const FollowUpSchema = Type.Object(
  {
    id: uuid,
    due: day,
    what: Type.String({ minLength: 1, maxLength: 200, pattern: '\\S' }),
    done: Type.Optional(instant),
    by: person,
  },
  { additionalProperties: false },
);
export type FollowUp = Type.Static<typeof FollowUpSchema>;

/** Time in a bay. */
export const BookingSchema = Type.Object(
  {
    id: uuid,
    bay: Type.String({ minLength: 1, maxLength: 40 }),
    start: instant,
    minutes: Type.Integer({ minimum: 5, maximum: 6000 }),
    by: person,
  },
  { additionalProperties: false },
);
export type Booking = Type.Static<typeof BookingSchema>;

/** Why the plan of a build was changed, and what. */
export const PlanChangeSchema = Type.Object(
  {
    id: uuid,
    reason: Type.String({ minLength: 8, maxLength: 400, pattern: '\\S' }),
    what: Type.String({ minLength: 1, maxLength: 400 }),
    at: instant,
    by: person,
  },
  { additionalProperties: false },
);
export type PlanChange = Type.Static<typeof PlanChangeSchema>;

/** What was read out of a recorder's log, and the log itself where it was kept. */
export const KeptLogSchema = Type.Object(
  {
    id: uuid,
    name: Type.String({ minLength: 1, maxLength: 120 }),
    from: instant,
    to: instant,
    rows: Type.Integer({ minimum: 0 }),
    file: Type.Optional(
      Type.Object(
        { sha256: Type.String({ pattern: '^[0-9a-f]{64}$' }), bytes: Type.Integer({ minimum: 1 }) },
        { additionalProperties: false, description: 'of the log as it came, unpacked' },
      ),
    ),
    says: Type.Array(Type.String({ maxLength: 400 }), { maxItems: 20 }),
    estimates: Type.Array(
      Type.Object(
        {
          id: Type.String({ maxLength: 30 }),
          name: Type.String({ maxLength: 80 }),
          unit: Type.String({ maxLength: 6 }),
          value: Type.Number(),
          lo: Type.Number(),
          hi: Type.Number(),
          bound: Type.Optional(Type.Literal('at least')),
        },
        { additionalProperties: false },
      ),
      { maxItems: 12 },
    ),
    at: instant,
    by: person,
  },
  { additionalProperties: false },
);
export type KeptLog = Type.Static<typeof KeptLogSchema>;

/** Millivolts across the fuses of a sleeping vehicle: where its current goes. */
export const HuntSchema = Type.Object(
  {
    sleptMinutes: Type.Number({ minimum: 0, maximum: 1440 }),
    amps: Type.Optional(Type.Number({ minimum: 0, maximum: 200, description: 'all of it, by clamp' })),
    circuits: Type.Array(
      Type.Object(
        {
          id: uuid,
          name: Type.String({ minLength: 1, maxLength: 60 }),
          fuse: Type.String({
            minLength: 1,
            maxLength: 20,
            description: 'kind and rating, of the table of fuse resistances',
          }),
          millivolts: Type.Number({ minimum: -500, maximum: 500 }),
          known: Type.Boolean({ description: 'alarm, tracker: it is meant to draw' }),
        },
        { additionalProperties: false },
      ),
      { maxItems: 60 },
    ),
    after: Type.Optional(Type.Number({ minimum: 0, maximum: 200, description: 'A, all of it once it was put right' })),
  },
  { additionalProperties: false },
);
export type Hunt = Type.Static<typeof HuntSchema>;

export const JobSchema = Type.Object(
  {
    schemaVersion: Type.Literal(SCHEMA_VERSION),
    number: Type.Integer({ minimum: 1, maximum: 9999999 }),
    rigId: Type.String({ pattern: '^[a-z][a-z0-9-]{0,59}$' }),
    status: Type.Enum(['waiting', 'in-the-bay', 'waiting-approval', 'waiting-parts', 'done']),
    complaint: Type.Object(
      {
        codes: Type.Array(Type.Enum(Object.keys(COMPLAINTS) as (keyof typeof COMPLAINTS)[]), { uniqueItems: true }),
        words: Type.String({ maxLength: 400 }),
      },
      { additionalProperties: false },
    ),
    intake: IntakeSchema,
    cameBack: Type.Optional(CameBackSchema),
    /** Instruments readings of this job were taken with, as they were then. */
    instruments: Type.Array(InstrumentSchema),
    meter: Type.Optional(Type.Unsafe<string>({ ...InstrumentSchema.properties.id, description: 'the one in hand' })),
    rigState: Type.Object(
      { id: Type.Enum([...STATE_IDS]), since: instant },
      { additionalProperties: false, description: 'what the rig is doing now, and since when' },
    ),
    blackLead: key,
    revisions: Type.Array(RevisionSchema, { minItems: 1 }),
    readings: Type.Array(ReadingSchema),
    observations: Type.Array(ObservationSchema),
    verdicts: Type.Array(VerdictSchema),
    approvals: Type.Array(ApprovalSchema),
    repairs: Type.Array(RepairSchema),
    usage: UsageSchema,
    choices: Type.Array(ChoiceSchema),
    photos: Type.Array(PhotoSchema),
    waivers: Type.Optional(Type.Array(WaiverSchema)),
    build: Type.Optional(BuildSchema),
    checks: Type.Optional(Type.Array(CheckSchema)),
    signOffs: Type.Optional(Type.Array(SignOffSchema)),
    followUps: Type.Optional(Type.Array(FollowUpSchema, { maxItems: 100 })),
    bookings: Type.Optional(Type.Array(BookingSchema, { maxItems: 100 })),
    planChanges: Type.Optional(Type.Array(PlanChangeSchema, { maxItems: 200 })),
    logs: Type.Optional(Type.Array(KeptLogSchema, { maxItems: 50 })),
    hunt: Type.Optional(HuntSchema),
  },
  { additionalProperties: false },
);
export type Job = Type.Static<typeof JobSchema>;
