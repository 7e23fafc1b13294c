/** What the Logbook asks of the other side: the rig's jobs, and a log read aside. */
import type { LogContext, ReadLog } from '../../core/recorderLog/analyse';
import type { Thinned } from '../../core/recorderLog/extremes';
import type { ColumnMap } from '../../core/recorderLog/readCsv';
import type { LogFace } from '../../core/recorderLog/readLog';
import type { LogRole } from '../../core/recorderLog/series';
import type { Job, KeptLog } from '../../core/job/job';

export interface LogbookSource {
  history(): Promise<Job[]>;
  face(file: Blob, zone: string): Promise<LogFace>;
  read(
    file: Blob,
    face: LogFace,
    map: ColumnMap | undefined,
    context: LogContext,
    progress: (share: number) => void,
  ): Promise<ReadLog>;
  window(from: number, to: number, buckets: number): Promise<{ role: LogRole; points: Thinned }[]>;
  /** Stops what is being read. */
  cancel(): void;
  /** Keeps a log itself, packed, beside the job; the record that names it follows. */
  keepFile(file: Blob): Promise<NonNullable<KeptLog['file']>>;
  /** A kept log as the file it was. */
  keptFile(log: KeptLog): Promise<File>;
  /** How columns of such a header were mapped before, and remembering it. */
  remembered(key: string): ColumnMap | undefined;
  remember(key: string, map: ColumnMap): void;
}

export type { ReadLog };
