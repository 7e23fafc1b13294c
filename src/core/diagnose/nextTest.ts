/**
 * Which measurement to make next: expected information about the repair class per minute, minutes counting
 * the change of operating state, getting to the place, and the measurement. Stopping is a matter of price:
 * when no test is worth its minutes against the cost of a wrong call.
 */
import { changeMinutes } from '../operate/states';
import type { Measurement } from '../probe/measurement';
import type { Assumptions } from './assumptions';
import type { Belief } from './belief';

export interface Circumstances {
  /** What the rig is doing now. */
  state: string;
  /** Places already opened up. */
  openPlaces: ReadonlySet<string>;
  /** Measurements of this epoch already taken or impossible, as `state/measurementId`. */
  done: ReadonlySet<string>;
}

export interface RankedTest {
  measurement: Measurement;
  state: string;
  minutes: number;
  changeMinutes: number;
  /** Expected information about the repair class, bits. */
  bits: number;
  /** Minutes of wrong calls this test is expected to save. */
  saves: number;
}

/** Quantiles that stand for a normal: five equal-probability cells' conditional means. */
const CELLS = [-1.3998, -0.5319, 0, 0.5319, 1.3998] as const;
const BINS = 160;
/** Ranking looks at the heaviest components only: the rest move no choice and cost time. */
const MOST_COMPONENTS = 48;

/** Bin of a value: even millivolts near zero, ever wider above, so that drops and volts share one grid. */
function bin(value: number, unit: 'V' | 'A'): number {
  const scaled = unit === 'A' ? Math.asinh(value / 0.5) * 11 : Math.asinh(value / 0.02) * 10;
  // Near battery volts a tenth matters: a second, even grid there.
  if (unit === 'V' && value > 9) return Math.min(BINS - 1, 100 + Math.floor((value - 9) * 9));
  return Math.max(0, Math.min(99, 50 + Math.round(scaled / 1.4)));
}

export function testMinutes(m: Measurement, state: string, now: Circumstances, a: Assumptions): number {
  const access = now.openPlaces.has(m.place) ? a.returnMinutes : (a.openMinutes[m.place] ?? a.openMinutes['other']!);
  return changeMinutes(now.state, state) + access + m.minutes;
}

/** All tests worth the name, best first. */
export function rankTests(belief: Belief, measurements: readonly Measurement[], now: Circumstances): RankedTest[] {
  const a = belief.assumptions;
  const live = belief.live(2e-3, MOST_COMPONENTS);
  const classNames = [...new Set(live.map((c) => belief.faults[belief.components[c]!.faultIndex]!.class))];
  const classOf = live.map((c) => classNames.indexOf(belief.faults[belief.components[c]!.faultIndex]!.class));
  const total = live.reduce((s, c) => s + belief.weight[c]!, 0);
  const weights = live.map((c) => belief.weight[c]! / total);
  const classWeight = new Float64Array(classNames.length);
  weights.forEach((w, i) => {
    classWeight[classOf[i]!] = classWeight[classOf[i]!]! + w;
  });
  const entropy = -classWeight.reduce((s, w) => s + (w > 0 ? w * Math.log2(w) : 0), 0);
  const most = Math.max(...classWeight);
  const joint = new Float64Array(BINS * classNames.length);
  const touched = new Uint8Array(BINS);
  // A blunder may land anywhere: no bin is ever proof. A bin that only blunders reach leaves the classes as they are.
  const floor = a.blunderShare / BINS;

  const ranked: RankedTest[] = [];
  for (const state of belief.bench.states) {
    for (const m of measurements) {
      if (now.done.has(`${state.id}/${m.id}`)) continue;
      const red = belief.rowOf(state.id, m.red);
      const black = m.black === undefined ? -1 : belief.rowOf(state.id, m.black);
      if (red === undefined || black === undefined) continue;
      const unit = m.kind === 'clamp' ? 'A' : 'V';
      joint.fill(0);
      touched.fill(0);
      live.forEach((c, i) => {
        const { mean, sd } = belief.predictive(c, red, black);
        for (const cell of CELLS) {
          const b = bin(mean + cell * sd, unit);
          const at = b * classNames.length + classOf[i]!;
          touched[b] = 1;
          joint[at] = joint[at]! + weights[i]! / CELLS.length;
        }
      });
      let left = 0;
      let expectedMost = 0;
      for (let b = 0; b < BINS; b++) {
        if (!touched[b]) {
          left += floor * entropy;
          expectedMost += floor * most;
          continue;
        }
        let sum = 0;
        let top = 0;
        for (let k = 0; k < classNames.length; k++) {
          const at = b * classNames.length + k;
          joint[at] = joint[at]! * (1 - a.blunderShare) + floor * classWeight[k]!;
          sum += joint[at]!;
          top = Math.max(top, joint[at]!);
        }
        expectedMost += top;
        for (let k = 0; k < classNames.length; k++) {
          const q = joint[b * classNames.length + k]!;
          if (q > 0) left -= q * Math.log2(q / sum);
        }
      }
      const bits = Math.max(0, entropy - left);
      ranked.push({
        measurement: m,
        state: state.id,
        minutes: testMinutes(m, state.id, now, a),
        changeMinutes: changeMinutes(now.state, state.id),
        bits,
        saves: a.wrongCallMinutes * Math.max(0, expectedMost - most),
      });
    }
  }
  return ranked.sort((x, y) => y.bits / y.minutes - x.bits / x.minutes);
}

/** Whether any test still pays. A test pays if it saves more than it costs, or if much is still open. */
export function worthTesting(ranked: readonly RankedTest[], topProbability: number, a: Assumptions): boolean {
  const stake = a.wrongCallMinutes * (1 - topProbability);
  return ranked.some((t) => t.saves > t.minutes || (t.bits > 0.05 && t.minutes < stake * 0.5));
}
