/** Where leads go on the owner of a fault. */
import type { Belief } from './belief';

/** The points of a part: all its terminals; of a wire or bond: its two ends. As probes. */
export function pointsOf({ compiled: { rig }, outputs }: Belief, owner: string | undefined): string[] {
  const metal = [...rig.conductors, ...rig.bonds].find((c) => c.id === owner);
  if (metal) return [metal.from, metal.to].map((e) => `${e.part}.${e.terminal}`);
  return outputs.flatMap((o) => (o.key.startsWith(`${owner}.`) ? [o.key] : []));
}
