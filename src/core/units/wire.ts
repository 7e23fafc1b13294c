/**
 * Copper wire by gauge: diameter, area, resistance.
 *
 * Sources: diameter of an AWG size by the formula of ASTM B258; conductivity 100 % IACS, that is
 * 1.7241e-8 Ω·m at 20 °C, and its temperature coefficient 0.00393 per K (IEC 60028). Stranded cable is
 * longer than its own length by the lay of its strands: 2 % (NEC chapter 9 table 8 is built the same way).
 */

/** Gauges a technician can pick, thin to thick. Ids are stored in rig documents. */
export const GAUGES = ['18', '16', '14', '12', '10', '8', '6', '4', '2', '1', '1/0', '2/0', '3/0', '4/0'] as const;
export type Gauge = (typeof GAUGES)[number];

const COPPER_RESISTIVITY_20C = 1.7241e-8; // Ω·m, IEC 60028
const COPPER_TEMPCO_20C = 0.00393; // 1/K, IEC 60028
const STRAND_LAY = 1.02;

/** AWG number of a gauge id: '2/0' is −1, '4/0' is −3. */
export function awgNumber(gauge: Gauge): number {
  const aught = /^(\d)\/0$/.exec(gauge);
  return aught ? 1 - Number(aught[1]) : Number(gauge);
}

/** Diameter in metres of the solid wire of this gauge: 0.005 in · 92^((36 − n)/39) (ASTM B258). */
export function wireDiameter(gauge: Gauge): number {
  return 0.005 * 0.0254 * Math.pow(92, (36 - awgNumber(gauge)) / 39);
}

/** A gauge as the shop reads it: "8 AWG", "8.4 mm²". */
export const gaugeShown = (gauge: Gauge, unit: 'awg' | 'mm2'): string =>
  unit === 'awg' ? `${gauge} AWG` : `${Number((wireArea(gauge) * 1e6).toPrecision(wireArea(gauge) * 1e6 < 10 ? 2 : 3))} mm²`;

/** Copper area in m². */
export function wireArea(gauge: Gauge): number {
  const d = wireDiameter(gauge);
  return (Math.PI / 4) * d * d;
}

/** Resistance in Ω of `length` metres of stranded copper cable at `celsius`. */
export function wireResistance(gauge: Gauge, length: number, celsius = 25): number {
  return (
    ((COPPER_RESISTIVITY_20C * STRAND_LAY * (1 + COPPER_TEMPCO_20C * (celsius - 20))) / wireArea(gauge)) * length
  );
}
