/** Units a technician reads for figures that are stored in SI. */
import type { ParameterSpec } from './parameter';

export interface DisplayUnit {
  unit: string;
  /** Shown = stored × times. */
  times: number;
}

/** Contacts and joints in milliohms, coils in ohms; plain shares in per cent; the rest as stored. */
export function displayUnit(spec: Pick<ParameterSpec, 'unit' | 'default' | 'max'>): DisplayUnit {
  if (spec.unit === 'ohm') return spec.default.value < 1 ? { unit: 'mΩ', times: 1000 } : { unit: 'Ω', times: 1 };
  if (spec.unit === '' && spec.max <= 1) return { unit: '%', times: 100 };
  if (spec.unit === '') return { unit: '×', times: 1 };
  return { unit: spec.unit, times: 1 };
}
