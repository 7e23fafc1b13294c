/**
 * Current and slope of the nonlinear elements. `out[0]` is the current pushed into the plus terminal,
 * `out[1]` its derivative by the voltage across; the derivative is never positive.
 */
import { lampCurrent } from './lamp';
import { PORT_VALUES, type PortBranch } from './network';

/** Beyond this many η the sinh goes on as a straight line, so that Newton never overflows. */
const LINEAR_BEYOND_ETA = 30;

export function portCurrent(
  kind: PortBranch['kind'],
  values: Float64Array,
  port: number,
  u: number,
  out: Float64Array,
): void {
  const at = port * PORT_VALUES;
  const p0 = values[at]!;
  const p1 = values[at + 1]!;
  const p2 = values[at + 2]!;
  if (kind === 'source') {
    const amps = (p0 - u) / p1;
    if (amps <= 0 || p2 <= 0) {
      out[0] = 0;
      out[1] = 0;
    } else if (amps >= p2) {
      out[0] = p2;
      out[1] = 0;
    } else {
      out[0] = amps;
      out[1] = -1 / p1;
    }
    return;
  }
  if (kind === 'diode') {
    const x = Math.min(LINEAR_BEYOND_ETA, -u / p1);
    const e = Math.exp(x);
    out[0] = p0 * (e * (1 + Math.max(0, -u / p1 - LINEAR_BEYOND_ETA)) - 1);
    out[1] = (-p0 * e) / p1;
    return;
  }
  if (kind !== 'overvoltage') {
    // The rare kinds last: most of a run's time is spent here.
    if (kind === 'lamp') {
      lampCurrent(p0, p1, u, out);
      out[0] = -out[0]!;
      out[1] = -out[1]!;
    } else {
      out[0] = -p0;
      out[1] = 0;
    }
    return;
  }
  const eta = u >= 0 ? p1 : p2;
  const x = u / eta;
  if (x > LINEAR_BEYOND_ETA || x < -LINEAR_BEYOND_ETA) {
    const cosh = Math.cosh(LINEAR_BEYOND_ETA);
    const beyond = Math.abs(x) - LINEAR_BEYOND_ETA;
    out[0] = -p0 * Math.sign(x) * (Math.sinh(LINEAR_BEYOND_ETA) + cosh * beyond);
    out[1] = (-p0 * cosh) / eta;
    return;
  }
  if (x < 1e-3 && x > -1e-3) {
    // (eˣ − e⁻ˣ)/2 would lose its digits here, and on a bank that only a meter loads they are the answer.
    out[0] = -p0 * x * (1 + (x * x) / 6);
    out[1] = (-p0 * (1 + 0.5 * x * x)) / eta;
    return;
  }
  const e = Math.exp(x);
  const half = 0.5 / e;
  out[0] = -p0 * (0.5 * e - half);
  out[1] = (-p0 * (0.5 * e + half)) / eta;
}

/** Derivatives of the port's current by its own three values, at voltage u. */
export function portValueSlopes(
  kind: PortBranch['kind'],
  values: Float64Array,
  port: number,
  u: number,
  out: Float64Array,
): void {
  const at = port * PORT_VALUES;
  const p0 = values[at]!;
  const p1 = values[at + 1]!;
  const p2 = values[at + 2]!;
  out.fill(0, 0, 3);
  if (kind === 'current') {
    out[0] = -1;
    return;
  }
  if (kind === 'lamp') {
    // No closed form worth its lines: by difference.
    const pair = new Float64Array(2);
    const h = 1e-6;
    const amps = (volts: number, watts: number) => {
      lampCurrent(volts, watts, u, pair);
      return -pair[0]!;
    };
    out[0] = (amps(p0 * (1 + h), p1) - amps(p0 * (1 - h), p1)) / (2 * h * p0);
    out[1] = (amps(p0, p1 * (1 + h)) - amps(p0, p1 * (1 - h))) / (2 * h * p1);
    return;
  }
  if (kind === 'source') {
    const amps = (p0 - u) / p1;
    if (amps <= 0 || p2 <= 0) return;
    if (amps >= p2) {
      out[2] = 1;
    } else {
      out[0] = 1 / p1;
      out[1] = -amps / p1;
    }
    return;
  }
  if (kind === 'diode') {
    const x = Math.min(LINEAR_BEYOND_ETA, -u / p1);
    const e = Math.exp(x);
    out[0] = e * (1 + Math.max(0, -u / p1 - LINEAR_BEYOND_ETA)) - 1;
    out[1] = (p0 * e * u) / (p1 * p1);
    return;
  }
  const eta = u >= 0 ? p1 : p2;
  const x = Math.max(-LINEAR_BEYOND_ETA, Math.min(LINEAR_BEYOND_ETA, u / eta));
  // Beyond the straight line's beginning the current goes on along it.
  out[0] = -Math.sinh(x) - Math.cosh(x) * (u / eta - x);
  out[u >= 0 ? 1 : 2] = (p0 * Math.cosh(x) * u) / (eta * eta);
}
