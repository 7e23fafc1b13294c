/**
 * How warm a bank is that heats itself: air, and a first-order body that its heater lifts. Of a lithium bank of 100 Ah,
 * 11 kg at 1,000 J/(kg·K) in a closed compartment that loses 1.2 W/K, under 0.6 W/Ah: figures from memory.
 */
import type { RigNetwork } from '../operate/rigNetwork';

/** K its heater would lift it to if left on, and seconds its body takes (1/e). */
export const HEATER_LIFT_KELVIN = 48;
export const BANK_WARMING_SECONDS = 9000;
/** K a step may change it by. */
const MOST_KELVIN_A_STEP = 2;

export class BatteryWarmth {
  /** K above the air at the start of the step. */
  rise = 0;
  private end = 0;
  private air = 25;
  /** Whether an hour's air has been felt yet. */
  private started = false;
  private readonly heater: number;

  constructor(
    net: RigNetwork,
    private readonly part: string,
  ) {
    this.heater = net.compiled.topology.resistors.findIndex((r) => r.id === `${part}.heater`);
  }

  /** Takes the air of the hour. @returns °C of the bank now. */
  refresh(net: RigNetwork, air: number): number {
    // A sudden change of the air is not one of the bank's.
    this.rise += this.started ? this.air - air : 0;
    this.started = true;
    this.air = air;
    net.warmth.set(this.part, air + this.rise);
    return air + this.rise;
  }

  /** Where it is after a step of h seconds; what its BMS then feels. */
  ahead(net: RigNetwork, h: number): void {
    const on = Number.isFinite(net.values.resistorOhms[this.heater]!);
    const target = on ? HEATER_LIFT_KELVIN : 0;
    this.end = target + (this.rise - target) * Math.exp(-h / BANK_WARMING_SECONDS);
    net.warmth.set(this.part, this.air + this.end);
  }

  /** A step in which it changes by more than it may is too long. */
  error(): number {
    return Math.abs(this.end - this.rise) > MOST_KELVIN_A_STEP ? Infinity : 0;
  }

  accept(): void {
    this.rise = this.end;
  }

  restore(rise: number): void {
    this.rise = rise;
  }
}
