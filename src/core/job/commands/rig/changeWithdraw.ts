/** The newest change of the rig taken back, while nothing was measured after it. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { currentRevision } from '../../job';
import { refuse, replace } from '../../refusal';

export const payload = ({ Type, CLOSED, uuid }: PayloadKit) => Type.Object({ revision: uuid }, CLOSED);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, { revision }) {
    const now = currentRevision(job);
    const byRepair = job.repairs.some((r) => r.revision === revision && !r.withdrawn);
    if (now.id !== revision || now.parent === undefined || byRepair)
      return refuse(`revision ${revision}`, 'the newest change of the rig, not made by a repair');
    if (job.readings.some((r) => r.epoch === now.epoch && !r.retracted))
      return refuse(
        'readings taken after this change',
        'those readings taken back first: they are about the changed rig',
      );
    return ok({ ...job, revisions: replace(job.revisions, revision, (r) => ({ ...r, withdrawn: true })) });
  },
  // What would bring the change back is to make it again.
  inverse: () => undefined,
  collides: () => 'revision',
  needs: 'work',
  afterSigning: false,
  undoWords: 'taking the change back',
};
