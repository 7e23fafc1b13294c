/**
 * What a meter can be put on: points (volts against the reference node) and clamps (amps in a conductor).
 * Any reading is one output, or the difference of two. `linearise` gives their values and slopes by every
 * uncertain number of the rig at once, from one solve and one adjoint each, so that the correlation between
 * any two readings is exact to first order.
 */
import { emptyValues, type DeviceValues } from '../circuit/network';
import { emfAmps, resistorAmps, valueSensitivities } from '../circuit/readings';
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

/**
 * Slopes of the settled model's outputs by each z that can move one and, last but one, by the fault's severity.
 * `J` is row-major, `width` numbers a row: `columns` in turn, severity, and one column left to the caller.
 * Thresholds and delays move no reading while the controllers' modes are held: they have no column.
 */
export class Lineariser {
  private readonly lambda: Float64Array;
  private readonly sensitivity: DeviceValues;
  private readonly severity: DeviceValues;
  private readonly slopes: Float64Array[];
  /** The parameter each column stands for, by its index in the compiled rig. */
  readonly columns: readonly number[];
  readonly width: number;
  private readonly columnOf: Int32Array;

  constructor(
    private readonly model: RigModel,
    private readonly outputs: readonly Output[],
  ) {
    const { topology, rules, params } = model.compiled;
    this.lambda = new Float64Array(topology.nodeNames.length);
    this.sensitivity = emptyValues(topology);
    this.severity = emptyValues(topology);
    this.slopes = rules.map((r) => new Float64Array(r.params.length));
    const moving = new Set(rules.flatMap((r) => r.params));
    this.columns = params.flatMap(({ parameter }, k) => (moving.has(k) && parameter.spread > 0 ? [k] : []));
    this.columnOf = new Int32Array(params.length).fill(-1);
    this.columns.forEach((k, column) => (this.columnOf[k] = column));
    this.width = this.columns.length + 2;
  }

  /** Writes value and slopes of each output of the settled model from row `firstRow` on. */
  write(y: Float64Array, J: Float64Array, firstRow: number): void {
    const { model, outputs, width, columns, columnOf } = this;
    const { rules, topology } = model.compiled;
    model.ruleSlopes(this.slopes);
    model.severitySlopes(this.severity);
    readOutputs(model, outputs, y, firstRow);
    outputs.forEach((o, i) => {
      const at = (firstRow + i) * width;
      J.fill(0, at, at + width);
      const behind = o.kind === 'volts' ? model.behindLead(o.key) : undefined;
      if (o.kind === 'volts') {
        if (o.index === 0) return;
        if (!behind) model.solver.adjoint([o.index], [1], this.lambda);
        else {
          // V − R·I with I = (V − Vminus − E)/Rbranch.
          const share = behind.ohms / model.values.emfOhms[behind.emf]!;
          model.solver.adjoint([o.index, topology.emfs[behind.emf]!.minus], [1 - share, share], this.lambda);
        }
      } else {
        const { a, b } = topology.resistors[o.index]!;
        const g = 1 / model.values.resistorOhms[o.index]!;
        if (g === 0) return;
        model.solver.adjoint([a, b], [g, -g], this.lambda);
      }
      const s = this.sensitivity;
      valueSensitivities(model.solver, model.values, this.lambda, s);
      if (o.kind === 'amps') {
        // amps = (va − vb)/R depends on R directly as well.
        s.resistorOhms[o.index] = s.resistorOhms[o.index]! - y[firstRow + i]! / model.values.resistorOhms[o.index]!;
      }
      let bySeverity = 0;
      if (behind) {
        // The branch's own volts and ohms are in the amps directly as well, and so are the ohms that are behind.
        const amps = emfAmps(model.solver, model.values, behind.emf);
        const share = behind.ohms / model.values.emfOhms[behind.emf]!;
        s.emfVolts[behind.emf] = s.emfVolts[behind.emf]! + share;
        s.emfOhms[behind.emf] = s.emfOhms[behind.emf]! + share * amps;
        bySeverity = -amps * behind.bySeverity;
      }
      for (let r = 0; r < rules.length; r++) {
        const rule = rules[r]!;
        const ds = s[rule.slot.array][rule.slot.index]!;
        if (ds === 0) continue;
        const row = this.slopes[r]!;
        for (let k = 0; k < row.length; k++) {
          const column = columnOf[rule.params[k]!]!;
          if (column >= 0) J[at + column] = J[at + column]! + ds * row[k]!;
        }
      }
      for (const array of ['resistorOhms', 'emfVolts', 'emfOhms', 'deviceParams'] as const) {
        const values = this.severity[array];
        for (let k = 0; k < values.length; k++) if (values[k]! !== 0) bySeverity += values[k]! * s[array][k]!;
      }
      J[at + columns.length] = bySeverity;
    });
  }
}
