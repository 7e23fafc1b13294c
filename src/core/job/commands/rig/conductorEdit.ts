/** An edit of one conductor. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { withConductor } from '../../../rig/applyEdit';
import type { CommandDefinition } from '../../commandDefinition';
import { editInverse } from '../../editInverse';
import { refuse } from '../../refusal';
import { editedDocument } from '../../rigEdits';

export const payload = ({ Type, CLOSED, ConductorChangeSchema, ConductorSchema, editMeaning }: PayloadKit) =>
  Type.Object(
    {
      conductor: ConductorSchema.properties.id,
      was: ConductorChangeSchema,
      set: ConductorChangeSchema,
      ...editMeaning(),
    },
    CLOSED,
  );
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply: (job, p, { at }) =>
    editedDocument(job, p, at, (doc) =>
      doc.conductors.some((x) => x.id === p.conductor)
        ? withConductor(doc, p.conductor, p.set)
        : refuse(`conductor ${p.conductor}`, 'a conductor of this rig'),
    ),
  inverse: (p) => editInverse(p, { type: 'conductor.edit', payload: { ...p, was: p.set, set: p.was } }),
  collides: ({ conductor }) => `conductor ${conductor}`,
  needs: 'work',
  afterSigning: false,
  undoWords: 'the edit of the conductor',
};
