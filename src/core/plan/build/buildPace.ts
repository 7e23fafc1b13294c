/** What a shop's own builds say of its minutes: planned ones are then taken times this, kind of step by kind. */

export interface DoneStep {
  step: string;
  /** As it took, and as it was planned then. */
  minutes?: number;
  planned?: number;
}

export type BuildPace = Readonly<Record<string, { times: number; steps: number }>>;

/** Fewer say nothing. */
const MIN_SAMPLES = 3;
/** Beyond these somebody was called away, or ticked it off later: assumed. */
const SANE = { least: 0.2, most: 5 };

/** What kind of step an id is of: isolate, off, pull, mount … */
export const stepKind = (id: string): string => id.split('-')[0]!;

/** Median of actual over planned minutes by kind of step, over all builds. */
export function buildPace(builds: readonly (readonly DoneStep[])[]): BuildPace {
  const ratios = new Map<string, number[]>();
  for (const d of builds.flat()) {
    if (d.minutes === undefined || d.planned === undefined || d.planned <= 0) continue;
    const ratio = d.minutes / d.planned;
    if (ratio < SANE.least || ratio > SANE.most) continue;
    ratios.set(stepKind(d.step), [...(ratios.get(stepKind(d.step)) ?? []), ratio]);
  }
  return Object.fromEntries(
    [...ratios]
      .filter(([, list]) => list.length >= MIN_SAMPLES)
      .map(([kind, list]) => {
        const sorted = [...list].sort((a, b) => a - b);
        const middle = sorted.length >> 1;
        const times = sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
        return [kind, { times: Number(times.toFixed(2)), steps: list.length }];
      }),
  );
}

/** Steps with this shop's minutes in place of the catalogue's. */
export function paced<T extends { id: string; minutes: readonly [number, number] }>(
  steps: readonly T[],
  pace: BuildPace,
): (T & { minutes: [number, number] })[] {
  return steps.map((s) => {
    const times = pace[stepKind(s.id)]?.times ?? 1;
    return { ...s, minutes: [s.minutes[0] * times, s.minutes[1] * times] };
  });
}
