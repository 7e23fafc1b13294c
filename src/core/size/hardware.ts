/** What goes on the ends of a cable and into which terminal it fits. Sizes are usual ones, from memory. */
import { partKind } from '../parts/kinds';
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

/** Whether a gauge goes into a part's terminal; undefined where nothing is known of the kind. */
export function fitsTerminal(kind: string, gauge: Gauge): { fits: boolean; how: string } | undefined {
  const { takes } = partKind(kind);
  if (!takes) return undefined;
  const fits = GAUGES.indexOf(gauge) <= GAUGES.indexOf(takes.most);
  return { fits, how: fits ? takes.how : `takes ${gaugeName(takes.most)} at most: a pigtail or pin reducer` };
}
