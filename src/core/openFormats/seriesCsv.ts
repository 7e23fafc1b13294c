/** The points of a simulation as a table: one header row, hours first. */
import type { SimResult } from '../simulate/result';
import { csvRows } from './csv';

/** Numbers with as many digits as they are worth. */
export const seriesCsv = (r: SimResult): string =>
  csvRows([
    ['hours', ...r.series.map((s) => `${s.label} (${s.unit})`)],
    ...Array.from(r.t, (t, i) => [(t / 3600).toFixed(5), ...r.series.map((s) => Number(s.values[i]!.toFixed(4)))]),
  ]);
