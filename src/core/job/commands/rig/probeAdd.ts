/** A probe on a point that had none, or one in use again under its old label. */
import type Type from 'typebox';
import type { PayloadKit } from '../../payloadKit';
import { nextProbeLabel } from '../../../rig/check';
import type { CommandDefinition } from '../../commandDefinition';
import { refuse } from '../../refusal';
import { DESCRIBED_WRONG, editedDocument } from '../../rigEdits';

export const payload = ({ Type, CLOSED, ProbeSchema }: PayloadKit) =>
  Type.Object({ key: ProbeSchema.properties.key, name: ProbeSchema.properties.name }, CLOSED);
type Payload = Type.Static<ReturnType<typeof payload>>;

export const command: CommandDefinition<Payload> = {
  apply: (job, { key, name }, { at }) =>
    editedDocument(job, DESCRIBED_WRONG, at, (doc) => {
      const known = doc.probes.find((x) => x.key === key);
      if (known && !known.retired) return refuse(`${known.label} on this point`, 'a point without a probe');
      const probes = known
        ? doc.probes.map((x) => (x === known ? { key: x.key, label: x.label, name: x.name } : x))
        : [...doc.probes, { key, label: nextProbeLabel(doc), name }];
      return { ...doc, probes };
    }),
  inverse: ({ key }) => ({ type: 'probe.retire', payload: { key } }),
  collides: ({ key }) => `probe ${key}`,
  needs: 'work',
  afterSigning: false,
  undoWords: 'the new probe',
};
