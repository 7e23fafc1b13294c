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
  /** Acceptance: (taperTimesAh / Ah) / (1.005 − soc) Ω more while it is being charged. */
  taperTimesAh: number;
  /** Share of the charge put in that stays, below the gassing end. */
  efficiency: number;
  /** Above the 20-hour rate a discharge of I counts as I·(I/I20)^(peukert − 1). */
  peukert: number;
  /** Share of the capacity lost a day at 25 °C; doubles every 10 K (from memory). */
  selfDischargePerDay: number;
  /** Rest volts of a 12 V block per K; resistance as a share per K below 25 °C: from memory. */
  voltsPerKelvin: number;
  ohmsPerKelvin: number;
  /** A battery-management system that opens: °C below which it forbids charging, block volts it opens at. */
  bms?: { coldest: number; highest: number; lowest: number };
}

/** Common practice for flooded: 12.65–12.75 V full, 12.4 at 75 %, 12.2 at 50 %, 12.0 at 25 %, 11.9 and less empty. */
const FLOODED = [
  [0, 11.55],
  [0.1, 11.8],
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
    peukert: 1.1,
    selfDischargePerDay: 0.0007,
  },
  // Gel between the two, from memory.
  {
    id: 'gel',
    label: 'Gel',
    restVolts: above(0.08),
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
      [0.98, 13.4],
      [0.99, 13.6],
      // The knee: a full one takes next to nothing at 14.2 V.
      [1, 14.6],
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
    taperTimesAh: 0,
    efficiency: 0.99,
    peukert: 1.02,
    selfDischargePerDay: 0.0007,
    voltsPerKelvin: 0,
    ohmsPerKelvin: 0.01,
    // Charging below 0 °C is forbidden (common practice); 3.65 V and 2.5 V a cell are from memory.
    bms: { coldest: 0, highest: 14.6, lowest: 10 },
  },
];

const BY_ID = new Map(CHEMISTRIES.map((c) => [c.id, c]));

/** The chemistry of a validated part; throws on an id no validated document holds. */
export function chemistryOf(id: string): Chemistry {
  const chemistry = BY_ID.get(id);
  if (!chemistry) throw new Error(`unknown chemistry ${id}`);
  return chemistry;
}

/** Rest volts of a 12 V block. @param soc state of charge, 0 to 1, goes on straight beyond. */
export function restVolts(soc: number, chemistry: Chemistry = chemistryOf('flooded')): number {
  const table = chemistry.restVolts;
  let i = 1;
  while (i < table.length - 1 && soc > table[i]![0]) i++;
  const [s0, v0] = table[i - 1]!;
  const [s1, v1] = table[i]!;
  return v0 + ((soc - s0) / (s1 - s0)) * (v1 - v0);
}

/**
 * Ω of a 12 V block of so many Ah that only charging meets: acceptance tapers as it fills. The 1.005 leaves
 * about 2 % of the capacity as amps into a full bank at 14.4 V (from memory), 0.35 is a feasibility fit.
 */
export const taperOhms = (soc: number, ah: number, chemistry: Chemistry): number =>
  chemistry.taperTimesAh / ah / Math.max(0.005, 1.005 - soc);

/**
 * Share of a charging current that is stored: the chemistry's figure, and on lead-acid less and less of it over
 * the last 15 %, where it gasses instead. Why the last tenth takes as long as the first half; from memory.
 */
export function storedShare(soc: number, chemistry: Chemistry): number {
  if (chemistry.taperTimesAh === 0 || soc <= 0.85) return chemistry.efficiency;
  return chemistry.efficiency * Math.max(0.1, 1 - (0.9 * (soc - 0.85)) / 0.15);
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
}

/** Rest volts of a whole bank at a temperature. */
export const bankRestVolts = (b: BankState): number =>
  b.blocks * (restVolts(b.soc, b.chemistry) + b.chemistry.voltsPerKelvin * (b.celsius - 25));

/** Ohmic resistance of a whole bank, and its taper where it is being charged, Ω. */
export function bankOhms(b: BankState, charging: boolean): number {
  const { ohmsTimesAh, grows, ohmsPerKelvin } = b.chemistry;
  const cold = 1 + ohmsPerKelvin * Math.max(0, 25 - b.celsius);
  const base = (ohmsTimesAh / b.capacity) * (1 + grows * (1 - b.soc) ** 2) * b.ageing * cold;
  return b.blocks * (base + (charging ? taperOhms(b.soc, b.capacity, b.chemistry) : 0));
}

/** V of a full 12 V block that drive a short circuit: at rest after a charge. */
const SHORT_VOLTS = { lead: 12.8, lithium: 13.5 } as const;

/**
 * A a bank pushes into a short behind so many ohms: full, new and warm, the most it could be.
 * @param capacity Ah. @param blocks 12 V blocks in series. @param ohms of everything outside its posts.
 */
export function shortCircuitAmps(chemistry: Chemistry, capacity: number, blocks: number, ohms: number): number {
  const volts = blocks * (chemistry.bms ? SHORT_VOLTS.lithium : SHORT_VOLTS.lead);
  return volts / ((blocks * chemistry.shortOhmsTimesAh) / capacity + ohms);
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

/** Charging volts a 12 V bank needs to fill, and the most it bears: common practice. */
export const CHARGE_VOLTS: Readonly<Record<string, { needs: number; most: number }>> = {
  flooded: { needs: 14.1, most: 14.9 },
  agm: { needs: 14.1, most: 14.8 },
  gel: { needs: 13.9, most: 14.3 },
  lfp: { needs: 13.9, most: 14.65 },
};
