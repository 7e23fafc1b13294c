/**
 * The most a fuse may be rated for the wire it protects: what the wire carries for as long as one likes, and on small
 * conductors what the rules of the place say, where that is less. A code's figure makes it stricter, never laxer.
 */
import { cited, type RuleSet } from '../codes/ruleSet';
import type { Conductor } from '../rig/schema';
import { ampacity, UNREAD_INSULATION_CELSIUS, type Insulation, type WirePlace } from '../units/ampacity';
import { AWG_GAUGES, wireArea, type AwgGauge, type Gauge } from '../units/wire';

export const insulationOf = (c: Conductor): Insulation => c.insulation ?? UNREAD_INSULATION_CELSIUS;
export const placeOf = (c: Conductor): WirePlace => (c.inEngineSpace ? 'engine-space' : 'open');

export interface WireSpec {
  gauge: Gauge;
  insulation: Insulation;
  place: WirePlace;
  /** Current-carrying conductors in its jacket or loom, itself with them; 1 where not said. */
  bundled?: number;
}

/** What counts of a conductor of a rig. */
export const wireSpecOf = (c: Conductor, gauge: Gauge = c.gauge): WireSpec => ({
  gauge,
  insulation: insulationOf(c),
  place: placeOf(c),
  bundled: c.bundled ?? 1,
});

/** A it carries for as long as one likes. */
export const ampacityOf = ({ gauge, insulation, place, bundled = 1 }: WireSpec): number =>
  ampacity(gauge, insulation, place, bundled);

export interface FuseLimit {
  /** A. */
  amps: number;
  /** What sets it. */
  by: 'ampacity' | 'code';
  /** "15 A on 14 AWG: NEC 551.10(E)(1) …" or "20 A ampacity". */
  says: string;
}

/** The code's row for a gauge: of its own, or of the next thinner one in the table for a metric size. */
function codeRow(gauge: Gauge, { smallWire }: RuleSet): { amps: number; gauge: AwgGauge } | undefined {
  if (!smallWire) return undefined;
  const rows = AWG_GAUGES.flatMap((g) => {
    const amps = smallWire.amps[g];
    return amps === undefined ? [] : [{ amps, gauge: g }];
  });
  const thickest = rows.at(-1);
  // Between the table's thickest and the next size sold lies copper the table speaks of no more.
  const next = thickest && AWG_GAUGES[AWG_GAUGES.indexOf(thickest.gauge) + 1];
  if (next && wireArea(gauge) >= wireArea(next)) return undefined;
  return rows.findLast((r) => wireArea(r.gauge) <= wireArea(gauge)) ?? rows[0];
}

/** @param rules of the place; undefined for physics alone. */
export function fuseLimit(wire: WireSpec, rules?: RuleSet): FuseLimit {
  const carries = ampacityOf(wire);
  const row = rules && codeRow(wire.gauge, rules);
  if (row && row.amps < carries)
    return {
      amps: row.amps,
      by: 'code',
      says: `${row.amps} A on ${row.gauge} AWG: ${cited(rules.smallWire!.from)}`,
    };
  return { amps: carries, by: 'ampacity', says: `${carries.toFixed(0)} A ampacity` };
}

/** The least of several, and what sets it. */
export const leastFuseLimit = (wires: readonly WireSpec[], rules?: RuleSet): FuseLimit =>
  wires.map((w) => fuseLimit(w, rules)).reduce((a, b) => (b.amps < a.amps ? b : a));
