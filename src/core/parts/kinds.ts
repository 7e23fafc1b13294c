/** The catalogue of part kinds. A new kind is a file and a row here. */
import { batteryBank } from './entries/battery';
import {
  boostSwitch,
  enableSwitch,
  ignitionDelayModule,
  ignitionSwitch,
  linkSwitch,
  markerLights,
} from './entries/controls';
import { dcdcChargerPart, dualChargerPart } from './entries/dcdc';
import { diodeLamp, differentialPart, triggeredPart } from './entries/maintainers';
import { towConnector, voltageRelay } from './entries/towLine';
import { automaticFridge, fridgeElement, towedCarLoads } from './entries/trailerLoads';
import { diodeIsolator } from './entries/diodeIsolator';
import { bypassSwitch, disconnect, lineBreaker, linkFuse, shunt } from './entries/inline';
import { linkSolenoid } from './entries/link';
import { bidirectionalModule, timedWindowModule, voltageLinkModule } from './entries/linkModules';
import { chassisLoads, generator, houseLoads } from './entries/loads';
import type { PartKind } from './part';
import type { TraitName, Traits } from './traits';
import { alternator, shoreCharger, solarCharger } from './entries/sources';

const ALL = [
  alternator,
  automaticFridge,
  batteryBank,
  bidirectionalModule,
  boostSwitch,
  bypassSwitch,
  chassisLoads,
  dcdcChargerPart,
  differentialPart,
  diodeIsolator,
  diodeLamp,
  disconnect,
  dualChargerPart,
  enableSwitch,
  fridgeElement,
  generator,
  houseLoads,
  ignitionDelayModule,
  ignitionSwitch,
  lineBreaker,
  linkFuse,
  linkSolenoid,
  linkSwitch,
  markerLights,
  shoreCharger,
  shunt,
  solarCharger,
  timedWindowModule,
  towConnector,
  towedCarLoads,
  triggeredPart,
  voltageLinkModule,
  voltageRelay,
] as const;

/** The known kinds of part. */
export type PartKindId = (typeof ALL)[number]['id'];

export const PART_KINDS: ReadonlyMap<string, PartKind> = new Map(ALL.map((kind) => [kind.id, kind]));
export const PART_KIND_IDS: readonly PartKindId[] = ALL.map((kind) => kind.id);

/** A part's choices, its kind's defaults where the document is silent. */
export function partOptions(
  kind: PartKind,
  part: { options?: Readonly<Record<string, string>> },
): Record<string, string> {
  return Object.fromEntries(
    Object.entries(kind.options ?? {}).map(([name, spec]) => [name, part.options?.[name] ?? spec.default]),
  );
}

/** Nominal volts of a part: its vehicle's, unless it says its own. */
export const nominalOf = (
  part: { options?: Readonly<Record<string, string>> },
  vehicle: { nominalVolts: number },
): number => (part.options?.['nominal'] === '12' ? 12 : vehicle.nominalVolts);

/** The kind of a part of a validated rig. */
export function partKind(id: string): PartKind {
  const kind = PART_KINDS.get(id);
  if (!kind) throw new Error(`unknown part kind ${id}: the rig was not validated`);
  return kind;
}

/** What a part is to the rest of the program. */
export const traitsOf = (part: { kind: string }): Traits => partKind(part.kind).traits;

/** Whether a part has a trait. */
export const is = (part: { kind: string } | undefined, trait: TraitName): boolean =>
  part !== undefined && traitsOf(part)[trait] !== undefined;

/** Whether a part has one of several traits. */
export const isOneOf = (part: { kind: string } | undefined, traits: readonly TraitName[]): boolean =>
  traits.some((t) => is(part, t));
