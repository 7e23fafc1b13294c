/**
 * The operating point of a network.
 *
 * The linear part (resistors, EMFs) is factored once per set of values. The nonlinear elements are ports:
 * seen from them the rest of the network is u = V0 + Z·i(u), with Z symmetric positive definite. Because
 * each i falls with u, that equation is the gradient of a strictly convex function, so it has exactly one
 * solution and Newton with a line search on the sign of the slope finds it from any start.
 */
import type { PortBranch, Topology, DeviceValues } from './network';
import { portCurrent } from './ports';
import { solveDense } from './small';
import { SparseFactor, SparsePattern } from './sparse';

const MAX_NEWTON_ITERATIONS = 120;
const QUICK_ITERATIONS = 15;
const VOLT_TOLERANCE = 1e-11;
/** Below this a residual that stops falling is rounding, not error. */
const ROUNDING_VOLTS = 1e-8;

/**
 * S beside each source and diode, in the linear half, its current taken off again in the nonlinear half: the
 * sum is untouched. Without it a stud that only diodes and a source reach floats on the meter's 10 MΩ, and
 * rounding there is larger than the currents of interest.
 */
const SHUNT = { source: 1, diode: 1, overvoltage: 0, current: 0, lamp: 0 } as const;

export type SolveOutcome = { converged: true; iterations: number } | { converged: false; residualVolts: number };

/**
 * Two ports tied by a converter at the present solution: how the current it takes follows the volts of its
 * input and of its output, and the current it gives.
 */
export interface ConverterCoupling {
  inPort: number;
  outPort: number;
  /** d(amps taken)/d(volts of the input): negative, a constant power. */
  byInVolts: number;
  /** d(amps taken)/d(volts of the output), what it gives following them. */
  byOutVolts: number;
  /** d(amps taken)/d(amps given). */
  byOutAmps: number;
}

/** A linear output: nodes, and how much the volts of each count. */
export interface WeightedNodes {
  nodes: readonly number[];
  weights: readonly number[];
}

/** Solver for one topology. Results stay in its arrays until the next solve. */
export class Solver {
  /** Volts per node against node 0. */
  readonly volts: Float64Array;
  /** Volts across and amps pushed into the plus terminal of each port, its shunt's taken off again included. */
  readonly portVolts: Float64Array;
  readonly portAmps: Float64Array;
  /** Newton rounds ever taken: how much work has gone into it, where no clock may be asked. */
  rounds = 0;

  private readonly pattern: SparsePattern;
  private readonly factor: SparseFactor;
  private readonly portCount: number;
  private readonly resistorSlot: Int32Array;
  private readonly resistorA: Int32Array;
  private readonly resistorB: Int32Array;
  private readonly portPlus: Int32Array;
  private readonly portMinus: Int32Array;
  /** A⁻¹·(incidence of an EMF), made the first time that EMF is swept. */
  private readonly emfColumns = new Map<number, Float64Array>();
  private inverseReady = false;
  /** One port of each pair of nodes that ports span. */
  private readonly pairs: Int32Array;
  private readonly portKinds: PortBranch['kind'][];
  private readonly emfSlot: Int32Array;
  private readonly portSlot: Int32Array;
  private readonly shunt: Float64Array;
  /** Set by whoever ties ports, after each solve. */
  couplings: readonly ConverterCoupling[] = [];
  private readonly columns: Float64Array; // A⁻¹·(port incidence), one port after the other
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
      ...ports.filter((p) => SHUNT[p.kind] > 0).map((p) => [p.plus, p.minus] as const),
    ]);
    this.factor = new SparseFactor(this.pattern);
    const pos = this.pattern.position;
    const slotOf = (a: number, b: number) => (a !== 0 && b !== 0 && a !== b ? this.pattern.slot(pos[a]!, pos[b]!) : -1);
    this.resistorSlot = Int32Array.from(resistors, (r) => slotOf(r.a, r.b));
    // Two bolts of one frame joined by a cable: it carries nothing, so both its ends count as the reference.
    this.resistorA = Int32Array.from(resistors, (r) => (r.a === r.b ? -1 : pos[r.a]!));
    this.resistorB = Int32Array.from(resistors, (r) => (r.a === r.b ? -1 : pos[r.b]!));
    this.portKinds = ports.map((port) => port.kind);
    this.portPlus = Int32Array.from(ports, (port) => pos[port.plus]!);
    this.portMinus = Int32Array.from(ports, (port) => pos[port.minus]!);
    const pairOf = (p: PortBranch) => `${Math.min(p.plus, p.minus)}-${Math.max(p.plus, p.minus)}`;
    this.pairs = Int32Array.from(
      ports.flatMap((p, k) => (ports.findIndex((o) => pairOf(o) === pairOf(p)) === k ? [k] : [])),
    );
    this.emfSlot = Int32Array.from(emfs, (e) => slotOf(e.plus, e.minus));
    this.shunt = Float64Array.from(ports, (p) => SHUNT[p.kind]);
    this.portSlot = Int32Array.from(ports, (p) => (SHUNT[p.kind] > 0 ? slotOf(p.plus, p.minus) : -1));
    const m = (this.portCount = ports.length);
    const n = this.pattern.size;
    this.volts = new Float64Array(nodeNames.length);
    this.portVolts = new Float64Array(m);
    this.portAmps = new Float64Array(m);
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
  solve(values: DeviceValues): SolveOutcome {
    this.prepare(values);
    return this.iterate(values);
  }

  /** The linear half: needed again whenever a resistance or an EMF changed. */
  prepare(values: DeviceValues): void {
    this.assemble(values);
    this.factor.factorise();
    this.reduce(values);
  }

  /**
   * The nonlinear half, for the values last prepared. Sweeping a source's set-point or limit needs only
   * this. Starts from the previous solution.
   */
  iterate(values: DeviceValues): SolveOutcome {
    const outcome = this.newton(values);
    this.expand();
    return outcome;
  }

  /** Changes one EMF in the prepared network without factoring again. */
  shiftEmf(index: number, deltaVolts: number, values: DeviceValues): void {
    const e = this.topology.emfs[index]!;
    let column = this.emfColumns.get(index);
    if (!column) {
      column = new Float64Array(this.pattern.size);
      this.addAt(column, e.plus, 1);
      this.addAt(column, e.minus, -1);
      this.factor.solveInPlace(column);
      this.emfColumns.set(index, column);
    }
    const amps = deltaVolts / values.emfOhms[index]!;
    const base = this.base;
    for (let k = 0; k < base.length; k++) base[k] = base[k]! + amps * column[k]!;
    this.readPortBase();
  }

  private addAt(x: Float64Array, node: number, amount: number): void {
    const p = this.pattern.position[node]!;
    if (p >= 0) x[p] = x[p]! + amount;
  }

  private assemble(values: DeviceValues): void {
    const { resistors, emfs } = this.topology;
    const { diagonal, lower } = this.factor;
    const pos = this.pattern.position;
    this.factor.clear();
    const { resistorA, resistorB, resistorSlot } = this;
    for (let i = 0; i < resistors.length; i++) {
      const g = 1 / values.resistorOhms[i]!;
      if (g === 0) continue;
      const a = resistorA[i]!;
      const b = resistorB[i]!;
      if (a >= 0) diagonal[a] = diagonal[a]! + g;
      if (b >= 0) {
        diagonal[b] = diagonal[b]! + g;
        if (a >= 0) {
          const slot = resistorSlot[i]!;
          lower[slot] = lower[slot]! - g;
        }
      }
    }
    for (let i = 0; i < emfs.length; i++) {
      const e = emfs[i]!;
      const g = 1 / values.emfOhms[i]!;
      const a = pos[e.plus]!;
      const b = pos[e.minus]!;
      if (a >= 0) diagonal[a] = diagonal[a]! + g;
      if (b >= 0) diagonal[b] = diagonal[b]! + g;
      const slot = this.emfSlot[i]!;
      if (slot >= 0) lower[slot] = lower[slot]! - g;
    }
    const { shunt, portPlus, portMinus, portSlot } = this;
    for (let p = 0; p < shunt.length; p++) {
      const g = shunt[p]!;
      if (g === 0) continue;
      const a = portPlus[p]!;
      const b = portMinus[p]!;
      if (a >= 0) diagonal[a] = diagonal[a]! + g;
      if (b >= 0) diagonal[b] = diagonal[b]! + g;
      const slot = portSlot[p]!;
      if (slot >= 0) lower[slot] = lower[slot]! - g;
    }
  }

  private reduce(values: DeviceValues): void {
    const { emfs } = this.topology;
    const { columns, base, portPlus, portMinus, portCount: m, Z } = this;
    const n = this.pattern.size;
    base.fill(0);
    for (let i = 0; i < emfs.length; i++) {
      const amps = values.emfVolts[i]! / values.emfOhms[i]!;
      this.addAt(base, emfs[i]!.plus, amps);
      this.addAt(base, emfs[i]!.minus, -amps);
    }
    this.factor.solveInPlace(base);
    columns.fill(0);
    for (let p = 0; p < m; p++) {
      const a = portPlus[p]!;
      const b = portMinus[p]!;
      if (a >= 0) columns[p * n + a] = columns[p * n + a]! + 1;
      if (b >= 0) columns[p * n + b] = columns[p * n + b]! - 1;
      this.factor.solveInPlace(columns, p * n);
      for (let q = 0; q < m; q++) {
        const c = portPlus[q]!;
        const d = portMinus[q]!;
        Z[q * m + p] = (c >= 0 ? columns[p * n + c]! : 0) - (d >= 0 ? columns[p * n + d]! : 0);
      }
    }
    this.readPortBase();
    this.inverseReady = false;
    this.emfColumns.clear();
  }

  /** Made only when a line search is needed: most operating points are reached by full steps. */
  private invertPorts(): void {
    if (this.inverseReady) return;
    this.inverseReady = true;
    const { pairs, Y, Z, small, portCount: m } = this;
    const n = pairs.length;
    // Y = Z⁻¹ gives the slope of the convex function along a step. Two sources on the very same pair of nodes
    // would make Z singular: each pair of nodes counts once.
    for (let p = 0; p < n; p++) for (let q = 0; q < n; q++) small[p * n + q] = Z[pairs[p]! * m + pairs[q]!]!;
    // A trace of resistance, each port by its own measure: a floating bank's megohms must not blur the milliohms of
    // the others.
    for (let p = 0; p < n; p++) small[p * n + p] = small[p * n + p]! * (1 + 1e-9) + 1e-15;
    Y.fill(0);
    for (let p = 0; p < n; p++) Y[p * n + p] = 1;
    solveDense(small, Y, n, n);
  }

  private readPortBase(): void {
    const { base, portPlus, portMinus, V0 } = this;
    for (let p = 0; p < this.portCount; p++) {
      const a = portPlus[p]!;
      const b = portMinus[p]!;
      V0[p] = (a >= 0 ? base[a]! : 0) - (b >= 0 ? base[b]! : 0);
    }
  }

  private evaluate(values: DeviceValues): void {
    const { portKinds, portVolts, portAmps, slope, pair, shunt } = this;
    for (let p = 0; p < portKinds.length; p++) {
      portCurrent(portKinds[p]!, values.deviceParams, p, portVolts[p]!, pair);
      portAmps[p] = pair[0]! + shunt[p]! * portVolts[p]!;
      slope[p] = pair[1]! + shunt[p]!;
    }
  }

  private newton(values: DeviceValues): SolveOutcome {
    this.rounds++;
    const m = this.portCount;
    const { Z, Y, V0, portVolts: u, slope, step, from, small } = this;
    if (!this.haveStart) u.set(V0);
    this.haveStart = true;
    this.evaluate(values);
    let residual = this.residual(step);
    for (let iteration = 0; iteration < MAX_NEWTON_ITERATIONS; iteration++) {
      if (residual < VOLT_TOLERANCE) return { converged: true, iterations: iteration };
      this.rounds++;
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
      this.invertPorts();
      this.lineSearch(values, from, Y);
      residual = this.residual(step);
    }
    return { converged: false, residualVolts: residual };
  }

  private stayAt(u: Float64Array, values: DeviceValues, iterations: number): SolveOutcome {
    this.portVolts.set(u);
    this.evaluate(values);
    return { converged: true, iterations };
  }

  /** V0 + Z·i − u into `out`; returns the largest component. */
  private residual(out: Float64Array): number {
    const { V0, Z, portVolts: u, portAmps: amps, portCount: m } = this;
    let most = 0;
    for (let p = 0, at = 0; p < m; p++) {
      let f = V0[p]! - u[p]!;
      for (let q = 0; q < m; q++) f += Z[at++]! * amps[q]!;
      out[p] = f;
      const size = f < 0 ? -f : f;
      if (size > most || size !== size) most = size;
    }
    return most;
  }

  /** Moves `portVolts` along `step`, full step if the slope has not turned, else bisecting to where it does. */
  private lineSearch(values: DeviceValues, from: Float64Array, Y: Float64Array): void {
    const m = this.portCount;
    const { portVolts: u, portAmps: amps, step: d, V0, pairs } = this;
    const n = pairs.length;
    u.set(from);
    this.evaluate(values);
    let linear = 0;
    let quadratic = 0;
    let atZero = 0;
    let longest = 1;
    for (let k = 0; k < n; k++) {
      let yu = 0;
      let yd = 0;
      for (let l = 0; l < n; l++) {
        const q = pairs[l]!;
        yu += Y[k * n + l]! * (u[q]! - V0[q]!);
        yd += Y[k * n + l]! * d[q]!;
      }
      linear += d[pairs[k]!]! * yu;
      quadratic += d[pairs[k]!]! * yd;
    }
    for (let p = 0; p < m; p++) {
      longest = Math.max(longest, Math.abs(d[p]!));
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
      // A step of megavolts, into what is as good as open, has its corner in its first billionth.
      if ((high - low) * longest < 1e-9) return;
    }
  }

  /** Amps a port truly pushes into its plus terminal, the numerical shunt beside it taken off. */
  pushed(port: number): number {
    return this.portAmps[port]! - this.shunt[port]! * this.portVolts[port]!;
  }

  /** Slope of `pushed` by the port's own volts. */
  pushedSlope(port: number): number {
    return this.slope[port]! - this.shunt[port]!;
  }

  /** Volts by which a port rises per ampere more pushed into it at the present solution, the other ports following. */
  inputOhms(port: number): number {
    const { Z, slope, small, spare, portCount: m } = this;
    for (let p = 0; p < m; p++) {
      spare[p] = Z[p * m + port]!;
      for (let q = 0; q < m; q++) small[p * m + q] = (p === q ? 1 : 0) - Z[p * m + q]! * slope[q]!;
    }
    solveDense(small, spare, m);
    return spare[port]!;
  }

  private expand(): void {
    const { volts, base, columns, portAmps, portCount: m } = this;
    const n = this.pattern.size;
    const pos = this.pattern.position;
    for (let node = 1; node < volts.length; node++) {
      const k = pos[node]!;
      let v = base[k]!;
      for (let p = 0, at = k; p < m; p++, at += n) v += columns[at]! * portAmps[p]!;
      volts[node] = v;
    }
  }

  /**
   * Sensitivity vectors of linear outputs y = Σ weight·volts[node] at the present solution: on return
   * `lambda[k·nodes + node]` is d(y of output k) per ampere pushed into the node, nonlinear elements following along.
   */
  adjoints(outputs: readonly WeightedNodes[], lambda: Float64Array): void {
    const { portCount: m, portPlus, portMinus, slope, small, Z, columns } = this;
    const { size: n, position } = this.pattern;
    const count = outputs.length;
    const x = new Float64Array(n * count);
    const rhs = new Float64Array(m * count);
    const across = (p: number, k: number) => {
      const [a, b] = [portPlus[p]!, portMinus[p]!];
      return (a >= 0 ? x[k * n + a]! : 0) - (b >= 0 ? x[k * n + b]! : 0);
    };
    outputs.forEach(({ nodes, weights }, k) => {
      nodes.forEach((node, i) => {
        const at = position[node]!;
        if (at >= 0) x[k * n + at] = x[k * n + at]! + weights[i]!;
      });
      this.factor.solveInPlace(x, k * n);
      for (let p = 0; p < m; p++) rhs[p * count + k] = slope[p]! * across(p, k);
    });
    for (let p = 0; p < m; p++)
      for (let q = 0; q < m; q++) small[p * m + q] = (p === q ? 1 : 0) - slope[p]! * Z[p * m + q]!;
    // A tied input's current follows two voltages: the port slopes are then a matrix, and this its transpose.
    for (const tie of this.couplings) {
      for (const [p, s] of [
        [tie.inPort, -tie.byInVolts],
        [tie.outPort, -tie.byOutVolts],
      ] as const) {
        for (let k = 0; k < count; k++) rhs[p * count + k] = rhs[p * count + k]! + s * across(tie.inPort, k);
        for (let q = 0; q < m; q++) small[p * m + q] = small[p * m + q]! - s * Z[tie.inPort * m + q]!;
      }
    }
    solveDense(small, rhs, m, count);
    const nodes = position.length;
    for (let k = 0; k < count; k++) {
      for (let p = 0; p < m; p++) {
        const amps = rhs[p * count + k]!;
        if (amps !== 0) for (let i = 0; i < n; i++) x[k * n + i] = x[k * n + i]! + columns[p * n + i]! * amps;
      }
      lambda[k * nodes] = 0;
      for (let node = 1; node < nodes; node++) {
        lambda[k * nodes + node] = x[k * n + position[node]!]!;
      }
    }
  }
}
