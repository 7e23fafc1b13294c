/**
 * What a change of one value of a network does at the present solution, to first order: it pushes amps into one node and
 * takes them out of another. With an output's adjoint vector that is the output's slope by the value.
 */
import { PORT_VALUES, type DeviceValues } from './network';
import { portValueSlopes } from './ports';
import type { Solver } from './solve';

/** Where one value of a network is kept. */
export interface ValueSlot {
  array: keyof DeviceValues;
  index: number;
}

/** `amps` more, per unit of a value, into `plus` and out of `minus`. */
export type Push = (plus: number, minus: number, amps: number) => void;

/** Of one solved network. Ports are worked out once, as many outputs as may be asked for. */
export class Injections {
  private readonly portSlopes: Float64Array;

  constructor(
    private readonly solver: Solver,
    private readonly values: DeviceValues,
  ) {
    const { ports } = solver.topology;
    this.portSlopes = new Float64Array(ports.length * PORT_VALUES);
    ports.forEach(({ kind }, p) => {
      const own = this.portSlopes.subarray(p * PORT_VALUES, (p + 1) * PORT_VALUES);
      portValueSlopes(kind, values.deviceParams, p, solver.portVolts[p]!, own);
    });
  }

  /** Everything one unit more of a value (Ω, V, or a port's own unit) pushes. */
  of({ array, index }: ValueSlot, push: Push): void {
    const { solver, values } = this;
    const { resistors, emfs, ports } = solver.topology;
    const v = solver.volts;
    if (array === 'resistorOhms') {
      const { a, b } = resistors[index]!;
      const ohms = values.resistorOhms[index]!;
      push(a, b, (v[a]! - v[b]!) / (ohms * ohms));
      return;
    }
    if (array !== 'deviceParams') {
      const { plus, minus } = emfs[index]!;
      const ohms = values.emfOhms[index]!;
      const across = values.emfVolts[index]! - (v[plus]! - v[minus]!);
      push(plus, minus, array === 'emfVolts' ? 1 / ohms : -across / (ohms * ohms));
      return;
    }
    const p = Math.floor(index / PORT_VALUES);
    const amps = this.portSlopes[index]!;
    push(ports[p]!.plus, ports[p]!.minus, amps);
    // What a converter gives, it also takes.
    for (const tie of solver.couplings)
      if (tie.outPort === p) push(ports[tie.inPort]!.plus, ports[tie.inPort]!.minus, -tie.byOutAmps * amps);
  }
}
