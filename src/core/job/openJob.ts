/** What is asked for when a job is opened: the rig from choices, and what the owner complains of. */
import Type from 'typebox';
import { MadeSchema } from '../rig/schema';
import { JobSchema, RevisionSchema } from './jobSchema';

export const OpenJobSchema = Type.Object(
  {
    /** Made by the client: asking twice opens one job. */
    id: RevisionSchema.properties.id,
    nickname: Type.String({
      minLength: 1,
      maxLength: 40,
      pattern: '\\S',
      description: 'what the shop calls the rig; no customer names',
    }),
    complaint: JobSchema.properties.complaint,
    rig: MadeSchema,
    practice: Type.Optional(Type.Boolean({ description: 'a made-up rig to learn on, with a fault hidden in it' })),
  },
  { additionalProperties: false },
);
export type OpenJob = Type.Static<typeof OpenJobSchema>;
