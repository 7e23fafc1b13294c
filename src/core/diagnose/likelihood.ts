/** How likely a reading is, given what a component predicts: good reading or blunder. */
import { METER, meterNoise, SPOT_NOISE_VOLTS, USUAL_METER, type MeterAccuracy } from '../probe/meter';
import { modelSpread, type Reach } from '../probe/modelError';
import type { Assumptions } from './assumptions';

/** Variance of a reading about the model's prediction, without the parameters' own spread. V² or A². */
export function readingVariance(
  unit: 'V' | 'A',
  predicted: number,
  a: Assumptions,
  accuracy: MeterAccuracy = USUAL_METER,
  reach: Reach = 'far',
): number {
  // A clamp's zero is one number of the round and learnt as one: what is left of its floor is each reading's own.
  const floor = (accuracy.ampFloor / USUAL_METER.ampFloor) * METER.clampNoise;
  const noise = meterNoise(unit, predicted, { ...accuracy, ampFloor: floor });
  const model = modelSpread(unit, predicted, reach, {
    share: a.modelShare,
    capVolts: a.modelCapVolts,
    floorVolts: a.modelFloorVolts,
    shareAmps: a.modelShareAmps,
    floorAmps: a.loadsStrayAmps,
  });
  return noise ** 2 + (unit === 'V' ? SPOT_NOISE_VOLTS ** 2 : 0) + model ** 2;
}

/** Degrees of freedom: tails that a reading some standard deviations off does not break. Lange, Little and Taylor's choice of a few. */
const TAILS = 5;

/**
 * Student's t about a prediction: its density, and the weight a reading keeps in what is learnt from it, which falls as
 * it lies further off. @param error reading minus prediction @param variance of both together
 */
export function heavyTailed(error: number, variance: number): { density: number; weight: number } {
  const far = (error * error) / variance;
  // Γ(3)/(Γ(5/2)·√(5π)) of five degrees of freedom.
  const density = (0.3796066898 * Math.pow(1 + far / TAILS, -(TAILS + 1) / 2)) / Math.sqrt(variance);
  return { density, weight: Math.min(1, (TAILS + 1) / (TAILS + far)) };
}

/**
 * Density of a reading that something unknown has moved: anywhere, thinning out away from where a sound rig has it.
 * Scales from memory: faults of this trade move points by tenths of a volt to all of them.
 */
export function unknownDensity(unit: 'V' | 'A', error: number): number {
  const scale = unit === 'V' ? 1 : 15;
  const near = unit === 'V' ? 0.12 : 3;
  const cauchy = (s: number) => 1 / (Math.PI * s * (1 + (error / s) ** 2));
  return 0.5 * cauchy(scale) + 0.5 * cauchy(near);
}

const gauss = (x: number, sd: number) => Math.exp((-0.5 * x * x) / (sd * sd)) / (sd * 2.5066282746310002);

/**
 * Density of a blundered reading: a spike where the lead did not touch, one where leads or clamp were the wrong way
 * round, what the neighbouring probes would have read, and a floor over the meter's usual range.
 * @param predicted what the reading would have been
 */
export function blunderDensity(
  unit: 'V' | 'A',
  value: number,
  predicted: number,
  neighbours: readonly number[],
  a: Assumptions,
): number {
  const { zero, reversed, neighbour, anything } = a.blunderKinds;
  if (unit === 'A') {
    const turned = reversed * gauss(value + predicted, Math.hypot(1, TURNED_AMPS * predicted));
    return zero * gauss(value, 0.3) + turned + (neighbour + anything) / 400;
  }
  let near = 0;
  for (const n of neighbours) near += gauss(value - n, 0.05);
  const beside = neighbours.length > 0 ? near / neighbours.length : 1 / 17;
  const turned = reversed * gauss(value + predicted, Math.hypot(0.01, TURNED_VOLTS * predicted));
  return zero * gauss(value, 0.01) + turned + neighbour * beside + anything / 17;
}

/** How far the prediction may be off where leads or clamp were turned round, a share of it. From memory. */
const TURNED_VOLTS = 0.02;
const TURNED_AMPS = 0.1;
