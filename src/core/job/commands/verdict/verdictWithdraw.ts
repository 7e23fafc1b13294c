/** A verdict taken back: the search goes on. */
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse, replace } from '../../refusal';

export const payload = ({ onlyId }: PayloadKit) => onlyId();

export const command: CommandDefinition<{ id: string }> = {
  apply(job, { id }) {
    if (!job.verdicts.some((v) => v.id === id && !v.withdrawn))
      return refuse(`verdict ${id}`, 'a standing verdict of this job');
    if (job.repairs.some((r) => r.verdict === id && !r.withdrawn))
      return refuse('a repair recorded on this verdict', 'the repair taken back first');
    return ok({ ...job, verdicts: replace(job.verdicts, id, (v) => ({ ...v, withdrawn: true })) });
  },
  inverse({ id }, before, newId) {
    const v = before.verdicts.find((x) => x.id === id);
    if (!v) return undefined;
    const { fault, name, repair, probability, settled } = v;
    return { type: 'verdict.declare', payload: { id: newId(), fault, name, repair, probability, settled } };
  },
  collides: () => 'verdict',
  needs: 'decide',
  takesBack: { of: (job, { id }) => job.verdicts.find((x) => x.id === id)?.by, needs: 'overrule' },
  afterSigning: false,
  undoWords: 'taking the verdict back',
};
