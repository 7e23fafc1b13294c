/**
 * Every change to a job is a command. The envelope is the same for all; the payload's schema goes by type.
 * A command is never edited: taking something back is another command.
 */
import Type from 'typebox';
import { OPERATING_STATES } from '../operate/states';
import { ConductorChangeSchema, PartChangeSchema, piecesSchema } from '../rig/edit';
import { InstrumentSchema } from '../probe/instrumentSchema';
import { ConductorSchema, PartSchema, ProbeSchema, RigSchema } from '../rig/schema';
import { TowInterfaceSchema } from '../rig/towSchema';
import {
  ANSWER_ID,
  QUESTION_ID,
  ApprovalSchema,
  BookingSchema,
  CameBackSchema,
  CheckSchema,
  ChoiceSchema,
  FollowUpSchema,
  HuntSchema,
  KeptLogSchema,
  PlanChangeSchema,
  SignOffSchema,
  UsageSchema,
  IntakeSchema,
  JobSchema,
  ObservationSchema,
  PhotoSchema,
  ReadingSchema,
  RepairSchema,
  VerdictSchema,
  WaiverSchema,
} from './jobSchema';
import { envelope, type Enveloped } from './envelope';
import { IdentitySchema } from './identity';

const uuid = ReadingSchema.properties.id;
const instant = ReadingSchema.properties.takenAt;
const omit = { additionalProperties: false } as const;

/** What the client sends of a shape that the server completes with who, when and which epoch. */
const readingPayload = Type.Object(
  {
    id: uuid,
    state: ReadingSchema.properties.state,
    probe: ReadingSchema.properties.probe,
    ref: Type.Optional(ReadingSchema.properties.probe),
    status: ReadingSchema.properties.status,
    value: ReadingSchema.properties.value,
    unit: ReadingSchema.properties.unit,
    secondsInState: ReadingSchema.properties.secondsInState,
    meter: ReadingSchema.properties.meter,
    takenAt: Type.Optional(
      Type.Unsafe<string>({ ...instant, description: 'where it was taken before it is kept, out of a table say' }),
    ),
  },
  omit,
);

/**
 * An edit of the rig's description. "I described it wrong": readings stay evidence. "I changed the rig":
 * a new revision and epoch, older readings are kept but say nothing about the rig as it is now. "Proposed":
 * the picked link as it is going to be built; `revision` names it.
 */
const editMeaning = {
  means: Type.Enum(['described-wrong', 'changed', 'proposed']),
  revision: Type.Optional(
    Type.Unsafe<string>({
      ...uuid,
      description: 'of the new revision, with "changed"; of the proposal, with "proposed"',
    }),
  ),
};

/** What an edit of the intake touches; the inverse carries the same fields as they were. */
const intakeChange = Type.Object(
  {
    codes: Type.Optional(JobSchema.properties.complaint.properties.codes),
    words: Type.Optional(JobSchema.properties.complaint.properties.words),
    facts: Type.Optional(IntakeSchema.properties.facts),
    usage: Type.Optional(IntakeSchema.properties.usage),
    told: Type.Optional(IntakeSchema.properties.told),
  },
  { ...omit, minProperties: 1 },
);
export type IntakeChange = Type.Static<typeof intakeChange>;

const buildId = Type.String({ pattern: '^[a-z0-9][a-z0-9-]{0,79}$' });
const tick = Type.Enum(['have', 'ordered', 'arrived']);
const buildOrder = Type.Array(buildId, { maxItems: 400 });

/** An item as it was and as it is to be; absent where there was none, or shall be none. */
const wasAndSet = <T extends Type.TSchema>(item: T) =>
  Type.Object({ was: Type.Optional(item), set: Type.Optional(item) }, omit);

export const PAYLOADS = {
  'intake.set': Type.Object({ was: intakeChange, set: intakeChange }, omit),
  'identity.set': Type.Object({ was: IdentitySchema, set: IdentitySchema }, omit),
  'visit.link': Type.Object({ was: Type.Optional(CameBackSchema), set: Type.Optional(CameBackSchema) }, omit),
  'meter.choose': Type.Object({ was: Type.Optional(InstrumentSchema), set: Type.Optional(InstrumentSchema) }, omit),
  'photo.keep': Type.Object(
    {
      id: uuid,
      sha256: PhotoSchema.properties.sha256,
      width: PhotoSchema.properties.width,
      height: PhotoSchema.properties.height,
      bytes: PhotoSchema.properties.bytes,
      caption: PhotoSchema.properties.caption,
      step: PhotoSchema.properties.step,
    },
    omit,
  ),
  'photo.retract': Type.Object({ id: uuid }, omit),
  'photo.restore': Type.Object({ id: uuid }, omit),
  // Each is the other's inverse.
  'pieces.add': Type.Object({ ...piecesSchema, ...editMeaning }, omit),
  'pieces.remove': Type.Object({ ...piecesSchema, ...editMeaning }, omit),
  'probe.add': Type.Object({ key: ProbeSchema.properties.key, name: ProbeSchema.properties.name }, omit),
  'probe.retire': Type.Object({ key: ProbeSchema.properties.key }, omit),
  'part.edit': Type.Object(
    { part: PartSchema.properties.id, was: PartChangeSchema, set: PartChangeSchema, ...editMeaning },
    omit,
  ),
  'conductor.edit': Type.Object(
    {
      conductor: ConductorSchema.properties.id,
      was: ConductorChangeSchema,
      set: ConductorChangeSchema,
      ...editMeaning,
    },
    omit,
  ),
  'tow.edit': Type.Object(
    { was: Type.Optional(TowInterfaceSchema), set: Type.Optional(TowInterfaceSchema), ...editMeaning },
    omit,
  ),
  'change.withdraw': Type.Object({ revision: uuid }, omit),
  'state.set': Type.Object(
    {
      state: Type.Enum(OPERATING_STATES.map((s) => s.id)),
      since: Type.Optional(
        Type.Unsafe<string>({ ...instant, description: 'when it has been so longer: undo puts the clock back' }),
      ),
    },
    omit,
  ),
  'lead.move': Type.Object({ point: ReadingSchema.properties.probe }, omit),
  'reading.keep': readingPayload,
  'reading.retract': Type.Object({ id: uuid }, omit),
  'reading.restore': Type.Object({ id: uuid }, omit),
  'note.add': Type.Object({ id: uuid, text: ObservationSchema.properties.text }, omit),
  'observation.keep': Type.Object(
    {
      id: uuid,
      what: Type.String({ pattern: QUESTION_ID }),
      answer: Type.String({ pattern: ANSWER_ID }),
      values: ObservationSchema.properties.values,
      text: ObservationSchema.properties.text,
    },
    omit,
  ),
  'note.retract': Type.Object({ id: uuid }, omit),
  'note.restore': Type.Object({ id: uuid }, omit),
  'verdict.declare': Type.Object(
    {
      id: uuid,
      fault: VerdictSchema.properties.fault,
      name: VerdictSchema.properties.name,
      repair: VerdictSchema.properties.repair,
      probability: VerdictSchema.properties.probability,
      settled: VerdictSchema.properties.settled,
    },
    omit,
  ),
  'verdict.withdraw': Type.Object({ id: uuid }, omit),
  'approval.record': Type.Object(
    {
      id: uuid,
      verdict: uuid,
      upTo: ApprovalSchema.properties.upTo,
      currency: ApprovalSchema.properties.currency,
      who: ApprovalSchema.properties.who,
      how: ApprovalSchema.properties.how,
      note: ApprovalSchema.properties.note,
    },
    omit,
  ),
  'approval.withdraw': Type.Object({ id: uuid }, omit),
  'repair.record': Type.Object({ id: uuid, verdict: uuid, revision: uuid, did: RepairSchema.properties.did }, omit),
  'repair.withdraw': Type.Object({ id: uuid }, omit),
  'usage.set': Type.Object({ was: UsageSchema, set: UsageSchema }, omit),
  'option.choose': Type.Object(
    {
      id: uuid,
      candidate: ChoiceSchema.properties.candidate,
      name: ChoiceSchema.properties.name,
      reasons: ChoiceSchema.properties.reasons,
      minutes: ChoiceSchema.properties.minutes,
      parts: ChoiceSchema.properties.parts,
      revision: uuid,
      doc: RigSchema,
    },
    omit,
  ),
  'option.withdraw': Type.Object({ id: uuid }, omit),
  'build.tick': Type.Object(
    { candidate: ChoiceSchema.properties.candidate, line: buildId, was: Type.Optional(tick), set: Type.Optional(tick) },
    omit,
  ),
  'build.done': Type.Object(
    {
      candidate: ChoiceSchema.properties.candidate,
      step: buildId,
      minutes: Type.Optional(Type.Number({ minimum: 0, maximum: 10_000 })),
      planned: Type.Optional(Type.Number({ minimum: 0, maximum: 10_000 })),
    },
    omit,
  ),
  'build.undone': Type.Object({ candidate: ChoiceSchema.properties.candidate, step: buildId }, omit),
  'build.order': Type.Object(
    { candidate: ChoiceSchema.properties.candidate, was: Type.Optional(buildOrder), set: Type.Optional(buildOrder) },
    omit,
  ),
  'build.finish': Type.Object({ revision: uuid, built: uuid }, omit),
  'waiver.record': Type.Object(
    {
      id: uuid,
      rule: WaiverSchema.properties.rule,
      at: WaiverSchema.properties.at,
      reason: WaiverSchema.properties.reason,
    },
    omit,
  ),
  'waiver.withdraw': Type.Object({ id: uuid }, omit),
  'check.record': Type.Object(
    {
      id: uuid,
      check: CheckSchema.properties.check,
      result: CheckSchema.properties.result,
      values: CheckSchema.properties.values,
      note: CheckSchema.properties.note,
    },
    omit,
  ),
  'check.retract': Type.Object({ id: uuid }, omit),
  'check.restore': Type.Object({ id: uuid }, omit),
  'record.sign': Type.Object({ id: uuid, revision: uuid, words: SignOffSchema.properties.words }, omit),
  'record.reopen': Type.Object(
    { id: uuid, reason: Type.String({ minLength: 8, maxLength: 400, pattern: '\\S' }), revision: uuid },
    omit,
  ),
  'followUp.set': wasAndSet(FollowUpSchema),
  'booking.set': wasAndSet(BookingSchema),
  'planChange.set': wasAndSet(PlanChangeSchema),
  'log.set': wasAndSet(KeptLogSchema),
  'hunt.set': wasAndSet(HuntSchema),
  'job.set-status': Type.Object(
    { status: Type.Enum(['waiting', 'in-the-bay', 'waiting-approval', 'waiting-parts', 'done']) },
    omit,
  ),
} as const;

export type CommandType = keyof typeof PAYLOADS;
export const COMMAND_TYPES = Object.keys(PAYLOADS) as CommandType[];
export type Payload<T extends CommandType> = Type.Static<(typeof PAYLOADS)[T]>;

/** Envelope and payload of one type: what a command of that type is checked against. */
export const commandSchema = <T extends CommandType>(type: T) => envelope(type, PAYLOADS[type]);

export const CommandSchema = Type.Union(COMMAND_TYPES.map((type) => commandSchema(type)));

export type CommandOf<T extends CommandType> = Enveloped<T, Payload<T>>;
export type Command = { [T in CommandType]: CommandOf<T> }[CommandType];

/**
 * Commands that decide something for everybody: they are refused when another such decision on the same
 * matter came in that the sender had not seen. Readings and notes never collide, both are kept.
 */
export function exclusiveMatter(command: Command): string | undefined {
  switch (command.type) {
    case 'verdict.declare':
    case 'verdict.withdraw':
    case 'repair.record':
    case 'repair.withdraw':
      return 'verdict';
    case 'job.set-status':
      return 'status';
    case 'part.edit':
      return `part ${command.payload.part}`;
    case 'conductor.edit':
      return `conductor ${command.payload.conductor}`;
    case 'tow.edit':
      return 'tow';
    case 'waiver.record':
    case 'waiver.withdraw':
      return 'waivers';
    case 'build.tick':
      return `line ${command.payload.line}`;
    case 'build.done':
    case 'build.undone':
      return `step ${command.payload.step}`;
    case 'build.order':
      return 'order';
    case 'build.finish':
      return 'revision';
    case 'change.withdraw':
    case 'pieces.add':
    case 'pieces.remove':
      return 'revision';
    case 'intake.set':
      return `intake ${Object.keys(command.payload.set).sort().join('-')}`;
    case 'identity.set':
      return 'identity';
    case 'visit.link':
      return 'visit';
    case 'approval.record':
    case 'approval.withdraw':
      return 'approval';
    case 'usage.set':
      return 'usage';
    case 'option.choose':
    case 'option.withdraw':
      return 'choice';
    case 'photo.retract':
    case 'photo.restore':
      return `photo ${command.payload.id}`;
    case 'probe.add':
    case 'probe.retire':
      return `probe ${command.payload.key}`;
    case 'reading.retract':
    case 'reading.restore':
      return `reading ${command.payload.id}`;
    case 'note.retract':
    case 'note.restore':
      return `note ${command.payload.id}`;
    case 'check.retract':
    case 'check.restore':
      return `check ${command.payload.id}`;
    case 'record.sign':
    case 'record.reopen':
      return 'signature';
    // These say what stood there before: what changed meanwhile is told by that alone.
    case 'followUp.set':
    case 'booking.set':
    case 'planChange.set':
    case 'log.set':
    case 'hunt.set':
    case 'check.record':
    case 'state.set':
    case 'lead.move':
    case 'meter.choose':
    case 'photo.keep':
    case 'reading.keep':
    case 'note.add':
    case 'observation.keep':
      return undefined;
  }
}

const MATTERS: Readonly<Record<string, string>> = {
  verdict: 'the verdict or its repair',
  status: 'the status of the job',
  revision: 'the rig',
  tow: 'the tow plug',
  waivers: 'what was set aside',
  line: 'what is ordered',
  step: 'this step',
  order: 'the order of the steps',
  intake: 'the intake',
  identity: 'whose rig it is',
  visit: 'which visit it came back from',
  approval: 'the approval',
  usage: 'how the rig is used',
  choice: 'which link was picked',
  signature: 'the signature',
};

/** A matter in the words of a message. */
export const matterInWords = (matter: string): string =>
  MATTERS[matter.split(' ')[0]!] ?? `this ${matter.split(' ')[0]}`;
