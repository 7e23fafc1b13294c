/** What a recorder wrote, as columns of numbers over time. */

/** What a column is of. A new kind of column is a row. */
export const LOG_ROLES = [
  { id: 'chassis-volts', label: 'Start battery, volts', unit: 'V' },
  { id: 'coach-volts', label: 'Coach or trailer bank, volts', unit: 'V' },
  { id: 'link-amps', label: 'Through the link, amps (toward coach +)', unit: 'A' },
  { id: 'coach-amps', label: 'Coach bank, amps (charging +)', unit: 'A' },
  { id: 'chassis-amps', label: 'Start battery, amps (charging +)', unit: 'A' },
  { id: 'alternator-amps', label: 'Alternator, amps', unit: 'A' },
  { id: 'celsius', label: 'Temperature, °C', unit: '°C' },
  { id: 'soc', label: 'Charge, %', unit: '%' },
] as const;
export type LogRole = (typeof LOG_ROLES)[number]['id'];

export const roleOf = (id: string): (typeof LOG_ROLES)[number] | undefined => LOG_ROLES.find((r) => r.id === id);

export interface LogChannel {
  role: LogRole;
  /** As the recorder calls it. */
  name: string;
  /** SI; NaN where there is none. */
  values: Float64Array;
}

export interface LogProblem {
  kind: 'not-a-number' | 'not-a-time' | 'backwards' | 'columns' | 'frame';
  /** Line of the file, from 1. */
  line: number;
  found: string;
  wanted: string;
}

export interface LogSeries {
  /** Seconds since 1970, UTC, rising. */
  t: Float64Array;
  channels: LogChannel[];
  /** The first of each kind of problem, and how many in all. */
  problems: LogProblem[];
  counts: Readonly<Partial<Record<LogProblem['kind'], number>>>;
  /** Lines that hold data, and how many of them could not be placed in time. */
  rows: number;
  dropped: number;
  /** Seconds between samples, usually. */
  interval: number;
  /** Stretches without samples, s since 1970. */
  gaps: { from: number; to: number }[];
}

/** A gap is where samples stay away this many times their usual interval. */
const GAP_INTERVALS = 6;
const MAX_PROBLEMS = 5;

/** Takes rows as they come, a million of them; numbers live in arrays that double. */
export class SeriesBuilder {
  private t = new Float64Array(4096);
  private readonly columns: Float64Array<ArrayBuffer>[];
  private count = 0;
  private rows = 0;
  private dropped = 0;
  private readonly problems: LogProblem[] = [];
  private readonly counts: Partial<Record<LogProblem['kind'], number>> = {};

  constructor(private readonly of: readonly { role: LogRole; name: string }[]) {
    this.columns = of.map(() => new Float64Array(4096));
  }

  problem(p: LogProblem): void {
    this.counts[p.kind] = (this.counts[p.kind] ?? 0) + 1;
    if (this.counts[p.kind]! <= MAX_PROBLEMS) this.problems.push(p);
  }

  /** A line that is data but has no place in time. */
  drop(): void {
    this.rows++;
    this.dropped++;
  }

  /** One sample; refuses time that runs backwards. */
  add(line: number, t: number, values: ArrayLike<number>): void {
    this.rows++;
    const last = this.count > 0 ? this.t[this.count - 1]! : -Infinity;
    if (t < last) {
      this.dropped++;
      this.problem({
        kind: 'backwards',
        line,
        found: `${(last - t).toFixed(0)} s before the line above`,
        wanted: 'times that rise: the line is left out. A clock set back, or two logs in one file?',
      });
      return;
    }
    if (this.count === this.t.length) {
      this.t = grown(this.t);
      for (let k = 0; k < this.columns.length; k++) this.columns[k] = grown(this.columns[k]!);
    }
    this.t[this.count] = t;
    for (let k = 0; k < this.columns.length; k++) this.columns[k]![this.count] = values[k]!;
    this.count++;
  }

  finish(): LogSeries {
    const t = this.t.slice(0, this.count);
    const steps = new Float64Array(Math.min(2000, Math.max(0, this.count - 1)));
    const stride = Math.max(1, Math.floor((this.count - 1) / Math.max(1, steps.length)));
    for (let i = 0; i < steps.length; i++) steps[i] = t[i * stride + 1]! - t[i * stride]!;
    steps.sort();
    const interval = steps.length > 0 ? steps[steps.length >> 1]! : 0;
    const gaps: LogSeries['gaps'] = [];
    for (let i = 1; i < this.count; i++)
      if (t[i]! - t[i - 1]! > Math.max(2, GAP_INTERVALS * interval)) gaps.push({ from: t[i - 1]!, to: t[i]! });
    return {
      t,
      channels: this.of.map((c, k) => ({ ...c, values: this.columns[k]!.slice(0, this.count) })),
      problems: this.problems,
      counts: this.counts,
      rows: this.rows,
      dropped: this.dropped,
      interval,
      gaps,
    };
  }
}

const grown = (a: Float64Array<ArrayBuffer>): Float64Array<ArrayBuffer> => {
  const b = new Float64Array(a.length * 2);
  b.set(a);
  return b;
};
