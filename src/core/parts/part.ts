/**
 * What a kind of part is: terminals a lead can touch, parameters, the elements between its terminals and,
 * if it decides anything, its controller. One kind, one file; a new kind is a new file and a row in kinds.ts.
 */
import type { ControllerKind } from '../control/controller';
import type { InputSwitch, OperatingInputs } from '../control/inputs';
import type { ParameterSpec } from '../units/parameter';

export interface TerminalSpec {
  id: string;
  /** What a technician calls the point. */
  label: string;
  /** Where the red lead goes. */
  lead: string;
  /** Extra minutes to get a lead on it beyond reaching the part: a cover, a crawl. */
  accessMinutes?: number;
  /** Nothing need be on it for the part to work. */
  optional?: boolean;
}

/** A choice a part is bought or set with: chemistry, kind of switch. */
export interface OptionSpec {
  label: string;
  choices: readonly { id: string; label: string }[];
  default: string;
}

/** What a rule may know of its part beside the numbers. */
export interface PartContext {
  options: Readonly<Record<string, string>>;
  /** Nominal volts of the vehicle it sits in: 12, 24 or 48. */
  nominal: number;
}

/** A value worked out from parameters and from what the rig is doing. SI. */
export interface Rule {
  params: readonly string[];
  value(p: readonly number[], inputs: OperatingInputs, part: PartContext): number;
}

/** One rule of several, picked by an output of the part's own controller: a charger's stage picks its set-point. */
export interface Choice {
  by: string;
  of: Readonly<Record<string, Rule>>;
}
export type Value = Rule | Choice;

export type ClosedBy = { input: InputSwitch } | { controller: string };

export type ElementSpec =
  | { kind: 'resistor'; id: string; a: string; b: string; ohms: Rule }
  | { kind: 'contact'; id: string; a: string; b: string; ohms: Rule; closedBy: ClosedBy }
  | { kind: 'emf'; id: string; plus: string; minus: string; volts: Rule; ohms: Value }
  | { kind: 'source'; id: string; plus: string; minus: string; volts: Value; ohms: Rule; limit: Value }
  | { kind: 'lamp'; id: string; plus: string; minus: string; volts: Rule; watts: Rule }
  | { kind: 'diode'; id: string; anode: string; cathode: string; saturation: Rule; emission: Rule }
  /**
   * Takes power at one pair of terminals and gives it at another: a `source` there, never back. Takes what it
   * gives divided by its efficiency, at most `inLimit` amps; `idle` watts for itself while it runs.
   */
  | {
      kind: 'converter';
      id: string;
      inPlus: string;
      inMinus: string;
      outPlus: string;
      outMinus: string;
      volts: Value;
      ohms: Rule;
      limit: Value;
      inLimit: Rule;
      efficiency: Rule;
      idle: Value;
    }
  | { kind: 'overvoltage'; id: string; plus: string; minus: string; i0: Rule; charging: Rule; discharging: Rule };

export interface ControllerWiring {
  kind: ControllerKind;
  /** Volts between two terminals, by input name. */
  senses: Readonly<Record<string, readonly [red: string, black: string]>>;
  /** Amps a source or converter of the part gives, by input name. */
  amps?: Readonly<Record<string, string>>;
  /** Parameters handed to the controller as its settings. */
  settings: readonly string[];
  /** Settings that are the part's build rather than a parameter. */
  constants?: Readonly<Record<string, number>>;
}

export interface PartKind {
  id: string;
  label: string;
  /** How it sits in the heavy circuit; the strip draws by this. */
  role: 'source' | 'battery' | 'inline' | 'link' | 'control' | 'load';
  terminals: readonly TerminalSpec[];
  /** Nodes inside the part that no lead can reach. */
  inner?: readonly string[];
  params: Readonly<Record<string, ParameterSpec>>;
  options?: Readonly<Record<string, OptionSpec>>;
  elements: readonly ElementSpec[];
  /** What decides in it, if anything; some decide only with some options. */
  controller?: (part: PartContext) => ControllerWiring | undefined;
}

/** A rule that is just one parameter. */
export const just = (name: string): Rule => ({ params: [name], value: (p) => p[0]! });

/** A rule that is a constant of the model; say where the number is from beside each use. */
export const fixed = (value: number): Rule => ({ params: [], value: () => value });
