import { describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { RigModel } from '../operate/settle';
import { statesOf } from '../operate/states';
import { motorhome } from '../rig/archetypes/motorhome';
import { seededRng } from '../units/rng';
import { BandTable } from './bands';
import { judge } from './judge';
import { rigMeasurements } from './measurement';
import { MODEL_ERROR } from './modelError';
import { roundToDisplay, voltDigit } from './meter';
import { Lineariser, readOutputs, rigOutputs } from './outputs';

const rig = motorhome('test', 'Test coach');
const compiled = compileRig(rig);

describe('bands', () => {
  const table = new BandTable(compiled);

  it('name the six assumptions that widen them most, the strongest first, and what the meter adds', () => {
    for (const [state, red, black] of [
      ['idle', 'coach-bank.plus', 'frame.bay-2'],
      ['rested', 'coach-bank.plus', 'frame.bay-2'],
      ['idle', 'link-cable.clamp', undefined],
    ] as const) {
      const w = table.working(state, red, black)!;
      expect(w.shares).toHaveLength(6);
      for (let i = 1; i < 6; i++) expect(w.shares[i]!.effect).toBeLessThanOrEqual(w.shares[i - 1]!.effect);
      expect(w.shares[0]!.effect).toBeGreaterThan(0);
      expect(w.meter).toBeGreaterThan(0);
      expect(w.band).toEqual(table.band(state, red, black));
      // No one assumption moves it by more than the band is wide: two standard deviations either way and the meter.
      expect(2 * w.shares[0]!.effect).toBeLessThan(w.band.hi - w.band.lo + 4 * w.meter);
    }
    expect(table.working('idle', 'nowhere')).toBeUndefined();
    expect(table.band('never', 'coach-bank.plus')).toBeUndefined();
  });

  it('between two points are as the points turn: swapped leads, mirrored band', () => {
    const a = table.band('idle', 'coach-bank.plus', 'link.coach-stud')!;
    const b = table.band('idle', 'link.coach-stud', 'coach-bank.plus')!;
    expect(b.nominal).toBeCloseTo(-a.nominal, 12);
    expect(b.lo).toBeLessThan(b.nominal);
    // The 2.5 and 97.5 per cent marks are counted from below: mirrored, one sample of 192 may be another.
    expect(b.lo).toBeCloseTo(-a.hi, 2);
    expect(b.hi).toBeCloseTo(-a.lo, 2);
  });

  it('hold about 95 % of healthy rigs drawn afresh, at every point and state', () => {
    const model = new RigModel(compiled);
    const outputs = rigOutputs(compiled);
    const values = new Float64Array(outputs.length);
    const index = new Map(outputs.map((o, i) => [o.key, i]));
    const rng = seededRng(77);
    let inside = 0;
    let total = 0;
    for (let n = 0; n < 60; n++) {
      // Drawn as wide as spreads are taken to be.
      const z = Float64Array.from(compiled.params, () => MODEL_ERROR.spreadFactor * rng.normal());
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
