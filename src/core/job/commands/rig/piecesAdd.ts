/** Parts and conductors put into the rig, and conductors whose ends move with them. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { withPieces } from '../../../rig/applyEdit';
import type { CommandDefinition } from '../../commandDefinition';
import { editInverse } from '../../editInverse';
import { refuse } from '../../refusal';
import { editedDocument, movedSince } from '../../rigEdits';

export const payload = ({ Type, CLOSED, editMeaning, piecesSchema }: PayloadKit) =>
  Type.Object({ ...piecesSchema, ...editMeaning() }, CLOSED);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply: (job, p, { at }) =>
    editedDocument(job, p, at, (doc) => {
      const taken = [...p.parts, ...p.conductors].find((x) =>
        [...doc.parts, ...doc.conductors, ...doc.grounds, ...doc.bonds].some((y) => y.id === x.id),
      );
      if (taken) return refuse(taken.id, 'an id of its own');
      return movedSince(doc, p.moved, 'was') ?? withPieces(doc, p);
    }),
  inverse: (p) => editInverse(p, { type: 'pieces.remove', payload: p }),
  collides: () => 'revision',
  needs: 'work',
  afterSigning: false,
  undoWords: 'what was added to the rig',
};
