/** The shop's own order of the steps. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { buildOf, standingChoice } from '../../job';
import { refuse } from '../../refusal';
import { turnedRound } from '../../turnedRound';

export const payload = ({ Type, CLOSED, ChoiceSchema, buildId }: PayloadKit) => {
  const order = Type.Array(buildId, { maxItems: 400 });
  return Type.Object(
    { candidate: ChoiceSchema.properties.candidate, was: Type.Optional(order), set: Type.Optional(order) },
    CLOSED,
  );
};
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, { candidate, was, set }) {
    if (standingChoice(job)?.candidate !== candidate) return refuse(`pick ${candidate}`, 'the pick that stands');
    const { order, ...build } = buildOf(job, candidate);
    if (JSON.stringify(order) !== JSON.stringify(was))
      return refuse('steps somebody has put in another order meanwhile', 'the move made again');
    return ok({ ...job, build: set ? { ...build, order: set } : build });
  },
  inverse: (p) => ({ type: 'build.order', payload: turnedRound(p) }),
  collides: () => 'order',
  needs: 'decide',
  afterSigning: false,
  undoWords: 'the order of the steps',
};
