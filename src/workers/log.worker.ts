/// <reference lib="webworker" />
/** A recorder's log in a worker of its own: a million rows are read, kept, and thinned for the screen here. */
import { expose, transfer } from 'comlink';
import { analyseLog, type LogContext, type ReadLog } from '../core/recorderLog/analyse';
import { Extremes, type Thinned } from '../core/recorderLog/extremes';
import type { ColumnMap } from '../core/recorderLog/readCsv';
import { faceOf, HEAD_LENGTH, LOG_LIMIT_BYTES, readLog, type LogFace } from '../core/recorderLog/readLog';
import type { LogRole } from '../core/recorderLog/series';

const UNIT: Readonly<Partial<Record<LogRole, string>>> = {
  'chassis-volts': 'V',
  'coach-volts': 'V',
  celsius: '°C',
  soc: '%',
};
let extremes: { role: LogRole; of: Extremes }[] = [];

const api = {
  async face(file: Blob, zone: string): Promise<LogFace> {
    if (file.size === 0) throw new Error('The file is empty.');
    if (file.size > LOG_LIMIT_BYTES)
      throw new Error(
        `The file has ${Math.round(file.size / 1024 / 1024)} MB; at most ` +
          `${LOG_LIMIT_BYTES / 1024 / 1024} MB are read. Export a shorter stretch.`,
      );
    const head = await file.slice(0, HEAD_LENGTH).text();
    if (head.includes('\u0000'))
      throw new Error('This is not a text file. Export the log as CSV, or as a text log of the CAN bus.');
    return faceOf(head, zone);
  },

  async read(
    file: Blob,
    face: LogFace,
    map: ColumnMap | undefined,
    context: LogContext,
    progress: (share: number) => void,
  ): Promise<ReadLog> {
    const series = readLog(await file.text(), face, map, progress);
    if (series.t.length === 0) {
      const [first] = series.problems;
      throw new Error(
        `None of ${series.rows} lines is a sample. ` +
          (first
            ? `Line ${first.line}: found ${first.found}, wanted ${first.wanted}.`
            : 'Is a column of times picked, and one of numbers?'),
      );
    }
    extremes = series.channels.map((c) => ({ role: c.role, of: new Extremes(series.t, c.values) }));
    return {
      reading: analyseLog(series, context),
      channels: series.channels.map((c) => {
        let [low, high] = [Infinity, -Infinity];
        for (const v of c.values) {
          if (v < low) low = v;
          if (v > high) high = v;
        }
        return { role: c.role, name: c.name, unit: UNIT[c.role] ?? 'A', low, high };
      }),
      problems: series.problems,
      counts: series.counts,
      gaps: series.gaps.length,
    };
  },

  /** Every channel between two instants in at most twice so many points, no extreme lost. */
  window(from: number, to: number, buckets: number): { role: LogRole; points: Thinned }[] {
    const list = extremes.map((e) => ({ role: e.role, points: e.of.window(from, to, buckets) }));
    return transfer(
      list,
      list.flatMap((x) => [x.points.t.buffer, x.points.values.buffer]),
    );
  },
};

export type LogApi = typeof api;
expose(api);
