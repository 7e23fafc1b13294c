import { beforeEach, describe, expect, it } from 'vitest';
import { compileRig } from '../compile/compile';
import { rigOutputs } from '../probe/outputs';
import { motorhome } from '../rig/archetypes/motorhome';
import { Component, LinearisationWorkspace, strataOf } from './component';

const compiled = compileRig(motorhome('test', 'Test coach'));
const outputs = rigOutputs(compiled);
const workspace = new LinearisationWorkspace(compiled, outputs, 1.4);
const idle = workspace.states.findIndex((s) => s.id === 'idle') * workspace.outputsPerState;
const rowOf = (key: string) => idle + outputs.findIndex((o) => o.key === key);
const [COACH, CHASSIS, COIL] = ['coach-bank.plus', 'link.chassis-stud', 'link.coil-plus'].map(rowOf) as [
  number,
  number,
  number,
];
/** Noise of a reading, V². */
const NOISE = 0.02 ** 2;

let component: Component;
beforeEach(() => {
  component = new Component(workspace, 0, [], 0, 1, 0);
  component.reset();
});

/** Takes in a reading of a row; returns what was predicted before. */
function take(row: number, value: number, trust = 1): { mean: number; variance: number } {
  const [slopes, pSlopes] = [new Float64Array(workspace.width), new Float64Array(workspace.width)];
  const before = component.predict(row, -1, slopes, pSlopes);
  component.absorb(pSlopes, value - before.mean, before.variance + NOISE, trust);
  return before;
}
const predict = (row: number) => component.predict(row, -1, new Float64Array(workspace.width));

describe('what a reading teaches a component', () => {
  it('is the mean of what was expected and what was read, each by its certainty', () => {
    const before = take(COACH, predict(COACH).mean + 0.3);
    const after = predict(COACH);
    // Two independent normal figures of one thing: weights 1/variance, and variances in parallel.
    const weight = 1 / before.variance / (1 / before.variance + 1 / NOISE);
    expect(after.mean).toBeCloseTo(before.mean * weight + (before.mean + 0.3) * (1 - weight), 9);
    expect(after.variance).toBeCloseTo(1 / (1 / before.variance + 1 / NOISE), 9);
  });

  it('of a half-trusted reading is the mixture of having believed it and not', () => {
    const trust = 0.6;
    const before = predict(COACH);
    const error = 0.4;
    take(COACH, before.mean + error, trust);
    const after = predict(COACH);
    // The two cases drawn out one by one: mean and variance of a mixture are E[m], E[v] + E[m²] − E[m]².
    const S = before.variance + NOISE;
    const cases = [
      { p: trust, m: before.mean + (before.variance * error) / S, v: before.variance - before.variance ** 2 / S },
      { p: 1 - trust, m: before.mean, v: before.variance },
    ];
    const mean = cases.reduce((sum, c) => sum + c.p * c.m, 0);
    const variance = cases.reduce((sum, c) => sum + c.p * (c.v + (c.m - mean) ** 2), 0);
    expect(after.mean).toBeCloseTo(mean, 9);
    expect(after.variance).toBeCloseTo(variance, 9);
  });

  it('does not depend on which of two readings came first', () => {
    const [a, b] = [predict(COACH).mean + 0.2, predict(CHASSIS).mean - 0.1];
    take(COACH, a);
    take(CHASSIS, b);
    const one = [COACH, CHASSIS, COIL].map(predict);
    component.reset();
    take(CHASSIS, b);
    take(COACH, a);
    [COACH, CHASSIS, COIL].map(predict).forEach((p, i) => {
      expect(p.mean).toBeCloseTo(one[i]!.mean, 9);
      expect(p.variance).toBeCloseTo(one[i]!.variance, 9);
    });
  });

  it('never makes any fully trusted reading less certain', () => {
    const before = [COACH, CHASSIS, COIL].map((row) => predict(row).variance);
    take(COACH, predict(COACH).mean);
    [COACH, CHASSIS, COIL].forEach((row, i) => expect(predict(row).variance).toBeLessThanOrEqual(before[i]! + 1e-12));
    expect(predict(COACH).variance).toBeLessThan(before[0]!);
  });

  it('teaches about its neighbours: a bank that reads high makes what hangs on it read high', () => {
    const before = predict(CHASSIS).mean;
    take(COACH, predict(COACH).mean + 0.3);
    expect(predict(CHASSIS).mean).toBeGreaterThan(before);
  });

  it('is forgotten by a reset', () => {
    const before = predict(COACH);
    take(COACH, before.mean + 1);
    component.reset();
    expect(predict(COACH)).toEqual(before);
  });
});

describe('linearising anew', () => {
  const state = workspace.states.findIndex((s) => s.id === 'idle');

  it('says how far it strayed: not at all before any reading, far after one far off', () => {
    expect(component.strayed(state)).toBe(0);
    take(COACH, predict(COACH).mean - 1.5);
    expect(component.strayed(state)).toBeGreaterThan(0.2);
    component.moveTo(component.mean.slice(), [state]);
    expect(component.strayed(state)).toBeCloseTo(0, 9);
  });

  it('does not change what no reading has touched, to the curvature of the circuit', () => {
    const learnt = predict(COACH).mean - 0.3;
    take(COACH, learnt);
    const linear = predict(CHASSIS).mean;
    component.moveTo(component.mean.slice(), [state]);
    component.reset();
    take(COACH, learnt);
    expect(predict(CHASSIS).mean).toBeCloseTo(linear, 1);
  });

  it('goes back to what it remembered, and to the first one by a restore', () => {
    const before = predict(COIL);
    const back = component.remember([state]);
    take(COACH, predict(COACH).mean - 1.5);
    component.moveTo(component.mean.slice(), [state]);
    component.reset();
    expect(predict(COIL).mean).not.toBeCloseTo(before.mean, 6);
    back();
    expect(predict(COIL).mean).toBe(before.mean);
    take(COACH, predict(COACH).mean - 1.5);
    component.moveTo(component.mean.slice(), [state]);
    component.reset();
    component.restore();
    expect(predict(COIL).mean).toBeCloseTo(before.mean, 9);
  });

  it('expects what it predicts, and before any reading what it predicted then', () => {
    const unlearnt = component.unlearnt(COACH, -1, new Float64Array(workspace.width));
    expect(unlearnt.mean).toBeCloseTo(predict(COACH).mean, 12);
    take(COACH, predict(COACH).mean - 0.5);
    expect(component.expected(COACH, -1)).toBeCloseTo(predict(COACH).mean, 12);
    expect(component.unlearnt(COACH, -1, new Float64Array(workspace.width)).mean).toBeCloseTo(unlearnt.mean, 12);
  });
});

describe('strata', () => {
  it('are one for a fault without a severity and three for one with a range', () => {
    expect(strataOf([])).toBe(1);
  });

  it('stand at the sixths of the range: 1/6, 1/2, 5/6', () => {
    const middles = [0, 1, 2].map((s) => new Component(workspace, 0, [], s, 3, 0).learnt().severity);
    [1 / 6, 1 / 2, 5 / 6].forEach((m, i) => expect(middles[i]).toBeCloseTo(m, 12));
  });
});

describe('the relay of a healthy coach at idle', () => {
  it('closes; with the engine off and no boost it does not', () => {
    expect(component.closes('link', 'idle')).toBe(true);
    const off = workspace.states.find((s) => s.id === 'rested')!.id;
    expect(component.closes('link', off)).toBe(false);
  });
  it('of a part or a state the rig does not have is not closed', () => {
    expect(component.closes('link', 'no-such-state')).toBe(false);
    expect(component.closes('no-such-part', 'idle')).toBe(false);
  });
});
