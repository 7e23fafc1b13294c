/**
 * What payloads are written with. A command's file takes it as an argument instead of importing it, so that a page,
 * which applies commands and takes them back but never checks their shape, carries no schema.
 */
import Type from 'typebox';
import { InstrumentSchema } from '../probe/instrumentSchema';
import { ConductorChangeSchema, PartChangeSchema, piecesSchema } from '../rig/edit';
import { ConductorSchema, PartSchema, ProbeSchema, RigSchema } from '../rig/schema';
import { TowInterfaceSchema } from '../rig/towSchema';
import { IdentitySchema } from './identity';
import * as job from './jobSchema';

const uuid = job.ReadingSchema.properties.id;
const instant = job.ReadingSchema.properties.takenAt;
const CLOSED = { additionalProperties: false } as const;

/** A payload that only names what it is about. */
const onlyId = () => Type.Object({ id: uuid }, CLOSED);

/** An item as it was and as it is to be; absent where there was none, or shall be none. */
const wasAndSet = <T extends Type.TSchema>(item: T) =>
  Type.Object({ was: Type.Optional(item), set: Type.Optional(item) }, CLOSED);

/**
 * What an edit of the rig means. "I described it wrong": readings stay evidence. "I changed the rig": a new revision
 * and epoch, older readings are kept but say nothing about the rig as it is now. "Proposed": the picked link as it
 * is going to be built; `revision` names it.
 */
const editMeaning = () => ({
  means: Type.Enum(['described-wrong', 'changed', 'proposed']),
  revision: Type.Optional(
    Type.Unsafe<string>({
      ...uuid,
      description: 'of the new revision, with "changed"; of the proposal, with "proposed"',
    }),
  ),
});

/** What of the record a statement was made on: the newest change seen, and a hash of what it speaks for. */
const covers = () => Type.Optional(job.CoversSchema);

/** A line of the bill of materials, or a step of the build. */
const buildId = Type.String({ pattern: '^[a-z0-9][a-z0-9-]{0,79}$' });

export const PAYLOAD_KIT = {
  ...job,
  Type,
  InstrumentSchema,
  ConductorChangeSchema,
  PartChangeSchema,
  piecesSchema,
  ConductorSchema,
  PartSchema,
  ProbeSchema,
  RigSchema,
  TowInterfaceSchema,
  IdentitySchema,
  uuid,
  instant,
  CLOSED,
  onlyId,
  wasAndSet,
  editMeaning,
  covers,
  buildId,
};
export type PayloadKit = typeof PAYLOAD_KIT;
