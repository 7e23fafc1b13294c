/** An answer to a question about what is seen, heard, felt or tried. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse } from '../../refusal';

export const payload = ({ Type, ANSWER_ID, CLOSED, ObservationSchema, QUESTION_ID, uuid }: PayloadKit) =>
  Type.Object(
    {
      id: uuid,
      what: Type.String({ pattern: QUESTION_ID }),
      answer: Type.String({ pattern: ANSWER_ID }),
      values: ObservationSchema.properties.values,
      text: ObservationSchema.properties.text,
    },
    CLOSED,
  );
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply: (job, answer, { at, by, epoch }) =>
    job.observations.some((o) => o.id === answer.id)
      ? refuse('this answer', 'a new id: it is kept already')
      : ok({ ...job, observations: [...job.observations, { ...answer, kind: 'seen', epoch, at, by }] }),
  inverse: ({ id }) => ({ type: 'note.retract', payload: { id } }),
  collides: () => undefined,
  needs: 'work',
  afterSigning: false,
  undoWords: 'the answer',
};
