/** A photo of the rig or of a step; its file was sent before. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse } from '../../refusal';

export const payload = ({ Type, CLOSED, PhotoSchema, uuid }: PayloadKit) =>
  Type.Object(
    {
      id: uuid,
      sha256: PhotoSchema.properties.sha256,
      width: PhotoSchema.properties.width,
      height: PhotoSchema.properties.height,
      bytes: PhotoSchema.properties.bytes,
      caption: PhotoSchema.properties.caption,
      step: PhotoSchema.properties.step,
    },
    CLOSED,
  );
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply: (job, photo, { at, by }) =>
    job.photos.some((p) => p.id === photo.id)
      ? refuse('this photo', 'a new id: it is kept already')
      : ok({ ...job, photos: [...job.photos, { ...photo, at, by }] }),
  inverse: ({ id }) => ({ type: 'photo.retract', payload: { id } }),
  collides: () => undefined,
  needs: 'desk',
  afterSigning: false,
  undoWords: 'the photo',
};
