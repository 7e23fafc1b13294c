/** What the customer agreed to, for a verdict. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse } from '../../refusal';

export const payload = ({ Type, ApprovalSchema, CLOSED, covers, uuid }: PayloadKit) =>
  Type.Object(
    {
      id: uuid,
      verdict: uuid,
      upTo: ApprovalSchema.properties.upTo,
      currency: ApprovalSchema.properties.currency,
      who: ApprovalSchema.properties.who,
      how: ApprovalSchema.properties.how,
      note: ApprovalSchema.properties.note,
      covers: covers(),
    },
    CLOSED,
  );
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, approval, { at, by }) {
    const { id, verdict } = approval;
    if (job.approvals.some((a) => a.id === id)) return refuse(`approval ${id}`, 'a new id: this one is kept already');
    if (!job.verdicts.some((v) => v.id === verdict && !v.withdrawn))
      return refuse(`verdict ${verdict}`, 'a standing verdict to approve');
    if (job.approvals.some((a) => a.verdict === verdict && !a.withdrawn))
      return refuse('a second approval of one verdict', 'the first taken back');
    return ok({ ...job, approvals: [...job.approvals, { ...approval, at, by }] });
  },
  inverse: ({ id }) => ({ type: 'approval.withdraw', payload: { id } }),
  collides: () => 'approval',
  needs: 'desk',
  afterSigning: false,
  undoWords: 'the approval',
  speaksFor: 'verdict',
};
