/** A reading: volts or amps at a probe, with state, seconds in it, black lead and meter. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse } from '../../refusal';
import { knownPoint } from '../../rigEdits';

/** The server completes it with who, when and which epoch. */
export const payload = ({ Type, CLOSED, ReadingSchema, instant, uuid }: PayloadKit) =>
  Type.Object(
    {
      id: uuid,
      state: ReadingSchema.properties.state,
      probe: ReadingSchema.properties.probe,
      ref: Type.Optional(ReadingSchema.properties.probe),
      status: ReadingSchema.properties.status,
      value: ReadingSchema.properties.value,
      unit: ReadingSchema.properties.unit,
      secondsInState: ReadingSchema.properties.secondsInState,
      meter: ReadingSchema.properties.meter,
      takenAt: Type.Optional(
        Type.Unsafe<string>({
          ...instant,
          description: 'where it was taken before it is kept, out of a table say',
        }),
      ),
    },
    CLOSED,
  );
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, p, { at, by, epoch }) {
    if (job.readings.some((r) => r.id === p.id)) return refuse(`reading ${p.id}`, 'a new id: this one is kept already');
    if (!knownPoint(job, p.probe)) return refuse(p.probe, 'a probe of this rig');
    if (p.ref !== undefined && !knownPoint(job, p.ref)) return refuse(p.ref, 'a point of this rig for the black lead');
    if (p.meter !== undefined && !job.instruments.some((i) => i.id === p.meter))
      return refuse(`meter ${p.meter}`, 'an instrument chosen on this job');
    if ((p.status === 'measured') !== (p.value !== undefined))
      return refuse(
        p.status,
        p.status === 'measured' ? 'a value with a measured reading' : 'no value with this status',
      );
    if (p.takenAt !== undefined && Date.parse(p.takenAt) > Date.parse(at))
      return refuse(`a reading of ${p.takenAt}`, 'a time that is past');
    return ok({ ...job, readings: [...job.readings, { ...p, epoch, takenAt: p.takenAt ?? at, by }] });
  },
  inverse: ({ id }) => ({ type: 'reading.retract', payload: { id } }),
  collides: () => undefined,
  needs: 'work',
  afterSigning: false,
  undoWords: 'the last reading',
};
