/** What a table of gauges tells between its two ends is what the rig with that very gauge drawn in it settles to. */
import { describe, expect, it } from 'vitest';
import { EVERY_RIG } from '../../../tests/everyRig';
import { resistorAmps } from '../circuit/readings';
import { compileRig } from '../compile/compile';
import { RigModel } from '../operate/settle';
import { gaugeTable, judgedStates, withGauge } from './gaugeTable';
import { runsOf } from './runs';

const ASKS = { continuous: 0, flows: 0, share: 0.03, fuseAmps: 0 };

describe('a run in every gauge', () => {
  it.each(EVERY_RIG.filter((_, i) => i % 7 === 2))('of %s carries what it carries drawn so', (_, rig) => {
    const model = new RigModel(compileRig(rig));
    const runs = runsOf(rig);
    const states = judgedStates(model, runs);
    for (const [k, run] of runs.entries()) {
      const state = states.get(run.id)!;
      const table = gaugeTable(model, run, ASKS, state);
      const row = table.rows[(k * 5 + 3) % table.rows.length]!;
      const drawn = new RigModel(compileRig(withGauge(rig, run, row.gauge)));
      drawn.settle(state.id);
      const amps = Math.abs(resistorAmps(drawn.solver, drawn.values, drawn.compiled.resistor.get(run.id)!));
      expect(Math.abs(row.amps - amps), `${run.name} in ${row.gauge}`).toBeLessThanOrEqual(0.002 * amps + 0.005);
    }
  });
});
