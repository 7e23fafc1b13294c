/** Every position of every plug with its wires, contacts and fuses: what joins the vehicle to what is towed. */
import { connectorOf, type Connector, type Convention } from '../../parts/connectors';
import { pinFeed, type UseId } from '../../parts/pinUses';
import type { PinSeen, TowInterface, TowPlug, TowWay } from '../../rig/tow';
import { wireResistance } from '../../units/wire';
import type { TowSituation } from './situations';

/** V above which a position is live: between that and LIVE_VOLTS' counterpart, DEAD_VOLTS, it is neither. */
export const LIVE_VOLTS = 9;
/** Ω·A of a connector's contact: 4 mΩ at 30 A, from memory. */
const CONTACT_OHMS_TIMES_AMPS = 0.12;
/** Ω·A of a fuse: from memory. */
const FUSE_OHMS_TIMES_AMPS = 0.09;
/** Splices, taps and crimps of one run: many on a factory line, few on a heavy one; a ground has few. From memory. */
const JOINTS_OHMS = { line: 0.018, ground: 0.005, bar: 0.0007 };

/** Ω between the vehicle's source and the position, by the reading under the heaviest load; undefined where none was loaded. */
export function contactOhms(way: TowWay): number | undefined {
  const loaded = (way.seen ?? []).filter(
    (s): s is PinSeen & { loaded: number; amps: number } =>
      s.loaded !== undefined && s.amps !== undefined && Math.abs(s.open) > LIVE_VOLTS,
  );
  const heaviest = loaded.sort((a, b) => b.amps - a.amps)[0];
  return heaviest && Math.max(0, Math.abs(heaviest.open) - Math.abs(heaviest.loaded)) / heaviest.amps;
}

/** `plug.pin`. */
export type WayKey = string;
export const wayKey = (plug: TowPlug, way: TowWay): WayKey => `${plug.id}.${way.pin}`;

export interface Way {
  key: WayKey;
  plug: TowPlug;
  way: TowWay;
  connector: Connector;
}
export const waysOf = (tow: TowInterface): Way[] =>
  tow.plugs.flatMap((plug) =>
    plug.ways.map((way) => ({ key: wayKey(plug, way), plug, way, connector: connectorOf(plug.connector) })),
  );

/** Ω from the vehicle's source to the socket, through the contact, and from the plug to what hangs on it. */
export function wayOhms({ way, connector }: Way): { front: number; contact: number; behind: number } {
  const position = connector.positions.find((p) => p.id === way.pin)!;
  const joints =
    connector.contact === 'bar' ? JOINTS_OHMS.bar : way.feed === 'ground' ? JOINTS_OHMS.ground : JOINTS_OHMS.line;
  return {
    front: wireResistance(way.gauge, way.length) + joints + (way.fuse ? FUSE_OHMS_TIMES_AMPS / way.fuse : 0),
    contact: Math.max(CONTACT_OHMS_TIMES_AMPS / position.amps, contactOhms(way) ?? 0),
    behind: wireResistance(way.usesGauge, way.usesLength) + joints,
  };
}

export const conventionOf = ({ plug, connector }: Way): Convention =>
  connector.conventions.find((c) => c.id === plug.convention) ?? connector.conventions[0]!;

/** Which ground a position returns to: a ground position made for it, where both sides have wired it. */
export function returnKind(w: Way): 'charge' | 'switched' | 'all' {
  const { plug, way } = w;
  const convention = conventionOf(w);
  const use = convention.uses[way.pin];
  const own = use === 'charge' ? 'ground-charge' : use === 'switched' ? 'ground-switched' : undefined;
  const wired =
    own !== undefined &&
    plug.ways.some((w) => convention.uses[w.pin] === own && w.feed === 'ground' && w.uses.includes('ground'));
  return wired ? (use as 'charge' | 'switched') : 'all';
}

/** Whether the trailer's fridge relay connects the element, and the charger is told to run. */
export const feeds = (ways: readonly Way[], use: UseId, s: TowSituation): Way | undefined =>
  ways.find((w) => w.way.uses.includes(use) && pinFeed(w.way.feed).live(s, w.connector.combined));
