/**
 * Figures turned into an answer: how hot is hot, what a load test passes. Light: the page grades what is
 * typed, and shows the rule it went by.
 */
export type GradeValues = Readonly<Record<string, number>>;

export interface Graded {
  /** Id of the answer. */
  answer: string;
  /** The rule and what it gave, in a sentence. */
  why: string;
}

const one = (x: number) => String(Number(x.toFixed(1)));

/** Lowest volts after 15 s at half the cold-cranking amps, by temperature in °C. From memory: the usual load-test table. */
const LOAD_TEST_LIMITS: readonly (readonly [celsius: number, volts: number])[] = [
  [-18, 8.5],
  [-12, 8.7],
  [-7, 8.9],
  [-1, 9.1],
  [4, 9.3],
  [10, 9.4],
  [16, 9.5],
  [21, 9.6],
];

/** The limit at a temperature: straight between the table's rows, flat outside. Volts per 12 V. */
export function loadTestLimit(celsius: number): number {
  const rows = LOAD_TEST_LIMITS;
  if (celsius <= rows[0]![0]) return rows[0]![1];
  for (let i = 1; i < rows.length; i++) {
    const [t0, v0] = rows[i - 1]!;
    const [t1, v1] = rows[i]!;
    if (celsius <= t1) return v0 + ((v1 - v0) * (celsius - t0)) / (t1 - t0);
  }
  return rows.at(-1)![1];
}

/** Rest volts of one lead-acid cell from its specific gravity. From memory: gravity + 0.845. */
export const cellVolts = (gravity: number): number => gravity + 0.845;

/** Above ambient, after ten minutes or more at working current. Common practice, no source: bounds assumed. */
const WARM_KELVIN = 15;
const HOT_KELVIN = 40;
/** Cells of one battery further apart than this point at a weak one; below this they are low. Common practice. */
const GRAVITY_APART = 0.05;
const GRAVITY_LOW = 1.225;

/** On a coil feed a coil of 1 A loses half a volt by it. Common practice, no source. */
export const SOUND_WIRE_OHMS = 0.5;

export const GRADES = {
  'temperature-rise': ({ spot, ambient }: GradeValues): Graded => {
    const rise = spot! - ambient!;
    const answer = rise > HOT_KELVIN ? 'hot' : rise > WARM_KELVIN ? 'warm' : 'cool';
    return {
      answer,
      why: `${one(rise)} °C above ambient; over ${WARM_KELVIN} counts as warm, over ${HOT_KELVIN} as hot`,
    };
  },
  continuity: ({ ohms }: GradeValues): Graded => {
    const answer = ohms! > 1000 ? 'open' : ohms! > SOUND_WIRE_OHMS ? 'ohms' : 'good';
    return {
      answer,
      why: `${one(ohms!)} Ω, leads zeroed; up to ${SOUND_WIRE_OHMS} Ω is a sound wire, over 1,000 Ω is open`,
    };
  },
  coil: ({ ohms }: GradeValues, nominal: number): Graded => {
    const at12 = ohms! / (nominal / 12) ** 2;
    const answer = at12 > 200 ? 'open' : at12 < 7 ? 'low' : 'right';
    return {
      answer,
      why: `${one(ohms!)} Ω; continuous-duty coils are 12–18 Ω, starter-type ones 3–5 Ω at 12 V (from memory)`,
    };
  },
  'load-test': ({ volts, celsius }: GradeValues, nominal: number): Graded => {
    const limit = loadTestLimit(celsius!) * (nominal / 12);
    return {
      answer: volts! >= limit ? 'passes' : 'fails',
      why: `${volts!.toFixed(2)} V after 15 s; the limit at ${one(celsius!)} °C is ${limit.toFixed(2)} V (from memory)`,
    };
  },
  gravity: ({ lowest, highest }: GradeValues): Graded => {
    const apart = highest! - lowest!;
    const answer = apart > GRAVITY_APART ? 'apart' : highest! < GRAVITY_LOW ? 'low' : 'good';
    return {
      answer,
      why:
        `${apart.toFixed(3)} apart (over ${GRAVITY_APART.toFixed(3)}: a weak cell); the lowest ` +
        `cell rests at about ${cellVolts(lowest!).toFixed(2)} V, gravity + 0.845 (from memory)`,
    };
  },
} as const satisfies Record<string, (values: GradeValues, nominal: number) => Graded>;

export type GradeId = keyof typeof GRADES;

/** Grades what was typed; `nominal` is 12 or 24. */
export const grade = (id: GradeId, values: GradeValues, nominal: number): Graded => GRADES[id](values, nominal);
