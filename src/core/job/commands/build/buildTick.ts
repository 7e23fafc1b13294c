/** A line of the bill of materials: had, ordered, arrived. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { buildOf, standingChoice } from '../../job';
import { refuse } from '../../refusal';
import { turnedRound } from '../../turnedRound';

export const payload = ({ Type, CLOSED, ChoiceSchema, buildId }: PayloadKit) => {
  const tick = Type.Enum(['have', 'ordered', 'arrived']);
  return Type.Object(
    {
      candidate: ChoiceSchema.properties.candidate,
      line: buildId,
      was: Type.Optional(tick),
      set: Type.Optional(tick),
    },
    CLOSED,
  );
};
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, { candidate, line, was, set }) {
    if (standingChoice(job)?.candidate !== candidate) return refuse(`pick ${candidate}`, 'the pick that stands');
    const build = buildOf(job, candidate);
    if (build.ticks[line] !== was)
      return refuse(`${line}, ticked ${build.ticks[line] ?? 'not at all'} meanwhile`, 'the tick made again');
    const { [line]: _, ...ticks } = build.ticks;
    return ok({ ...job, build: { ...build, ticks: set ? { ...ticks, [line]: set } : ticks } });
  },
  inverse: (p) => ({ type: 'build.tick', payload: turnedRound(p) }),
  collides: ({ line }) => `line ${line}`,
  needs: 'desk',
  afterSigning: false,
  undoWords: 'the tick',
};
