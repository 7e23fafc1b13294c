/** A check of the finished rig: passed, failed, or one entry of a watch. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse } from '../../refusal';

export const payload = ({ Type, CLOSED, CheckSchema, uuid }: PayloadKit) =>
  Type.Object(
    {
      id: uuid,
      check: CheckSchema.properties.check,
      result: CheckSchema.properties.result,
      values: CheckSchema.properties.values,
      note: CheckSchema.properties.note,
    },
    CLOSED,
  );
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply: (job, check, { at, by, epoch }) =>
    job.checks?.some((c) => c.id === check.id)
      ? refuse(`check ${check.id}`, 'a new id: this one is kept already')
      : ok({ ...job, checks: [...(job.checks ?? []), { ...check, epoch, at, by }] }),
  inverse: ({ id }) => ({ type: 'check.retract', payload: { id } }),
  collides: () => undefined,
  needs: 'work',
  afterSigning: false,
  undoWords: 'the check',
};
