/** Would the engine start: the start battery's volts under its starter, which takes more in the cold, against a limit. */
import { partWith } from '../rig/value';
import { is } from '../parts/kinds';
import type { Rig } from '../rig/schema';
import type { BatteryDynamic } from './battery';
import type { StartCheck } from './result';

/**
 * V of a 12 V battery under its starter below which an engine is not started: starters still turn at 8 to 9 V, engine
 * computers drop out nearer 7 (from memory; a chosen margin). The pass mark of a load test is another thing.
 */
export const NO_START_VOLTS = 8.5;

/** Cold oil: the starter takes this much more per K below 20 °C, about half again at −18 °C (from memory). */
const COLD_OIL_PER_KELVIN = 0.015;
export const coldOil = (celsius: number): number => 1 + COLD_OIL_PER_KELVIN * Math.max(0, 20 - celsius);

export interface Starter {
  /** Part id of the start battery. */
  battery: string;
  /** @param when in words: before which leg. */
  check(bank: BatteryDynamic, celsius: number, t: number, when: string, parameter: (key: string) => number): StartCheck;
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
    check(bank, celsius, t, when, parameter) {
      // A flat battery has nothing under a starter; what the straight line of its ohms says beyond is no volts.
      const volts = Math.max(0, bank.crankVolts(parameter(`${loads.id}.starter`) * coldOil(celsius)));
      const limit = NO_START_VOLTS * bank.blocks;
      return { t, when, volts, limit, starts: volts >= limit };
    },
  };
}
