/** Readings as evidence, by the rows of their points, and as one component has taken them in. */
import { USUAL_METER, type MeterAccuracy } from '../probe/meter';

/** A reading as evidence: points by key, SI. */
export interface Evidence {
  /** The stored reading's id, or any name. */
  id: string;
  state: string;
  probe: string;
  /** Black lead's point; absent on a clamp. */
  ref?: string;
  value: number;
  /** It stands for a reading taken twice: a slip on it has been ruled out. */
  confirmed?: boolean;
  /** Of the instrument it was taken with; the usual one's where absent. */
  meter?: MeterAccuracy;
  /** How long the rig had been in the state. */
  secondsInState?: number;
}

/** A reading by the rows of its points; `black` is −1 on a clamp. */
export interface Row {
  evidence: Evidence;
  red: number;
  black: number;
  unit: 'V' | 'A';
}

/** A reading as it was taken in after those before it. */
export interface Taken {
  row: Row;
  /** Linearisation of its state it was taken in with. */
  version: number;
  trust: number;
  /** Variance it was taken in with. */
  noise: number;
  logDensity: number;
}

/** Whether two rows are one reading, taken once or twice, of one meter. */
export function sameRow(a: Row, b: Row): boolean {
  const [x, y] = [a.evidence, b.evidence];
  const [m, n] = [x.meter ?? USUAL_METER, y.meter ?? USUAL_METER];
  return (
    a.red === b.red &&
    a.black === b.black &&
    x.value === y.value &&
    x.confirmed === y.confirmed &&
    (x.meter === undefined) === (y.meter === undefined) &&
    m.voltShare === n.voltShare &&
    m.voltNoise === n.voltNoise &&
    m.ampShare === n.ampShare &&
    m.ampFloor === n.ampFloor
  );
}
