/**
 * How long a conductor bears a short circuit: all heat stays in the copper (IEC 60364-4-43, 434.5.2):
 *
 *   I²·t = k²·S²,   k = 226·√ln(1 + (θf − θi)/(234.5 + θi))   A·√s/mm², copper
 *
 * with θi where it starts (its insulation's rating) and θf what the insulation bears once.
 */
import { wireArea, type Gauge } from '../units/wire';
import type { Insulation } from '../units/ampacity';

/** °C an insulation bears once: 160 for thermoplastic, 250 for cross-linked (IEC 60364-4-43 table 43A). */
const BEARS_ONCE = { thermoplastic: 160, crosslinked: 250 } as const;
/**
 * Insulations rated up to this may be thermoplastic: PVC boat cable, machine-tool wire and battery cable are sold to
 * 105 °C. Cross-linked cable (SAE J1127 SGX, J1128 GXL) says 125 °C (from memory).
 */
const THERMOPLASTIC_TO_CELSIUS = 105;

/** k of copper, A·√s/mm², from one temperature to another. */
export const shortCircuitK = (from: number, to: number): number =>
  226 * Math.sqrt(Math.log(1 + (to - from) / (234.5 + from)));

/** Seconds until `amps` harm a conductor of this gauge. */
export function bearsSeconds(gauge: Gauge, insulation: Insulation, amps: number): number {
  const to = insulation <= THERMOPLASTIC_TO_CELSIUS ? BEARS_ONCE.thermoplastic : BEARS_ONCE.crosslinked;
  const mm2 = wireArea(gauge) * 1e6;
  return ((shortCircuitK(insulation, to) * mm2) / amps) ** 2;
}
