/** Parts and conductors taken out of the rig. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { withoutPieces } from '../../../rig/applyEdit';
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
      const gone = new Set([...p.parts, ...p.conductors].map((x) => x.id));
      const missing = [...gone].find((id) => ![...doc.parts, ...doc.conductors].some((x) => x.id === id));
      if (missing !== undefined) return refuse(missing, 'a part or conductor of this rig');
      const bonded = doc.bonds.find((b) => gone.has(b.from.part) || gone.has(b.to.part));
      if (bonded) return refuse(`${bonded.name}, which is bolted to it`, 'a part that is not bolted to metal');
      return movedSince(doc, p.moved, 'set') ?? withoutPieces(doc, p);
    }),
  inverse: (p) => editInverse(p, { type: 'pieces.add', payload: p }),
  collides: () => 'revision',
  needs: 'work',
  afterSigning: false,
  undoWords: 'what was taken out of the rig',
};
