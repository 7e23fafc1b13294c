/**
 * The most a fuse of a tow connector's position may be rated: what its wires on either side may be fused at by the
 * rules of the place, and what the pin itself is rated for.
 */
import type { RuleSet } from '../../codes/ruleSet';
import { CONNECTORS, connectorOf } from '../../parts/connectors';
import type { TowPlug, TowWay } from '../../rig/tow';
import { leastFuseLimit, type FuseLimit, type WireSpec } from '../../size/fuseLimit';
import { UNREAD_INSULATION_CELSIUS } from '../../units/ampacity';

/**
 * Conductors that carry current for long in the jacket of a plug of many: charge, brake and ground. Lamps hardly count.
 * Common practice.
 */
const CARRYING_IN_JACKET = 3;

const poles = (connector: string): number => CONNECTORS.find((c) => c.id === connector)?.positions.length ?? 0;

/** What is known of a position's wires: trailer cable, and jacketed where the plug has more than two poles. */
export const wayWires = (plug: Pick<TowPlug, 'connector'>, way: TowWay): WireSpec[] =>
  [way.gauge, ...(way.uses.length > 0 ? [way.usesGauge] : [])].map((gauge) => ({
    gauge,
    insulation: UNREAD_INSULATION_CELSIUS,
    place: 'open' as const,
    bundled: poles(plug.connector) > 2 ? CARRYING_IN_JACKET : 1,
  }));

/** A, and what sets it: a wire, a code, or the pin. */
export function wayFuseLimit(
  plug: Pick<TowPlug, 'connector'>,
  way: TowWay,
  rules: RuleSet,
): Pick<FuseLimit, 'amps' | 'says'> & { by: FuseLimit['by'] | 'pin' } {
  const wire = leastFuseLimit(wayWires(plug, way), rules);
  const pin = connectorOf(plug.connector).positions.find((p) => p.id === way.pin)?.amps ?? Infinity;
  return pin < wire.amps ? { amps: pin, by: 'pin', says: `its pin is rated ${pin} A` } : wire;
}
