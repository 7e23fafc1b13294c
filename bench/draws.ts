/** Readings drawn from the model itself, and what each does to the log-probability of the hidden truth. */
import type { CompiledRig } from '../src/core/compile/compile';
import { Belief, type Evidence } from '../src/core/diagnose/belief';
import { HiddenRig } from '../src/core/diagnose/hiddenRig';
import { statesOf } from '../src/core/operate/states';
import { rigMeasurements } from '../src/core/probe/measurement';
import { seededRng } from '../src/core/units/rng';

export interface Gain {
  mean: number;
  /** Standard error of the mean. */
  error: number;
}

/** Mean gain in nats by the first reading, the second, …; faults drawn from the prior, points and states at random. */
export function readingGains(compiled: CompiledRig, draws: number, seed: number, readings = 2): Gain[] {
  const belief = new Belief(compiled, ['coach-not-charging']);
  const measurements = rigMeasurements(compiled.rig);
  const rng = seededRng(seed);
  const states = statesOf(compiled.rig);
  const gains: number[][] = Array.from({ length: readings }, () => []);
  for (let n = 0; n < draws; n++) {
    let u = rng.uniform();
    let f = 0;
    while (f < belief.faults.length - 1 && u > belief.prior[f]!) u -= belief.prior[f++]!;
    const hidden = new HiddenRig(compiled, belief.faults[f]!.id, 50_000 + n);
    const evidence: Evidence[] = [];
    let last = Math.log(belief.prior[f]!);
    for (const list of gains) {
      const m = measurements[Math.floor(rng.uniform() * measurements.length)]!;
      const state = states[Math.floor(rng.uniform() * states.length)]!.id;
      evidence.push({
        id: `${evidence.length}`,
        state,
        probe: m.red,
        ...(m.black === undefined ? {} : { ref: m.black }),
        value: hidden.read(state, m.red, m.black).value,
      });
      belief.setEvidence(evidence);
      const now = Math.log(Math.max(belief.probability[f]!, 1e-12));
      list.push(now - last);
      last = now;
    }
  }
  return gains.map((list) => {
    const mean = list.reduce((s, x) => s + x, 0) / list.length;
    const variance = list.reduce((s, x) => s + (x - mean) ** 2, 0) / (list.length - 1);
    return { mean, error: Math.sqrt(variance / list.length) };
  });
}
