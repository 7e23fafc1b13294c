/** Where the black lead is. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse } from '../../refusal';
import { knownPoint } from '../../rigEdits';

export const payload = ({ Type, CLOSED, ReadingSchema }: PayloadKit) =>
  Type.Object({ point: ReadingSchema.properties.probe }, CLOSED);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply: (job, { point }) =>
    knownPoint(job, point) ? ok({ ...job, blackLead: point }) : refuse(point, 'a point of this rig for the black lead'),
  inverse: (_, before) => ({ type: 'lead.move', payload: { point: before.blackLead } }),
  collides: () => undefined,
  needs: 'work',
  afterSigning: false,
  undoWords: 'moving the black lead',
};
