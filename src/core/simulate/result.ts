/** What a simulation gives back. */
export interface SimEvent {
  /** Seconds from the start. */
  t: number;
  kind: 'leg' | 'controller' | 'battery' | 'start' | 'limit' | 'hunting' | 'collapse';
  /** Part it is about, if any. */
  part?: string;
  /** "Isolator closes". */
  what: string;
  /** "coil has 12.4 V, enough to hold". */
  why: string;
}

export interface SimSeries {
  id: string;
  part: string;
  label: string;
  unit: 'V' | 'A' | '%' | '°C';
  values: Float64Array;
}

export interface BatterySummary {
  part: string;
  name: string;
  startSoc: number;
  endSoc: number;
  lowestSoc: number;
  /** With loads at their mean; and with all that comes and goes on at once. */
  lowestVolts: number;
  lowestAllOn: number;
  highestVolts: number;
  ahIn: number;
  ahOut: number;
  /** Ah lost to charge efficiency, gassing and rate; lost by standing. */
  ahLost: number;
  ahStood: number;
}

export interface LinkSummary {
  part: string;
  name: string;
  /** Times it closed or started. */
  cycles: number;
  hoursOn: number;
  /** Ah through it toward the coach, and back. */
  ahToCoach: number;
  ahBack: number;
  peakAmps: number;
  hottest?: { body: string; celsius: number; limit: number };
}

export interface AlternatorSummary {
  part: string;
  name: string;
  peakAmps: number;
  /** Highest share of what it could give at that moment, 0 to 1, at idle and under way. */
  peakShareIdle: number;
  peakShareRoad: number;
  /** Mean share at idle, 0 to 1; undefined when it never idled. */
  hottest: number;
  ah: number;
}

/** Would the engine start: the start battery under its starter. */
export interface StartCheck {
  t: number;
  /** "before “Drive home”", "at the end". */
  when: string;
  volts: number;
  limit: number;
  starts: boolean;
}

export interface SimSummary {
  hours: number;
  batteries: BatterySummary[];
  alternators: AlternatorSummary[];
  links: LinkSummary[];
  /** Charge of each battery, 0 to 1, and the lowest volts it saw, leg by leg, in the order of `batteries`. */
  legEnds: { soc: number[]; lowestVolts: number[] }[];
  /** Before each drive, and at the end. */
  starts: StartCheck[];
  /** Wh lost in conductors, joints and contacts; in converters. */
  lossWh: { copper: number; converters: number };
  hunting: string[];
  collapsed: string[];
  /** h in at which it ran out of its budget: what comes after was not worked out. Absent where it came to its end. */
  ranOutAt?: number;
  /** How well charge and energy add up, as shares of what moved. */
  balance: { charge: number; energy: number };
}

export interface SimResult {
  t: Float64Array;
  series: SimSeries[];
  events: SimEvent[];
  /** Start and end of each leg, s. */
  legs: { name: string; kind: string; from: number; to: number }[];
  summary: SimSummary;
  steps: number;
  solves: number;
}
