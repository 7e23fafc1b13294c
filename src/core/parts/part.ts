/**
 * What a kind of part is: all the program knows of it. A new kind is an entry in a file here, a row in kinds.ts and a
 * drawing in the interface; the compiler lists what is lacking.
 */
import type { ControllerKind } from '../control/controller';
import type { InputSwitch, OperatingInputs } from '../control/inputs';
import type { ParameterSpec } from '../units/parameter';
import type { Gauge } from '../units/wire';
import type { PartFault } from './fault';
import type { OwnerSentences } from './ownerSentence';
import type { Price } from './price';
import type { Traits } from './traits';

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
export interface ParameterExpression {
  params: readonly string[];
  value(p: readonly number[], inputs: OperatingInputs, part: PartContext): number;
}

/** One rule of several, picked by an output of the part's own controller: a charger's stage picks its set-point. */
export interface ParameterChoice {
  by: string;
  of: Readonly<Record<string, ParameterExpression>>;
}
export type ElementValue = ParameterExpression | ParameterChoice;

export type ClosedBy = { input: InputSwitch } | { controller: string };

/** Where an element ends that returns by the metal of its vehicle instead of a terminal. */
export const METAL = 'vehicle-metal';

export type ElementSpec =
  | { kind: 'resistor'; id: string; a: string; b: string; ohms: ParameterExpression }
  | { kind: 'contact'; id: string; a: string; b: string; ohms: ParameterExpression; closedBy: ClosedBy }
  | { kind: 'emf'; id: string; plus: string; minus: string; volts: ParameterExpression; ohms: ElementValue }
  | {
      kind: 'source';
      id: string;
      plus: string;
      minus: string;
      volts: ElementValue;
      ohms: ParameterExpression;
      limit: ElementValue;
    }
  | { kind: 'lamp'; id: string; plus: string; minus: string; volts: ParameterExpression; watts: ParameterExpression }
  | {
      kind: 'diode';
      id: string;
      anode: string;
      cathode: string;
      saturation: ParameterExpression;
      emission: ParameterExpression;
    }
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
      volts: ElementValue;
      ohms: ParameterExpression;
      limit: ElementValue;
      inLimit: ParameterExpression;
      efficiency: ParameterExpression;
      idle: ElementValue;
    }
  | {
      kind: 'overvoltage';
      id: string;
      plus: string;
      minus: string;
      i0: ParameterExpression;
      charging: ParameterExpression;
      discharging: ParameterExpression;
    };

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

/** Thickest wire its heavy terminals take as they are, and how: usual units, assumed. */
export interface WireEntry {
  most: Gauge;
  how: string;
}

/**
 * Everything the program knows of a kind of part, in one entry. What a field leaves out the compiler asks for; how it
 * is drawn stands in the interface, keyed by the same ids.
 */
export interface PartKind<Id extends string = string> {
  id: Id;
  label: string;
  /** How it sits in the heavy circuit; the strip draws by this. */
  role: 'source' | 'battery' | 'inline' | 'link' | 'control' | 'load';
  /** What other rooms ask of it. */
  traits: Traits;
  terminals: readonly TerminalSpec[];
  /** Nodes inside the part that no lead can reach. */
  inner?: readonly string[];
  params: Readonly<Record<string, ParameterSpec>>;
  options?: Readonly<Record<string, OptionSpec>>;
  elements: readonly ElementSpec[];
  /** What decides in it, if anything; some decide only with some options. */
  controller?: (part: PartContext) => ControllerWiring | undefined;
  /** Faults it can have, in itself or on the wires at its terminals. */
  faults: readonly PartFault[];
  price: Price;
  /** What the owner's card says of it. */
  owner: OwnerSentences;
  /** What to mind when a link is built with it. */
  cautions: readonly string[];
  /** What its terminals take; null where nothing usual is known. */
  takes: WireEntry | null;
}

/** A kind of part, its id kept as a literal type: the catalogue's union of ids is made of them. */
export const definePart = <const Id extends string>(kind: PartKind<Id>): PartKind<Id> => kind;

/** A rule that is just one parameter. */
export const param = (name: string): ParameterExpression => ({ params: [name], value: (p) => p[0]! });

/** A rule that is a constant of the model; say where the number is from beside each use. */
export const constant = (value: number): ParameterExpression => ({ params: [], value: () => value });
