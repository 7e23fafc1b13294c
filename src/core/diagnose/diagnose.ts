/**
 * The answer a technician reads: suspects with what speaks for and against each, the next best test with
 * what each outcome would mean, whether to stop, and which reading to take again.
 */
import { measurementId, rigMeasurements } from '../probe/measurement';
import type { Belief } from './belief';
import type { AddedProbe } from './addedProbes';
import { changeOfMind, type ChangeOfMind } from './changeOfMind';
import { atTheStop, calibrationOf, claimed, sortOf, type Calibration, type VerdictSort } from './calibration';
import { contradictions, type Contradiction } from './contradictions';
import { rankTests, type Circumstances, type RankedTest } from './nextTest';
import { howItStands, type ClassShare, type Round, type Stop } from './standing';
import { answerWords, nextTest, type NextTest } from './testInWords';

export type { Stop } from './standing';
export type { NextTest, TestOutcome } from './testInWords';
export type { ChangeOfMind } from './changeOfMind';
export type { Contradiction } from './contradictions';

export interface Clue {
  /** Id of the reading or observation. */
  reading: string;
  /** The operating state of a reading; absent on an observation. */
  state?: string;
  /** Probe label, or the question that was answered. */
  label: string;
  /** Of an observation: what was answered, in words. */
  answer?: string;
  /** Natural-log odds it adds to the suspect: positive points at it. */
  logOdds: number;
  strength: 'strong' | 'some' | 'weak';
}

export interface Suspect {
  fault: string;
  name: string;
  class: string;
  repair: string;
  /** How it shows, in words. */
  shows: string;
  /** How it is proved before anything is taken apart. */
  confirm?: string;
  /** Minutes of work and dollars for parts to put it right, from and to. Assumed. */
  minutes?: readonly [number, number];
  parts?: readonly [number, number];
  caution?: string;
  part?: string;
  probability: number;
  prior: number;
  for: Clue[];
  against: Clue[];
}

export interface Diagnosis {
  suspects: Suspect[];
  next: NextTest[];
  stop: Stop;
  contradiction: Contradiction[];
  /** Where no probe tells the leaders apart: points to touch that would. */
  added: AddedProbe[];
  /** What each unanswered question is expected to tell now, bits, by its id. */
  telling: Record<string, number>;
  /** Repair classes with their probability, likeliest first. */
  classes: ClassShare[];
  /** The one test that would unseat the leading repair, and how it would have to come out. */
  changes?: ChangeOfMind;
  /** What was kept back of every share, and what that rests on. */
  calibration: Calibration;
  /** Of a verdict whose sort is counted by itself: what was found of it. */
  sort?: VerdictSort;
}

export interface DiagnoseOptions {
  state: string;
  openPlaces?: readonly string[];
  /** Where the black lead is, so that the next test is asked for from there. */
  blackLead?: string;
  /** Measurements that cannot be reached, as `state/measurementId`. */
  unreachable?: readonly string[];
}

export function diagnose(belief: Belief, options: DiagnoseOptions): Diagnosis {
  const measurements = rigMeasurements(belief.compiled.rig, options.blackLead);
  const left = belief.leaveOneOut();
  const suspects = suspectList(belief, left);
  const classes = classList(belief);
  const now: Circumstances = {
    state: options.state,
    openPlaces: new Set(options.openPlaces ?? []),
    done: new Set([
      ...(options.unreachable ?? []),
      ...belief.evidence.map((e) => `${e.state}/${measurementId(e.probe, e.ref)}`),
      ...belief.observed.map((o) => o.what),
    ]),
  };
  const ranked = rankTests(belief, measurements, now);
  const useful = ranked.filter((t) => t.bits > 0.01);
  const contradiction = contradictions(belief);
  const round: Round = { belief, classes, left, measurements, now, ranked, useful, contradiction };
  const { stop, first, added = [] } = howItStands(round);
  const next = [...(first ? [first] : []), ...withAlternatives(useful, ranked).map((t) => nextTest(belief, t))];
  const calibration = calibrationOf(belief.compiled.rig);
  const changes = changeOfMind(belief, ranked);
  const verdict = stop.reached ? stop.class : undefined;
  const shares = classes.map((c) => ({ ...c, probability: claimed(c.class, c.probability, calibration) }));
  const factor = atTheStop(stop, shares.find((c) => c.class === verdict)?.probability ?? 0);
  const told = <T extends { class: string; probability: number }>(of: T): T => ({
    ...of,
    probability: of.probability * (of.class === verdict ? factor.own : factor.others),
  });
  const sort = sortOf(stop);
  const telling = Object.fromEntries(ranked.flatMap((t) => (t.question ? [[t.question.id, t.bits] as const] : [])));
  return {
    suspects: suspects.map(told).sort((a, b) => b.probability - a.probability),
    next,
    stop,
    contradiction,
    added,
    telling,
    classes: shares.map(told).sort((a, b) => b.probability - a.probability),
    ...(changes ? { changes } : {}),
    calibration,
    ...(sort ? { sort } : {}),
  };
}

/**
 * The best test and two others. The others are in another place or state where such a test tells anything:
 * three drops on one stud are no choice.
 */
function withAlternatives(useful: readonly RankedTest[], ranked: readonly RankedTest[]): RankedTest[] {
  const [best, ...rest] = useful.length > 0 ? useful : ranked.filter((t) => t.bits > 1e-4);
  if (!best) return [];
  const where = (t: RankedTest) => `${(t.measurement ?? t.question).place}/${t.state}`;
  const chosen = [best];
  for (const t of rest) if (chosen.length < 3 && chosen.every((c) => where(c) !== where(t))) chosen.push(t);
  for (const t of rest) if (chosen.length < 3 && !chosen.includes(t)) chosen.push(t);
  return chosen;
}

function classList(belief: Belief): Diagnosis['classes'] {
  const repair = new Map(belief.faults.map((f) => [f.class, f.repair]));
  return [...belief.classes()]
    .map(([id, probability]) => ({ class: id, repair: repair.get(id)!, probability }))
    .sort((a, b) => b.probability - a.probability);
}

const logit = (p: number) => Math.log(Math.max(p, 1e-12) / Math.max(1 - p, 1e-12));

/** Every suspect, likeliest first, with what points at it and what clears it. `left`: what stays when each reading is left out. */
export function suspectList(belief: Belief, left: readonly Float64Array[] = belief.leaveOneOut()): Suspect[] {
  const labels = new Map(belief.compiled.rig.probes.map((p) => [p.key, p.label]));
  const questions = new Map(belief.questions.map((o) => [o.id, o]));
  const unseen = belief.withoutObservation();
  const calibration = calibrationOf(belief.compiled.rig);
  const list = belief.faults.map((fault, f): Suspect => {
    const speaks = (without: Float64Array) => {
      const logOdds = logit(belief.probability[f]!) - logit(without[f]!);
      const size = Math.abs(logOdds);
      return {
        logOdds,
        strength: size > 2.3 ? ('strong' as const) : size > 0.7 ? ('some' as const) : ('weak' as const),
      };
    };
    const read = belief.evidence.map((e, r): Clue => ({
      reading: e.id,
      state: e.state,
      label: [e.probe, ...(e.ref && labels.has(e.ref) ? [e.ref] : [])].map((k) => labels.get(k) ?? k).join('–'),
      ...speaks(left[r]!),
    }));
    const seen = belief.observed.map((o, r): Clue => ({
      reading: o.id,
      label: questions.get(o.what)!.ask,
      answer: answerWords(questions.get(o.what)!, o.answer),
      ...speaks(unseen[r]!),
    }));
    const clues = [...read, ...seen].filter((c) => Math.abs(c.logOdds) > 0.1);
    return {
      fault: fault.id,
      name: fault.name,
      class: fault.class,
      repair: fault.repair,
      shows: fault.shows,
      ...(fault.confirm === undefined ? {} : { confirm: fault.confirm }),
      ...(fault.minutes === undefined ? {} : { minutes: fault.minutes }),
      ...(fault.parts === undefined ? {} : { parts: fault.parts }),
      ...(fault.caution === undefined ? {} : { caution: fault.caution }),
      ...(fault.part === undefined ? {} : { part: fault.part }),
      probability: claimed(fault.id, belief.probability[f]!, calibration),
      prior: belief.prior[f]!,
      for: clues.filter((c) => c.logOdds > 0).sort((a, b) => b.logOdds - a.logOdds),
      against: clues.filter((c) => c.logOdds < 0).sort((a, b) => a.logOdds - b.logOdds),
    };
  });
  return list.sort((a, b) => b.probability - a.probability);
}
