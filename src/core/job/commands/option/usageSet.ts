/** How the rig is used, leg by leg. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse } from '../../refusal';

export const payload = ({ Type, CLOSED, UsageSchema }: PayloadKit) =>
  Type.Object({ was: UsageSchema, set: UsageSchema }, CLOSED);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, { set }) {
    const twice = set.scenarios.find((s, i) => set.scenarios.findIndex((x) => x.id === s.id) !== i);
    return twice ? refuse(`two scenarios ${twice.id}`, 'an id of its own for each') : ok({ ...job, usage: set });
  },
  inverse: ({ was, set }) => ({ type: 'usage.set', payload: { was: set, set: was } }),
  collides: () => 'usage',
  needs: 'desk',
  afterSigning: false,
  undoWords: 'the change of how the rig is used',
};
