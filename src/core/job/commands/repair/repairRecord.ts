/** What was put right: the rig itself is another from here on. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { ok } from '../../../units/result';
import type { CommandDefinition } from '../../commandDefinition';
import { currentRevision } from '../../job';
import { refuse } from '../../refusal';
import { nextEpoch, takenId } from '../../rigEdits';

export const payload = ({ Type, CLOSED, RepairSchema, uuid }: PayloadKit) =>
  Type.Object({ id: uuid, verdict: uuid, revision: uuid, did: RepairSchema.properties.did }, CLOSED);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply(job, { id, verdict, revision, did }, { at, by }) {
    if (job.repairs.some((r) => r.id === id)) return refuse(`repair ${id}`, 'a new id: this one is kept already');
    if (takenId(job, revision)) return refuse(`revision ${revision}`, 'a new id for the repaired rig');
    if (!job.verdicts.some((v) => v.id === verdict && !v.withdrawn))
      return refuse(`verdict ${verdict}`, 'a standing verdict to repair');
    if (job.repairs.some((r) => r.verdict === verdict && !r.withdrawn))
      return refuse('a second repair on one verdict', 'the first taken back, or a new verdict');
    const from = currentRevision(job);
    // What was measured before is kept, but is no evidence about the repaired rig.
    const built = {
      id: revision,
      kind: 'as-built' as const,
      parent: from.id,
      epoch: nextEpoch(job),
      at,
      doc: from.doc,
    };
    return ok({
      ...job,
      revisions: [...job.revisions, built],
      repairs: [...job.repairs, { id, verdict, revision, did, at, by }],
    });
  },
  inverse: ({ id }) => ({ type: 'repair.withdraw', payload: { id } }),
  collides: () => 'verdict',
  needs: 'decide',
  afterSigning: false,
  undoWords: 'the repair',
};
