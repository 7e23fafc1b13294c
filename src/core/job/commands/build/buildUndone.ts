/** A step of the build that is not done after all. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { buildOf, builtOf, proposedRevision } from '../../job';
import { refuse } from '../../refusal';

export const payload = ({ Type, CLOSED, ChoiceSchema, buildId }: PayloadKit) =>
  Type.Object({ candidate: ChoiceSchema.properties.candidate, step: buildId }, CLOSED);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, { candidate, step }) {
    const build = buildOf(job, candidate);
    if (!build.done.some((d) => d.step === step)) return refuse(`step ${step}`, 'a step that is done');
    if (builtOf(job, proposedRevision(job)?.id ?? ''))
      return refuse('a build that is finished', 'the finished build taken back first');
    return ok({ ...job, build: { ...build, done: build.done.filter((d) => d.step !== step) } });
  },
  inverse(p, before) {
    const done = before.build?.done.find((x) => x.step === p.step);
    if (!done) return undefined;
    const { at: _, by: __, ...what } = done;
    return { type: 'build.done', payload: { ...p, ...what } };
  },
  collides: ({ step }) => `step ${step}`,
  needs: 'work',
  afterSigning: false,
  undoWords: 'taking a step back',
};
