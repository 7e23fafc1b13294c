/**
 * What the living space runs, as a table: watts while on and the share of the time it is on. All assumed,
 * common practice for a rig of its kind; a leg adds amps of its own where they are known better. Charge goes
 * by the mean; the lowest volts also by everything on at once, which the recorder adds.
 */
export interface LoadRow {
  id: string;
  label: string;
  watts: number;
  /** Share of the time it is on, by the air outside in °C. */
  duty(celsius: number): number;
}

const between = (low: number, high: number, x: number) => Math.max(low, Math.min(high, x));
const steady = (share: number) => () => share;

export const LOADS: readonly LoadRow[] = [
  { id: 'standby', label: 'Standby list: detectors, memories, panel', watts: 5, duty: steady(1) },
  {
    id: 'fridge-compressor',
    label: 'Compressor fridge',
    watts: 55,
    duty: (c) => between(0.15, 0.9, 0.3 + 0.018 * (c - 20)),
  },
  {
    id: 'fridge-residential',
    label: 'Residential fridge on the inverter',
    watts: 160,
    duty: (c) => between(0.25, 0.9, 0.4 + 0.015 * (c - 20)),
  },
  { id: 'furnace-fan', label: 'Furnace fan', watts: 85, duty: (c) => between(0, 0.9, (18 - c) / 28) },
  { id: 'lights', label: 'Lights and pump, an evening', watts: 40, duty: steady(1) },
  { id: 'roof-vent', label: 'Roof vent', watts: 30, duty: steady(1) },
  { id: 'inverter-idle', label: 'Inverter, idling', watts: 20, duty: steady(1) },
  { id: 'screens', label: 'Screens and chargers', watts: 60, duty: steady(1) },
  { id: 'lift', label: 'Lift or jack, a few minutes a day', watts: 1200, duty: steady(0.005) },
  { id: 'cpap', label: 'Breathing machine', watts: 35, duty: steady(1) },
];

const BY_ID = new Map(LOADS.map((l) => [l.id, l]));
export const LOAD_IDS: readonly string[] = LOADS.map((l) => l.id);

/** Amps at the rig's nominal volts of a list of loads: their mean, and with all that may run at once. */
export function loadAmps(
  ids: readonly string[],
  celsius: number,
  nominalVolts: number,
): { mean: number; most: number } {
  let mean = 0;
  let most = 0;
  for (const id of ids) {
    const load = BY_ID.get(id);
    if (!load) throw new Error(`unknown load ${id}`);
    const duty = load.duty(celsius);
    mean += load.watts * duty;
    if (duty > 0) most += load.watts;
  }
  return { mean: mean / nominalVolts, most: most / nominalVolts };
}
