/**
 * What a fault does to the electrical model, as data. A severity is drawn log-uniformly between two
 * resistances or factors, or uniformly between two shifts.
 */
export type Effect =
  | { do: 'open'; element: string }
  /** A contact that stays made whatever should open it. */
  | { do: 'stuck-closed'; element: string }
  /** Something else draws beside the element: a resistance in parallel. */
  | { do: 'parallel-ohms'; element: string; from: number; to: number }
  /** A parameter of the rig is another than stated: by a factor, or by so much. */
  | { do: 'scale-param'; param: string; from: number; to: number }
  | { do: 'shift-param'; param: string; from: number; to: number }
  | { do: 'replace-ohms'; element: string; from: number; to: number }
  /** `behind` is a point whose lead lies on the far side of what is added: on a battery's post, inside its clamp. */
  | { do: 'add-ohms'; element: string; from: number; to: number; behind?: string }
  | { do: 'open-battery'; part: string }
  | { do: 'shift-volts'; element: string; from: number; to: number }
  | { do: 'no-output'; element: string }
  | { do: 'dead-controller'; part: string };

/** A battery with an open cell still leaks this much: enough to keep the network solvable. */
export const OPEN_CELL_OHMS = 1e6;

export const hasSeverity = (effects: readonly Effect[]): boolean => effects.some((e) => 'from' in e);

/** The effect's size at severity share s: 0 is `from`, 1 is `to`. Ohms and factors go in equal ratios. */
export function severityAt(effect: { do: string; from: number; to: number }, s: number): number {
  return effect.do === 'shift-volts' || effect.do === 'shift-param'
    ? effect.from + (effect.to - effect.from) * s
    : effect.from * Math.pow(effect.to / effect.from, s);
}
