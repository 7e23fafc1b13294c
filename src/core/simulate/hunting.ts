/**
 * Recognises a controller that goes through the same short cycle again and again: hunting. Two wearing hours
 * of a relay's chatter say no more than its first minute, so the simulation jumps over repeats of it.
 */

/** A cycle longer than this is work, not hunting: a timed window takes hours. */
const LONGEST_PERIOD_SECONDS = 900;
/** Cycles that must agree, and how well. */
const MIN_CYCLES = 4;
const AGREE_SHARE = 0.08;

interface Watch {
  /** Times it entered each mode, newest last. */
  entered: Map<string, number[]>;
  changes: number;
  hunting: boolean;
}

export interface Cycle {
  controller: number;
  mode: string;
  /** s */
  period: number;
  /** True when this controller had not been seen hunting before. */
  first: boolean;
}

export class HuntingWatch {
  private readonly watches: Watch[];
  private readonly ever = new Set<number>();

  constructor(controllers: number) {
    this.watches = Array.from({ length: controllers }, () => ({ entered: new Map(), changes: 0, hunting: false }));
  }

  /** Notes a change of mode; tells the cycle when it is one more round of the same. */
  changed(k: number, mode: string, t: number): Cycle | undefined {
    const watch = this.watches[k]!;
    const times = watch.entered.get(mode) ?? [];
    times.push(t);
    if (times.length > MIN_CYCLES + 1) times.shift();
    watch.entered.set(mode, times);
    if (times.length <= MIN_CYCLES) return undefined;
    const gaps = times.slice(1).map((x, i) => x - times[i]!);
    const period = gaps[gaps.length - 1]!;
    const same =
      period > 0 &&
      period < LONGEST_PERIOD_SECONDS &&
      gaps.every((g) => Math.abs(g - period) <= AGREE_SHARE * period + 1);
    watch.hunting = same;
    if (!same) return undefined;
    const news = !this.ever.has(k);
    this.ever.add(k);
    return { controller: k, mode, period, first: news };
  }

  /** True while it hunts: its single changes are then not told. */
  silent(k: number): boolean {
    return this.watches[k]!.hunting;
  }

  /** After a leap in time the old times say nothing. */
  shift(by: number): void {
    for (const w of this.watches) for (const times of w.entered.values()) times.forEach((x, i) => (times[i] = x + by));
  }

  /** Controllers that ever hunted. */
  get hunters(): readonly number[] {
    return [...this.ever];
  }
}
