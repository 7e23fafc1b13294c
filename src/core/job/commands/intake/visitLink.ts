/** Which earlier job this one came back from. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse } from '../../refusal';
import { turnedRound } from '../../turnedRound';

export const payload = ({ CameBackSchema, wasAndSet }: PayloadKit) => wasAndSet(CameBackSchema);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, { set }) {
    if (set?.job === job.number) return refuse(`job ${set.job}`, 'the number of an earlier job');
    const { cameBack: _, ...rest } = job;
    return ok(set ? { ...rest, cameBack: set } : rest);
  },
  inverse: (payload) => ({ type: 'visit.link', payload: turnedRound(payload) }),
  collides: () => 'visit',
  needs: 'desk',
  afterSigning: false,
  undoWords: 'the link to an earlier visit',
};
