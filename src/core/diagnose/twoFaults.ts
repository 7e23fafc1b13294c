/**
 * Two faults at once, proposed when one does not explain everything: a complaint it has nothing to do with, or a
 * reading that stands and does not fit. Any two may meet; only those that would explain the rest are worked out.
 */
import { NOT_ON_LIST } from './catalogue/notOnList';
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
/** Standard deviations from which one counts that was taken twice: it is no slip, whatever else fits. */
const FAR_OFF = 2.5;

/** Pairs worth working out now, as suspects of this rig. */
export function twoFaults(belief: Belief): Fault[] {
  const singles = belief.faults.filter((f) => f.owner !== undefined && !f.members);
  const total = belief.faults.reduce((sum, f) => sum + (f.members ? 0 : f.prior), 0);
  // A pair that leads stands for either of its halves.
  const share = (f: Fault) =>
    belief.faults.reduce((sum, x, i) => (x === f || x.members?.includes(f.id) ? sum + belief.probability[i]! : sum), 0);
  // Where nothing on the list fits, two of it together may: the best of the list is looked at beside each other.
  const unknown = belief.faults.findIndex((f) => f.id === NOT_ON_LIST.id);
  const listed = Math.max(1e-9, 1 - belief.probability[unknown]!);
  const firsts = singles
    .filter((f) => share(f) > LIKELY * listed)
    .sort((a, b) => share(b) - share(a))
    .slice(0, FIRSTS);
  const known = new Set(belief.faults.map((f) => f.id));
  return firsts.flatMap((first) => {
    const untold = belief.intake.filter(isComplaint).filter((c) => !first.explains.includes(c));
    const leading = belief.heaviest(first.id);
    const misfits = belief.evidence.filter(
      (e, r) => belief.blunder[r]! > MISFIT || (e.confirmed && belief.deviation(leading, r) > FAR_OFF),
    );
    const near = new Set(misfits.flatMap((e) => ownersAt(belief, e.probe, e.ref)));
    // Anything that adds ohms for the same complaint may lie further along the same circuit.
    const along = (f: Fault) =>
      (misfits.length > 0 || losesBetween(belief, first)) &&
      f.effects.some((e) => e.do === 'add-ohms' || e.do === 'replace-ohms') &&
      belief.intake.filter(isComplaint).some((c) => f.explains.includes(c));
    const seconds = singles
      .filter((f) => f.class !== first.class)
      .filter((f) => near.has(f.owner!) || untold.some((c) => f.explains.includes(c)) || along(f))
      .sort((a, b) => Number(near.has(b.owner!)) - Number(near.has(a.owner!)) || b.prior - a.prior)
      .slice(0, SECONDS);
    return seconds
      .filter((f) => !known.has(`${first.id}+${f.id}`) && !known.has(`${f.id}+${first.id}`))
      .map((f) => bothOf(first, f, (TOGETHER * first.prior * f.prior) / total));
  });
}

/** What two readings of one state may differ by beyond what is expected, V and share: what both are off by drops out. From memory. */
const APART_VOLTS = 0.03;
const APART_SHARE = 0.15;
const APART_SPREADS = 3;

/**
 * Whether more is lost between two points than the suspect explains. Each reading by itself may lie within what the model
 * can be off by; what lies between two of them, taken from one place in one state, is known far better.
 */
function losesBetween(belief: Belief, suspect: Fault): boolean {
  const component = belief.heaviest(suspect.id);
  const off = belief.evidence.map((e, r) => ({
    at: `${e.state} ${e.ref}`,
    volts: e.ref !== undefined && belief.blunder[r]! < MISFIT,
    value: e.value,
    residual: belief.residual(component, r),
  }));
  return off.some((a, i) =>
    off.slice(i + 1).some((b) => {
      if (!a.volts || !b.volts || a.at !== b.at) return false;
      const expected = a.value - a.residual - (b.value - b.residual);
      return Math.abs(a.residual - b.residual) > APART_SPREADS * Math.hypot(APART_VOLTS, APART_SHARE * expected);
    }),
  );
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
