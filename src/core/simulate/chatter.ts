/**
 * What flips back and forth at one instant: a relay whose own load takes away what holds it, a charger whose own amps
 * stop it. No time passes in it, so no cycle of seconds can be seen; it is held in its quieter way for a moment, and
 * looks again.
 */

/** s it is held: about what a contact needs to bounce, fall and be pulled again many times (assumed). */
export const CHATTER_HOLD_SECONDS = 1;
/** s under which a hold is over: steps end on it but for rounding. */
const OVER_SECONDS = 1e-6;
/** Changes at one instant from which it is held where it passes nothing, and from which it is held anyhow. */
const FLIPS_TO_HOLD_OPEN = 4;
const FLIPS_TO_HOLD = 6;

export class Chatter {
  private readonly flips: number[];
  private readonly until: number[];

  constructor(controllers: number) {
    this.flips = new Array<number>(controllers).fill(0);
    this.until = new Array<number>(controllers).fill(-Infinity);
  }

  /** A new instant begins: nothing has flipped in it. */
  instant(): void {
    this.flips.fill(0);
  }

  /** s a controller is still held at t; 0 where it may act. */
  left(k: number, t: number): number {
    const left = this.until[k]! - t;
    return left > OVER_SECONDS ? left : 0;
  }

  /** True while it is held and just after: its single changes say nothing. */
  goesOn(k: number, t: number): boolean {
    return this.until[k]! > t - 2 * CHATTER_HOLD_SECONDS;
  }

  /** After a leap in time. */
  shift(by: number): void {
    this.until.forEach((t, k) => (this.until[k] = t + by));
  }

  /**
   * A controller changed its mode at t. True where it is held there from now on.
   * @param passes whether it passes anything in its new mode.
   */
  flipped(k: number, passes: boolean, t: number): boolean {
    const flips = (this.flips[k] = this.flips[k]! + 1);
    if (flips < FLIPS_TO_HOLD && !(flips >= FLIPS_TO_HOLD_OPEN && !passes)) return false;
    this.until[k] = t + CHATTER_HOLD_SECONDS;
    return true;
  }
}
