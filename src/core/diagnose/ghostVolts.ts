/**
 * Ghost volts: what a meter of ten megohms shows on points that nothing holds any more, an open circuit on one side and no
 * load on the other. Leaks, neighbors and a diode's own trickle set it, no drawing does; a load on the same points would
 * take it down to nothing. Common practice, sizes from memory.
 */

/** V, one standard deviation, near nothing. */
const GHOST_VOLTS = 0.6;
/** Ω behind a dead point from which no load holds it down: a module's input does not, a coil or a lamp does. */
const HELD_OHMS = 300;
const DEAD_VOLTS = 1;
/** Ω from which it is a leak that feeds a live point, and V by which that is unsure: from none to all of it may be there. */
const FED_BY_LEAK_OHMS = 3000;
const FED_VOLTS = 0.2;
/** Ω from which leaks alone say what a point reads: that is as unsure as it is large. */
const LEFT_ALONE_OHMS = 1e5;

/** How often such a point reads nothing at all rather than a ghost. */
export const NO_GHOST_SHARE = 0.5;

/** V² that ghost volts add where so many ohms stand behind a point that is worked out to read so much. */
export function ghostVariance(ohms: number, volts: number): number {
  if (ohms > LEFT_ALONE_OHMS) return Math.max(GHOST_VOLTS, Math.abs(volts)) ** 2;
  if (ohms > HELD_OHMS && Math.abs(volts) < DEAD_VOLTS) return GHOST_VOLTS ** 2;
  return ohms > FED_BY_LEAK_OHMS ? FED_VOLTS ** 2 : 0;
}
