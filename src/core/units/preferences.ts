/** Units and rules a shop chooses, and figures shown by them. Stored values stay SI. */
export const LENGTH_UNITS = [
  { id: 'ft', label: 'Feet' },
  { id: 'm', label: 'Meters' },
] as const;
export const GAUGE_UNITS = [
  { id: 'awg', label: 'AWG' },
  { id: 'mm2', label: 'mm²' },
] as const;
export const TEMPERATURE_UNITS = [
  { id: 'F', label: '°F' },
  { id: 'C', label: '°C' },
] as const;
/** Whose rules are named beside the common ones. */
export const JURISDICTIONS = [
  { id: 'us', label: 'United States' },
  { id: 'ca', label: 'Canada' },
  { id: 'uk', label: 'United Kingdom' },
  { id: 'eu', label: 'European Union' },
  { id: 'au-nz', label: 'Australia, New Zealand' },
] as const;

export type LengthUnit = (typeof LENGTH_UNITS)[number]['id'];
export type TemperatureUnit = (typeof TEMPERATURE_UNITS)[number]['id'];
export type GaugeUnit = (typeof GAUGE_UNITS)[number]['id'];
export type Jurisdiction = (typeof JURISDICTIONS)[number]['id'];

/** m in a foot, exactly. */
export const METRES_PER_FOOT = 0.3048;
export const lengthShown = (metres: number, unit: LengthUnit): number =>
  unit === 'ft' ? metres / METRES_PER_FOOT : metres;
export const lengthStored = (shown: number, unit: LengthUnit): number =>
  Number((unit === 'ft' ? shown * METRES_PER_FOOT : shown).toFixed(3));
export const celsiusShown = (celsius: number, unit: TemperatureUnit): number =>
  unit === 'F' ? celsius * 1.8 + 32 : celsius;
export const celsiusStored = (shown: number, unit: TemperatureUnit): number =>
  unit === 'F' ? (shown - 32) / 1.8 : shown;
