/** An edit of one part. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { withPart } from '../../../rig/applyEdit';
import type { CommandDefinition } from '../../commandDefinition';
import { editInverse } from '../../editInverse';
import { refuse } from '../../refusal';
import { editedDocument } from '../../rigEdits';

export const payload = ({ Type, CLOSED, PartChangeSchema, PartSchema, editMeaning }: PayloadKit) =>
  Type.Object(
    { part: PartSchema.properties.id, was: PartChangeSchema, set: PartChangeSchema, ...editMeaning() },
    CLOSED,
  );
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply: (job, p, { at }) =>
    editedDocument(job, p, at, (doc) =>
      doc.parts.some((x) => x.id === p.part)
        ? withPart(doc, p.part, p.set)
        : refuse(`part ${p.part}`, 'a part of this rig'),
    ),
  inverse: (p) => editInverse(p, { type: 'part.edit', payload: { ...p, was: p.set, set: p.was } }),
  collides: ({ part }) => `part ${part}`,
  needs: 'work',
  afterSigning: false,
  undoWords: 'the edit of the part',
};
