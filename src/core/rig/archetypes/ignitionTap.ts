/** The ignition of a rig that is drawn: when its run circuit is live, and whether anything is told to work by it. */
import type { Rig } from '../schema';
import { partsWith } from '../value';
import type { MotorhomeChoices } from './choicesSchema';

/** What its switch is set to; nothing where it is the usual circuit, live with the key in run. */
export const ignitionOptions = (c: Pick<MotorhomeChoices, 'ignitionLive'>): Record<string, string> | undefined =>
  c.ignitionLive === 'engine' ? { live: 'engine' } : undefined;

/** Whether a wire of this rig comes from its ignition: a coil, a module, an enable or a hand switch in its lead. */
export function tapsIgnition(rig: Pick<Rig, 'parts' | 'conductors'>): boolean {
  const switches = partsWith(rig, 'ignition').map((p) => p.id);
  return rig.conductors.some((c) =>
    [c.from, c.to].some((end) => switches.includes(end.part) && end.terminal === 'run'),
  );
}
