/**
 * The round that ties a converter's two ports: what it takes is what it gives divided by its efficiency.
 *
 * A constant power on a resistive feed has two solutions, or none. The one with the higher voltage is taken:
 * from few amps upward, each step solves the quadratic of power over the feed's slope at that point. Where it
 * has no root the feed cannot carry the power: `collapsed`, a result, with the volts of the most it could.
 */
import { CURRENT, SOURCE } from '../circuit/devices';
import type { DeviceValues } from '../circuit/network';
import type { Solver, SolveOutcome, ConverterCoupling } from '../circuit/solve';
import type { BoundExpression, ModelConverter } from '../compile/compile';

const MAX_ROUNDS = 60;
const AMP_TOLERANCE = 1e-7;
/** Full steps settle in a few rounds where nothing has a knee; after so many they are halved. */
const KNEE_ROUNDS = 8;
/** An input this low is no input: the converter's electronics are off. */
const MIN_INPUT_VOLTS = 3;

export interface ConverterState {
  /** What it takes, A. */
  amps: number;
  collapsed: boolean;
}

/**
 * Solves the network with its converters. `values` hold set-points and limits; input amps are written here,
 * starting from `states`, which carry over between solves.
 */
export function solveWithConverters(
  solver: Solver,
  values: DeviceValues,
  converters: readonly ModelConverter[],
  states: readonly ConverterState[],
  ruleValue: (rule: BoundExpression) => number,
): SolveOutcome {
  if (converters.length === 0) return solver.solve(values);
  const ratings = converters.map((c) => SOURCE.limit.get(values, c.outPort));
  const limits = converters.map((c) => ruleValue(c.inLimit));
  const held = converters.map(() => false);
  converters.forEach((c, k) => {
    const s = states[k]!;
    s.collapsed = false;
    if (!(ratings[k]! > 0)) s.amps = 0;
    CURRENT.amps.set(values, c.inPort, s.amps);
  });
  solver.prepare(values);
  solver.couplings = [];
  let outcome = solver.iterate(values);
  for (let round = 0; round < MAX_ROUNDS && outcome.converged; round++) {
    let moved = 0;
    for (let k = 0; k < converters.length; k++) {
      const c = converters[k]!;
      const s = states[k]!;
      const rated = ratings[k]!;
      const idleWatts = ruleValue(c.idle);
      if (!(rated > 0) && idleWatts === 0) continue;
      const out = solver.pushed(c.outPort);
      const given = Math.max(0, out) * Math.max(0, solver.portVolts[c.outPort]!);
      const share = rated > 0 ? Math.min(1, out / rated) : 0;
      const watts = given / efficiencyAt(ruleValue(c.efficiency), share) + idleWatts;
      const volts = solver.portVolts[c.inPort]!;
      const ohms = Math.max(1e-9, solver.inputOhms(c.inPort));
      // u(I) = open − ohms·I along the feed's present slope; watts = I·u(I).
      const open = volts + ohms * s.amps;
      const root = open * open - 4 * ohms * watts;
      s.collapsed = root < 0 && open >= MIN_INPUT_VOLTS;
      let next = open < MIN_INPUT_VOLTS ? 0 : (open - Math.sqrt(Math.max(0, root))) / (2 * ohms);
      if (next > limits[k]!) held[k] = true;
      if (held[k]) {
        // At its input limit it gives what that leaves it, at the volts of its feed and of its output.
        const now = SOURCE.limit.get(values, c.outPort);
        const may =
          (limits[k]! * (open - ohms * limits[k]!) - idleWatts) * efficiencyAt(ruleValue(c.efficiency), share);
        // What does not even give that is held by its output: the limit was none.
        held[k] = out > now - AMP_TOLERANCE || next > limits[k]!;
        const allowed = held[k] ? Math.min(rated, Math.max(0, may / Math.max(1, solver.portVolts[c.outPort]!))) : rated;
        if (held[k]) next = limits[k]!;
        moved = Math.max(moved, Math.abs(allowed - now));
        SOURCE.limit.set(values, c.outPort, allowed);
      }
      // Where the feed's source meets its limit the slope has a knee, and full steps may go to and fro across it.
      if (round >= KNEE_ROUNDS) next = (next + s.amps) / 2;
      moved = Math.max(moved, Math.abs(next - s.amps));
      s.amps = next;
      CURRENT.amps.set(values, c.inPort, next);
    }
    if (moved < AMP_TOLERANCE) break;
    outcome = solver.iterate(values);
  }
  solver.couplings = converters.flatMap((c, k): ConverterCoupling[] => {
    const s = states[k]!;
    const volts = solver.portVolts[c.inPort]!;
    if (s.collapsed || !(ratings[k]! > 0) || s.amps >= limits[k]! || volts < MIN_INPUT_VOLTS) return [];
    const out = Math.max(0, solver.pushed(c.outPort));
    const outVolts = solver.portVolts[c.outPort]!;
    const full = ruleValue(c.efficiency);
    const share = Math.min(1, out / ratings[k]!);
    const eta = efficiencyAt(full, share);
    // watts = uo·io / η(io/rated), and η falls by 0.03 over the whole range.
    const byOutAmps = (outVolts / eta + ((outVolts * out) / (eta * eta)) * (PART_LOAD_GAIN / ratings[k]!)) / volts;
    return [
      {
        inPort: c.inPort,
        outPort: c.outPort,
        byInVolts: -s.amps / volts,
        byOutAmps,
        byOutVolts: out / eta / volts + byOutAmps * solver.pushedSlope(c.outPort),
      },
    ];
  });
  return outcome;
}

/** Points of efficiency a light load gains over full output. */
const PART_LOAD_GAIN = 0.03;

/**
 * Efficiency at a share of the rated output, from the figure at full output: some 3 points better at a light
 * load, where the resistive losses fall away (from memory; the 85–90 % at full is common practice).
 */
export const efficiencyAt = (full: number, share: number): number =>
  Math.min(0.99, full + PART_LOAD_GAIN * (1 - share));
