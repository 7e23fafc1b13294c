/** A repair taken back, while nothing was measured after it. */
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse, replace } from '../../refusal';

export const payload = ({ onlyId }: PayloadKit) => onlyId();

export const command: CommandDefinition<{ id: string }> = {
  apply(job, { id }) {
    const repair = job.repairs.find((r) => r.id === id && !r.withdrawn);
    if (!repair) return refuse(`repair ${id}`, 'a standing repair of this job');
    const built = job.revisions.find((r) => r.id === repair.revision);
    if (built && job.readings.some((r) => r.epoch === built.epoch && !r.retracted))
      return refuse(
        'readings taken after this repair',
        'those readings taken back first: they are about the repaired rig',
      );
    return ok({
      ...job,
      revisions: replace(job.revisions, repair.revision, (r) => ({ ...r, withdrawn: true })),
      repairs: replace(job.repairs, id, (r) => ({ ...r, withdrawn: true })),
    });
  },
  inverse({ id }, before, newId) {
    const r = before.repairs.find((x) => x.id === id);
    return r && { type: 'repair.record', payload: { id: newId(), verdict: r.verdict, revision: newId(), did: r.did } };
  },
  collides: () => 'verdict',
  needs: 'decide',
  takesBack: { of: (job, { id }) => job.repairs.find((x) => x.id === id)?.by, needs: 'overrule' },
  afterSigning: false,
  undoWords: 'taking the repair back',
};
