/**
 * What a sound belief must do whatever the model: readings drawn from it bring it, on average, nearer the
 * hidden truth. (A file of its own: it is the longest, and the runner spreads files over the cores.)
 */
import { describe, expect, it } from 'vitest';
import { compileRig } from '../../src/core/compile/compile';
import { Belief, type Evidence } from '../../src/core/diagnose/belief';
import { HiddenRig } from '../../src/core/diagnose/hiddenRig';
import { statesOf } from '../../src/core/operate/states';
import { rigMeasurements } from '../../src/core/probe/measurement';
import { motorhome } from '../../src/core/rig/archetypes/motorhome';
import { seededRng } from '../../src/core/units/rng';

const compiled = compileRig(motorhome('belief', 'Belief coach'));

describe('belief', () => {
  it('over 1,000 draws no reading lowers the mean log-probability of the truth by more than three standard errors', () => {
    const belief = new Belief(compiled, ['coach-not-charging']);
    const measurements = rigMeasurements(compiled.rig);
    const rng = seededRng(11);
    const states = statesOf(compiled.rig);
    const DRAWS = 1000;
    const READINGS = 2;
    const gains: number[][] = Array.from({ length: READINGS }, () => []);
    for (let n = 0; n < DRAWS; n++) {
      let u = rng.uniform();
      let f = 0;
      while (f < belief.faults.length - 1 && u > belief.prior[f]!) u -= belief.prior[f++]!;
      const hidden = new HiddenRig(compiled, belief.faults[f]!.id, 50_000 + n);
      const evidence: Evidence[] = [];
      let last = Math.log(belief.prior[f]!);
      for (let k = 0; k < READINGS; k++) {
        const m = measurements[Math.floor(rng.uniform() * measurements.length)]!;
        const state = states[Math.floor(rng.uniform() * states.length)]!.id;
        evidence.push({ id: `${k}`, state, probe: m.red, ...(m.black === undefined ? {} : { ref: m.black }), value: hidden.read(state, m.red, m.black).value });
        belief.setEvidence(evidence);
        const now = Math.log(Math.max(belief.probability[f]!, 1e-12));
        gains[k]!.push(now - last);
        last = now;
      }
    }
    for (const list of gains) {
      const mean = list.reduce((s, x) => s + x, 0) / list.length;
      const variance = list.reduce((s, x) => s + (x - mean) ** 2, 0) / (list.length - 1);
      expect(mean).toBeGreaterThan(-3 * Math.sqrt(variance / list.length));
    }
  });
});
