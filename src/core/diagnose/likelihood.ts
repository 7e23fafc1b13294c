/** How likely a reading is, given what a component predicts: good reading or blunder. */
import { meterNoise, SPOT_NOISE_VOLTS, USUAL_METER, type MeterAccuracy } from '../probe/meter';
import type { Assumptions } from './assumptions';

/** Variance of a reading about the model's prediction, without the parameters' own spread. V² or A². */
export function readingVariance(
  unit: 'V' | 'A',
  predicted: number,
  a: Assumptions,
  accuracy: MeterAccuracy = USUAL_METER,
): number {
  const noise = meterNoise(unit, predicted, accuracy);
  if (unit === 'A') return noise * noise + (a.modelShareAmps * predicted) ** 2;
  const model = Math.min(a.modelCapVolts, a.modelShare * Math.abs(predicted));
  return noise * noise + SPOT_NOISE_VOLTS * SPOT_NOISE_VOLTS + model * model;
}

const gauss = (x: number, sd: number) => Math.exp((-0.5 * x * x) / (sd * sd)) / (sd * 2.5066282746310002);

/**
 * Density of a blundered reading: a spike where the lead did not touch, what the neighbouring probes would
 * have read, and a floor over the meter's usual range.
 */
export function blunderDensity(unit: 'V' | 'A', value: number, neighbours: readonly number[], a: Assumptions): number {
  const { zero, neighbour, anything } = a.blunderKinds;
  if (unit === 'A') return zero * gauss(value, 0.3) + (neighbour + anything) / 400;
  let near = 0;
  for (const n of neighbours) near += gauss(value - n, 0.05);
  const beside = neighbours.length > 0 ? near / neighbours.length : 1 / 17;
  return zero * gauss(value, 0.01) + neighbour * beside + anything / 17;
}
