/**
 * Every change to a job is a command. The envelope is the same for all; the payload's schema goes by type.
 * A command is never edited: taking something back is another command.
 */
import Type from 'typebox';
import { OPERATING_STATES } from '../operate/states';
import { ConductorChangeSchema, PartChangeSchema } from '../rig/edit';
import { ConductorSchema, PartSchema } from '../rig/schema';
import { ObservationSchema, ReadingSchema, RepairSchema, VerdictSchema } from './jobSchema';

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
  },
  omit,
);

/**
 * An edit of the rig's description. "I described it wrong": readings stay evidence. "I changed the rig":
 * a new revision and epoch, older readings are kept but say nothing about the rig as it is now.
 */
const editMeaning = {
  means: Type.Enum(['described-wrong', 'changed']),
  revision: Type.Optional(Type.Unsafe<string>({ ...uuid, description: 'of the new revision, with "changed"' })),
};

export const PAYLOADS = {
  'part.edit': Type.Object({ part: PartSchema.properties.id, was: PartChangeSchema, set: PartChangeSchema, ...editMeaning }, omit),
  'conductor.edit': Type.Object({ conductor: ConductorSchema.properties.id, was: ConductorChangeSchema, set: ConductorChangeSchema, ...editMeaning }, omit),
  'change.withdraw': Type.Object({ revision: uuid }, omit),
  'state.set': Type.Object({ state: Type.Enum(OPERATING_STATES.map((s) => s.id)) }, omit),
  'lead.move': Type.Object({ point: ReadingSchema.properties.probe }, omit),
  'reading.keep': readingPayload,
  'reading.retract': Type.Object({ id: uuid }, omit),
  'reading.restore': Type.Object({ id: uuid }, omit),
  'note.add': Type.Object({ id: uuid, text: ObservationSchema.properties.text }, omit),
  'observation.keep': Type.Object({ id: uuid, what: Type.String({ pattern: '^[a-z][a-z0-9-]{0,39}$' }), answer: Type.Boolean(), text: ObservationSchema.properties.text }, omit),
  'note.retract': Type.Object({ id: uuid }, omit),
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
  'repair.record': Type.Object(
    { id: uuid, verdict: uuid, revision: uuid, did: RepairSchema.properties.did },
    omit,
  ),
  'repair.withdraw': Type.Object({ id: uuid }, omit),
  'job.set-status': Type.Object(
    { status: Type.Enum(['waiting', 'in-the-bay', 'waiting-approval', 'waiting-parts', 'done']) },
    omit,
  ),
} as const;

export type CommandType = keyof typeof PAYLOADS;
export const COMMAND_TYPES = Object.keys(PAYLOADS) as CommandType[];
export type Payload<T extends CommandType> = Type.Static<(typeof PAYLOADS)[T]>;

/** Envelope and payload of one type: what a command of that type is checked against. */
export const commandSchema = <T extends CommandType>(type: T) =>
  Type.Object(
    {
      id: uuid,
      type: Type.Literal(type),
      version: Type.Literal(1),
      baseSeq: Type.Integer({ minimum: 0, description: 'newest change of the job the sender had seen' }),
      at: instant,
      actor: Type.String({ minLength: 1, maxLength: 60 }),
      payload: PAYLOADS[type],
    },
    omit,
  );

export const CommandSchema = Type.Union(COMMAND_TYPES.map((type) => commandSchema(type)));

export type CommandOf<T extends CommandType> = {
  id: string;
  type: T;
  version: 1;
  baseSeq: number;
  at: string;
  actor: string;
  payload: Payload<T>;
};
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
    case 'change.withdraw':
      return 'revision';
    case 'reading.retract':
    case 'reading.restore':
      return `reading ${command.payload.id}`;
    case 'note.retract':
      return `note ${command.payload.id}`;
    case 'state.set':
    case 'lead.move':
    case 'reading.keep':
    case 'note.add':
    case 'observation.keep':
      return undefined;
  }
}

/** A matter in the words of a message. */
export const matterInWords = (matter: string): string =>
  matter === 'verdict' ? 'the verdict or its repair' : matter === 'status' ? 'the status of the job' : matter === 'revision' ? 'the rig' : `this ${matter.split(' ')[0]}`;
