/** The fault a technician declares, on the evidence as it was seen. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse } from '../../refusal';

export const payload = ({ Type, CLOSED, VerdictSchema, covers, uuid }: PayloadKit) =>
  Type.Object(
    {
      id: uuid,
      fault: VerdictSchema.properties.fault,
      name: VerdictSchema.properties.name,
      repair: VerdictSchema.properties.repair,
      probability: VerdictSchema.properties.probability,
      settled: VerdictSchema.properties.settled,
      covers: covers(),
    },
    CLOSED,
  );
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, verdict, { at, by, epoch }) {
    if (job.verdicts.some((v) => v.id === verdict.id))
      return refuse(`verdict ${verdict.id}`, 'a new id: this one is kept already');
    const standing = job.verdicts.find((v) => !v.withdrawn && v.epoch === epoch);
    if (standing) return refuse(`the verdict “${standing.name}”`, 'that verdict withdrawn first: one stands at a time');
    return ok({ ...job, verdicts: [...job.verdicts, { ...verdict, epoch, at, by }] });
  },
  inverse: ({ id }) => ({ type: 'verdict.withdraw', payload: { id } }),
  collides: () => 'verdict',
  needs: 'decide',
  afterSigning: false,
  undoWords: 'the verdict',
  speaksFor: 'evidence',
};
