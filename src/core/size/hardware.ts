/** What goes on the ends of a cable and into which terminal it fits. Sizes are usual ones, from memory. */
import { awgNumber, gaugeName, GAUGES, wireDiameter, type Gauge } from '../units/wire';

export interface Ends {
  /** How the end is made. */
  lug: string;
  crimper: string;
  /** Recovered size of adhesive-lined heat-shrink, mm before shrinking. */
  shrink: number;
}

/** Heat-shrink as sold, mm before shrinking. */
const SHRINK = [6, 9, 12, 16, 19, 25, 32] as const;
/** Insulated cable over its copper: about twice a thin one, a third more than a thick one. */
const outside = (gauge: Gauge): number => wireDiameter(gauge) * 1000 * (awgNumber(gauge) >= 8 ? 1.7 : 1.45);

export function endsFor(gauge: Gauge): Ends {
  const heavy = awgNumber(gauge) <= 4;
  return {
    lug: heavy
      ? `tinned copper lug, ${gaugeName(gauge)}, closed barrel`
      : `ring, ${gaugeName(gauge)}, crimped and sealed`,
    crimper: heavy ? 'hydraulic or long-handled die crimper, tug test' : 'ratchet crimper, tug test',
    shrink: SHRINK.find((mm) => mm >= outside(gauge) * 1.25) ?? SHRINK[SHRINK.length - 1]!,
  };
}

/** Thickest wire a kind's heavy terminals take as they are, and how: usual units, assumed. */
const TAKES: Readonly<Record<string, { most: Gauge; how: string }>> = {
  'dcdc-charger': { most: '4', how: 'screw clamp: ferrule on the strands' },
  'dual-charger': { most: '4', how: 'screw clamp: ferrule on the strands' },
  'line-breaker': { most: '6', how: 'studs, 10-32 or M5' },
  'voltage-relay': { most: '2', how: 'studs, M8' },
  'link-solenoid': { most: '4/0', how: 'studs, 5/16 in or M8' },
  'link-fuse': { most: '4/0', how: 'studs, M8' },
  'shore-charger': { most: '4', how: 'clamp or stud' },
  'solar-charger': { most: '6', how: 'screw clamp: ferrule on the strands' },
  'battery-bank': { most: '4/0', how: 'stud, 3/8 in or M8: ring on top of the lug that is there' },
};

/** Whether a gauge goes into a part's terminal; undefined where nothing is known of the kind. */
export function fitsTerminal(kind: string, gauge: Gauge): { fits: boolean; how: string } | undefined {
  const takes = TAKES[kind];
  if (!takes) return undefined;
  const fits = GAUGES.indexOf(gauge) <= GAUGES.indexOf(takes.most);
  return { fits, how: fits ? takes.how : `takes ${gaugeName(takes.most)} at most: a pigtail or pin reducer` };
}
