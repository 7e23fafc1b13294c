/**
 * What a fault does to the electrical model, as data. A severity is drawn log-uniformly between two
 * resistances, or uniformly between two shifts.
 */
export type Effect =
  | { do: 'open'; element: string }
  | { do: 'replace-ohms'; element: string; from: number; to: number }
  | { do: 'add-ohms'; element: string; from: number; to: number }
  | { do: 'open-battery'; part: string }
  | { do: 'shift-volts'; element: string; from: number; to: number }
  | { do: 'no-output'; element: string }
  | { do: 'dead-controller'; part: string };

/** A battery with an open cell still leaks this much: enough to keep the network solvable. */
export const OPEN_CELL_OHMS = 1e6;

export const hasSeverity = (effects: readonly Effect[]): boolean => effects.some((e) => 'from' in e);

/** The effect's size at severity share s: 0 is `from`, 1 is `to`. Ohms go in equal ratios. */
export function severityAt(effect: { do: string; from: number; to: number }, s: number): number {
  return effect.do === 'shift-volts'
    ? effect.from + (effect.to - effect.from) * s
    : effect.from * Math.pow(effect.to / effect.from, s);
}
