/**
 * The answer a technician reads: suspects with what speaks for and against each, the next best test with
 * what each outcome would mean, whether to stop, and which reading to take again.
 */
import { measurementId, pointName, rigMeasurements, type Measurement } from '../probe/measurement';
import type { Belief } from './belief';
import { OBSERVATIONS } from './observations';
import { rankTests, testMinutes, worthTesting, type Circumstances, type RankedTest } from './nextTest';

export interface Clue {
  /** Id of the reading or observation. */
  reading: string;
  /** The operating state of a reading; absent on an observation. */
  state?: string;
  /** Probe label, or the question that was answered. */
  label: string;
  /** Of an observation. */
  answer?: boolean;
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

export interface Outcome {
  /** The suspects that would make it read so, and their share together. */
  names: string[];
  probability: number;
  lo: number;
  hi: number;
}

export interface NextTest {
  test: string;
  kind: Measurement['kind'];
  name: string;
  label: string;
  place: string;
  state: string;
  probe: string;
  ref?: string;
  minutes: number;
  changeMinutes: number;
  bits: number;
  /** About how many suspects are left after it, of how many now. */
  leaves: { of: number; about: number };
  /** What it may read and which suspects that would leave, likeliest first. */
  outcomes: Outcome[];
  /** Set when it is a reading already taken, asked for again. */
  retake?: boolean;
}

export interface Stop {
  reached: boolean;
  class?: string;
  /** In words: why stop, or why not. */
  why: string;
}

export interface Contradiction {
  reading: string;
  probability: number;
  /** The likeliest slip, in words. */
  why: string;
}

export interface Diagnosis {
  suspects: Suspect[];
  next: NextTest[];
  stop: Stop;
  contradiction: Contradiction[];
  /** Repair classes with their probability, likeliest first. */
  classes: { class: string; repair: string; probability: number }[];
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
  const top = classes[0]!;
  const now: Circumstances = {
    state: options.state,
    openPlaces: new Set(options.openPlaces ?? []),
    done: new Set([
      ...(options.unreachable ?? []),
      ...belief.evidence.map((e) => `${e.state}/${measurementId(e.probe, e.ref)}`),
    ]),
  };
  const ranked = rankTests(belief, measurements, now);
  const useful = ranked.filter((t) => t.bits > 0.01);
  const paying = worthTesting(useful, top.probability, belief.assumptions);
  const contradiction = contradictions(belief);
  const weakest = paying ? undefined : weakestLink(belief, left, top.class);
  let next = useful.slice(0, 3).map((t) => nextTest(belief, t));
  let stop: Stop;
  if (paying) {
    stop = { reached: false, why: 'A test still pays: it is likelier to save a wrong call than it costs.' };
  } else if (weakest !== undefined) {
    const again = retake(belief, weakest, measurements, now);
    if (again) next = [again, ...next];
    stop = { reached: false, why: 'The verdict hangs on one reading: take that one again before acting on it.' };
  } else if (top.probability >= belief.assumptions.confirmAt) {
    stop = { reached: true, class: top.class, why: 'No further test is worth its minutes, and no single reading carries the verdict.' };
  } else {
    stop = { reached: false, class: top.class, why: 'No probe of this rig tells the leading suspects apart: look, swap or add a probe.' };
  }
  return { suspects, next, stop, contradiction, classes };
}

function classList(belief: Belief): Diagnosis['classes'] {
  const repair = new Map(belief.faults.map((f) => [f.class, f.repair]));
  return [...belief.classes()]
    .map(([id, probability]) => ({ class: id, repair: repair.get(id)!, probability }))
    .sort((a, b) => b.probability - a.probability);
}

const logit = (p: number) => Math.log(Math.max(p, 1e-12) / Math.max(1 - p, 1e-12));

function suspectList(belief: Belief, left: readonly Float64Array[]): Suspect[] {
  const labels = new Map(belief.compiled.rig.probes.map((p) => [p.key, p.label]));
  const asks = new Map(OBSERVATIONS.map((o) => [o.id, o.ask]));
  const unseen = belief.withoutObservation();
  const list = belief.faults.map((fault, f): Suspect => {
    const speaks = (without: Float64Array) => {
      const logOdds = logit(belief.probability[f]!) - logit(without[f]!);
      const size = Math.abs(logOdds);
      return { logOdds, strength: size > 2.3 ? ('strong' as const) : size > 0.7 ? ('some' as const) : ('weak' as const) };
    };
    const read = belief.evidence.map((e, r): Clue => ({
      reading: e.id,
      state: e.state,
      label: [e.probe, ...(e.ref && labels.has(e.ref) ? [e.ref] : [])].map((k) => labels.get(k) ?? k).join('–'),
      ...speaks(left[r]!),
    }));
    const seen = belief.observed.map((o, r): Clue => ({ reading: o.id, label: asks.get(o.what)!, answer: o.answer, ...speaks(unseen[r]!) }));
    const clues = [...read, ...seen]
      .filter((c) => Math.abs(c.logOdds) > 0.1);
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
      probability: belief.probability[f]!,
      prior: belief.prior[f]!,
      for: clues.filter((c) => c.logOdds > 0).sort((a, b) => b.logOdds - a.logOdds),
      against: clues.filter((c) => c.logOdds < 0).sort((a, b) => a.logOdds - b.logOdds),
    };
  });
  return list.sort((a, b) => b.probability - a.probability);
}

/** Effective number of things still open: two to the entropy of the classes. */
function openClasses(probabilities: readonly number[]): number {
  return probabilities.reduce((s, p) => s - (p > 0 ? p * Math.log2(p) : 0), 0);
}

function nextTest(belief: Belief, t: RankedTest): NextTest {
  const { measurement: m } = t;
  const entropy = openClasses([...belief.classes().values()]);
  return {
    test: m.id,
    kind: m.kind,
    name: m.name,
    label: m.label,
    place: m.place,
    state: t.state,
    probe: m.red,
    ...(m.black === undefined ? {} : { ref: m.black }),
    minutes: t.minutes,
    changeMinutes: t.changeMinutes,
    bits: t.bits,
    leaves: { of: Math.round(Math.pow(2, entropy)), about: Math.max(1, Math.round(Math.pow(2, entropy - t.bits))) },
    outcomes: outcomes(belief, t.state, m),
  };
}

/** Suspects below this share are left out of what an outcome would mean. */
const OUTCOME_SHARE = 0.02;

/**
 * What the test would read under the leading suspects, ±2 standard deviations; suspects whose ranges overlap
 * are one outcome, since the test does not part them.
 */
function outcomes(belief: Belief, state: string, m: Measurement): Outcome[] {
  const red = belief.rowOf(state, m.red)!;
  const black = m.black === undefined ? -1 : belief.rowOf(state, m.black)!;
  const ranges: Outcome[] = [];
  belief.components.forEach((c, i) => {
    const weight = belief.weight[i]!;
    if (weight < OUTCOME_SHARE / 2) return;
    const { mean, sd } = belief.predictive(i, red, black);
    ranges.push({ names: [belief.faults[c.faultIndex]!.name], probability: weight, lo: mean - 2 * sd, hi: mean + 2 * sd });
  });
  ranges.sort((x, y) => x.lo - y.lo);
  const merged: Outcome[] = [];
  for (const range of ranges) {
    const last = merged[merged.length - 1];
    if (last && range.lo <= last.hi) {
      last.hi = Math.max(last.hi, range.hi);
      last.probability += range.probability;
      for (const name of range.names) if (!last.names.includes(name)) last.names.push(name);
    } else merged.push(range);
  }
  return merged.filter((o) => o.probability >= OUTCOME_SHARE).sort((x, y) => y.probability - x.probability).slice(0, 3);
}

/** The reading without which the leading class falls below confirmation, unless it was taken twice. */
function weakestLink(belief: Belief, left: readonly Float64Array[], topClass: string): number | undefined {
  let worst: number | undefined;
  let lowest = belief.assumptions.confirmAt;
  if ((belief.classes().get(topClass) ?? 0) < belief.assumptions.confirmAt) return undefined;
  left.forEach((p, r) => {
    const e = belief.evidence[r]!;
    if (e.confirmed) return;
    const share = belief.classes(p).get(topClass) ?? 0;
    if (share < lowest) {
      lowest = share;
      worst = r;
    }
  });
  return worst;
}

function retake(belief: Belief, reading: number, measurements: readonly Measurement[], now: Circumstances): NextTest | undefined {
  const e = belief.evidence[reading]!;
  const id = measurementId(e.probe, e.ref);
  const m = measurements.find((x) => x.id === id);
  if (!m) return undefined;
  const minutes = testMinutes(m, e.state, now, belief.assumptions);
  return {
    ...nextTest(belief, { measurement: m, state: e.state, minutes, changeMinutes: 0, bits: 0, saves: 0 }),
    retake: true,
  };
}

/** Readings more likely slips than not, with the likeliest slip. */
function contradictions(belief: Belief): Contradiction[] {
  const list: Contradiction[] = [];
  belief.evidence.forEach((e, r) => {
    const probability = belief.blunder[r]!;
    if (probability < 0.5) return;
    list.push({ reading: e.id, probability, why: likeliestSlip(belief, e) });
  });
  return list.sort((a, b) => b.probability - a.probability);
}

function likeliestSlip(belief: Belief, e: Belief['evidence'][number]): string {
  let top = 0;
  belief.weight.forEach((w, i) => {
    if (w > belief.weight[top]!) top = i;
  });
  const black = e.ref;
  const expect = (state: string, probe: string) => {
    const red = belief.rowOf(state, probe)!;
    return belief.predictive(top, red, black === undefined ? -1 : belief.rowOf(state, black)!);
  };
  const fits = (value: number, p: { mean: number; sd: number }) => Math.abs(value - p.mean) < 2.5 * p.sd;
  const here = expect(e.state, e.probe);
  if (Math.abs(e.value) < 0.02) return 'it reads zero: was the lead touching metal?';
  if (fits(-e.value, here)) return 'the sign is the other way round: were the leads swapped?';
  if (fits(e.value / 10, here) || fits(e.value * 10, here)) return 'it would fit with the decimal point moved';
  const other = belief.bench.states.find((s) => s.id !== e.state && fits(e.value, expect(s.id, e.probe)));
  if (other) return `it would fit ${other.label.toLowerCase()}: was the rig doing that?`;
  const rig = belief.compiled.rig;
  const unit = belief.outputs.find((o) => o.key === e.probe)?.kind;
  const beside = belief.outputs.find((o) => o.key !== e.probe && o.kind === unit && fits(e.value, expect(e.state, o.key)));
  if (beside) return `it is what ${pointName(rig, beside.key)} would read: was the lead there?`;
  return 'nothing this rig can do explains it beside the other readings';
}
