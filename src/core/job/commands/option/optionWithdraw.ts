/** The pick taken back. */
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse, replace } from '../../refusal';

export const payload = ({ onlyId }: PayloadKit) => onlyId();

export const command: CommandDefinition<{ id: string }> = {
  apply(job, { id }) {
    const choice = job.choices.find((c) => c.id === id && !c.withdrawn);
    if (!choice) return refuse(`pick ${id}`, 'a standing pick of this job');
    return ok({
      ...job,
      revisions: replace(job.revisions, choice.revision, (r) => ({ ...r, withdrawn: true })),
      choices: replace(job.choices, id, (c) => ({ ...c, withdrawn: true })),
    });
  },
  inverse({ id }, before, newId) {
    const c = before.choices.find((x) => x.id === id);
    const proposed = c && before.revisions.find((r) => r.id === c.revision);
    if (!c || !proposed) return undefined;
    const { candidate, name, reasons, minutes, parts } = c;
    return {
      type: 'option.choose',
      payload: { id: newId(), candidate, name, reasons, minutes, parts, revision: newId(), doc: proposed.doc },
    };
  },
  collides: () => 'choice',
  needs: 'decide',
  afterSigning: false,
  undoWords: 'taking the pick back',
};
