/** Whether a rig may be called sound but for its proof, and which readings and answers by themselves speak against it. */
import type { Complaint } from '../parts/complaints';
import { is } from '../parts/kinds';
import { measurementId } from '../probe/measurement';
import type { Belief } from './belief';
import { NOTHING_WRONG } from './catalogue/nothingWrong';
import { isShown, statesOfComplaints, stateToProve } from './complaintStates';
import { isComplaint } from './intake';
import { halvesApart, RUNNING } from './proof';
import { AT_REST, PROVES } from './witness';
import { apartOf, clampsOn, zeroClamps } from './witnessPoints';

/** Share from which another class stands in the way of calling a rig sound. */
const IN_THE_WAY = 0.2;

/**
 * Standard deviations, as wide as the diagnosis takes them, by which no number of a sound rig lies off what is stated: a
 * module of twenty-five ohms where a quarter is usual is no sound one, however well all readings fit it. From memory.
 */
const SOUND_TOLERANCE = 3.5;

/** Whether nothing but the proof stands between the rig and being called sound: no fault stands out, nothing is flagged. */
export const seemsSound = (belief: Belief, classes: readonly ClassOdds[]): boolean =>
  leadsAsSound(belief, classes) &&
  readingsAgainst(belief).length === 0 &&
  halvesApart(belief) === undefined &&
  answersFit(belief);

/** The same with a reading that by itself speaks against it and was taken once: which one to take again, by its place. */
export function againstSound(belief: Belief, classes: readonly ClassOdds[]): number | undefined {
  if (!leadsAsSound(belief, classes) || !answersFit(belief)) return undefined;
  const apart = halvesApart(belief);
  return [...readingsAgainst(belief), ...(apart === undefined ? [] : [apart])].find(
    (r) => !belief.evidence[r]!.confirmed,
  );
}

interface ClassOdds {
  class: string;
  probability: number;
}

function leadsAsSound(belief: Belief, classes: readonly ClassOdds[]): boolean {
  const [top, second] = classes;
  if (top!.class !== NOTHING_WRONG.id || top!.probability < belief.assumptions.soundAt) return false;
  return (
    (second?.probability ?? 0) < IN_THE_WAY &&
    belief.outOfTolerance(belief.heaviest(NOTHING_WRONG.id)) < SOUND_TOLERANCE &&
    !belief.blunder.some((b, r) => b > 0.35 && !belief.evidence[r]!.confirmed) &&
    belief.intake.every((c) => !isComplaint(c) || isShown(belief, c))
  );
}

/** Standard deviations off from which a single reading speaks against a sound rig. */
const OFF = 3.5;
/** V and A that speak against no rig, however surely they were read: what a good joint loses. From memory. */
const SMALL_VOLTS = 0.015;
const SMALL_AMPS = 0.5;

/** Readings where the complaint would show that by themselves speak against a sound rig, by their places. */
function readingsAgainst(belief: Belief): number[] {
  const sound = belief.heaviest(NOTHING_WRONG.id);
  const complaints = belief.intake.filter(isComplaint);
  const seen = new Set([
    ...statesOfComplaints(belief.intake, belief.workspace.states),
    ...complaints.map((c) => stateToProve(belief, c)),
    ...complaints.flatMap((c) => (PROVES[c].some((w) => 'running' in w) ? RUNNING : [])),
  ]);
  const apart = complaints.flatMap((c) =>
    PROVES[c].flatMap((w) =>
      'apart' in w
        ? apartOf(belief, w.apart).flatMap((u) => [u.test ?? '', ...u.points].map((k) => `${u.state}/${k}`))
        : [],
    ),
  );
  const counts = ({ state, probe, ref }: Belief['evidence'][number]) =>
    seen.has(state) || [measurementId(probe, ref), probe].some((k) => apart.includes(`${state}/${k}`));
  const off = belief.evidence.flatMap((e, r) =>
    counts(e) &&
    belief.blunder[r]! <= 0.5 &&
    belief.deviation(sound, r) >= OFF &&
    Math.abs(belief.residual(sound, r)) > (e.ref === undefined ? SMALL_AMPS : SMALL_VOLTS)
      ? [r]
      : [],
  );
  return [...new Set([...off, ...comesAndGoes(belief, sound), ...drawnOn(belief), ...drawsAtRest(belief)])];
}

/** A that leave a bank where it is to be charged, beyond a clamp's own zero. From memory. */
const DRAWN_AMPS = 1;

/**
 * A that a start battery gives at rest beyond the clamp's own zero, from which nothing is asleep. From memory; 0.05 A is the
 * trade's limit, which no clamp tells.
 */
const DRAWS_AMPS = 0.3;

/** A clamp that shows a start battery drawn on with everything off, by more than the clamp reads on a wire that carries nothing. */
function drawsAtRest(belief: Belief): number[] {
  const told = belief.intake.filter(isComplaint).flatMap((c) => PROVES[c].flatMap((w) => ('zeroOf' in w ? [w] : [])));
  return told.flatMap((w) => {
    const read = (keys: readonly string[]) =>
      belief.evidence.flatMap((e, r) => (e.state === AT_REST && keys.includes(e.probe) ? [{ r, amps: e.value }] : []));
    const nothing = read(zeroClamps(belief, w).flatMap((u) => u.points));
    const zero = nothing.reduce((sum, { amps }) => sum + amps / nothing.length, 0);
    const battery = belief.compiled.rig.parts.find((p) => is(p, w.zeroOf) && p.side === w.side);
    return read(clampsOn(belief, battery?.id, 'minus')).flatMap(({ r, amps }) =>
      nothing.length > 0 && amps - zero < -DRAWS_AMPS ? [r] : [],
    );
  });
}

/** Complaints of a bank that is not charged. */
const GIVES_CHARGE: ReadonlySet<Complaint> = new Set([
  'coach-not-charging',
  'slow-charging',
  'chassis-not-charging',
  'shore-not-charging',
]);

/**
 * Clamps that show a bank being drawn on in the very state in which the owner misses its charge, and in which a sound rig
 * would charge it: that is no sound one, whatever else may explain it.
 */
function drawnOn(belief: Belief): number[] {
  const drawn = belief.components.findIndex((c) => belief.faults[c.faultIndex]!.id === NOTHING_WRONG.id);
  const charges = (state: string, clamp: string) =>
    belief.prior0(drawn, belief.rowOf(state, clamp)!, -1).mean > DRAWN_AMPS;
  const missing = belief.intake.filter(isComplaint).flatMap((complaint) => {
    const state = stateToProve(belief, complaint);
    return PROVES[complaint].flatMap((w) =>
      state !== undefined && 'clampAt' in w && GIVES_CHARGE.has(complaint) ? [{ state, w }] : [],
    );
  });
  return missing.flatMap(({ state, w }) => {
    const bank = belief.compiled.rig.parts.find((p) => is(p, w.clampAt) && p.side === w.side);
    const negative = clampsOn(belief, bank?.id, 'minus');
    return belief.evidence.flatMap((e, r) =>
      e.state === state &&
      negative.includes(e.probe) &&
      e.value < -DRAWN_AMPS &&
      charges(state, e.probe) &&
      // Read twice it is no slip, however badly it fits.
      (e.confirmed || belief.blunder[r]! <= 0.5)
        ? [r]
        : [],
    );
  });
}

/**
 * The readings of one state of which some found a charger running and some resting, by their places: one that comes and
 * goes is not sound, however well each reading by itself would fit one that does.
 */
function comesAndGoes(belief: Belief, sound: number): number[] {
  const found = belief.evidence.flatMap(({ state }, r) => {
    const as = belief.foundAs(sound, r);
    return as === undefined || belief.blunder[r]! > 0.5 ? [] : [{ r, state, as }];
  });
  return found.filter(({ state, as }) => found.some((x) => x.state === state && x.as !== as)).map(({ r }) => r);
}

/** Whether no answer by itself speaks against a sound rig: none that what it speaks for has not been measured away. */
function answersFit(belief: Belief): boolean {
  const sound = belief.heaviest(NOTHING_WRONG.id);
  const kinds = new Map(belief.questions.map((q) => [q.id, q]));
  return belief.observed.every(({ what, answer }) => {
    const kind = kinds.get(what)!;
    const chance = belief.answerChance(kind, answer, sound);
    if (chance > ODD_ANSWER) return true;
    // What a load test fails is not sound, whatever else fits: it is the last word on a bank.
    if (kind.id.startsWith('load-test.')) return false;
    const speaksFor = belief.components.reduce(
      (sum, c, i) =>
        belief.answerChance(kind, answer, i) > TWICE * chance && !c.unknown ? sum + belief.weight[i]! : sum,
      0,
    );
    return speaksFor < MEASURED_AWAY;
  });
}

/** An answer speaks for a fault that makes it so many times as likely; refuted where all of those have less than this left. */
const TWICE = 2;
const MEASURED_AWAY = 0.1;
/** Chance of an answer from which it speaks against a sound rig. */
const ODD_ANSWER = 0.2;
