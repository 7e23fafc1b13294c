/**
 * Recognises a controller that goes through the same short cycle again and again: hunting. Two wearing hours
 * of a relay's chatter say no more than its first minute, so the simulation jumps over repeats of it.
 */

/** A cycle longer than this is work, not hunting: a timed window takes hours. */
const LONGEST_PERIOD_SECONDS = 900;
/** Cycles that must agree, and how well. */
const MIN_CYCLES = 4;
const AGREE_SHARE = 0.08;
/** Cycles that never agree are hunting too where so many of them come within the time one may last; judged by so many at once. */
const RAGGED_CYCLES = 12;
const RAGGED_ROUND = 6;
/** s within which two changes are one instant's. */
const SAME_INSTANT_SECONDS = 1e-6;

interface Watch {
  /** Times it entered each mode, newest last. */
  entered: Map<string, number[]>;
  changes: number;
  hunting: boolean;
  /** Changes since its cycles came one after the other and did not agree. */
  ragged: number;
}

export interface Cycle {
  controller: number;
  mode: string;
  /** s */
  period: number;
  /** True when this controller had not been seen hunting before. */
  first: boolean;
}

/** s of a cycle that has come round so many times alike; undefined where it has not. */
function alike(times: readonly number[]): number | undefined {
  if (times.length <= MIN_CYCLES) return undefined;
  const gaps = times.slice(1).map((x, i) => x - times[i]!);
  const period = gaps[gaps.length - 1]!;
  const same = gaps.every((g) => Math.abs(g - period) <= AGREE_SHARE * period + 1);
  return period > 0 && period < LONGEST_PERIOD_SECONDS && same ? period : undefined;
}

export class HuntingWatch {
  private readonly watches: Watch[];
  private readonly ever = new Set<number>();

  constructor(controllers: number) {
    this.watches = Array.from({ length: controllers }, () => ({
      entered: new Map(),
      changes: 0,
      hunting: false,
      ragged: 0,
    }));
  }

  /** Notes a change of mode; tells the cycle when it is one more round of the same. */
  changed(k: number, mode: string, t: number): Cycle | undefined {
    const watch = this.watches[k]!;
    watch.changes++;
    const times = watch.entered.get(mode) ?? [];
    // Back and forth at one instant is entered once.
    if (times.length > 0 && t - times[times.length - 1]! < SAME_INSTANT_SECONDS) return undefined;
    times.push(t);
    if (times.length > RAGGED_CYCLES + 1) times.shift();
    watch.entered.set(mode, times);
    const period = alike(times.slice(-MIN_CYCLES - 1)) ?? this.ragged(watch, times);
    watch.hunting = period !== undefined || watch.ragged > 0;
    if (period === undefined) return undefined;
    const news = !this.ever.has(k);
    this.ever.add(k);
    return { controller: k, mode, period, first: news };
  }

  /** s the last so many cycles took together, whenever as many more have come; undefined in between and where they are slow. */
  private ragged(watch: Watch, times: readonly number[]): number | undefined {
    const span = times[times.length - 1]! - times[0]!;
    watch.ragged = times.length > RAGGED_CYCLES && span < LONGEST_PERIOD_SECONDS ? watch.ragged + 1 : 0;
    if (watch.ragged === 0 || watch.ragged % RAGGED_ROUND !== 0) return undefined;
    return times[times.length - 1]! - times[times.length - 1 - RAGGED_ROUND]!;
  }

  /** True while it hunts: its single changes are then not told. */
  silent(k: number): boolean {
    return this.watches[k]!.hunting;
  }

  /** After a leap in time the old times say nothing. */
  shift(by: number): void {
    for (const w of this.watches) for (const times of w.entered.values()) times.forEach((x, i) => (times[i] = x + by));
  }

  /** The controller that changed its mode most often; undefined where none did. */
  get busiest(): number | undefined {
    const most = Math.max(0, ...this.watches.map((w) => w.changes));
    return most > 0 ? this.watches.findIndex((w) => w.changes === most) : undefined;
  }

  /** Controllers that ever hunted. */
  get hunters(): readonly number[] {
    return [...this.ever];
  }
}
