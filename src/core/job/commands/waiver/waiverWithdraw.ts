/** A waiver taken back: the rule speaks again. */
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse, replace } from '../../refusal';

export const payload = ({ onlyId }: PayloadKit) => onlyId();

export const command: CommandDefinition<{ id: string }> = {
  apply(job, { id }) {
    if (!job.waivers?.some((w) => w.id === id && !w.withdrawn))
      return refuse(`waiver ${id}`, 'a standing waiver of this job');
    return ok({ ...job, waivers: replace(job.waivers, id, (w) => ({ ...w, withdrawn: true })) });
  },
  inverse({ id }, before) {
    const w = before.waivers?.find((x) => x.id === id);
    return w && { type: 'waiver.record', payload: { id: w.id, rule: w.rule, at: w.at, reason: w.reason } };
  },
  collides: () => 'waivers',
  needs: 'decide',
  takesBack: { of: (job, { id }) => job.waivers?.find((x) => x.id === id)?.by, needs: 'overrule' },
  afterSigning: false,
  undoWords: 'taking a waiver back',
};
