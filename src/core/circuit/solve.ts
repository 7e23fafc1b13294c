/**
 * The operating point of a network.
 *
 * The linear part (resistors, EMFs) is factored once per set of values. The nonlinear elements are ports:
 * seen from them the rest of the network is u = V0 + Z·i(u), with Z symmetric positive definite. Because
 * each i falls with u, that equation is the gradient of a strictly convex function, so it has exactly one
 * solution and Newton with a line search on the sign of the slope finds it from any start.
 */
import { PORT_VALUES, type Topology, type Values } from './network';
import { portCurrent, portValueSlopes } from './ports';
import { solveDense } from './small';
import { SparseFactor, SparsePattern } from './sparse';

const MAX_NEWTON = 120;
const QUICK_ITERATIONS = 15;
const VOLT_TOLERANCE = 1e-11;
/** Below this a residual that stops falling is rounding, not error. */
const ROUNDING_VOLTS = 1e-8;

export type SolveOutcome = { converged: true; iterations: number } | { converged: false; residualVolts: number };

/** Solver for one topology. Results stay in its arrays until the next solve. */
export class Solver {
  /** Volts per node against node 0. */
  readonly volts: Float64Array;
  /** Volts across and amps pushed into the plus terminal of each port. */
  readonly portVolts: Float64Array;
  readonly portAmps: Float64Array;

  private readonly pattern: SparsePattern;
  private readonly factor: SparseFactor;
  private readonly portCount: number;
  private readonly resistorSlot: Int32Array;
  private readonly emfSlot: Int32Array;
  private readonly work: Float64Array;
  private readonly columns: Float64Array; // A⁻¹·(port incidence), position-major
  private readonly base: Float64Array; // A⁻¹·(EMF currents)
  private readonly Z: Float64Array;
  private readonly Y: Float64Array;
  private readonly V0: Float64Array;
  private readonly slope: Float64Array;
  private readonly step: Float64Array;
  private readonly from: Float64Array;
  private readonly spare: Float64Array;
  private readonly small: Float64Array;
  private readonly pair = new Float64Array(3);
  private haveStart = false;

  constructor(readonly topology: Topology) {
    const { resistors, emfs, ports, nodeNames } = topology;
    this.pattern = new SparsePattern(nodeNames.length, [
      ...resistors.map((r) => [r.a, r.b] as const),
      ...emfs.map((e) => [e.plus, e.minus] as const),
    ]);
    this.factor = new SparseFactor(this.pattern);
    const pos = this.pattern.position;
    const slotOf = (a: number, b: number) =>
      a !== 0 && b !== 0 && a !== b ? this.pattern.slot(pos[a]!, pos[b]!) : -1;
    this.resistorSlot = Int32Array.from(resistors, (r) => slotOf(r.a, r.b));
    this.emfSlot = Int32Array.from(emfs, (e) => slotOf(e.plus, e.minus));
    const m = (this.portCount = ports.length);
    const n = this.pattern.size;
    this.volts = new Float64Array(nodeNames.length);
    this.portVolts = new Float64Array(m);
    this.portAmps = new Float64Array(m);
    this.work = new Float64Array(n * (m + 1));
    this.columns = new Float64Array(n * m);
    this.base = new Float64Array(n);
    this.Z = new Float64Array(m * m);
    this.Y = new Float64Array(m * m);
    this.V0 = new Float64Array(m);
    this.slope = new Float64Array(m);
    this.step = new Float64Array(m);
    this.from = new Float64Array(m);
    this.spare = new Float64Array(m);
    this.small = new Float64Array(m * m);
  }

  /** Factors, reduces to the ports, iterates there, and writes the node volts. */
  solve(values: Values): SolveOutcome {
    this.prepare(values);
    return this.iterate(values);
  }

  /** The linear half: needed again whenever a resistance or an EMF changed. */
  prepare(values: Values): void {
    this.assemble(values);
    this.factor.factorise();
    this.reduce(values);
  }

  /**
   * The nonlinear half, for the values last prepared. Sweeping a source's set-point or limit needs only
   * this. Starts from the previous solution.
   */
  iterate(values: Values): SolveOutcome {
    const outcome = this.newton(values);
    this.expand();
    return outcome;
  }

  /** Changes one EMF in the prepared network without factoring again. */
  shiftEmf(index: number, deltaVolts: number, values: Values): void {
    const e = this.topology.emfs[index]!;
    const amps = deltaVolts / values.emfOhms[index]!;
    const x = this.work.subarray(0, this.pattern.size);
    x.fill(0);
    this.addAt(x, e.plus, amps);
    this.addAt(x, e.minus, -amps);
    this.factor.solveInPlace(x, 1);
    for (let k = 0; k < this.pattern.size; k++) this.base[k] = this.base[k]! + x[k]!;
    this.readPortBase();
  }

  private addAt(x: Float64Array, node: number, amount: number, count = 1, which = 0): void {
    const p = this.pattern.position[node]!;
    if (p >= 0) x[p * count + which] = x[p * count + which]! + amount;
  }

  private assemble(values: Values): void {
    const { resistors, emfs } = this.topology;
    const { diagonal, lower } = this.factor;
    const pos = this.pattern.position;
    this.factor.clear();
    const add = (a: number, b: number, slot: number, g: number) => {
      if (a === b) return; // two bolts of one frame: carries nothing
      const pa = pos[a]!;
      const pb = pos[b]!;
      if (pa >= 0) diagonal[pa] = diagonal[pa]! + g;
      if (pb >= 0) diagonal[pb] = diagonal[pb]! + g;
      if (slot >= 0) lower[slot] = lower[slot]! - g;
    };
    for (let i = 0; i < resistors.length; i++) {
      const r = resistors[i]!;
      add(r.a, r.b, this.resistorSlot[i]!, 1 / values.resistorOhms[i]!);
    }
    for (let i = 0; i < emfs.length; i++) {
      const e = emfs[i]!;
      add(e.plus, e.minus, this.emfSlot[i]!, 1 / values.emfOhms[i]!);
    }
  }

  private reduce(values: Values): void {
    const { emfs, ports } = this.topology;
    const m = this.portCount;
    const count = m + 1;
    const w = this.work;
    w.fill(0);
    for (let i = 0; i < emfs.length; i++) {
      const amps = values.emfVolts[i]! / values.emfOhms[i]!;
      this.addAt(w, emfs[i]!.plus, amps, count, m);
      this.addAt(w, emfs[i]!.minus, -amps, count, m);
    }
    for (let p = 0; p < m; p++) {
      this.addAt(w, ports[p]!.plus, 1, count, p);
      this.addAt(w, ports[p]!.minus, -1, count, p);
    }
    this.factor.solveInPlace(w, count);
    for (let k = 0; k < this.pattern.size; k++) {
      for (let p = 0; p < m; p++) this.columns[k * m + p] = w[k * count + p]!;
      this.base[k] = w[k * count + m]!;
    }
    for (let q = 0; q < m; q++) {
      const a = this.pattern.position[ports[q]!.plus]!;
      const b = this.pattern.position[ports[q]!.minus]!;
      for (let p = 0; p < m; p++) {
        this.Z[q * m + p] = (a >= 0 ? this.columns[a * m + p]! : 0) - (b >= 0 ? this.columns[b * m + p]! : 0);
      }
    }
    this.readPortBase();
    // Y = Z⁻¹ gives the slope of the convex function along a step. Two sources on the very same pair of nodes
    // make Z singular: a trace of resistance in Y alone steers the search and leaves the solution untouched.
    this.small.set(this.Z);
    let largest = 0;
    for (let p = 0; p < m; p++) largest = Math.max(largest, this.Z[p * m + p]!);
    for (let p = 0; p < m; p++) this.small[p * m + p] = this.small[p * m + p]! + 1e-9 * largest + 1e-15;
    this.Y.fill(0);
    for (let p = 0; p < m; p++) this.Y[p * m + p] = 1;
    solveDense(this.small, this.Y, m, m);
  }

  private readPortBase(): void {
    this.topology.ports.forEach((port, p) => {
      const a = this.pattern.position[port.plus]!;
      const b = this.pattern.position[port.minus]!;
      this.V0[p] = (a >= 0 ? this.base[a]! : 0) - (b >= 0 ? this.base[b]! : 0);
    });
  }

  private evaluate(values: Values): void {
    const { ports } = this.topology;
    for (let p = 0; p < this.portCount; p++) {
      portCurrent(ports[p]!.kind, values.port, p, this.portVolts[p]!, this.pair);
      this.portAmps[p] = this.pair[0]!;
      this.slope[p] = this.pair[1]!;
    }
  }

  private newton(values: Values): SolveOutcome {
    const m = this.portCount;
    const { Z, Y, V0, portVolts: u, slope, step, from, small } = this;
    if (!this.haveStart) u.set(V0);
    this.haveStart = true;
    this.evaluate(values);
    let residual = this.residual(step);
    for (let iteration = 0; iteration < MAX_NEWTON; iteration++) {
      if (residual < VOLT_TOLERANCE) return { converged: true, iterations: iteration };
      for (let p = 0; p < m; p++) {
        for (let q = 0; q < m; q++) small[p * m + q] = (p === q ? 1 : 0) - Z[p * m + q]! * slope[q]!;
      }
      if (!solveDense(small, step, m)) return { converged: false, residualVolts: residual };
      from.set(u);
      for (let p = 0; p < m; p++) u[p] = from[p]! + step[p]!;
      this.evaluate(values);
      const full = this.residual(this.spare);
      // The quick test may cycle round a corner of a limited source: then descend strictly.
      if (full < 0.5 * residual && (iteration < QUICK_ITERATIONS || full < 1e-3)) {
        step.set(this.spare);
        residual = full;
        continue;
      }
      // At the rounding floor no step helps any more: that is as good as it gets.
      if (residual < ROUNDING_VOLTS) return this.stayAt(from, values, iteration);
      this.lineSearch(values, from, Y);
      residual = this.residual(step);
    }
    return { converged: false, residualVolts: residual };
  }

  private stayAt(u: Float64Array, values: Values, iterations: number): SolveOutcome {
    this.portVolts.set(u);
    this.evaluate(values);
    return { converged: true, iterations };
  }

  /** V0 + Z·i − u into `out`; returns the largest component. */
  private residual(out: Float64Array): number {
    const m = this.portCount;
    let most = 0;
    for (let p = 0; p < m; p++) {
      let f = this.V0[p]! - this.portVolts[p]!;
      for (let q = 0; q < m; q++) f += this.Z[p * m + q]! * this.portAmps[q]!;
      out[p] = f;
      most = Math.max(most, Math.abs(f));
    }
    return most;
  }

  /** Moves `portVolts` along `step`, full step if the slope has not turned, else bisecting to where it does. */
  private lineSearch(values: Values, from: Float64Array, Y: Float64Array): void {
    const m = this.portCount;
    const { portVolts: u, portAmps: amps, step: d, V0 } = this;
    u.set(from);
    this.evaluate(values);
    let linear = 0;
    let quadratic = 0;
    let atZero = 0;
    for (let p = 0; p < m; p++) {
      let yu = 0;
      let yd = 0;
      for (let q = 0; q < m; q++) {
        yu += Y[p * m + q]! * (u[q]! - V0[q]!);
        yd += Y[p * m + q]! * d[q]!;
      }
      linear += d[p]! * yu;
      quadratic += d[p]! * yd;
      atZero -= d[p]! * amps[p]!;
    }
    const slopeAtZero = linear + atZero; // negative: d descends
    let low = 0;
    let high = 1;
    let t = 1;
    for (let j = 0; j < 50; j++) {
      for (let p = 0; p < m; p++) u[p] = from[p]! + t * d[p]!;
      this.evaluate(values);
      let s = linear + t * quadratic;
      for (let p = 0; p < m; p++) s -= d[p]! * amps[p]!;
      if (s <= -0.1 * slopeAtZero || Math.abs(s) < 1e-14) {
        if (s >= 0.3 * slopeAtZero || t >= 1) return;
        low = t;
      } else {
        high = t;
      }
      t = (low + high) / 2;
      if (high - low < 1e-9) return;
    }
  }

  private expand(): void {
    const m = this.portCount;
    const pos = this.pattern.position;
    for (let node = 1; node < this.volts.length; node++) {
      const k = pos[node]!;
      let v = this.base[k]!;
      for (let p = 0; p < m; p++) v += this.columns[k * m + p]! * this.portAmps[p]!;
      this.volts[node] = v;
    }
  }

  /**
   * Sensitivity vector of the linear output y = Σ weight·volts[node] at the present solution: on return
   * `lambda[node]` is dy per ampere pushed into the node, nonlinear elements following along.
   */
  adjoint(nodes: readonly number[], weights: readonly number[], lambda: Float64Array): void {
    const n = this.pattern.size;
    const m = this.portCount;
    const x = this.work.subarray(0, n);
    x.fill(0);
    nodes.forEach((node, i) => this.addAt(x, node, weights[i]!));
    this.factor.solveInPlace(x, 1);
    const ports = this.topology.ports;
    const rhs = this.step;
    for (let p = 0; p < m; p++) {
      const a = this.pattern.position[ports[p]!.plus]!;
      const b = this.pattern.position[ports[p]!.minus]!;
      rhs[p] = this.slope[p]! * ((a >= 0 ? x[a]! : 0) - (b >= 0 ? x[b]! : 0));
      for (let q = 0; q < m; q++) this.small[p * m + q] = (p === q ? 1 : 0) - this.slope[p]! * this.Z[p * m + q]!;
    }
    solveDense(this.small, rhs, m);
    lambda[0] = 0;
    for (let node = 1; node < lambda.length; node++) {
      const k = this.pattern.position[node]!;
      let l = x[k]!;
      for (let p = 0; p < m; p++) l += this.columns[k * m + p]! * rhs[p]!;
      lambda[node] = l;
    }
  }
}

/** Derivatives of an output by every value of the network, from its adjoint vector. Same layout as Values. */
export function valueSensitivities(solver: Solver, values: Values, lambda: Float64Array, out: Values): void {
  const { resistors, emfs, ports } = solver.topology;
  const v = solver.volts;
  for (let i = 0; i < resistors.length; i++) {
    const { a, b } = resistors[i]!;
    const ohms = values.resistorOhms[i]!;
    out.resistorOhms[i] = ((lambda[a]! - lambda[b]!) * (v[a]! - v[b]!)) / (ohms * ohms);
  }
  for (let i = 0; i < emfs.length; i++) {
    const { plus, minus } = emfs[i]!;
    const l = lambda[plus]! - lambda[minus]!;
    const ohms = values.emfOhms[i]!;
    out.emfVolts[i] = l / ohms;
    out.emfOhms[i] = (-l * (values.emfVolts[i]! - (v[plus]! - v[minus]!))) / (ohms * ohms);
  }
  const slopes = new Float64Array(PORT_VALUES);
  for (let p = 0; p < ports.length; p++) {
    const { plus, minus, kind } = ports[p]!;
    const l = lambda[plus]! - lambda[minus]!;
    portValueSlopes(kind, values.port, p, solver.portVolts[p]!, slopes);
    for (let k = 0; k < PORT_VALUES; k++) out.port[p * PORT_VALUES + k] = l * slopes[k]!;
  }
}

/** Amps through a resistor from a to b. */
export function resistorAmps(solver: Solver, values: Values, index: number): number {
  const { a, b } = solver.topology.resistors[index]!;
  return (solver.volts[a]! - solver.volts[b]!) / values.resistorOhms[index]!;
}

/** Amps into the plus terminal of a battery's EMF branch: positive is charging. */
export function emfAmps(solver: Solver, values: Values, index: number): number {
  const { plus, minus } = solver.topology.emfs[index]!;
  return (solver.volts[plus]! - solver.volts[minus]! - values.emfVolts[index]!) / values.emfOhms[index]!;
}

/**
 * Largest current, in A, that fails to add up to zero at any node: an independent check that uses only the
 * node volts and the elements' own laws, nothing of the factorisation.
 */
export function kirchhoffResidual(solver: Solver, values: Values): number {
  const { resistors, emfs, ports, nodeNames } = solver.topology;
  const sum = new Float64Array(nodeNames.length);
  const move = (from: number, to: number, amps: number) => {
    sum[from] = sum[from]! - amps;
    sum[to] = sum[to]! + amps;
  };
  resistors.forEach((r, i) => move(r.a, r.b, resistorAmps(solver, values, i)));
  emfs.forEach((e, i) => move(e.plus, e.minus, emfAmps(solver, values, i)));
  const out = new Float64Array(2);
  ports.forEach((port, p) => {
    portCurrent(port.kind, values.port, p, solver.volts[port.plus]! - solver.volts[port.minus]!, out);
    move(port.minus, port.plus, out[0]!);
  });
  let worst = 0;
  for (let n = 1; n < sum.length; n++) worst = Math.max(worst, Math.abs(sum[n]!));
  return worst;
}
