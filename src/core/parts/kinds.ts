/** The catalogue of part kinds. A new kind is a file and a row here. */
import { batteryBank } from './battery';
import { boostSwitch, ignitionDelayModule, ignitionSwitch } from './controls';
import { disconnect, linkFuse } from './inline';
import { linkSolenoid } from './link';
import { chassisLoads, houseLoads } from './loads';
import type { PartKind } from './part';
import { alternator, shoreCharger } from './sources';

const ALL: readonly PartKind[] = [
  alternator,
  batteryBank,
  boostSwitch,
  chassisLoads,
  disconnect,
  houseLoads,
  ignitionDelayModule,
  ignitionSwitch,
  linkFuse,
  linkSolenoid,
  shoreCharger,
];

export const PART_KINDS: ReadonlyMap<string, PartKind> = new Map(ALL.map((kind) => [kind.id, kind]));
export const PART_KIND_IDS: readonly string[] = ALL.map((kind) => kind.id);

/** The kind of a part of a validated rig. */
export function partKind(id: string): PartKind {
  const kind = PART_KINDS.get(id);
  if (!kind) throw new Error(`unknown part kind ${id}: the rig was not validated`);
  return kind;
}
