/** An edit of the tow interface. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import type { CommandDefinition } from '../../commandDefinition';
import { editInverse } from '../../editInverse';
import { refuse } from '../../refusal';
import { editedDocument } from '../../rigEdits';
import { turnedRound } from '../../turnedRound';

export const payload = ({ Type, CLOSED, TowInterfaceSchema, editMeaning }: PayloadKit) =>
  Type.Object(
    { was: Type.Optional(TowInterfaceSchema), set: Type.Optional(TowInterfaceSchema), ...editMeaning() },
    CLOSED,
  );
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply: (job, p, { at }) =>
    editedDocument(job, p, at, (doc) => {
      if ((p.was === undefined) !== (doc.tow === undefined))
        return refuse(
          doc.tow ? 'a plug somebody has described meanwhile' : 'a plug nobody has described',
          'the edit made again on what stands now',
        );
      const { tow: _, ...rest } = doc;
      return p.set ? { ...rest, tow: p.set } : rest;
    }),
  inverse: (p) => editInverse(p, { type: 'tow.edit', payload: turnedRound(p) }),
  collides: () => 'tow',
  needs: 'decide',
  afterSigning: false,
  undoWords: 'the edit of the tow plug',
};
