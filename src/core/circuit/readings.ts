/** What is read off a solved network: branch amps, slopes by every value, and whether it adds up. */
import { PORT_VALUES, type DeviceValues } from './network';
import { portCurrent, portValueSlopes } from './ports';
import type { Solver } from './solve';

/** Derivatives of an output by every value of the network, from its adjoint vector. Same layout as Values. */
export function valueSensitivities(
  solver: Solver,
  values: DeviceValues,
  lambda: Float64Array,
  out: DeviceValues,
): void {
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
    portValueSlopes(kind, values.deviceParams, p, solver.portVolts[p]!, slopes);
    for (let k = 0; k < PORT_VALUES; k++) out.deviceParams[p * PORT_VALUES + k] = l * slopes[k]!;
    // What a converter gives, it also takes.
    for (const tie of solver.couplings) {
      if (tie.outPort !== p) continue;
      const input = ports[tie.inPort]!;
      const taken = (lambda[input.plus]! - lambda[input.minus]!) * -tie.byOutAmps;
      for (let k = 0; k < PORT_VALUES; k++)
        out.deviceParams[p * PORT_VALUES + k] = out.deviceParams[p * PORT_VALUES + k]! + taken * slopes[k]!;
    }
  }
}

/** Amps through a resistor from a to b. */
export function resistorAmps(solver: Solver, values: DeviceValues, index: number): number {
  const { a, b } = solver.topology.resistors[index]!;
  return (solver.volts[a]! - solver.volts[b]!) / values.resistorOhms[index]!;
}

/** Amps into the plus terminal of a battery's EMF branch: positive is charging. */
export function emfAmps(solver: Solver, values: DeviceValues, index: number): number {
  const { plus, minus } = solver.topology.emfs[index]!;
  return (solver.volts[plus]! - solver.volts[minus]! - values.emfVolts[index]!) / values.emfOhms[index]!;
}

/**
 * Largest current, in A, that fails to add up to zero at any node: an independent check that uses only the
 * node volts and the elements' own laws, nothing of the factorisation.
 */
export function kirchhoffResidual(solver: Solver, values: DeviceValues): number {
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
    portCurrent(port.kind, values.deviceParams, p, solver.volts[port.plus]! - solver.volts[port.minus]!, out);
    move(port.minus, port.plus, out[0]!);
  });
  let worst = 0;
  for (let n = 1; n < sum.length; n++) worst = Math.max(worst, Math.abs(sum[n]!));
  return worst;
}
