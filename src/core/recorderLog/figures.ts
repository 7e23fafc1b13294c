/** What a log measured, as a figure of the rig: which part's, how sure, and where it is from. A new one is a row. */
import type { Part, Rig } from '../rig/schema';
import { is, partKind } from '../parts/kinds';
import type { Parameter } from '../units/parameter';
import type { LogEstimate } from './analyse';

interface FigureRow {
  estimate: LogEstimate['id'];
  which(p: Part): boolean;
  param: string;
  /** What the log's place of measuring leaves open beside its noise, in the parameter's own scale. */
  beside: number;
  because: string;
}

const ROWS: readonly FigureRow[] = [
  {
    estimate: 'capacity',
    which: (p) => is(p, 'battery') && p.side === 'coach',
    param: 'capacity',
    beside: 0.02,
    because: 'a monitor counts to about two in a hundred (from memory)',
  },
  {
    estimate: 'set-point',
    which: (p) => is(p, 'alternator'),
    param: 'setPoint',
    beside: 0.08,
    because: 'its own cable and the loads drop a tenth of a volt more (assumed)',
  },
  {
    estimate: 'parasitic',
    which: (p) => is(p, 'chassisLoads'),
    param: 'off',
    beside: 0.005,
    because: 'a clamp’s zero (from memory)',
  },
];

export interface LogFigure {
  part: string;
  param: string;
  /** "Alternator: set-point at the stud". */
  name: string;
  was: Parameter;
  set: Parameter;
  because: string;
}

/** Two-sided 95 % interval to one standard deviation. */
const SIGMAS = 2 * 1.96;

/**
 * The rig's figure that an estimate measured; undefined where it measured none, where it is only a bound, or where
 * it lies outside what such a part can have. @param file named as the source.
 */
export function logFigure(rig: Rig, e: LogEstimate, file: string): LogFigure | undefined {
  const row = ROWS.find((r) => r.estimate === e.id);
  const part =
    row &&
    rig.parts
      .filter(row.which)
      .sort((a, b) => (b.params['capacity']?.value ?? 0) - (a.params['capacity']?.value ?? 0))[0];
  if (!row || !part || e.bound) return undefined;
  const spec = partKind(part.kind).params[row.param]!;
  const value = Number(e.value.toPrecision(5));
  if (value < spec.min || value > spec.max) return undefined;
  const noise = (e.hi - e.lo) / SIGMAS;
  const spread = Number(Math.hypot(spec.scale === 'ratio' ? noise / value : noise, row.beside).toPrecision(3));
  return {
    part: part.id,
    param: row.param,
    name: `${part.name}: ${spec.label.charAt(0).toLowerCase()}${spec.label.slice(1)}`,
    was: part.params[row.param] ?? spec.default,
    set: { value, spread, provenance: 'measured', source: `log ${file}`.slice(0, 200) },
    because: row.because,
  };
}
