/**
 * Two faults at once, proposed when one does not explain everything: a complaint it has nothing to do with, or a
 * reading that stands and does not fit. Any two may meet; only those that would explain the rest are worked out.
 */
import type { Effect } from '../operate/effects';
import { severityAt } from '../operate/effects';
import type { Belief } from './belief';
import { bothOf, type Fault } from './faults';
import { isComplaint } from './intake';

/** Single suspects that may be the first of two, and how likely one must be. */
const FIRSTS = 2;
const LIKELY = 0.25;
/** Most that are worked out as the second beside one. */
const SECONDS = 10;
/** Two faults meet so many times oftener than chance: what spoils one often spoils another. From memory. */
const TOGETHER = 2;
/** Share of being a slip from which a reading counts as not explained. */
const MISFIT = 0.3;

/** Pairs worth working out now, as suspects of this rig. */
export function twoFaults(belief: Belief): Fault[] {
  const singles = belief.faults.filter((f) => f.owner !== undefined && !f.members);
  const total = belief.faults.reduce((sum, f) => sum + (f.members ? 0 : f.prior), 0);
  // A pair that leads stands for either of its halves.
  const share = (f: Fault) =>
    belief.faults.reduce((sum, x, i) => (x === f || x.members?.includes(f.id) ? sum + belief.probability[i]! : sum), 0);
  const firsts = singles
    .filter((f) => share(f) > LIKELY)
    .sort((a, b) => share(b) - share(a))
    .slice(0, FIRSTS);
  const known = new Set(belief.faults.map((f) => f.id));
  return firsts.flatMap((first) => {
    const untold = belief.intake.filter(isComplaint).filter((c) => !first.explains.includes(c));
    const near = new Set(
      belief.evidence.flatMap((e, r) => (belief.blunder[r]! > MISFIT ? ownersAt(belief, e.probe, e.ref) : [])),
    );
    const seconds = singles
      .filter((f) => f.class !== first.class && (untold.some((c) => f.explains.includes(c)) || near.has(f.owner!)))
      .sort((a, b) => b.prior - a.prior)
      .slice(0, SECONDS);
    return seconds
      .filter((f) => !known.has(`${first.id}+${f.id}`) && !known.has(`${f.id}+${first.id}`))
      .map((f) => bothOf(first, f, (TOGETHER * first.prior * f.prior) / total));
  });
}

/** Parts and wires at the points of a reading. */
function ownersAt(belief: Belief, probe: string, ref?: string): string[] {
  const keys = [probe, ...(ref === undefined ? [] : [ref])];
  const parts = keys.map((k) => k.split('.')[0]!);
  const { conductors } = belief.compiled.rig;
  const wires = conductors.filter((c) =>
    [c.from, c.to].some((e) => keys.includes(`${e.part}.${e.terminal}`) || keys.includes(`${c.id}.clamp`)),
  );
  return [...parts, ...wires.map((c) => c.id)];
}

/** The effects of a pair with the second one in a band of its severity: each half may be mild or bad by itself. */
export function inBand(first: readonly Effect[], second: readonly Effect[], band: number, bands: number): Effect[] {
  const narrowed = second.map((e) =>
    'from' in e ? { ...e, from: severityAt(e, band / bands), to: severityAt(e, (band + 1) / bands) } : e,
  );
  return [...first, ...narrowed];
}
