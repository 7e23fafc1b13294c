/** A signed record opened again, with a reason that everything written from here on hangs on. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { currentRevision, standingSignOff } from '../../job';
import { refuse, replace } from '../../refusal';
import { takenId } from '../../rigEdits';

export const payload = ({ Type, CLOSED, uuid }: PayloadKit) =>
  Type.Object(
    { id: uuid, reason: Type.String({ minLength: 8, maxLength: 400, pattern: '\\S' }), revision: uuid },
    CLOSED,
  );
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, { id, reason, revision }, { at, by }) {
    if (standingSignOff(job)?.id !== id) return refuse(`signature ${id}`, 'the signature that stands');
    if (takenId(job, revision)) return refuse(`revision ${revision}`, 'a new id');
    const now = currentRevision(job);
    return ok({
      ...job,
      status: job.status === 'done' ? 'in-the-bay' : job.status,
      revisions: [
        ...job.revisions,
        // The rig is as it was: its readings stay evidence.
        { id: revision, kind: 'as-built', parent: now.id, epoch: now.epoch, at, reason, doc: now.doc },
      ],
      signOffs: replace(job.signOffs!, id, (s) => ({ ...s, reopened: { reason, revision, at, by } })),
    });
  },
  inverse: () => undefined,
  collides: () => 'signature',
  needs: 'sign',
  takesBack: { of: (job, { id }) => job.signOffs?.find((s) => s.id === id)?.by, needs: 'overrule' },
  afterSigning: true,
  undoWords: 'opening the record again',
};
