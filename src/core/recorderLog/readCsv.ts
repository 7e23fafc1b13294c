/**
 * A recorder's CSV: what its columns seem to be, then its rows by the mapping somebody agreed to. Cutting text
 * into cells is the CSV library's work; here cells become numbers and times.
 */
import { SeriesBuilder, type LogRole, type LogSeries } from './series';
import { readTime, toUtc, zoneOffsets, type TimeFormat } from './time';

export interface ColumnMap {
  /** Index of the column of times; with a clock in a column of its own, `clock`. */
  time: number;
  clock?: number;
  format: TimeFormat;
  /** IANA zone of times that do not say their own. */
  zone: string;
  decimal: '.' | ',';
  columns: { index: number; role: LogRole; name: string; /** SI = cell × times. */ times: number }[];
  /** Line the header is on, from 0; data begins under it. */
  header: number;
}

/** The header as one word: a mapping agreed once is found again by it. */
export const headerKey = (header: readonly string[]): string =>
  header
    .map((h) => h.trim().toLowerCase())
    .join('|')
    .slice(0, 300);

/** What parts the cells: the first of these that most lines hold equally often. Decimal commas come last. */
export function guessDelimiter(head: string): string {
  const lines = head
    .split(/\r\n|\n|\r/)
    .filter((l) => l.trim() !== '')
    .slice(0, 60);
  for (const delimiter of [';', '\t', '|', ',']) {
    const counts = lines.map((l) => l.split(delimiter).length - 1).filter((c) => c > 0);
    const usual = counts.sort((a, b) => a - b)[counts.length >> 1];
    if (usual !== undefined && counts.filter((c) => c === usual).length >= 0.6 * lines.length) return delimiter;
  }
  return ',';
}

const NUMBER = {
  '.': /^\s*[+-]?(\d{1,3}(,\d{3})+|\d+)?(\.\d+)?([eE][+-]?\d+)?\s*$/,
  ',': /^\s*[+-]?(\d{1,3}(\.\d{3})+|\d+)?(,\d+)?([eE][+-]?\d+)?\s*$/,
} as const;

/** A cell as a number; NaN where it is none. Empty is NaN too. */
export function readNumber(cell: string, decimal: '.' | ','): number {
  const text = cell.trim();
  if (text === '' || !NUMBER[decimal].test(text) || !/\d/.test(text)) return NaN;
  return Number(decimal === ',' ? text.replace(/\./g, '').replace(',', '.') : text.replace(/,/g, ''));
}

const TIME_NAMES = /\b(time|date|timestamp|datetime|zeit|datum|heure|fecha|hora|elapsed|seconds|utc)\b/i;
const ROLES: readonly [LogRole, RegExp][] = [
  ['alternator-amps', /alternator.*(amp|current|\bA\b)/i],
  ['link-amps', /(link|isolator|relay|charge line).*(amp|current|\bA\b)/i],
  ['chassis-amps', /(chassis|start|engine|crank|vehicle).*(amp|current|\bA\b)/i],
  ['coach-amps', /(coach|house|leisure|aux|trailer|bank|battery|shunt)?.*(amp|current)|\bI\b|\(A\)/i],
  ['chassis-volts', /(chassis|start|engine|crank|vehicle).*(volt|\bV\b|\(V\))/i],
  ['coach-volts', /volt|\bV\b|\(V\)/i],
  ['soc', /\b(soc|state of charge|charge %)\b/i],
  ['celsius', /temp|°C|celsius/i],
];

/** What a file seems to be, from its first rows: a mapping to look over, never silently the last word. */
export function guessMap(rows: readonly (readonly string[])[], zone: string): ColumnMap {
  const widest = Math.max(0, ...rows.map((r) => r.length));
  const numeric = (cell: string) => !Number.isNaN(readNumber(cell, '.')) || !Number.isNaN(readNumber(cell, ','));
  // The header is the last row of words before rows of numbers.
  const header = Math.max(
    0,
    rows.findIndex(
      (r, i) =>
        r.length === widest && r.length > 1 && r.filter(numeric).length === 0 && (rows[i + 1]?.some(numeric) ?? false),
    ),
  );
  const names = rows[header] ?? [];
  const data = rows.slice(header + 1).filter((r) => r.length === widest);
  const sample = data.slice(0, 200);
  const share = (index: number, test: (cell: string) => boolean) =>
    sample.filter((r) => test(r[index] ?? '')).length / Math.max(1, sample.length);
  const dated = (i: number) =>
    share(i, (c) => !Number.isNaN(readTime(c, 'iso').seconds) || !Number.isNaN(readTime(c, 'month-first').seconds));
  const candidates = names.map((_, i) => i);
  const time = candidates.find((i) => dated(i) > 0.9) ?? candidates.find((i) => TIME_NAMES.test(names[i] ?? '')) ?? 0;
  const clock = candidates.find((i) => i !== time && share(i, (c) => /^\s*\d{1,2}:\d{2}(:\d{2})?/.test(c)) > 0.9);
  const format = timeFormat(sample.map((r) => r[time] ?? ''));
  const commas = sample
    .flatMap((r) => r.filter((_, i) => i !== time && i !== clock))
    .filter((c) => /^\s*[+-]?\d+,\d+\s*$/.test(c)).length;
  const points = sample
    .flatMap((r) => r.filter((_, i) => i !== time && i !== clock))
    .filter((c) => /^\s*[+-]?\d+\.\d+\s*$/.test(c)).length;
  const decimal = commas > points ? ',' : '.';
  const columns: ColumnMap['columns'] = [];
  for (const index of candidates) {
    if (index === time || index === clock || share(index, (c) => !Number.isNaN(readNumber(c, decimal))) < 0.3) continue;
    const name = (names[index] ?? `Column ${index + 1}`).trim();
    const found = ROLES.find(([role, pattern]) => pattern.test(name) && !columns.some((c) => c.role === role));
    if (found) columns.push({ index, role: found[0], name, times: /\bm[VA]\b|\(m[VA]\)/.test(name) ? 0.001 : 1 });
  }
  return { time, ...(clock === undefined ? {} : { clock }), format, zone, decimal, columns, header };
}

function timeFormat(cells: readonly string[]): TimeFormat {
  const some = cells.filter((c) => c.trim() !== '');
  const numbers = some.map((c) => Number(c.trim().replace(',', '.')));
  if (some.length > 0 && numbers.every((n) => Number.isFinite(n))) {
    const first = numbers[0]!;
    return first > 1e11 ? 'milliseconds' : first > 1e8 ? 'seconds' : 'elapsed';
  }
  if (some.every((c) => /^\s*\d{4}[-/.]/.test(c))) return 'iso';
  // A number over twelve gives it away; where none does, the day is taken to be first and the mapping says so.
  const first = some.map((c) => Number(/^\s*(\d{1,2})[-/.]/.exec(c)?.[1]));
  const second = some.map((c) => Number(/^\s*\d{1,2}[-/.](\d{1,2})/.exec(c)?.[1]));
  return second.some((n) => n > 12) && !first.some((n) => n > 12) ? 'month-first' : 'day-first';
}

/** Rows into a series. `elapsedFrom` is when elapsed times begin, s since 1970. */
export class CsvLogReader {
  private readonly builder: SeriesBuilder;
  private readonly offset: ((utc: number) => number) | undefined;
  private readonly row: Float64Array;
  private line: number;
  private skip: number;

  constructor(
    private readonly map: ColumnMap,
    private readonly elapsedFrom = 0,
  ) {
    this.builder = new SeriesBuilder(map.columns);
    this.offset = map.zone === 'UTC' ? undefined : zoneOffsets(map.zone);
    this.row = new Float64Array(map.columns.length);
    this.line = 0;
    this.skip = map.header + 1;
  }

  push(rows: readonly (readonly string[])[]): void {
    const { map, builder, row } = this;
    for (const cells of rows) {
      this.line++;
      if (this.skip > 0) {
        this.skip--;
        continue;
      }
      if (cells.length === 1 && cells[0]!.trim() === '') continue;
      const stamp =
        map.clock === undefined ? (cells[map.time] ?? '') : `${cells[map.time] ?? ''} ${cells[map.clock] ?? ''}`;
      const { seconds, zoned } = readTime(stamp, map.format);
      if (Number.isNaN(seconds)) {
        builder.drop();
        builder.problem({
          kind: 'not-a-time',
          line: this.line,
          found: stamp.slice(0, 40) || 'nothing',
          wanted: 'a time like the others in this column: the line is left out',
        });
        continue;
      }
      const t =
        map.format === 'elapsed'
          ? this.elapsedFrom + seconds
          : zoned || !this.offset
            ? seconds
            : toUtc(seconds, this.offset);
      for (let k = 0; k < map.columns.length; k++) {
        const c = map.columns[k]!;
        const cell = cells[c.index] ?? '';
        const n = readNumber(cell, map.decimal);
        if (Number.isNaN(n) && cell.trim() !== '')
          builder.problem({
            kind: 'not-a-number',
            line: this.line,
            found: `${c.name}: ${cell.trim().slice(0, 30)}`,
            wanted: `a number with a decimal ${map.decimal === ',' ? 'comma' : 'point'}: the cell is left empty`,
          });
        row[k] = n * c.times;
      }
      builder.add(this.line, t, row);
    }
  }

  finish(): LogSeries {
    return this.builder.finish();
  }
}
