/** A design rule set aside where it spoke, with the reason. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse } from '../../refusal';

export const payload = ({ Type, CLOSED, WaiverSchema, uuid }: PayloadKit) =>
  Type.Object(
    {
      id: uuid,
      rule: WaiverSchema.properties.rule,
      at: WaiverSchema.properties.at,
      reason: WaiverSchema.properties.reason,
    },
    CLOSED,
  );
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, p, { at, by }) {
    const waivers = job.waivers ?? [];
    // A waiver that was taken back may be put back under its own id, if it is the same one.
    const known = waivers.find((w) => w.id === p.id);
    if (known && !(known.withdrawn && known.rule === p.rule && known.at === p.at))
      return refuse(`waiver ${p.id}`, 'a new id: this one is kept already');
    if (waivers.some((w) => !w.withdrawn && w.rule === p.rule && w.at === p.at))
      return refuse(`a second waiver of ${p.rule}`, 'the first taken back');
    return ok({ ...job, waivers: [...waivers.filter((w) => w.id !== p.id), { ...p, when: at, by }] });
  },
  inverse: ({ id }) => ({ type: 'waiver.withdraw', payload: { id } }),
  collides: () => 'waivers',
  needs: 'decide',
  afterSigning: false,
  undoWords: 'the waiver',
};
