/**
 * A lead-acid bank as its terminals show it some minutes after a change: rest volts behind an ohmic
 * resistance, and polarisation that grows with the logarithm of current.
 *
 *   u = OCV(soc) + surface + I·R0 + η·asinh(I / I0),   I positive charging
 *
 * Written as i = I0·sinh(u/η) for the last term, which is explicit and monotone. Numbers: feasibility fit to
 * the usual shop figures, all assumed; docs/models.md lists them with their origin.
 */
import { assumed } from '../units/parameter';
import type { PartKind } from './part';

/** Rest volts of a 12 V bank by state of charge; flooded lead-acid at 25 °C, common practice. */
const FLOODED_OCV: readonly (readonly [soc: number, volts: number])[] = [
  [0, 11.55],
  [0.1, 11.8],
  [0.25, 12.02],
  [0.5, 12.22],
  [0.75, 12.45],
  [0.9, 12.6],
  [1, 12.72],
];

/** Rested volts of a flooded 12 V bank. @param soc state of charge, 0 to 1, goes on straight beyond. */
export function restVolts(soc: number): number {
  let i = 1;
  while (i < FLOODED_OCV.length - 1 && soc > FLOODED_OCV[i]![0]) i++;
  const [s0, v0] = FLOODED_OCV[i - 1]!;
  const [s1, v1] = FLOODED_OCV[i]!;
  return v0 + ((soc - s0) / (s1 - s0)) * (v1 - v0);
}

const OHMS_PER_AH = 0.7; // Ω·Ah at full charge
const EXCHANGE_PER_AH = 0.003; // I0 = 0.003 A per Ah
const CHARGE_OVERVOLTS = 0.19; // η fully developed, V
const DISCHARGE_OVERVOLTS = 0.03; // V

/** Share of the charging overvoltage that has built up `seconds` after the current began. */
export function overvoltageShare(seconds: number): number {
  return 0.75 * (1 - Math.exp(-seconds / 90)) + 0.25 * (1 - Math.exp(-seconds / 5400));
}

export const batteryBank: PartKind = {
  id: 'battery-bank',
  label: 'Battery bank',
  role: 'battery',
  terminals: [
    { id: 'plus', label: '+', lead: 'post of the + terminal, not the clamp' },
    { id: 'minus', label: '–', lead: 'post of the – terminal, not the clamp' },
  ],
  inner: ['cell'],
  params: {
    capacity: { unit: 'Ah', scale: 'ratio', label: 'Capacity', min: 1, max: 5000, default: assumed(100, 0.1) },
    soc: { unit: '', scale: 'offset', label: 'State of charge', min: 0, max: 1, default: assumed(0.8, 0.12) },
    surface: { unit: 'V', scale: 'offset', label: 'Surface charge at rest', min: -1, max: 1, default: assumed(0.02, 0.04) },
    ageing: { unit: '', scale: 'ratio', label: 'Resistance against new', min: 0.2, max: 20, default: assumed(1.2, 0.3) },
  },
  elements: [
    {
      kind: 'emf',
      id: 'emf',
      plus: 'plus',
      minus: 'cell',
      volts: { params: ['soc', 'surface'], value: ([soc, surface]) => restVolts(soc!) + surface! },
      ohms: {
        params: ['capacity', 'soc', 'ageing'],
        value: ([ah, soc, ageing]) => (OHMS_PER_AH / ah!) * (1 + 0.6 * (1 - soc!) ** 2) * ageing!,
      },
    },
    {
      kind: 'overvoltage',
      id: 'overvoltage',
      plus: 'cell',
      minus: 'minus',
      i0: { params: ['capacity'], value: ([ah]) => EXCHANGE_PER_AH * ah! },
      charging: { params: [], value: (_, inputs) => CHARGE_OVERVOLTS * overvoltageShare(Math.max(5, inputs.dwell)) },
      discharging: { params: [], value: () => DISCHARGE_OVERVOLTS },
    },
  ],
};
