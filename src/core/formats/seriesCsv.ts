/** The points of a simulation as a table: RFC 4180, one header row, hours first. */
import type { SimResult } from '../simulate/result';

/** A cell that a spreadsheet would take for a formula is made harmless; quotes doubled. */
const cell = (text: string): string => {
  const safe = /^[=+\-@\t\r]/.test(text) ? `'${text}` : text;
  return /[",\r\n]/.test(safe) ? `"${safe.replace(/"/g, '""')}"` : safe;
};

/** Numbers with as many digits as they are worth. */
export function seriesCsv(r: SimResult): string {
  const head = ['hours', ...r.series.map((s) => `${s.label} (${s.unit})`)].map(cell).join(',');
  const rows = Array.from(r.t, (t, i) => [(t / 3600).toFixed(5), ...r.series.map((s) => Number(s.values[i]!.toFixed(4)).toString())].join(','));
  return [head, ...rows, ''].join('\r\n');
}
