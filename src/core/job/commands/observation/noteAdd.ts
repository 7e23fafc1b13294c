/** A note in one's own words. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse } from '../../refusal';

export const payload = ({ Type, CLOSED, ObservationSchema, uuid }: PayloadKit) =>
  Type.Object({ id: uuid, text: ObservationSchema.properties.text }, CLOSED);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply: (job, note, { at, by, epoch }) =>
    job.observations.some((o) => o.id === note.id)
      ? refuse('this note', 'a new id: it is kept already')
      : ok({ ...job, observations: [...job.observations, { ...note, kind: 'note', epoch, at, by }] }),
  inverse: ({ id }) => ({ type: 'note.retract', payload: { id } }),
  collides: () => undefined,
  needs: 'desk',
  afterSigning: false,
  undoWords: 'the note',
};
