/**
 * What the conductors of a rig carry on the customer's own use: their peak, and the steady current that would
 * heat them as much as the worst minutes do. A cable follows its heat with a time constant of some ten
 * minutes (from memory, 6 AWG to 1/0); currents are taken as their root mean square over it.
 */
import { resistorAmps } from '../circuit/readings';
import type { CompiledRig } from '../compile/compile';
import type { Scenario } from '../simulate/scenarioSchema';
import { Simulation } from '../simulate/simulate';

const LOAD_SECONDS = 600;
/**
 * Ah of error and s a step of the use may have here: ten, twelve and four times what a trip is told with. The steady
 * amps differ by 1.8 % at most and the peaks by 1 % (measured over the archetypes), and it takes half as long.
 */
const TOLERANCE_AH = 0.02;
const LONGEST_STEP = 72 * 3600;
const DAYLIGHT_STEP = 3600;

export interface WireLoad {
  /** A, as heat. */
  continuous: number;
  peak: number;
  /** Seconds into the scenario at which the peak came, and which scenario. */
  at: number;
  scenario: string;
}

/** A use whose simulation ended before its time: what its wires carry after `hours` is not known. */
export interface CutShort {
  scenario: string;
  hours: number;
}

/**
 * Loads of every feed and return by conductor id, over all scenarios, and which of these were cut short.
 * @param budget rounds of the network's solving each may take; the simulation's own where absent.
 */
export function wireLoads(
  compiled: CompiledRig,
  scenarios: readonly Scenario[],
  budget?: number,
): { loads: Map<string, WireLoad>; cutShort: CutShort[] } {
  const { rig, resistor } = compiled;
  const wires = rig.conductors
    .filter((c) => c.use !== 'control')
    .map((c) => ({ id: c.id, index: resistor.get(c.id)! }));
  const loads = new Map<string, WireLoad>(wires.map((w) => [w.id, { continuous: 0, peak: 0, at: 0, scenario: '' }]));
  const cutShort: CutShort[] = [];
  for (const scenario of scenarios) {
    const squares = new Float64Array(wires.length);
    const { summary } = new Simulation(compiled, scenario, {
      series: false,
      tolerance: TOLERANCE_AH,
      longest: LONGEST_STEP,
      daylight: DAYLIGHT_STEP,
      ...(budget === undefined ? {} : { budget }),
      watch(net, h, t) {
        const share = 1 - Math.exp(-h / LOAD_SECONDS);
        wires.forEach((w, k) => {
          const amps = Math.abs(resistorAmps(net.solver, net.values, w.index));
          squares[k] = squares[k]! + share * (amps * amps - squares[k]!);
          const load = loads.get(w.id)!;
          load.continuous = Math.max(load.continuous, Math.sqrt(squares[k]!));
          if (amps > load.peak) Object.assign(load, { peak: amps, at: t, scenario: scenario.id });
        });
      },
    }).run();
    if (summary.ranOutAt !== undefined) cutShort.push({ scenario: scenario.name, hours: summary.ranOutAt });
  }
  return { loads, cutShort };
}
