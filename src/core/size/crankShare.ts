/**
 * Cranking with boost held: what of the starter's current comes through the link. The start battery is taken
 * near flat, or nobody would boost; the other bank full enough to lend. Both behind their ohms, the starter a
 * constant current: i = (E2 − E1 + I·R1) / (R1 + R2 + line). Kirchhoff; resistances by the models of the batteries.
 */
import { bankOhms, bankRestVolts, type BankState } from '../parts/chemistry';
import { is, isOneOf } from '../parts/kinds';
import { bankStateOf } from '../rig/bankState';
import { follow } from '../rig/follow';
import type { Part, Rig } from '../rig/schema';
import { partValue, partWith } from '../rig/value';

/** Seconds a starter turns before one gives up: common practice. */
export const CRANK_SECONDS = 10;
/** Charge of a start battery somebody boosts, and of the bank that lends: assumed. */
const TIRED_CHARGE = 0.15;
const LENDER_CHARGE = 0.8;
/** C a lithium bank's BMS lets out for some seconds, where its label says nothing: from memory. */
export const BMS_TIMES_CAPACITY = 2;

export interface CrankShare {
  /** A through the link, and through each fuse on the way. */
  amps: number;
  starter: number;
  donor: Part;
  /** A the donor's BMS lets out for seconds; undefined for lead. */
  bmsLimit?: number;
  /** Parts the current passes. */
  through: string[];
}

const contactOhms = (part: Part): number =>
  (part.params['contact'] ?? part.params['element'] ?? part.params['pin'])?.value ?? 0.001;

/** The share, for a rig that can boost; undefined where no switch joins the banks by hand, or no path does. */
export function crankShare(rig: Rig): CrankShare | undefined {
  if (!rig.parts.some((p) => is(p, 'boost') || is(p, 'bypass'))) return undefined;
  const loads = partWith(rig, 'chassisLoads');
  const start = rig.parts.find((p) => is(p, 'battery') && p.side === 'engine');
  if (!loads || !start) return undefined;
  const steps = follow(rig, { part: start.id, terminal: 'plus' }, (p) => !is(p, 'alternator'));
  const end = steps.find((s) => is(s.part, 'battery') && s.part!.side === 'coach');
  if (!end) return undefined;
  const state = (part: Part, soc: number): BankState => bankStateOf(rig, part, { soc, celsius: 10, ageing: 1 });
  const [own, lent] = [state(start, TIRED_CHARGE), state(end.part!, LENDER_CHARGE)];
  if (own.blocks !== lent.blocks) return undefined;
  // What lies on the way: parts whose both sides the path touches.
  const way = steps.filter(
    (s) => s.metres <= end.metres && s.part !== undefined && s.part !== start && s.part !== end.part,
  );
  const passed = [...new Set(way.map((s) => s.part!))].filter((p) =>
    isOneOf(p, ['fuse', 'breaker', 'solenoid', 'bypass', 'disconnect']),
  );
  const line = end.ohms + passed.reduce((sum, p) => sum + contactOhms(p), 0);
  const [r1, r2] = [bankOhms(own, false), bankOhms(lent, false)];
  const starter = partValue(loads, 'starter');
  const amps = (bankRestVolts(lent) - bankRestVolts(own) + starter * r1) / (r1 + r2 + line);
  const lithium = lent.chemistry.bms !== undefined;
  return {
    amps: Math.min(starter, Math.max(0, amps)),
    starter,
    donor: end.part!,
    ...(lithium ? { bmsLimit: BMS_TIMES_CAPACITY * lent.capacity } : {}),
    through: passed.map((p) => p.id),
  };
}
