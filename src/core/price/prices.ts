/**
 * What pieces cost and how long they take to fit: bands in US dollars without mark-up, and minutes. Assumed,
 * the order of shop practice; the shop's own rates and factor go over them.
 */
import type { Range } from './estimate';
import type { Conductor, Part, Rig } from '../rig/schema';
import { wireArea } from '../units/wire';

interface Price {
  dollars(part: Part): Range;
  minutes: Range;
}

const flat = (lo: number, hi: number) => (): Range => [lo, hi];
/** Dollars by the amps of a charger. */
const byAmps =
  (base: number, perAmp: number) =>
  (part: Part): Range => {
    const amps = part.params['limit']?.value ?? 30;
    return [base + perAmp * amps, 1.35 * (base + perAmp * amps)];
  };

export const PART_PRICES: Readonly<Record<string, Price>> = {
  'link-solenoid': { dollars: flat(45, 130), minutes: [30, 60] },
  'ignition-delay-module': { dollars: flat(60, 130), minutes: [30, 60] },
  'voltage-link-module': { dollars: flat(50, 120), minutes: [30, 60] },
  'bidirectional-module': { dollars: flat(90, 190), minutes: [40, 75] },
  'timed-window-module': { dollars: flat(90, 180), minutes: [40, 75] },
  'diode-isolator': { dollars: flat(60, 160), minutes: [45, 90] },
  'link-switch': { dollars: flat(8, 25), minutes: [30, 60] },
  'boost-switch': { dollars: flat(10, 35), minutes: [30, 60] },
  'dcdc-charger': { dollars: byAmps(90, 5), minutes: [75, 150] },
  'dual-charger': { dollars: byAmps(140, 6), minutes: [90, 170] },
  'bypass-switch': { dollars: flat(20, 60), minutes: [20, 40] },
  'line-breaker': { dollars: flat(8, 30), minutes: [10, 25] },
  'voltage-relay': { dollars: flat(40, 110), minutes: [30, 60] },
  'diode-lamp': { dollars: flat(15, 40), minutes: [45, 90] },
  'differential-maintainer': { dollars: flat(40, 90), minutes: [30, 60] },
  'triggered-maintainer': { dollars: flat(70, 160), minutes: [30, 60] },
  'link-fuse': { dollars: flat(15, 45), minutes: [10, 20] },
  'tow-connector': { dollars: flat(25, 90), minutes: [40, 80] },
  'battery-bank': {
    dollars: (p) => [1.3 * (p.params['capacity']?.value ?? 100), 2.4 * (p.params['capacity']?.value ?? 100)],
    minutes: [45, 90],
  },
};
const OTHER: Price = { dollars: flat(20, 80), minutes: [20, 45] };

/** Dollars a metre of cable, its lugs and loom counted in, by copper: from memory. */
function wirePrice(c: Conductor): Range {
  const mm2 = wireArea(c.gauge) * 1e6;
  const perMetre = 0.6 + 0.28 * mm2;
  return [4 + perMetre * c.length, 8 + 1.5 * perMetre * c.length];
}
/** Minutes to run a conductor: pull, tie, terminate. */
const wireMinutes = (c: Conductor): Range => [10 + 4 * c.length, 15 + 8 * c.length];
const REMOVE_MINUTES: Range = [10, 20];

/** Parts and minutes to make one version of a rig into another. Altered cables count as new ones. */
export function changeCost(from: Rig, to: Rig): { minutes: Range; parts: Range } {
  let minutes: [number, number] = [0, 0];
  let parts: [number, number] = [0, 0];
  const add = (m: Range, p: Range) => {
    minutes = [minutes[0] + m[0], minutes[1] + m[1]];
    parts = [parts[0] + p[0], parts[1] + p[1]];
  };
  const before = new Map(from.parts.map((p) => [p.id, p]));
  for (const p of to.parts) {
    const was = before.get(p.id);
    const other = was && (was.kind !== p.kind || was.note !== p.note);
    if (was && !other) continue;
    const price = PART_PRICES[p.kind] ?? OTHER;
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
