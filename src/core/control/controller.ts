/**
 * What every controller is: a pure step from a mode and what it feels at its terminals to the next mode,
 * its outputs and the reason in words. Solving, predicting, measuring and simulating all call the same step.
 */
export interface Mode {
  name: string;
  /** Seconds spent in this mode. */
  seconds: number;
}

/** Volts (or on/off as 1/0) by input name. */
export type ControllerInputs = Readonly<Record<string, number>>;

export interface ControllerStep {
  mode: Mode;
  /** Contacts this controller holds closed, by name. */
  closed: Readonly<Record<string, boolean>>;
  /** One sentence: why it is in this mode. */
  why: string;
  /** Seconds until a timer may change the mode with nothing else changing; absent when none runs. */
  timer?: number;
}

export interface ControllerKind {
  id: string;
  initial: string;
  step(mode: Mode, inputs: ControllerInputs, settings: Readonly<Record<string, number>>, dt: number): ControllerStep;
}

/** Same mode with its clock moved on, or a new mode with its clock at zero. */
export function enter(mode: Mode, name: string, dt: number): Mode {
  return mode.name === name ? { name, seconds: mode.seconds + dt } : { name, seconds: 0 };
}
