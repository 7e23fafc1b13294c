/**
 * What to do next: measure, look or try. Expected information about the repair class per minute, minutes
 * counting the change of operating state, getting to the place, and the test. Stopping is a matter of price:
 * when no test is worth its minutes against the cost of a wrong call.
 */
import { changeMinutes } from '../operate/states';
import type { Measurement } from '../probe/measurement';
import type { Assumptions } from './assumptions';
import type { Belief } from './belief';
import type { ObservationKind } from './observations/observationKind';
import { statesToSee } from './complaintStates';

export interface Circumstances {
  /** What the rig is doing now. */
  state: string;
  /** Places already opened up. */
  openPlaces: ReadonlySet<string>;
  /** Measurements of this epoch already taken or impossible, as `state/measurementId`; questions answered, by id. */
  done: ReadonlySet<string>;
}

interface Ranked {
  state: string;
  minutes: number;
  changeMinutes: number;
  /** Expected information about the repair class, bits. */
  bits: number;
  /** Minutes of wrong calls this test is expected to save. */
  saves: number;
  /** Minutes it is ranked by: a state one must see anyway costs no change. */
  counted?: number;
}
export type RankedTest = Ranked &
  ({ measurement: Measurement; question?: never } | { question: ObservationKind; measurement?: never });

/** Quantiles that stand for a normal: five equal-probability cells' conditional means. */
const CELLS = [-1.3998, -0.5319, 0, 0.5319, 1.3998] as const;
const BINS = 160;
/** Ranking looks at the heaviest components only: the rest move no choice and cost time. */
const MAX_COMPONENTS = 48;
/** Classes below this share are not told apart from one another. */
const UNLIKELY = 0.03;

/** Bin of a value: even millivolts near zero, ever wider above, so that drops and volts share one grid. */
function bin(value: number, unit: 'V' | 'A'): number {
  const scaled = unit === 'A' ? Math.asinh(value / 0.5) * 11 : Math.asinh(value / 0.02) * 10;
  // Near battery volts a tenth matters: a second, even grid there.
  if (unit === 'V' && value > 9) return Math.min(BINS - 1, 100 + Math.floor((value - 9) * 9));
  return Math.max(0, Math.min(99, 50 + Math.round(scaled / 1.4)));
}

/** Minutes to do something somewhere, in a state, from where one is. */
export function testMinutes(
  test: { place: string; minutes: number },
  state: string,
  now: Circumstances,
  a: Assumptions,
): number {
  const access = now.openPlaces.has(test.place)
    ? a.returnMinutes
    : (a.openMinutes[test.place] ?? a.openMinutes['other']!);
  return changeMinutes(now.state, state) + access + test.minutes;
}

/** The live classes with their weights, and a table of outcome by class to be filled for one test at a time. */
export class Outcomes {
  private readonly joint: Float64Array;
  private readonly touched: Uint8Array;
  private readonly entropy: number;
  private readonly most: number;

  constructor(
    private readonly classWeight: Float64Array,
    private readonly a: Assumptions,
  ) {
    this.joint = new Float64Array(BINS * classWeight.length);
    this.touched = new Uint8Array(BINS);
    this.entropy = -classWeight.reduce((s, w) => s + (w > 0 ? w * Math.log2(w) : 0), 0);
    this.most = Math.max(...classWeight);
  }

  clear(): void {
    this.joint.fill(0);
    this.touched.fill(0);
  }

  add(outcome: number, ofClass: number, weight: number): void {
    this.touched[outcome] = 1;
    const at = outcome * this.classWeight.length + ofClass;
    this.joint[at] = this.joint[at]! + weight;
  }

  /**
   * Expected bits and saved minutes. A blunder may land anywhere: no outcome is ever proof, and one that only
   * blunders reach leaves the classes as they are.
   */
  worth(blunderShare: number): { bits: number; saves: number } {
    const { joint, classWeight, entropy, most } = this;
    const n = classWeight.length;
    const floor = blunderShare / BINS;
    let left = 0;
    let expectedMost = 0;
    for (let b = 0; b < BINS; b++) {
      if (!this.touched[b]) {
        left += floor * entropy;
        expectedMost += floor * most;
        continue;
      }
      let sum = 0;
      let top = 0;
      for (let k = 0; k < n; k++) {
        const q = joint[b * n + k]! * (1 - blunderShare) + floor * classWeight[k]!;
        joint[b * n + k] = q;
        sum += q;
        top = Math.max(top, q);
      }
      expectedMost += top;
      for (let k = 0; k < n; k++) {
        const q = joint[b * n + k]!;
        if (q > 0) left -= q * Math.log2(q / sum);
      }
    }
    return { bits: Math.max(0, entropy - left), saves: this.a.wrongCallMinutes * Math.max(0, expectedMost - most) };
  }
}

/** Minutes any test costs beside its own: to think, to walk, to write down. It keeps from many tests that tell little. */
export const EVERY_TEST_MINUTES = 0.4;
const counted = (t: RankedTest): number => (t.counted ?? t.minutes) + EVERY_TEST_MINUTES;

/** All tests worth the name, best first. */
export function rankTests(belief: Belief, measurements: readonly Measurement[], now: Circumstances): RankedTest[] {
  const a = belief.assumptions;
  const live = belief.live(2e-3, MAX_COMPONENTS);
  // To tell two unlikely faults apart decides nothing: they count as one, the rest.
  const shares = belief.classes();
  const nameOf = (c: number) => {
    const name = belief.faults[belief.components[c]!.faultIndex]!.class;
    return (shares.get(name) ?? 0) < UNLIKELY ? '' : name;
  };
  const classNames = [...new Set(live.map(nameOf))];
  const classOf = live.map((c) => classNames.indexOf(nameOf(c)));
  const total = live.reduce((s, c) => s + belief.weight[c]!, 0);
  const weights = live.map((c) => belief.weight[c]! / total);
  const classWeight = new Float64Array(classNames.length);
  weights.forEach((w, i) => {
    classWeight[classOf[i]!] = classWeight[classOf[i]!]! + w;
  });
  const outcomes = new Outcomes(classWeight, a);
  const sunk = new Set(statesToSee(belief));
  const effort = (test: { place: string; minutes: number }, state: string) => {
    const minutes = testMinutes(test, state, now, a);
    const change = changeMinutes(now.state, state);
    return { state, minutes, changeMinutes: change, counted: sunk.has(state) ? minutes - change : minutes };
  };

  const ranked: RankedTest[] = [];
  for (const state of belief.workspace.states) {
    for (const measurement of measurements) {
      if (now.done.has(`${state.id}/${measurement.id}`)) continue;
      const red = belief.rowOf(state.id, measurement.red);
      const black = measurement.black === undefined ? -1 : belief.rowOf(state.id, measurement.black);
      if (red === undefined || black === undefined) continue;
      const unit = measurement.kind === 'clamp' ? 'A' : 'V';
      outcomes.clear();
      live.forEach((c, i) => {
        const { mean, sd } = belief.predictive(c, red, black);
        for (const cell of CELLS) outcomes.add(bin(mean + cell * sd, unit), classOf[i]!, weights[i]! / CELLS.length);
      });
      ranked.push({ measurement, ...effort(measurement, state.id), ...outcomes.worth(a.blunderShare) });
    }
  }
  for (const question of belief.questions) {
    if (now.done.has(question.id)) continue;
    const state = question.state ?? now.state;
    if (!belief.workspace.states.some((s) => s.id === state)) continue;
    outcomes.clear();
    question.answers.forEach(({ id }, k) =>
      live.forEach((c, i) => outcomes.add(k, classOf[i]!, weights[i]! * belief.answerChance(question, id, c))),
    );
    ranked.push({ question, ...effort(question, state), ...outcomes.worth(0) });
  }
  return ranked.sort((x, y) => y.bits / counted(y) - x.bits / counted(x));
}

/** Whether any test still pays: for the wrong calls it saves, or for what it tells. */
export const worthTesting = (
  ranked: readonly Pick<Ranked, 'bits' | 'minutes' | 'saves'>[],
  a: Pick<Assumptions, 'bitMinutes'>,
): boolean => ranked.some((t) => t.saves > t.minutes || t.bits * a.bitMinutes > t.minutes);
