/** The worksheet of a parasitic draw test. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { canonical } from '../../../units/canonical';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse } from '../../refusal';
import { turnedRound } from '../../turnedRound';

export const payload = ({ HuntSchema, wasAndSet }: PayloadKit) => wasAndSet(HuntSchema);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, { was, set }) {
    if (canonical(job.hunt) !== canonical(was))
      return refuse('figures somebody has changed meanwhile', 'the entry made again');
    const { hunt: _, ...rest } = job;
    return ok(set ? { ...rest, hunt: set } : rest);
  },
  inverse: (p) => ({ type: 'hunt.set', payload: turnedRound(p) }),
  collides: () => undefined,
  needs: 'work',
  afterSigning: false,
  undoWords: 'the entry of the draw test',
};
