import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRng } from '../units/rng';
import { copyValues, emptyValues, type Topology, type DeviceValues } from './network';
import { Injections } from './injections';
import { kirchhoffResidual, resistorAmps } from './readings';
import { Solver } from './solve';

/** A random connected network of resistors over six decades, two batteries and two limited sources. */
function randomNetwork(seed: number): { topology: Topology; values: DeviceValues } {
  const rng = seededRng(seed);
  const nodes = 4 + Math.floor(rng.uniform() * 14);
  const pick = (n: number) => Math.floor(rng.uniform() * n);
  const topology: Topology = {
    nodeNames: Array.from({ length: nodes }, (_, i) => `n${i}`),
    resistors: [],
    emfs: [],
    ports: [],
  };
  for (let n = 1; n < nodes; n++) topology.resistors.push({ id: `r${n}`, a: n, b: pick(n) });
  for (let k = 0; k < nodes; k++) topology.resistors.push({ id: `x${k}`, a: pick(nodes), b: pick(nodes) });
  // Batteries as the parts make them: EMF and ohms to an inner node, polarisation from there.
  for (let k = 0; k < 2; k++) {
    const inner = topology.nodeNames.push(`cell${k}`) - 1;
    topology.emfs.push({ id: `e${k}`, plus: 1 + pick(nodes - 1), minus: inner });
    topology.ports.push({ id: `ov${k}`, kind: 'overvoltage', plus: inner, minus: 0 });
  }
  for (let k = 0; k < 2; k++) {
    const plus = 1 + pick(nodes - 1);
    const minus = pick(nodes);
    topology.ports.push({ id: `p${k}`, kind: 'source', plus, minus: minus === plus ? 0 : minus });
  }
  const values = emptyValues(topology);
  topology.resistors.forEach((_, i) => {
    values.resistorOhms[i] = i >= nodes && rng.uniform() < 0.2 ? Infinity : 10 ** (-3 + 6 * rng.uniform());
  });
  topology.emfs.forEach((_, i) => {
    values.emfVolts[i] = 11 + 3 * rng.uniform();
    values.emfOhms[i] = 10 ** (-3 + 2 * rng.uniform());
  });
  topology.ports.forEach((p, i) => {
    const v =
      p.kind === 'source'
        ? [13 + 2 * rng.uniform(), 0.004, 200 * rng.uniform()]
        : [0.3 + rng.uniform(), 0.02 + 0.2 * rng.uniform(), 0.03];
    v.forEach((x, k) => (values.deviceParams[i * 3 + k] = x));
  });
  return { topology, values };
}

describe('operating point', () => {
  it('two batteries in parallel share as a hand calculation says', () => {
    const topology: Topology = {
      nodeNames: ['0', 'bus'],
      resistors: [{ id: 'load', a: 1, b: 0 }],
      emfs: [
        { id: 'a', plus: 1, minus: 0 },
        { id: 'b', plus: 1, minus: 0 },
      ],
      ports: [],
    };
    const values = emptyValues(topology);
    values.resistorOhms[0] = 1;
    values.emfVolts.set([12.6, 12.0]);
    values.emfOhms.set([0.01, 0.02]);
    const solver = new Solver(topology);
    expect(solver.solve(values).converged).toBe(true);
    // Millman: (12.6/0.01 + 12/0.02) / (1/0.01 + 1/0.02 + 1/1)
    expect(solver.volts[1]).toBeCloseTo((1260 + 600) / 151, 10);
  });

  it('a limited source is at its volts below the limit and at its limit beyond', () => {
    const topology: Topology = {
      nodeNames: ['0', 'out'],
      resistors: [{ id: 'load', a: 1, b: 0 }],
      emfs: [],
      ports: [{ id: 's', kind: 'source', plus: 1, minus: 0 }],
    };
    const values = emptyValues(topology);
    values.deviceParams.set([14, 0.01, 50]);
    const solver = new Solver(topology);
    values.resistorOhms[0] = 1;
    solver.solve(values);
    expect(solver.volts[1]).toBeCloseTo(14 / 1.01, 9);
    values.resistorOhms[0] = 0.1;
    solver.solve(values);
    expect(solver.volts[1]).toBeCloseTo(5, 9);
  });

  it('adds up at every node of 400 random networks, within 1 µA (Kirchhoff)', () => {
    for (let seed = 1; seed <= 400; seed++) {
      const { topology, values } = randomNetwork(seed);
      const solver = new Solver(topology);
      expect(solver.solve(values), `seed ${seed}`).toMatchObject({ converged: true });
      expect(kirchhoffResidual(solver, values), `seed ${seed}`).toBeLessThan(1e-6);
    }
  });

  it('does not depend on where it started', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 1, max: 1e6 }), (seed, other) => {
        const { topology, values } = randomNetwork(seed);
        const fresh = new Solver(topology);
        fresh.solve(values);
        const used = new Solver(topology);
        const elsewhere = emptyValues(topology);
        copyValues(values, elsewhere);
        const rng = seededRng(other);
        for (let k = 0; k < elsewhere.deviceParams.length; k++)
          elsewhere.deviceParams[k] = elsewhere.deviceParams[k]! * (0.5 + rng.uniform());
        used.solve(elsewhere);
        used.solve(values);
        for (let n = 1; n < fresh.volts.length; n++) expect(used.volts[n]).toBeCloseTo(fresh.volts[n]!, 6);
      }),
      { numRuns: 150 },
    );
  });

  it('no charger raises a battery’s terminal by lowering its own set-point', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const { topology, values } = randomNetwork(seed);
        const solver = new Solver(topology);
        solver.solve(values);
        const before = solver.volts[topology.ports[2]!.plus]! - solver.volts[topology.ports[2]!.minus]!;
        values.deviceParams[6] = values.deviceParams[6]! - 0.5;
        solver.solve(values);
        const after = solver.volts[topology.ports[2]!.plus]! - solver.volts[topology.ports[2]!.minus]!;
        expect(after).toBeLessThanOrEqual(before + 1e-9);
      }),
      { numRuns: 150 },
    );
  });

  it('shifting an EMF without factoring is the same as solving anew', () => {
    const { topology, values } = randomNetwork(7);
    const swept = new Solver(topology);
    swept.prepare(values);
    swept.shiftEmf(0, 0.37, values);
    swept.iterate(values);
    values.emfVolts[0] = values.emfVolts[0]! + 0.37;
    const fresh = new Solver(topology);
    fresh.solve(values);
    for (let n = 1; n < fresh.volts.length; n++) expect(swept.volts[n]).toBeCloseTo(fresh.volts[n]!, 8);
  });
});

describe('sensitivities', () => {
  it('are the finite differences of the solution', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const { topology, values } = randomNetwork(seed);
      const solver = new Solver(topology);
      solver.solve(values);
      const node = 1 + (seed % (topology.nodeNames.length - 1));
      const lambda = new Float64Array(topology.nodeNames.length);
      solver.adjoints([{ nodes: [node], weights: [1] }], lambda);
      const injections = new Injections(solver, values);
      for (const array of ['resistorOhms', 'emfVolts', 'emfOhms', 'deviceParams'] as const) {
        for (let i = 0; i < values[array].length; i++) {
          const keep = values[array][i]!;
          if (!Number.isFinite(keep) || keep === 0) continue;
          const h = Math.max(1e-7, Math.abs(keep) * 1e-6);
          const at = (x: number) => {
            values[array][i] = x;
            const probe = new Solver(topology);
            probe.solve(values);
            return probe.volts[node]!;
          };
          const [up, here, down] = [at(keep + h), at(keep), at(keep - h)];
          values[array][i] = keep;
          // A corner of a limited source has two slopes: skip points that sit on one.
          if (Math.abs(up + down - 2 * here) > 1e-3 * Math.abs(up - down) + 1e-12) continue;
          const numeric = (up - down) / (2 * h);
          let slope = 0;
          injections.of({ array, index: i }, (plus, minus, amps) => {
            slope += (lambda[plus]! - lambda[minus]!) * amps;
          });
          expect(Math.abs(slope - numeric), `seed ${seed} ${array}[${i}]`).toBeLessThan(
            1e-3 * Math.abs(numeric) + 2e-4,
          );
        }
      }
    }
  });

  it('resistor amps follow Ohm', () => {
    const { topology, values } = randomNetwork(3);
    const solver = new Solver(topology);
    solver.solve(values);
    topology.resistors.forEach((r, i) => {
      const expected = Number.isFinite(values.resistorOhms[i]!)
        ? (solver.volts[r.a]! - solver.volts[r.b]!) / values.resistorOhms[i]!
        : 0;
      expect(resistorAmps(solver, values, i)).toBeCloseTo(expected, 12);
    });
  });
});
