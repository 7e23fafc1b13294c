/** The meter in hand. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { turnedRound } from '../../turnedRound';

export const payload = ({ InstrumentSchema, wasAndSet }: PayloadKit) => wasAndSet(InstrumentSchema);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, { set }) {
    const { meter: _, ...rest } = job;
    if (!set) return ok(rest);
    return ok({ ...rest, meter: set.id, instruments: [...job.instruments.filter((i) => i.id !== set.id), set] });
  },
  inverse: (payload) => ({ type: 'meter.choose', payload: turnedRound(payload) }),
  collides: () => undefined,
  needs: 'work',
  afterSigning: false,
  undoWords: 'the choice of meter',
};
