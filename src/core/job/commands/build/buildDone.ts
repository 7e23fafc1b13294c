/** A step of the build that is done, with the minutes it took. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { buildOf, standingChoice } from '../../job';
import { refuse } from '../../refusal';

export const payload = ({ Type, CLOSED, ChoiceSchema, buildId }: PayloadKit) => {
  const minutes = Type.Number({ minimum: 0, maximum: 10_000 });
  return Type.Object(
    {
      candidate: ChoiceSchema.properties.candidate,
      step: buildId,
      minutes: Type.Optional(minutes),
      planned: Type.Optional(minutes),
    },
    CLOSED,
  );
};
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, { candidate, ...done }, { at, by }) {
    if (standingChoice(job)?.candidate !== candidate) return refuse(`pick ${candidate}`, 'the pick that stands');
    const build = buildOf(job, candidate);
    if (build.done.some((d) => d.step === done.step)) return refuse('a step that is done', 'it taken back first');
    return ok({ ...job, build: { ...build, done: [...build.done, { ...done, at, by }] } });
  },
  inverse: ({ candidate, step }) => ({ type: 'build.undone', payload: { candidate, step } }),
  collides: ({ step }) => `step ${step}`,
  needs: 'work',
  afterSigning: false,
  undoWords: 'the step done',
};
