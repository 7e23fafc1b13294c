/**
 * What chemistry changes in a battery: rest volts by charge, ohmic resistance, polarisation. A row is a
 * chemistry, for one 12 V block; a 24 V bank is two in series.
 */
export interface Chemistry {
  id: string;
  label: string;
  /** Rest volts of a 12 V block by state of charge, 25 °C, hours after the last current. */
  restVolts: readonly (readonly [soc: number, volts: number])[];
  /** Ohmic resistance × capacity, Ω·Ah, when full and new. */
  ohmsTimesAh: number;
  /**
   * The same into a dead short of a full, new, warm bank, erring low so that the fault current errs high: apart from
   * what charging meets. Prismatic LFP cells have 0.25–0.35 Ω·Ah a 12 V block by their data sheets, so 4–5 kA per
   * 100 Ah; lead-acid plates push up to twice what their resting resistance says (from memory, both).
   */
  shortOhmsTimesAh: number;
  /** Share by which the resistance grows from full to flat: 1 + grows·(1 − soc)². */
  grows: number;
  /** i = I0·sinh(u/η): I0 in A per Ah, η in V fully developed. */
  exchangePerAh: number;
  chargeOvervolts: number;
  dischargeOvervolts: number;
  /** How the charging overvoltage builds up: share and time constant in seconds of each branch. */
  builds: readonly (readonly [share: number, seconds: number])[];
  /** Acceptance: (taperTimesAh / Ah) / (taperEnd − soc) Ω more while it is being charged. */
  taperTimesAh: number;
  taperEnd: number;
  /** Charge above which part of what goes in gasses away; none that does not. */
  gassesFrom?: number;
  /** Share of the charge put in that stays, below the gassing end. */
  efficiency: number;
  /** Above the 20-hour rate a discharge of I counts as I·(I/I20)^(peukert − 1). */
  peukert: number;
  /** Share of the capacity lost a day at 25 °C; doubles every 10 K (from memory). */
  selfDischargePerDay: number;
  /** Rest volts of a 12 V block per K; resistance as a share per K below 25 °C: from memory. */
  voltsPerKelvin: number;
  ohmsPerKelvin: number;
  /**
   * A battery-management system that opens: °C between which it is charged and between which it gives, block volts it
   * opens at, and the share of its capacity an hour it passes either way.
   */
  bms?: {
    coldest: number;
    hottest: number;
    coldestGiving: number;
    hottestGiving: number;
    highest: number;
    lowest: number;
    most: number;
  };
}

/**
 * Common practice for flooded: 12.65–12.75 V full, 12.4 at 75 %, 12.2 at 50 %, 12.0 at 25 %; 11.89 empty (BCI, from
 * memory).
 */
const FLOODED = [
  [0, 11.88],
  [0.1, 11.94],
  [0.25, 12.02],
  [0.5, 12.22],
  [0.75, 12.45],
  [0.9, 12.6],
  [1, 12.72],
] as const;
const above = (volts: number) => FLOODED.map(([soc, v]) => [soc, v + volts] as const);

const LEAD_ACID = {
  grows: 0.6,
  exchangePerAh: 0.003,
  chargeOvervolts: 0.19,
  dischargeOvervolts: 0.03,
  builds: [
    [0.75, 90],
    [0.25, 5400],
  ],
  taperTimesAh: 0.35,
  taperEnd: 1.005,
  gassesFrom: 0.85,
  efficiency: 0.92,
  peukert: 1.15,
  selfDischargePerDay: 0.0015,
  voltsPerKelvin: 0.0014,
  ohmsPerKelvin: 0.006,
} as const;

export const CHEMISTRIES: readonly Chemistry[] = [
  {
    id: 'flooded',
    label: 'Flooded lead-acid',
    restVolts: FLOODED,
    ohmsTimesAh: 0.7,
    shortOhmsTimesAh: 0.4,
    ...LEAD_ACID,
  },
  // AGM rests 0.1–0.15 V above flooded (common practice); its lower resistance is from memory.
  {
    id: 'agm',
    label: 'AGM',
    restVolts: above(0.12),
    ...LEAD_ACID,
    ohmsTimesAh: 0.5,
    shortOhmsTimesAh: 0.28,
    efficiency: 0.96,
    peukert: 1.1,
    selfDischargePerDay: 0.0007,
  },
  // Gel at or a little above AGM: 12.85–12.95 V full, from memory.
  {
    id: 'gel',
    label: 'Gel',
    restVolts: above(0.18),
    ...LEAD_ACID,
    ohmsTimesAh: 0.75,
    shortOhmsTimesAh: 0.45,
    peukert: 1.12,
    selfDischargePerDay: 0.0007,
  },
  {
    // 12.98 V at 17 %, 13.12 V at 30 %, 13.0–13.3 V over 20–90 % (common practice); the ends are from memory.
    id: 'lfp',
    label: 'LFP (lithium iron phosphate)',
    restVolts: [
      [0, 11.4],
      [0.05, 12.5],
      [0.1, 12.85],
      [0.17, 12.98],
      [0.3, 13.12],
      [0.5, 13.2],
      [0.7, 13.27],
      [0.9, 13.32],
      [0.98, 13.38],
      // A full one settles to 3.35–3.40 V a cell. The knee on charge is not in its rest: see the taper.
      [1, 13.5],
    ],
    // 400 Ah: 2.5 mΩ at once, 0.75 mΩ more within a minute, 1 mΩ over 40 minutes.
    ohmsTimesAh: 1,
    shortOhmsTimesAh: 0.3,
    grows: 0.3,
    exchangePerAh: 1,
    chargeOvervolts: 0.7,
    dischargeOvervolts: 0.7,
    builds: [
      [0.43, 60],
      [0.57, 2400],
    ],
    // The knee: at 0.2C it comes to 14.4 V within the last hundredth, and takes next to nothing there.
    taperTimesAh: 0.02,
    taperEnd: 1.001,
    efficiency: 0.99,
    peukert: 1.02,
    selfDischargePerDay: 0.0007,
    voltsPerKelvin: 0,
    ohmsPerKelvin: 0.01,
    // Charging below 0 °C is forbidden (common practice); 3.65 V and 2.5 V a cell, –20 to 60 °C giving, 50 °C charging
    // and 1 C either way are from memory: the label comes first.
    bms: { coldest: 0, hottest: 50, coldestGiving: -20, hottestGiving: 60, highest: 14.6, lowest: 10, most: 1 },
  },
];

const BY_ID = new Map(CHEMISTRIES.map((c) => [c.id, c]));

/** The chemistry of a validated part; throws on an id no validated document holds. */
export function chemistryOf(id: string): Chemistry {
  const chemistry = BY_ID.get(id);
  if (!chemistry) throw new Error(`unknown chemistry ${id}`);
  return chemistry;
}

/** V per unit of charge beyond full and empty: nothing is there, a belief that strays finds its way back by it. */
const BEYOND_SLOPE = 0.3;

/** Rest volts of a 12 V block. @param soc state of charge, 0 to 1; nearly flat beyond. */
export function restVolts(soc: number, chemistry: Chemistry = chemistryOf('flooded')): number {
  if (soc < 0 || soc > 1) return restVolts(soc < 0 ? 0 : 1, chemistry) + BEYOND_SLOPE * (soc < 0 ? soc : soc - 1);
  const table = chemistry.restVolts;
  let i = 1;
  while (i < table.length - 1 && soc > table[i]![0]) i++;
  const [s0, v0] = table[i - 1]!;
  const [s1, v1] = table[i]!;
  return v0 + ((soc - s0) / (s1 - s0)) * (v1 - v0);
}

/**
 * Ω of a 12 V block of so many Ah that only charging meets: acceptance tapers as it fills. Lead-acid: the 1.005 leaves
 * about 2 % of the capacity as amps into a full bank at 14.4 V (from memory), 0.35 is a feasibility fit.
 */
export const taperOhms = (soc: number, ah: number, { taperTimesAh, taperEnd }: Chemistry): number =>
  taperTimesAh / ah / Math.max(taperEnd - 1, taperEnd - soc);

/**
 * Ω·Ah over the charge left that only discharging meets (Shepherd 1965: polarisation goes with Q/(Q − it)): nothing to
 * speak of down to a tenth, doubles the resistance at two hundredths, and at nothing left nothing flows.
 */
const EMPTYING_TIMES_AH = 0.012;
const EMPTYING_END = 1e-8;
const emptyingOhms = (soc: number, ah: number): number => EMPTYING_TIMES_AH / ah / (Math.max(0, soc) + EMPTYING_END);

/**
 * Share of a charging current that is stored: the chemistry's figure, and on lead-acid less and less of it over
 * the last 15 %, where it gasses instead. Why the last tenth takes as long as the first half; from memory.
 */
export function storedShare(soc: number, chemistry: Chemistry): number {
  const from = chemistry.gassesFrom;
  if (from === undefined || soc <= from) return chemistry.efficiency;
  return chemistry.efficiency * Math.max(0.1, 1 - (0.9 * (soc - from)) / (1 - from));
}

/** Share of the charging overvoltage that has built up `seconds` after the current began. */
export function overvoltageShare(seconds: number, chemistry: Chemistry = chemistryOf('flooded')): number {
  return chemistry.builds.reduce((sum, [share, tau]) => sum + share * (1 - Math.exp(-seconds / tau)), 0);
}

/** A bank at rest or under current, for relations that do not depend on what went before. Amps positive charging. */
export interface BankState {
  chemistry: Chemistry;
  /** Ah, and 12 V blocks in series. */
  capacity: number;
  blocks: number;
  soc: number;
  celsius: number;
  /** Resistance against new. */
  ageing: number;
  /** Cold cranking A of a battery made to start an engine; 0 or none where it is not. */
  cca?: number;
}

/**
 * Plates made for starting: Ω·A of cold cranking amps of a full, new 12 V block at 25 °C, what discharge adds, and what
 * cold adds per K. By them a new battery holds SAE J537's 7.2 V at −18 °C after 30 s at its rating, half of it at 21 °C
 * leaves well over the 9.6 V of the BCI load test, and at half charge some 60 % of its rating is left (from memory, all).
 */
const STARTING = { ohmsTimesCca: 2.7, grows: 1.9, perKelvin: 0.02 } as const;

/**
 * Ohmic Ω of a new, full 12 V block at 25 °C, how it grows with discharge, and with cold: what it gives current through
 * by its CCA, where it has one. What a charge meets is another thing, fitted with the taper and by its Ah (docs/models.md).
 */
export const plates = (
  { ohmsTimesAh, grows, ohmsPerKelvin }: Chemistry,
  capacity: number,
  cca: number,
  charging: boolean,
): { ohms: number; grows: number; perKelvin: number } =>
  cca > 0 && !charging
    ? { ohms: STARTING.ohmsTimesCca / cca, grows: STARTING.grows, perKelvin: STARTING.perKelvin }
    : { ohms: ohmsTimesAh / capacity, grows, perKelvin: ohmsPerKelvin };

/** Rest volts of a whole bank at a temperature. */
export const bankRestVolts = (b: BankState): number =>
  b.blocks * (restVolts(b.soc, b.chemistry) + b.chemistry.voltsPerKelvin * (b.celsius - 25));

/** Ohmic resistance of a whole bank, Ω, with its taper where it is being charged, and what an empty one adds where not. */
export function bankOhms(b: BankState, charging: boolean): number {
  const { ohms, grows, perKelvin } = plates(b.chemistry, b.capacity, b.cca ?? 0, charging);
  const cold = 1 + perKelvin * Math.max(0, 25 - b.celsius);
  const base = ohms * (1 + grows * (1 - b.soc) ** 2) * b.ageing * cold;
  const more = charging ? taperOhms(b.soc, b.capacity, b.chemistry) : emptyingOhms(b.soc, b.capacity);
  return b.blocks * (base + more);
}

/** V of a full 12 V block that drive a short circuit: at rest after a charge. */
const SHORT_VOLTS = { lead: 12.8, lithium: 13.5 } as const;

/**
 * A a bank pushes into a short behind so many ohms: full, new and warm, the most it could be.
 * @param capacity Ah. @param blocks 12 V blocks in series. @param ohms of everything outside its posts. @param cca A, where rated.
 */
export function shortCircuitAmps(
  chemistry: Chemistry,
  capacity: number,
  blocks: number,
  ohms: number,
  cca = 0,
): number {
  const volts = blocks * (chemistry.bms ? SHORT_VOLTS.lithium : SHORT_VOLTS.lead);
  // A starting battery pushes at least what its cranking plates do.
  const own = Math.min(chemistry.shortOhmsTimesAh / capacity, cca > 0 ? STARTING.ohmsTimesCca / cca : Infinity);
  return volts / (blocks * own + ohms);
}

/** Overvoltage of a whole bank once it has fully built up, V: η·asinh(I/I0). */
export function bankOvervolts(b: BankState, amps: number): number {
  const { exchangePerAh, chargeOvervolts, dischargeOvervolts } = b.chemistry;
  return (
    b.blocks * (amps >= 0 ? chargeOvervolts : dischargeOvervolts) * Math.asinh(amps / (exchangePerAh * b.capacity))
  );
}

/** Least share of the overvoltage a starter meets at once. */
const MIN_CRANK_SHARE = 0.3;

/** Volts under a starter's amps after some seconds, of a bank that had rested. */
export function bankCrankVolts(b: BankState, amps: number, seconds = 5): number {
  const [fast] = b.chemistry.builds;
  const develops = fast![0] * (1 - Math.exp(-seconds / fast![1]));
  return bankRestVolts(b) - amps * bankOhms(b, false) + bankOvervolts(b, -amps) * Math.max(MIN_CRANK_SHARE, develops);
}

/** Share of the capacity a bank takes an hour without harm: lead C/4 to C/3, LFP C/2 (from memory; the label comes first). */
export const CHARGE_SHARE: Readonly<Record<string, number>> = { flooded: 0.25, agm: 0.3, gel: 0.2, lfp: 0.5 };

/** Charging volts a 12 V bank needs to fill, the most it bears, and the most it may be held at: common practice. */
export const CHARGE_VOLTS: Readonly<Record<string, { needs: number; most: number; float: number }>> = {
  flooded: { needs: 14.1, most: 14.9, float: 13.8 },
  agm: { needs: 14.1, most: 14.8, float: 13.8 },
  gel: { needs: 13.9, most: 14.3, float: 13.8 },
  // 0.2 V under the 14.6 V its BMS opens at.
  lfp: { needs: 13.9, most: 14.4, float: 13.65 },
};
