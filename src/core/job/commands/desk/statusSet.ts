/** Where the job's ticket hangs on the board. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';

export const payload = ({ Type, CLOSED, JobSchema }: PayloadKit) =>
  Type.Object({ status: JobSchema.properties.status }, CLOSED);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply: (job, { status }) => ok({ ...job, status }),
  inverse: (_, before) => ({ type: 'job.set-status', payload: { status: before.status } }),
  collides: () => 'status',
  needs: 'desk',
  afterSigning: true,
  undoWords: 'the change of status',
};
