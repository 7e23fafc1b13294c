/** An approval taken back. */
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse, replace } from '../../refusal';

export const payload = ({ onlyId }: PayloadKit) => onlyId();

export const command: CommandDefinition<{ id: string }> = {
  apply(job, { id }) {
    if (!job.approvals.some((a) => a.id === id && !a.withdrawn))
      return refuse(`approval ${id}`, 'a standing approval of this job');
    return ok({ ...job, approvals: replace(job.approvals, id, (a) => ({ ...a, withdrawn: true })) });
  },
  inverse({ id }, before, newId) {
    const a = before.approvals.find((x) => x.id === id);
    if (!a) return undefined;
    const { verdict, upTo, currency, who, how, note } = a;
    return {
      type: 'approval.record',
      payload: { id: newId(), verdict, upTo, currency, who, how, ...(note === undefined ? {} : { note }) },
    };
  },
  collides: () => 'approval',
  needs: 'desk',
  afterSigning: false,
  undoWords: 'taking the approval back',
};
