/**
 * What pieces cost and how long they take to fit: bands in US dollars without mark-up, and minutes. Assumed,
 * the order of shop practice; the shop's own rates and factor go over them.
 */
import { partKind } from '../parts/kinds';
import type { PriceRange } from '../parts/price';
import type { Conductor, Rig } from '../rig/schema';
import { wireArea } from '../units/wire';

/** Dollars a metre of cable, its lugs and loom counted in, by copper: from memory. */
function wirePrice(c: Conductor): PriceRange {
  const mm2 = wireArea(c.gauge) * 1e6;
  const perMetre = 0.6 + 0.28 * mm2;
  return [4 + perMetre * c.length, 8 + 1.5 * perMetre * c.length];
}
/** Minutes to run a conductor: pull, tie, terminate. */
const wireMinutes = (c: Conductor): PriceRange => [10 + 4 * c.length, 15 + 8 * c.length];
const REMOVE_MINUTES: PriceRange = [10, 20];

/** Parts and minutes to make one version of a rig into another. Altered cables count as new ones. */
export function changeCost(from: Rig, to: Rig): { minutes: PriceRange; parts: PriceRange } {
  let minutes: [number, number] = [0, 0];
  let parts: [number, number] = [0, 0];
  const add = (m: PriceRange, p: PriceRange) => {
    minutes = [minutes[0] + m[0], minutes[1] + m[1]];
    parts = [parts[0] + p[0], parts[1] + p[1]];
  };
  const before = new Map(from.parts.map((p) => [p.id, p]));
  for (const p of to.parts) {
    const was = before.get(p.id);
    const other = was && (was.kind !== p.kind || was.note !== p.note);
    if (was && !other) continue;
    const price = partKind(p.kind).price;
    add(price.minutes, price.dollars(p));
  }
  for (const p of from.parts) if (!to.parts.some((x) => x.id === p.id)) add(REMOVE_MINUTES, [0, 0]);
  const wires = new Map(from.conductors.map((c) => [c.id, c]));
  for (const c of to.conductors) {
    const was = wires.get(c.id);
    if (
      was &&
      was.gauge === c.gauge &&
      was.from.part === c.from.part &&
      was.to.part === c.to.part &&
      Math.abs(was.length - c.length) < 0.5
    )
      continue;
    add(wireMinutes(c), wirePrice(c));
  }
  return { minutes, parts };
}
