/** What is read off a solved network: branch amps, and whether it adds up. */
import type { DeviceValues } from './network';
import { portCurrent } from './ports';
import type { Solver } from './solve';

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
