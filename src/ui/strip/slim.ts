/** The strip as one line of names: what stands where, what reads wrong, what is suspected, what a rule speaks of. */
import type { Part, Rig } from '../../core/rig/schema';
import type { FlagFace } from './FlagFaces';

export interface SlimPart {
  id: string;
  name: string;
  side: Part['side'];
  /** Worst of the readings at its terminals in this state. */
  reads?: 'ok' | 'low' | 'high';
  /** Share of suspicion, 0 to 1. */
  suspected?: number;
  finding?: 'danger' | 'warn';
}

/** Suspicion under which a part is not marked. */
const LEAST_SHARE = 0.03;

/** Parts of a rig from nose to tail, as the tall strip has them. */
export function slimStrip(
  rig: Pick<Rig, 'parts'>,
  faces: Readonly<Record<string, FlagFace>>,
  suspects: Readonly<Record<string, number>> = {},
  findings: Readonly<Record<string, 'danger' | 'warn'>> = {},
): SlimPart[] {
  return [...rig.parts]
    .sort((a, b) => a.station - b.station)
    .map(({ id, name, side }): SlimPart => {
      const verdicts = Object.entries(faces).flatMap(([key, face]) =>
        key.startsWith(`${id}.`) && face.verdict !== undefined ? [face.verdict] : [],
      );
      const share = suspects[id] ?? 0;
      const finding = findings[id];
      return {
        id,
        name,
        side,
        ...(verdicts.length === 0 ? {} : { reads: verdicts.find((v) => v !== 'ok') ?? 'ok' }),
        ...(share >= LEAST_SHARE ? { suspected: share } : {}),
        ...(finding === undefined ? {} : { finding }),
      };
    });
}
