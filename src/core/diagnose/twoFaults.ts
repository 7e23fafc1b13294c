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
import { pointsOf } from './ownerPoints';

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
    const answers = oddAnswers(belief, leading);
    // Amps that nobody expects are drawn by something, wherever it hangs.
    const amps = misfits.some((e) => e.ref === undefined);
    const lost = lostBetween(belief, first);
    // Anything that adds ohms for the same complaint may lie further along the same circuit.
    const along = (f: Fault) =>
      (misfits.length > 0 || lost.length > 0) &&
      f.effects.some((e) => e.do === 'add-ohms' || e.do === 'replace-ohms') &&
      belief.intake.filter(isComplaint).some((c) => f.explains.includes(c));
    // What adds ohms just where more is lost, or where the reading does not fit, comes before what else is there.
    const isNear = (f: Fault) =>
      near.has(f.owner!) ||
      (amps && f.effects.some((e) => e.do === 'parallel-ohms')) ||
      answers.some((faults) => faults[f.id] !== undefined);
    const spans = (f: Fault) =>
      f.owner !== first.owner &&
      along(f) &&
      lost.some(([a, b]) => pointsOf(belief, f.owner).filter((e) => e === a || e === b).length > 1);
    const nearness = (f: Fault) => (spans(f) ? 3 : Number(isNear(f)) * (along(f) ? 2 : 1));
    const seconds = singles
      .filter((f) => f.class !== first.class)
      .filter((f) => isNear(f) || untold.some((c) => f.explains.includes(c)) || along(f))
      .sort((a, b) => nearness(b) - nearness(a) || b.prior - a.prior)
      .slice(0, SECONDS);
    return seconds
      .filter((f) => !known.has(`${first.id}+${f.id}`) && !known.has(`${f.id}+${first.id}`))
      .map((f) => {
        // The other of two firsts proposes the same pair the other way round.
        known.add(`${first.id}+${f.id}`);
        return bothOf(first, f, (TOGETHER * first.prior * f.prior) / total);
      });
  });
}

/** Chance of an answer under which it counts as not explained. */
const ODD_ANSWER = 0.3;

/** Of each answer the suspect hardly explains: the faults its question tells of. */
function oddAnswers(belief: Belief, leading: number): Readonly<Record<string, unknown>>[] {
  return belief.observed.flatMap((o) => {
    const kind = belief.questions.find((q) => q.id === o.what)!;
    return belief.answerChance(kind, o.answer, leading) < ODD_ANSWER ? [kind.faults] : [];
  });
}

/** What two readings of one state may differ by beyond what is expected, V and share: what both are off by drops out. From memory. */
const APART_VOLTS = 0.03;
const APART_SHARE = 0.15;
const APART_SPREADS = 3;

/**
 * Pairs of points between which more is lost than the suspect explains. Each reading by itself may lie within what the model
 * can be off by; what lies between two points, read from one place in one state or by way of others, is known far better.
 */
function lostBetween(belief: Belief, suspect: Fault): [string, string][] {
  const component = belief.heaviest(suspect.id);
  const links = belief.evidence.flatMap((e, r) =>
    e.ref !== undefined && belief.blunder[r]! < MISFIT && !belief.floats(component, r)
      ? [{ state: e.state, red: e.probe, black: e.ref, value: e.value, residual: belief.residual(component, r) }]
      : [],
  );
  return [...new Set(links.map((l) => l.state))].flatMap((state) => {
    const here = links.filter((l) => l.state === state);
    return [...new Set(here.map((l) => l.black))].flatMap((root) => strays(pointsFrom(root, here)));
  });
}

interface Link {
  red: string;
  black: string;
  value: number;
  residual: number;
}
/** A point against a root: V read, by how much that is more than expected, over how many readings. */
interface Known {
  point: string;
  value: number;
  residual: number;
  over: number;
}

/** All points whose volts against the root follow from readings, by the fewest. */
function pointsFrom(root: string, links: readonly Link[]): Known[] {
  const known = new Map<string, Known>([[root, { point: root, value: 0, residual: 0, over: 0 }]]);
  for (let grown = true; grown;) {
    grown = false;
    for (const { red, black, value, residual } of links)
      for (const [from, to, sign] of [
        [black, red, 1],
        [red, black, -1],
      ] as const) {
        const start = known.get(from);
        const over = (start?.over ?? 0) + 1;
        if (!start || (known.get(to)?.over ?? Infinity) <= over) continue;
        known.set(to, {
          point: to,
          value: start.value + sign * value,
          residual: start.residual + sign * residual,
          over,
        });
        grown = true;
      }
  }
  return [...known.values()].filter((k) => k.over > 0);
}

/** Those of the points that lie further apart than expected, two and two. */
const strays = (points: readonly Known[]): [string, string][] =>
  points.flatMap((a, i) =>
    points.slice(i + 1).flatMap((b): [string, string][] => {
      const expected = a.value - a.residual - (b.value - b.residual);
      const noise = APART_VOLTS * Math.sqrt(Math.max(1, (a.over + b.over) / 2));
      const apart = Math.abs(a.residual - b.residual);
      return apart > APART_SPREADS * Math.hypot(noise, APART_SHARE * expected) ? [[a.point, b.point]] : [];
    }),
  );

/** Parts and wires at the points of a reading. */
function ownersAt(belief: Belief, probe: string, ref?: string): string[] {
  const keys = [probe, ...(ref === undefined ? [] : [ref])];
  const parts = keys.map((k) => k.split('.')[0]!);
  const { conductors, bonds } = belief.compiled.rig;
  const wires = conductors.filter((c) =>
    [c.from, c.to].some((e) => keys.includes(`${e.part}.${e.terminal}`) || keys.includes(`${c.id}.clamp`)),
  );
  // Between two leads on metal lies what joins that metal, wherever on it they stand.
  const metal = bonds.filter((b) => [b.from, b.to].some((e) => parts.includes(e.part)));
  return [...parts, ...wires.map((c) => c.id), ...metal.map((b) => b.id)];
}

/** The effects of a pair with the second one in a band of its severity: each half may be mild or bad by itself. */
export function inBand(first: readonly Effect[], second: readonly Effect[], band: number, bands: number): Effect[] {
  const narrowed = second.map((e) =>
    'from' in e ? { ...e, from: severityAt(e, band / bands), to: severityAt(e, (band + 1) / bands) } : e,
  );
  return [...first, ...narrowed];
}
