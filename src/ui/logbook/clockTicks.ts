/** Ticks of a time axis where a clock would have them: whole seconds, minutes, quarters, hours, days. */
const MINUTE = 60;
const HOUR = 3600;
const DAY = 86_400;
const STEPS: readonly number[] = [
  1,
  2,
  5,
  10,
  15,
  30,
  MINUTE,
  2 * MINUTE,
  5 * MINUTE,
  10 * MINUTE,
  15 * MINUTE,
  30 * MINUTE,
  HOUR,
  2 * HOUR,
  3 * HOUR,
  6 * HOUR,
  12 * HOUR,
  DAY,
  2 * DAY,
  7 * DAY,
  30 * DAY,
  90 * DAY,
  365 * DAY,
];

export interface ClockTicks {
  /** s between two ticks. */
  step: number;
  at: number[];
}

/** @param from, to seconds since 1970. @param ahead seconds the clock that is read is ahead of UTC. */
export function clockTicks(from: number, to: number, most: number, ahead = 0): ClockTicks {
  const step = STEPS.find((s) => (to - from) / s <= most) ?? STEPS.at(-1)!;
  const at: number[] = [];
  for (let t = Math.ceil((from + ahead) / step) * step - ahead; t <= to; t += step) at.push(t);
  return { step, at };
}

/** date-fns pattern for a tick: the day where one begins, no seconds where there are none. */
export const tickPattern = (t: number, step: number, ahead = 0): string =>
  step >= DAY || (t + ahead) % DAY === 0 ? 'd MMM' : step >= MINUTE ? 'HH:mm' : 'HH:mm:ss';
