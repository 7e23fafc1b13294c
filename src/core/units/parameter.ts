/**
 * A number of the rig with what we know of it.
 *
 * `spread` is one standard deviation. For a quantity that can only be positive and is known "give or take
 * so many per cent" (`scale: 'ratio'`, all resistances and limits) it is in natural-log units: 0.3 means
 * about ±30 %. For the others (`scale: 'offset'`, volts and shares) it has the quantity's own unit.
 * Which scale and which SI unit a parameter has stands in its part kind's table, not in the document.
 */
export interface Parameter {
  value: number;
  spread: number;
  provenance: 'measured' | 'nameplate' | 'assumed';
  source?: string;
}

export type Scale = 'ratio' | 'offset';

export interface ParameterSpec {
  /** SI unit as it is stored. Empty for a plain share or count. */
  unit: 'V' | 'A' | 'ohm' | 'Ah' | 's' | 'm' | 'W' | '';
  scale: Scale;
  label: string;
  /** Lowest and highest value a document may hold, in the stored unit. */
  min: number;
  max: number;
  default: Parameter;
  /** A limit printed on a label that nothing electrical follows from: rules read it, the model does not. */
  ratingOnly?: true;
}

/** Value at `z` standard deviations from the stated one. */
export function parameterAt(p: Parameter, scale: Scale, z: number): number {
  return scale === 'ratio' ? p.value * Math.exp(p.spread * z) : p.value + p.spread * z;
}

/** Derivative of `parameterAt` by z, given the value there. */
export function parameterSlope(p: Parameter, scale: Scale, valueAtZ: number): number {
  return scale === 'ratio' ? p.spread * valueAtZ : p.spread;
}

/** Shorthand for the tables: an assumed parameter. */
export const assumed = (value: number, spread: number, source = 'common practice'): Parameter => ({
  value,
  spread,
  provenance: 'assumed',
  source,
});
