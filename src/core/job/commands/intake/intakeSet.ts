/** What was told at intake: complaint, facts, use. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';

/** What an edit of the intake touches; the inverse carries the same fields as they were. */
const change = ({ Type, CLOSED, IntakeSchema, JobSchema }: PayloadKit) =>
  Type.Object(
    {
      codes: Type.Optional(JobSchema.properties.complaint.properties.codes),
      words: Type.Optional(JobSchema.properties.complaint.properties.words),
      facts: Type.Optional(IntakeSchema.properties.facts),
      usage: Type.Optional(IntakeSchema.properties.usage),
      told: Type.Optional(IntakeSchema.properties.told),
    },
    { ...CLOSED, minProperties: 1 },
  );
export type IntakeChange = Type.Static<ReturnType<typeof change>>;

export const payload = (kit: PayloadKit) => kit.Type.Object({ was: change(kit), set: change(kit) }, kit.CLOSED);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, { set }) {
    const { codes, words, ...rest } = set;
    return ok({
      ...job,
      complaint: { codes: codes ?? job.complaint.codes, words: words ?? job.complaint.words },
      intake: { ...job.intake, ...rest },
    });
  },
  inverse: ({ was, set }) => ({ type: 'intake.set', payload: { was: set, set: was } }),
  collides: ({ set }) => `intake ${Object.keys(set).sort().join('-')}`,
  needs: 'desk',
  afterSigning: false,
  undoWords: 'the change of the intake',
};
