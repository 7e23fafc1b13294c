/** The proposal is built: the rig itself is another from here on. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { builtOf, proposedRevision } from '../../job';
import { refuse } from '../../refusal';
import { nextEpoch, takenId } from '../../rigEdits';

export const payload = ({ Type, CLOSED, uuid }: PayloadKit) => Type.Object({ revision: uuid, built: uuid }, CLOSED);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, { revision, built }, { at }) {
    const proposed = proposedRevision(job);
    if (!proposed || proposed.id !== revision) return refuse(`proposal ${revision}`, 'the pick that stands');
    if (builtOf(job, revision)) return refuse('a second build of one proposal', 'the first taken back');
    if (takenId(job, built)) return refuse(`revision ${built}`, 'a new id for the built rig');
    return ok({
      ...job,
      revisions: [
        ...job.revisions,
        // What was measured before is kept, but is no evidence about the built rig.
        { id: built, kind: 'as-built', parent: revision, epoch: nextEpoch(job), at, doc: proposed.doc },
      ],
    });
  },
  inverse: ({ built }) => ({ type: 'change.withdraw', payload: { revision: built } }),
  collides: () => 'revision',
  needs: 'decide',
  afterSigning: false,
  undoWords: 'the finished build',
};
