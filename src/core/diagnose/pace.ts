/**
 * What a shop's own rounds say of its minutes: from one reading to the next in a new place is what opening
 * that place took. Offered to the shop beside the assumed figure, never taken over by itself.
 */
export interface TimedStep {
  /** Minutes since any fixed time. */
  minute: number;
  state: string;
  place: string;
}

export interface Pace {
  place: string;
  minutes: number;
  /** How many times somebody went there. */
  times: number;
}

/** A measurement itself takes about this long (rigMeasurements): what is left is the way. */
const MEASURING_MINUTES = 0.7;
/** Longer than this somebody was called away. Assumed. */
const MAX_ACCESS_MINUTES = 20;
/** Fewer say nothing. */
const MIN_SAMPLES = 5;

/** Median minutes to open each place, over rounds of readings in the order they were taken. */
export function paceOf(rounds: readonly (readonly TimedStep[])[]): Pace[] {
  const ways = new Map<string, number[]>();
  for (const round of rounds) {
    const been = new Set<string>();
    round.forEach((step, i) => {
      const before = round[i - 1];
      const first = !been.has(step.place);
      been.add(step.place);
      // A change of state has minutes of its own; only the first way to a place opens it.
      if (!before || !first || before.state !== step.state || before.place === step.place) return;
      const minutes = step.minute - before.minute - MEASURING_MINUTES;
      if (minutes <= 0 || minutes > MAX_ACCESS_MINUTES) return;
      ways.set(step.place, [...(ways.get(step.place) ?? []), minutes]);
    });
  }
  return [...ways]
    .filter(([, list]) => list.length >= MIN_SAMPLES)
    .map(([place, list]) => {
      const sorted = [...list].sort((a, b) => a - b);
      const middle = sorted.length >> 1;
      const median = sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
      return { place, minutes: Number(median.toFixed(1)), times: list.length };
    })
    .sort((a, b) => b.times - a.times);
}
