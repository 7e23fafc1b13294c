/** A probe that is used no more; its label is never given again. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import type { CommandDefinition } from '../../commandDefinition';
import { currentRevision } from '../../job';
import { refuse } from '../../refusal';
import { DESCRIBED_WRONG, editedDocument } from '../../rigEdits';

export const payload = ({ Type, CLOSED, ProbeSchema }: PayloadKit) =>
  Type.Object({ key: ProbeSchema.properties.key }, CLOSED);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply: (job, { key }, { at, epoch }) =>
    editedDocument(job, DESCRIBED_WRONG, at, (doc) => {
      if (!doc.probes.some((x) => x.key === key && !x.retired)) return refuse(key, 'a probe in use on this rig');
      if (job.readings.some((r) => !r.retracted && (r.probe === key || r.ref === key) && r.epoch === epoch))
        return refuse('readings taken at this probe', 'those readings taken back first');
      return { ...doc, probes: doc.probes.map((x) => (x.key === key ? { ...x, retired: true } : x)) };
    }),
  inverse({ key }, before) {
    const probe = currentRevision(before).doc.probes.find((p) => p.key === key);
    return probe && { type: 'probe.add', payload: { key: probe.key, name: probe.name } };
  },
  collides: ({ key }) => `probe ${key}`,
  needs: 'work',
  afterSigning: false,
  undoWords: 'retiring the probe',
};
