/** The link that was picked, with the rig it proposes. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { checkRig } from '../../../rig/check';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { currentRevision } from '../../job';
import { refuse } from '../../refusal';
import { takenId } from '../../rigEdits';

export const payload = ({ Type, CLOSED, ChoiceSchema, RigSchema, uuid }: PayloadKit) =>
  Type.Object(
    {
      id: uuid,
      candidate: ChoiceSchema.properties.candidate,
      name: ChoiceSchema.properties.name,
      reasons: ChoiceSchema.properties.reasons,
      minutes: ChoiceSchema.properties.minutes,
      parts: ChoiceSchema.properties.parts,
      revision: uuid,
      doc: RigSchema,
    },
    CLOSED,
  );
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, { doc, revision, ...choice }, { at, by }) {
    if (job.choices.some((c) => c.id === choice.id))
      return refuse(`pick ${choice.id}`, 'a new id: this one is kept already');
    if (job.choices.some((c) => !c.withdrawn)) return refuse('a second pick', 'the first taken back');
    if (takenId(job, revision)) return refuse(`revision ${revision}`, 'a new id for the proposed rig');
    const [issue] = checkRig(doc, '/doc');
    if (issue) return refuse(`${issue.pointer}: ${issue.found}`, issue.wanted);
    const from = currentRevision(job);
    // Proposed is not built: what was measured stays evidence about the rig as it stands.
    const proposed = { id: revision, kind: 'proposed' as const, parent: from.id, epoch: from.epoch, at, doc };
    return ok({
      ...job,
      revisions: [...job.revisions, proposed],
      choices: [...job.choices, { ...choice, revision, at, by }],
    });
  },
  inverse: ({ id }) => ({ type: 'option.withdraw', payload: { id } }),
  collides: () => 'choice',
  needs: 'decide',
  afterSigning: false,
  undoWords: 'the pick',
};
