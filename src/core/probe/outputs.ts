/**
 * What a meter can be put on: points (volts against the reference node) and clamps (amps in a conductor).
 * Any reading is one output, or the difference of two. `linearise` gives their values and slopes by every
 * uncertain number of the rig at once, from one solve and one adjoint each, so that the correlation between
 * any two readings is exact to first order.
 */
import { Injections, type ValueSlot } from '../circuit/injections';
import { emptyValues, type DeviceValues } from '../circuit/network';
import { emfAmps, resistorAmps } from '../circuit/readings';
import type { WeightedNodes } from '../circuit/solve';
import type { CompiledRig } from '../compile/compile';
import type { RigModel } from '../operate/settle';

export interface Output {
  /** `part.terminal`, `ground.point` or `conductor.clamp`. */
  key: string;
  kind: 'volts' | 'amps';
  /** Node of a point; resistor index of a clamp. */
  index: number;
}

/** Every probe of the rig, every ground point, every clamp; retired probes too, so that old readings still count. */
export function rigOutputs(compiled: CompiledRig): Output[] {
  const outputs = new Map<string, Output>();
  for (const probe of compiled.rig.probes) {
    const [part, terminal] = probe.key.split('.');
    const kind = terminal === 'clamp' ? 'amps' : 'volts';
    const index = kind === 'amps' ? compiled.resistor.get(part!) : compiled.node.get(probe.key);
    // A retired probe may have been on a part that is no longer there.
    if (index !== undefined) outputs.set(probe.key, { key: probe.key, kind, index });
  }
  for (const ground of compiled.rig.grounds) {
    for (const point of ground.points) {
      const key = `${ground.id}.${point.id}`;
      outputs.set(key, { key, kind: 'volts', index: compiled.node.get(key)! });
    }
  }
  return [...outputs.values()];
}

/** Reads the outputs of the settled model. */
export function readOutputs(model: RigModel, outputs: readonly Output[], into: Float64Array, offset = 0): void {
  for (let i = 0; i < outputs.length; i++) {
    const o = outputs[i]!;
    into[offset + i] = o.kind === 'volts' ? voltsAt(model, o) : resistorAmps(model.solver, model.values, o.index);
  }
}

/** Volts under the lead: of a battery whose clamp is bad, those of its post and not of its wires. */
function voltsAt(model: RigModel, o: Output): number {
  const volts = model.solver.volts[o.index]!;
  const behind = model.behindLead(o.key);
  return behind ? volts - behind.ohms * emfAmps(model.solver, model.values, behind.emf) : volts;
}

/** Wires a lead is on that a fault has put something in front of, and what. */
type Behind = NonNullable<ReturnType<RigModel['behindLead']>>;

/**
 * Slopes of the settled model's outputs by each z that can move one and, after those, by the fault's severity.
 * `J` is row-major, `width` numbers a row: `columns` in turn, severity, and two columns left to the caller, for his meter.
 * Thresholds and delays move no reading while the controllers' modes are held: they have no column.
 */
export class Lineariser {
  private readonly lambda: Float64Array;
  private readonly severity: DeviceValues;
  private readonly slopes: Float64Array[];
  /** The parameter each column stands for, by its index in the compiled rig. */
  readonly columns: readonly number[];
  readonly severityColumn: number;
  readonly width: number;
  private readonly columnOf: Int32Array;
  /** What a unit of a column pushes, one entry after the other: into, out of, amps, column. */
  private readonly into: number[] = [];
  private readonly outOf: number[] = [];
  private readonly amps: number[] = [];
  private readonly column: number[] = [];

  constructor(
    private readonly model: RigModel,
    private readonly outputs: readonly Output[],
  ) {
    const { topology, rules, params } = model.compiled;
    this.lambda = new Float64Array(topology.nodeNames.length * outputs.length);
    this.severity = emptyValues(topology);
    this.slopes = rules.map((r) => new Float64Array(r.params.length));
    const moving = new Set(rules.flatMap((r) => r.params));
    this.columns = params.flatMap(({ parameter }, k) => (moving.has(k) && parameter.spread > 0 ? [k] : []));
    this.columnOf = new Int32Array(params.length).fill(-1);
    this.columns.forEach((k, column) => (this.columnOf[k] = column));
    this.severityColumn = this.columns.length;
    this.width = this.columns.length + 3;
  }

  /** Writes value and slopes of each output of the settled model from row `firstRow` on. */
  write(y: Float64Array, J: Float64Array, firstRow: number): void {
    const { model, outputs, width } = this;
    const behind = outputs.map((o) => (o.kind === 'volts' ? model.behindLead(o.key) : undefined));
    model.ruleSlopes(this.slopes);
    model.severitySlopes(this.severity);
    readOutputs(model, outputs, y, firstRow);
    this.collect();
    model.solver.adjoints(
      outputs.map((o, i) => this.weights(o, behind[i])),
      this.lambda,
    );
    J.fill(0, firstRow * width, (firstRow + outputs.length) * width);
    outputs.forEach((o, i) => {
      const at = (firstRow + i) * width;
      this.pushed(J, at, i);
      if (o.kind === 'amps') {
        // amps = (va − vb)/R depends on R directly as well.
        const byOhms = -y[firstRow + i]! / model.values.resistorOhms[o.index]!;
        this.direct(J, at, { array: 'resistorOhms', index: o.index }, byOhms);
      }
      const wires = behind[i];
      if (wires) this.directBehind(J, at, wires);
    });
  }

  /** Ω that stand behind a point, the meter's own beside it, where it was last written; of a clamp none. */
  ohmsBehind(output: number): number {
    const { kind, index } = this.outputs[output]!;
    const first = output * this.model.compiled.topology.nodeNames.length;
    return kind === 'volts' ? this.lambda[first + index]! : 0;
  }

  /** What each column pushes at the present solution. */
  private collect(): void {
    const { model, severity, into, outOf, amps, column } = this;
    const injections = new Injections(model.solver, model.values);
    into.length = outOf.length = amps.length = column.length = 0;
    const add = (slot: ValueSlot, slope: number, to: number) => {
      if (slope === 0 || to < 0) return;
      injections.of(slot, (plus, minus, each) => {
        if (each === 0) return;
        into.push(plus);
        outOf.push(minus);
        amps.push(each * slope);
        column.push(to);
      });
    };
    this.eachSlope((slot, slope, to) => add(slot, slope, to));
    for (const array of ARRAYS)
      severity[array].forEach((slope, index) => add({ array, index }, slope, this.severityColumn));
  }

  /** Every slope of a value by a column. */
  private eachSlope(visit: (slot: ValueSlot, slope: number, column: number) => void): void {
    this.model.compiled.rules.forEach(({ slot, params }, r) => {
      const row = this.slopes[r]!;
      for (let k = 0; k < row.length; k++) visit(slot, row[k]!, this.columnOf[params[k]!]!);
    });
  }

  /** The nodes an output is read from; none of one that is always zero. */
  private weights(o: Output, behind: Behind | undefined): WeightedNodes {
    const { topology } = this.model.compiled;
    if (o.kind === 'amps') {
      const { a, b } = topology.resistors[o.index]!;
      const g = 1 / this.model.values.resistorOhms[o.index]!;
      return { nodes: [a, b], weights: [g, -g] };
    }
    if (!behind) return { nodes: [o.index], weights: [1] };
    // V − R·I with I = (V − Vminus − E)/Rbranch.
    const share = behind.ohms / this.model.values.emfOhms[behind.emf]!;
    return { nodes: [o.index, topology.emfs[behind.emf]!.minus], weights: [1 - share, share] };
  }

  /** Slopes of one output by what every column pushes. */
  private pushed(J: Float64Array, at: number, output: number): void {
    const { lambda, into, outOf, amps, column } = this;
    const first = output * this.model.compiled.topology.nodeNames.length;
    for (let e = 0; e < amps.length; e++) {
      const to = at + column[e]!;
      J[to] = J[to]! + (lambda[first + into[e]!]! - lambda[first + outOf[e]!]!) * amps[e]!;
    }
  }

  /** Slopes of an output that follows a value without any volts changing. */
  private direct(J: Float64Array, at: number, { array, index }: ValueSlot, slope: number): void {
    if (slope === 0) return;
    this.eachSlope((slot, by, column) => {
      if (slot.array === array && slot.index === index && column >= 0 && by !== 0)
        J[at + column] = J[at + column]! + slope * by;
    });
    const severity = this.severity[array][index]!;
    if (severity !== 0) J[at + this.severityColumn] = J[at + this.severityColumn]! + slope * severity;
  }

  /** The branch's own volts and ohms are in the amps directly as well, and so are the ohms that are behind. */
  private directBehind(J: Float64Array, at: number, { emf, ohms, bySeverity }: Behind): void {
    const { solver, values } = this.model;
    const amps = emfAmps(solver, values, emf);
    const share = ohms / values.emfOhms[emf]!;
    this.direct(J, at, { array: 'emfVolts', index: emf }, share);
    this.direct(J, at, { array: 'emfOhms', index: emf }, share * amps);
    J[at + this.severityColumn] = J[at + this.severityColumn]! - amps * bySeverity;
  }
}

const ARRAYS = ['resistorOhms', 'emfVolts', 'emfOhms', 'deviceParams'] as const;
