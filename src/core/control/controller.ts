/**
 * What every controller is: a pure step from a mode and what it feels at its terminals to the next mode,
 * its outputs and the reason in words. Solving, predicting, measuring and simulating all call the same step.
 */
export interface Mode {
  name: string;
  /** Seconds spent in this mode. */
  seconds: number;
}

/**
 * Volts or amps by input name; always there: `celsius`, the air outside, `mains`, 1 while shore
 * cord or generator feeds chargers, `sun`, the share of full sun on the panels, and `held`, 1 while
 * somebody holds the link off by hand.
 */
export type ControllerInputs = Readonly<Record<string, number>>;

export interface ControllerStep {
  mode: Mode;
  /** Contacts this controller holds closed, by name. */
  closed: Readonly<Record<string, boolean>>;
  /** Which of several rules a part goes by, by the choice's name: a charger's stage. */
  chosen?: Readonly<Record<string, string>>;
  /** One sentence: why it is in this mode. */
  why: string;
  /** Seconds until a timer may change the mode with nothing else changing; absent when none runs. */
  timer?: number;
}

export interface ControllerKind {
  id: string;
  initial: string;
  /** What it does in each mode, to stand after the part's name: "closes". A mode without words is passed over in silence. */
  words: Readonly<Record<string, string>>;
  step(mode: Mode, inputs: ControllerInputs, settings: Readonly<Record<string, number>>, dt: number): ControllerStep;
}

/** Same mode with its clock moved on, or a new mode with its clock at zero. */
export function enter(mode: Mode, name: string, dt: number): Mode {
  return mode.name === name ? { name, seconds: mode.seconds + dt } : { name, seconds: 0 };
}
