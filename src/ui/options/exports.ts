/** Files out of the comparison: a link's hours as CSV, the whole as JSON. */
import type { Comparison } from '../../core/plan/compare';
import { seriesCsv } from '../../core/openFormats/seriesCsv';
import type { SimResult } from '../../core/simulate/result';
import { download } from '../download';

export const exportCsv = (name: string, result: SimResult): void =>
  download(`${name}.csv`, 'text/csv;charset=utf-8', seriesCsv(result));

/** Without the rig documents: those are in the job file. Typed arrays become lists. */
export const exportJson = (name: string, comparison: Comparison): void =>
  download(
    `${name}.json`,
    'application/json',
    JSON.stringify(
      {
        schemaVersion: 1,
        ...comparison,
        rows: comparison.rows.map(({ candidate: { rig: _, ...candidate }, ...row }) => ({ candidate, ...row })),
      },
      (_, value: unknown) =>
        value instanceof Float64Array ? Array.from(value, (x) => Number(x.toPrecision(6))) : value,
      1,
    ),
  );
