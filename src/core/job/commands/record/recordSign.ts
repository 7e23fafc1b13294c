/** A signature under the record, for what its signer saw. From then on the record stands. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { currentRevision, madeBy } from '../../job';
import { refuse } from '../../refusal';

export const payload = ({ Type, CLOSED, SignOffSchema, covers, uuid }: PayloadKit) =>
  Type.Object({ id: uuid, revision: uuid, words: SignOffSchema.properties.words, covers: covers() }, CLOSED);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, p, { at, by }) {
    if (currentRevision(job).id !== p.revision)
      return refuse(`revision ${p.revision}`, 'the rig as it stands: it was changed meanwhile');
    const { epoch } = currentRevision(job);
    if (!madeBy(job) || !job.readings.some((r) => !r.retracted && r.epoch === epoch))
      return refuse(
        'a record without a proof',
        'a repair or a build, and the rig measured after it (Prove): a signature says that it is right now',
      );
    if (job.signOffs?.some((s) => s.id === p.id)) return refuse(`signature ${p.id}`, 'a new id');
    return ok({ ...job, signOffs: [...(job.signOffs ?? []), { ...p, at, by }] });
  },
  // A signature is not undone: the record is opened again, with a reason.
  inverse: () => undefined,
  collides: () => 'signature',
  needs: 'sign',
  afterSigning: false,
  undoWords: 'the signature',
  speaksFor: 'record',
};
