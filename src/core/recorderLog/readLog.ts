/** A whole log text to a series: which kind it is, how it maps, with the CSV library cutting the cells. */
import Papa from 'papaparse';
import { CanLogReader, looksLikeCan } from './readCan';
import { CsvLogReader, guessDelimiter, guessMap, type ColumnMap } from './readCsv';
import type { LogSeries } from './series';

/** Longest text that is read as a log: a million rows of eight columns, twice over. */
export const LOG_LIMIT_BYTES = 200 * 1024 * 1024;
/** What of a text is looked at to find out what it is. */
export const HEAD_LENGTH = 64 * 1024;

export interface LogFace {
  kind: 'csv' | 'can';
  /** First rows as cells, for a person to look at. */
  rows: string[][];
  delimiter: string;
  map: ColumnMap | undefined;
}

/** What a log seems to be, from its beginning. */
export function faceOf(head: string, zone: string): LogFace {
  if (looksLikeCan(head))
    return {
      kind: 'can',
      rows: head
        .split(/\r?\n/)
        .slice(0, 8)
        .map((l) => [l]),
      delimiter: '',
      map: undefined,
    };
  const delimiter = guessDelimiter(head);
  // The last line of a head may be cut in the middle.
  const whole = head.length >= HEAD_LENGTH ? head.slice(0, Math.max(head.lastIndexOf('\n'), 0)) : head;
  const rows = Papa.parse<string[]>(whole, { delimiter, skipEmptyLines: 'greedy', preview: 400 }).data;
  return { kind: 'csv', rows: rows.slice(0, 12), delimiter, map: guessMap(rows, zone) };
}

const LINES_A_BATCH = 20_000;

/** Reads it all. `progress` gets shares; it may throw to cancel. */
export function readLog(
  text: string,
  face: LogFace,
  map: ColumnMap | undefined,
  progress: (share: number) => void = () => undefined,
): LogSeries {
  if (face.kind === 'can') {
    const reader = new CanLogReader();
    for (let at = 0; at < text.length;) {
      // Whole lines of about a megabyte at a time.
      let end = Math.min(text.length, at + 1_000_000);
      if (end < text.length) end = text.indexOf('\n', end) + 1 || text.length;
      reader.push(text.slice(at, end).split(/\r?\n/));
      at = end;
      progress(at / text.length);
    }
    return reader.finish();
  }
  const reader = new CsvLogReader(map ?? face.map!);
  let rows: string[][] = [];
  let done = 0;
  Papa.parse<string[]>(text, {
    delimiter: face.delimiter,
    skipEmptyLines: 'greedy',
    step: ({ data, meta }) => {
      rows.push(data);
      if (rows.length < LINES_A_BATCH) return;
      reader.push(rows);
      rows = [];
      if (meta.cursor > done) progress((done = meta.cursor) / text.length);
    },
  });
  reader.push(rows);
  progress(1);
  return reader.finish();
}
