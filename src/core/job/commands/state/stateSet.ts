/** What the rig is doing from now on. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { OPERATING_STATES } from '../../../operate/states';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';

export const payload = ({ Type, CLOSED, instant }: PayloadKit) =>
  Type.Object(
    {
      state: Type.Enum(OPERATING_STATES.map((s) => s.id)),
      since: Type.Optional(
        Type.Unsafe<string>({
          ...instant,
          description: 'when it has been so longer: undo puts the clock back',
        }),
      ),
    },
    CLOSED,
  );
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply: (job, { state, since }, { at }) => ok({ ...job, rigState: { id: state, since: since ?? at } }),
  inverse: (_, before) => ({
    type: 'state.set',
    payload: { state: before.rigState.id, since: before.rigState.since },
  }),
  collides: () => undefined,
  needs: 'work',
  afterSigning: false,
  undoWords: 'the change of what the rig is doing',
};
