import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { RigModel } from '../operate/settle';
import { statesOf } from '../operate/states';
import { motorhome } from '../rig/archetypes/motorhome';
import { seededRng } from '../units/rng';
import { BandTable } from './bands';
import { judge } from './judge';
import { rigMeasurements } from './measurement';
import { roundToDisplay, voltDigit } from './meter';
import { Lineariser, readOutputs, rigOutputs } from './outputs';

const rig = motorhome('test', 'Test coach');
const compiled = compileRig(rig);

describe('bands', () => {
  const table = new BandTable(compiled);

  it('hold about 95 % of healthy rigs drawn afresh, at every point and state', () => {
    const model = new RigModel(compiled);
    const outputs = rigOutputs(compiled);
    const values = new Float64Array(outputs.length);
    const index = new Map(outputs.map((o, i) => [o.key, i]));
    const rng = seededRng(77);
    let inside = 0;
    let total = 0;
    for (let n = 0; n < 60; n++) {
      const z = Float64Array.from(compiled.params, () => rng.normal());
      for (const { id: state } of statesOf(rig)) {
        model.settle(state, { z });
        readOutputs(model, outputs, values);
        for (const m of rigMeasurements(rig)) {
          const value = values[index.get(m.red)!]! - (m.black === undefined ? 0 : values[index.get(m.black)!]!);
          total++;
          if (judge(value, table.band(state, m.red, m.black)!) === 'ok') inside++;
        }
      }
    }
    expect(inside / total).toBeGreaterThan(0.93);
    expect(inside / total).toBeLessThan(0.995);
  });

  it('move with the black lead, by what the two points differ', () => {
    const frame = table.band('idle', 'coach-bank.plus', 'frame.bay-2')!;
    const post = table.band('idle', 'coach-bank.plus', 'coach-bank.minus')!;
    const lift = table.band('idle', 'coach-bank.minus', 'frame.bay-2')!;
    expect(post.nominal).toBeCloseTo(frame.nominal - lift.nominal, 9);
  });

  it('say which assumptions widen them', () => {
    const working = table.working('rested', 'coach-bank.plus', 'frame.bay-2')!;
    expect(working.shares[0]!.label).toContain('State of charge');
    expect(working.shares[0]!.effect).toBeGreaterThan(0.05);
    expect(table.working('rested', 'no.such')).toBeUndefined();
  });
});

describe('slopes', () => {
  it('are what a small step of each assumption does to every output', () => {
    const model = new RigModel(compiled);
    const outputs = rigOutputs(compiled);
    const lineariser = new Lineariser(model, outputs);
    const rng = seededRng(3);
    const z = Float64Array.from(compiled.params, () => 0.3 * rng.normal());
    for (const { id: state } of statesOf(rig)) {
      const y = new Float64Array(outputs.length);
      const J = new Float64Array(outputs.length * lineariser.width);
      model.settle(state, { z });
      lineariser.write(y, J, 0);
      const up = new Float64Array(outputs.length);
      const down = new Float64Array(outputs.length);
      for (let k = 0; k < compiled.params.length; k++) {
        const step = 1e-4;
        const moved = Float64Array.from(z);
        moved[k] = z[k]! + step;
        model.settle(state, { z: moved });
        readOutputs(model, outputs, up);
        moved[k] = z[k]! - step;
        model.settle(state, { z: moved });
        readOutputs(model, outputs, down);
        for (let o = 0; o < outputs.length; o++) {
          const numeric = (up[o]! - down[o]!) / (2 * step);
          // A parameter without a column must move nothing at all.
          const column = lineariser.columns.indexOf(k);
          const slope = column < 0 ? 0 : J[o * lineariser.width + column]!;
          expect(Math.abs(slope - numeric), `${state} ${outputs[o]!.key} by ${compiled.params[k]!.key}`).toBeLessThan(
            1e-3 * Math.abs(numeric) + 2e-5,
          );
        }
      }
    }
  });
});

describe('the meter', () => {
  it('rounds to the digit its range has', () => {
    expect(roundToDisplay('V', 12.4567)).toBe(12.46);
    expect(roundToDisplay('V', 0.05678)).toBe(0.0568);
    expect(roundToDisplay('A', 42.37)).toBe(42.4);
    expect(voltDigit(-13)).toBe(0.01);
  });
});
