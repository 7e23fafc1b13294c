/**
 * Copper wire by gauge: diameter, area, resistance.
 *
 * Sources: diameter of an AWG size by the formula of ASTM B258; conductivity 100 % IACS, that is
 * 1.7241e-8 Ω·m at 20 °C, and its temperature coefficient 0.00393 per K (IEC 60028). Stranded cable is
 * longer than its own length by the lay of its strands: 2 % (NEC chapter 9 table 8 is built the same way).
 */

/** Sizes a technician can pick, thin to thick. Ids are stored in rig documents. */
export const AWG_GAUGES = ['18', '16', '14', '12', '10', '8', '6', '4', '2', '1', '1/0', '2/0', '3/0', '4/0'] as const;
export const METRIC_GAUGES = [
  '0.75mm2',
  '1mm2',
  '1.5mm2',
  '2.5mm2',
  '4mm2',
  '6mm2',
  '10mm2',
  '16mm2',
  '25mm2',
  '35mm2',
  '50mm2',
  '70mm2',
  '95mm2',
  '120mm2',
] as const;
export type AwgGauge = (typeof AWG_GAUGES)[number];
export type MetricGauge = (typeof METRIC_GAUGES)[number];
export type Gauge = AwgGauge | MetricGauge;

/**
 * Largest resistance at 20 °C of a metric size, Ω/m: IEC 60228 class 5, plain copper (from memory). The copper
 * in it is less than its name: what it loses volts and warms by is what this leaves.
 */
const CLASS_5: Readonly<Record<MetricGauge, number>> = {
  '0.75mm2': 0.026,
  '1mm2': 0.0195,
  '1.5mm2': 0.0133,
  '2.5mm2': 0.00798,
  '4mm2': 0.00495,
  '6mm2': 0.0033,
  '10mm2': 0.00191,
  '16mm2': 0.00121,
  '25mm2': 0.00078,
  '35mm2': 0.000554,
  '50mm2': 0.000386,
  '70mm2': 0.000272,
  '95mm2': 0.000206,
  '120mm2': 0.000161,
};
const isMetric = (gauge: Gauge): gauge is MetricGauge => gauge.endsWith('mm2');

const COPPER_RESISTIVITY_20C = 1.7241e-8; // Ω·m, IEC 60028
const COPPER_TEMPCO_20C = 0.00393; // 1/K, IEC 60028
const STRAND_LAY = 1.02;

/** AWG number of a size: '2/0' is −1, '4/0' is −3; of a metric one the number its copper would have, in between. */
export function awgNumber(gauge: Gauge): number {
  if (isMetric(gauge)) return 36 - (39 * Math.log(wireDiameter(gauge) / (0.005 * 0.0254))) / Math.log(92);
  const aught = /^(\d)\/0$/.exec(gauge);
  return aught ? 1 - Number(aught[1]) : Number(gauge);
}

/** Diameter in metres of the solid wire of this size: 0.005 in · 92^((36 − n)/39) (ASTM B258); of a metric one by its copper. */
export function wireDiameter(gauge: Gauge): number {
  if (isMetric(gauge)) return Math.sqrt((4 / Math.PI) * wireArea(gauge));
  return 0.005 * 0.0254 * Math.pow(92, (36 - awgNumber(gauge)) / 39);
}

/** A size by its own name: "8 AWG", "10 mm²". */
export const gaugeName = (gauge: Gauge): string => (isMetric(gauge) ? gauge.replace('mm2', ' mm²') : `${gauge} AWG`);

/** A size as the shop reads it: "8 AWG", "8.4 mm²"; a metric one always by its name. */
export const gaugeShown = (gauge: Gauge, unit: 'awg' | 'mm2'): string => {
  const square = wireArea(gauge) * 1e6;
  return unit === 'awg' || isMetric(gauge)
    ? gaugeName(gauge)
    : `${Number(square.toPrecision(square < 10 ? 2 : 3))} mm²`;
};

/** Copper area in m². */
export function wireArea(gauge: Gauge): number {
  if (isMetric(gauge)) return (COPPER_RESISTIVITY_20C * STRAND_LAY) / CLASS_5[gauge];
  const d = wireDiameter(gauge);
  return (Math.PI / 4) * d * d;
}

/** Resistance in Ω of `length` metres of stranded copper cable at `celsius`. */
export function wireResistance(gauge: Gauge, length: number, celsius = 25): number {
  return ((COPPER_RESISTIVITY_20C * STRAND_LAY * (1 + COPPER_TEMPCO_20C * (celsius - 20))) / wireArea(gauge)) * length;
}

/** All sizes of both families by their copper, thin to thick. */
export const GAUGES: readonly Gauge[] = [...AWG_GAUGES, ...METRIC_GAUGES].sort((a, b) => wireArea(a) - wireArea(b));

/** The sizes sold where the shop is, and the one that is drawn. */
export const gaugesOf = (unit: 'awg' | 'mm2', now?: Gauge): Gauge[] =>
  GAUGES.filter((g) => g === now || isMetric(g) === (unit === 'mm2'));

/** The family a size belongs to. */
export const gaugeFamily = (gauge: Gauge): 'awg' | 'mm2' => (isMetric(gauge) ? 'mm2' : 'awg');
