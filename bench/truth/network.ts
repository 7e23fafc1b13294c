/**
 * A small circuit in time: resistors, and devices that push a current into a node by the volts across them and
 * by what they remember. Nodal analysis, dense, Newton's method; checked against ngspice in network.test.ts.
 */
export interface Device {
  /** Node its current comes out at, and the one it comes back by. */
  readonly plus: number;
  readonly minus: number;
  /** Amps it would push at these volts at the end of a step of `dt` seconds, and how fast they fall with volts. */
  push(volts: number, dt: number): { amps: number; slope: number };
  /** The step is over: it remembers. */
  remember(volts: number, amps: number, dt: number): void;
}

export interface Resistor {
  readonly a: number;
  readonly b: number;
  ohms: number;
}

/** So that a wire that hangs in the air has a voltage: what a meter of some megohms makes of it. Siemens. */
const AIR = 2e-7;
const MOST_ROUNDS = 150;

export class Network {
  private readonly names: string[] = [];
  private readonly index = new Map<string, number>();
  readonly resistors: Resistor[] = [];
  readonly devices: Device[] = [];
  volts = new Float64Array(0);

  /** Number of a node by name, made at the first asking; the first one is the reference. */
  node(name: string): number {
    let n = this.index.get(name);
    if (n === undefined) {
      n = this.names.length;
      this.names.push(name);
      this.index.set(name, n);
    }
    return n;
  }

  has(name: string): boolean {
    return this.index.has(name);
  }

  resistor(a: string, b: string, ohms: number): Resistor {
    const r = { a: this.node(a), b: this.node(b), ohms };
    this.resistors.push(r);
    return r;
  }

  at(name: string): number {
    const n = this.index.get(name);
    if (n === undefined) throw new RangeError(`the truth has no point ${name}`);
    return this.volts[n]!;
  }

  amps(r: Resistor): number {
    return Number.isFinite(r.ohms) ? (this.volts[r.a]! - this.volts[r.b]!) / r.ohms : 0;
  }

  /** Volts at the end of a step; nobody remembers yet. @throws Error where Newton's method does not settle */
  solve(dt: number): void {
    const n = this.names.length;
    if (this.volts.length !== n) this.volts = new Float64Array(n);
    const m = n - 1;
    const matrix = new Float64Array(m * m);
    const right = new Float64Array(m);
    const last = new Float64Array(m);
    let share = 1;
    let far = 0;
    const add = (a: number, b: number, g: number) => {
      if (a > 0) matrix[(a - 1) * m + a - 1]! += g;
      if (b > 0) matrix[(b - 1) * m + b - 1]! += g;
      if (a > 0 && b > 0) {
        matrix[(a - 1) * m + b - 1]! -= g;
        matrix[(b - 1) * m + a - 1]! -= g;
      }
    };
    for (let round = 0; round < MOST_ROUNDS; round++) {
      matrix.fill(0);
      right.fill(0);
      for (let i = 0; i < m; i++) matrix[i * m + i] = AIR;
      for (const r of this.resistors) if (Number.isFinite(r.ohms)) add(r.a, r.b, 1 / r.ohms);
      for (const d of this.devices) {
        const v = this.volts[d.plus]! - this.volts[d.minus]!;
        const { amps, slope } = d.push(v, dt);
        add(d.plus, d.minus, slope);
        const source = amps + slope * v;
        if (d.plus > 0) right[d.plus - 1]! += source;
        if (d.minus > 0) right[d.minus - 1]! -= source;
      }
      eliminate(matrix, right, m);
      far = 0;
      let turns = 0;
      for (let i = 0; i < m; i++) {
        const step = right[i]! - this.volts[i + 1]!;
        far = Math.max(far, Math.abs(step));
        turns += step * last[i]!;
        last[i] = step;
      }
      if (far < 1e-6) {
        for (let i = 0; i < m; i++) this.volts[i + 1] = right[i]!;
        return;
      }
      // Where it swings to and fro between two pieces of a source's curve, half the step and half again.
      share = turns < 0 ? share * 0.4 : Math.min(1, share * 1.5);
      for (let i = 0; i < m; i++) this.volts[i + 1]! += Math.max(-8, Math.min(8, share * last[i]!));
    }
    // Two millivolts between rounds are less than any lead makes of itself.
    if (far < 0.002) return;
    throw new Error('the truth found no volts');
  }

  /** One step in time. */
  step(dt: number): void {
    this.solve(dt);
    for (const d of this.devices) {
      const v = this.volts[d.plus]! - this.volts[d.minus]!;
      d.remember(v, d.push(v, dt).amps, dt);
    }
  }
}

/** Gauss's elimination with row exchange; the answer stands in `right`. */
function eliminate(a: Float64Array, right: Float64Array, n: number): void {
  for (let k = 0; k < n; k++) {
    let best = k;
    for (let i = k + 1; i < n; i++) if (Math.abs(a[i * n + k]!) > Math.abs(a[best * n + k]!)) best = i;
    if (best !== k) {
      for (let j = k; j < n; j++) [a[k * n + j], a[best * n + j]] = [a[best * n + j]!, a[k * n + j]!];
      [right[k], right[best]] = [right[best]!, right[k]!];
    }
    const pivot = a[k * n + k]!;
    for (let i = k + 1; i < n; i++) {
      const f = a[i * n + k]! / pivot;
      if (f === 0) continue;
      for (let j = k + 1; j < n; j++) a[i * n + j]! -= f * a[k * n + j]!;
      right[i]! -= f * right[k]!;
    }
  }
  for (let i = n - 1; i >= 0; i--) {
    let sum = right[i]!;
    for (let j = i + 1; j < n; j++) sum -= a[i * n + j]! * right[j]!;
    right[i] = sum / a[i * n + i]!;
  }
}
