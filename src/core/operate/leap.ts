/**
 * Controllers that hunt come back to the same point again and again: the same modes, the same volts, the same
 * waits. What follows is then bound to be what followed before, so whole cycles are leapt over at once.
 */
import type { Mode } from '../control/controller';

/** A round of settling in which nobody acts and time goes on: all that decides what follows. */
export interface Pause {
  round: number;
  /** s in the operating state. */
  elapsed: number;
  modes: readonly Mode[];
  /** s each controller still waits, where it waits for something. */
  timers: readonly (number | undefined)[];
  volts: Float64Array;
}

/** Rounds looked back for the same point. */
const LOOK_BACK_ROUNDS = 16;
/** s, and V, within which two pauses are the same. */
const SAME = 1e-9;
const same = (a: number, b: number): boolean => Math.abs(a - b) < SAME;

/** Whether `now` is `then` again: every controller goes round with it, or stands in one mode all along. */
function again(then: Pause, now: Pause): boolean {
  const cycle = now.elapsed - then.elapsed;
  return (
    cycle > SAME &&
    now.modes.every(
      (m, k) =>
        m.name === then.modes[k]!.name &&
        (same(m.seconds, then.modes[k]!.seconds) || same(m.seconds, then.modes[k]!.seconds + cycle)),
    ) &&
    now.volts.every((v, i) => same(v, then.volts[i]!))
  );
}

const before = (past: readonly Pause[], now: Pause): Pause | undefined =>
  past.findLast((p) => now.round - p.round <= LOOK_BACK_ROUNDS && again(p, now));

/** What the controllers did in a cycle that has come round, now and otherwise; undefined where nothing comes back. */
export function cycleOf(past: readonly Pause[], now: Pause): readonly [readonly Mode[], readonly Mode[]] | undefined {
  const then = before(past, now);
  const other = then && past.find((p) => p.round > then.round && p.modes.some((m, k) => m.name !== now.modes[k]!.name));
  return other ? [other.modes, now.modes] : undefined;
}

/**
 * The pause some whole cycles on, as going through them would have reached it; undefined where there is no cycle.
 * No further than the dwell, the rounds there are, and the first wait of one that stands still meanwhile.
 */
export function repeatOf(past: readonly Pause[], now: Pause, dwell: number, lastRound: number): Pause | undefined {
  const then = before(past, now);
  if (!then) return undefined;
  const cycle = now.elapsed - then.elapsed;
  const rounds = now.round - then.round;
  const stands = now.modes.map((m, k) => !same(m.seconds, then.modes[k]!.seconds));
  const longest = Math.min(
    dwell - now.elapsed,
    ...now.timers.map((t, k) => (t !== undefined && stands[k] ? t - SAME : Infinity)),
  );
  const times = Math.max(0, Math.min(Math.floor(longest / cycle), Math.floor((lastRound - now.round) / rounds)));
  const on = times * cycle;
  return {
    round: now.round + times * rounds,
    elapsed: now.elapsed + on,
    modes: now.modes.map((m, k) => (stands[k] ? { ...m, seconds: m.seconds + on } : m)),
    timers: now.timers.map((t, k) => (t !== undefined && stands[k] ? t - on : t)),
    volts: now.volts,
  };
}
