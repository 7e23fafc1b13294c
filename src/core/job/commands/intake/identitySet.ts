/** Whose rig it is: kept with the shop's customers, beside the job and never in it. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';

export const payload = ({ Type, CLOSED, IdentitySchema }: PayloadKit) =>
  Type.Object({ was: IdentitySchema, set: IdentitySchema }, CLOSED);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply: (job) => ok(job),
  inverse: ({ was, set }) => ({ type: 'identity.set', payload: { was: set, set: was } }),
  collides: () => 'identity',
  needs: 'desk',
  afterSigning: true,
  undoWords: 'the change of whose rig it is',
};
