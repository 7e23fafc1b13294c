/** Would the engine start: the start battery's volts under its starter against a limit that falls with the cold. */
import { partWith } from '../rig/value';
import { is } from '../parts/kinds';
import type { Rig } from '../rig/schema';
import type { BatteryDynamic } from './battery';
import type { StartCheck } from './result';

/**
 * Least volts of a 12 V battery after some seconds under load, by °C: the table of the BCI load test (9.6 V at
 * 21 °C), from memory.
 */
const LIMITS: readonly (readonly [celsius: number, volts: number])[] = [
  [-18, 8.5],
  [-12, 8.7],
  [-7, 8.9],
  [-1, 9.1],
  [4, 9.3],
  [10, 9.4],
  [16, 9.5],
  [21, 9.6],
];

/** Cold oil: the starter takes this much more per K below 20 °C, about half again at −18 °C (from memory). */
const COLD_OIL_PER_KELVIN = 0.015;
export const coldOil = (celsius: number): number => 1 + COLD_OIL_PER_KELVIN * Math.max(0, 20 - celsius);

/** Limit at a temperature, V of a 12 V battery. */
export function startLimit(celsius: number): number {
  if (celsius <= LIMITS[0]![0]) return LIMITS[0]![1];
  for (let i = 1; i < LIMITS.length; i++) {
    const [c0, v0] = LIMITS[i - 1]!;
    const [c1, v1] = LIMITS[i]!;
    if (celsius <= c1) return v0 + ((v1 - v0) * (celsius - c0)) / (c1 - c0);
  }
  return LIMITS[LIMITS.length - 1]![1];
}

export interface Starter {
  /** Part id of the start battery. */
  battery: string;
  check(bank: BatteryDynamic, celsius: number, t: number, parameter: (key: string) => number): StartCheck;
}

/** The start battery is the engine-side bank of the vehicle with the alternator; the starter is in its loads. */
export function starterOf(rig: Rig): Starter | undefined {
  const alternator = partWith(rig, 'alternator');
  const inVehicle = (p: { vehicle: string }) => p.vehicle === alternator?.vehicle;
  const battery = rig.parts.find((p) => is(p, 'battery') && p.side === 'engine' && inVehicle(p));
  const loads = rig.parts.find((p) => is(p, 'chassisLoads') && inVehicle(p));
  if (!battery || !loads) return undefined;
  return {
    battery: battery.id,
    check(bank, celsius, t, parameter) {
      const volts = bank.crankVolts(parameter(`${loads.id}.starter`) * coldOil(celsius));
      const limit = startLimit(celsius) * bank.blocks;
      return { t, volts, limit, starts: volts >= limit };
    },
  };
}
