import { describe, expect, it } from 'vitest';
import { emptyValues } from '../circuit/network';
import { compileRig } from '../compile/compile';
import { rigFaults } from '../diagnose/faults';
import { HiddenRig } from '../diagnose/hiddenRig';
import { Lineariser, readOutputs, rigOutputs } from '../probe/outputs';
import { motorhome, USUAL_MOTORHOME } from '../rig/archetypes/motorhome';
import { hasSeverity } from './effects';
import { RigModel } from './settle';
import { statesOf } from './states';

const compiled = compileRig(motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'bidirectional', solar: true }));
const model = new RigModel(compiled);
const outputs = rigOutputs(compiled);
const faults = rigFaults(compiled.rig);

describe('faults', () => {
  it('have slopes by severity that are the finite differences of every reading', () => {
    const lineariser = new Lineariser(model, outputs);
    const n = outputs.length;
    const y = new Float64Array(n);
    const J = new Float64Array(n * lineariser.width);
    const up = new Float64Array(n);
    const down = new Float64Array(n);
    let compared = 0;
    for (const fault of faults.filter((f) => hasSeverity(f.effects))) {
      for (const state of statesOf(compiled.rig)) {
        const at = (severity: number) =>
          JSON.stringify(model.settle(state.id, { effects: fault.effects, severity }).modes, (k, v: unknown) =>
            k === 'why' ? undefined : v,
          );
        const h = 1e-5;
        const low = at(0.5 - h);
        readOutputs(model, outputs, down);
        const high = at(0.5 + h);
        readOutputs(model, outputs, up);
        if (at(0.5) !== low || low !== high) continue; // a controller changes its mind just here
        lineariser.write(y, J, 0);
        outputs.forEach((o, i) => {
          const slope = J[i * lineariser.width + lineariser.columns.length]!;
          const difference = (up[i]! - down[i]!) / (2 * h);
          expect(
            Math.abs(slope - difference),
            `${fault.id} ${state.id} ${o.key}: ${slope} against ${difference}`,
          ).toBeLessThan(2e-3 * Math.max(1, Math.abs(difference)));
          compared++;
        });
      }
    }
    expect(compared).toBeGreaterThan(3000);
  });

  it('leave a healthy rig as it was: nothing of one lingers in the next', () => {
    const fresh = new RigModel(compiled);
    for (const state of statesOf(compiled.rig)) {
      for (const fault of faults) model.settle(state.id, { effects: fault.effects, severity: 0.7 });
      model.settle(state.id);
      fresh.settle(state.id);
      const a = new Float64Array(outputs.length);
      const b = new Float64Array(outputs.length);
      readOutputs(model, outputs, a);
      readOutputs(fresh, outputs, b);
      outputs.forEach((o, i) => expect(Math.abs(a[i]! - b[i]!), `${state.id} ${o.key}`).toBeLessThan(1e-6));
    }
    expect(emptyValues(compiled.topology).resistorOhms.length).toBe(compiled.topology.resistors.length);
  });

  it('can be hidden in pairs, each doing its own', () => {
    const both = new HiddenRig(compiled, 'boost.fuse-blown+link-fuse.open', 5);
    expect(both.faults.map((f) => f.id)).toEqual(['boost.fuse-blown', 'link-fuse.open']);
    expect(Math.abs(both.read('boost-engine-off', 'boost.fused', 'frame.bay-2').value)).toBeLessThan(0.05);
    expect(Math.abs(both.read('idle', 'link-cable.clamp').value)).toBeLessThan(1.5);
    expect(() => new HiddenRig(compiled, 'boost.fuse-blown+gremlin', 5)).toThrow(/no fault gremlin/);
  });
});
