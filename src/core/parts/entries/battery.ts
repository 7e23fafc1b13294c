/**
 * A bank as its terminals show it some minutes after a change: rest volts behind an ohmic resistance, and
 * polarisation that grows with the logarithm of current. Two halves in series meet at the midpoint, so that
 * a weak block shows there; each has half of the polarisation.
 *
 *   u = OCV(soc) + surface + I·(R0 + taper while charging) + η·asinh(I / I0),   I positive charging
 *
 * Written as i = I0·sinh(u/η) for the last term, which is explicit and monotone. Numbers: feasibility fit to
 * the usual shop figures, all assumed; docs/models.md lists them with their origin.
 */
import { BATTERY_FAULTS } from '../faults/battery';
import { celsiusShown } from '../../units/preferences';
import { bms } from '../../control/bms';
import { assumed, type ParameterSpec } from '../../units/parameter';
import type { OperatingInputs } from '../../control/inputs';
import { CHEMISTRIES, chemistryOf, overvoltageShare, plates, restVolts, taperOhms } from '../chemistry';
import { constant, definePart, type PartContext, type ParameterExpression } from '../part';

const chemistry = (part: PartContext) => chemistryOf(part.options['chemistry']!);
/** 12 V blocks in series. */
const blocks = (part: PartContext) => part.nominal / 12;

/**
 * Volts of a half beside what charge and surface say, per 12 V: what it did just before, and half of how unequal the
 * halves are. A lithium bank keeps little of it, and has its charging law off at rest as well: on a curve as flat as its
 * own, hundredths of a volt are whole tenths of charge.
 */
const strays = (
  [, , afterUse, whileCharged, apart]: readonly number[],
  inputs: OperatingInputs,
  part: PartContext,
  half: 1 | -1,
): number => {
  const after = inputs.dwell < RESTED_SECONDS ? afterUse! : 0;
  const left = chemistry(part).bms ? LITHIUM_KEEPS * (isCharged(inputs) ? whileCharged! : after) : after;
  return left + half * apart!;
};
const isCharged = (inputs: OperatingInputs) => inputs.engine !== 'off' || inputs.shore || inputs.generator;

/** Half of the bank's rest volts: the bank is two halves in series, equal but for how far they may be apart. */
const halfVolts = (half: 1 | -1): ParameterExpression => ({
  params: ['soc', 'surface', 'afterUse', 'whileCharged', 'apart'],
  value: (p, inputs, part) =>
    (blocks(part) * (restVolts(p[0]!, chemistry(part)) + p[1]! + strays(p, inputs, part, half))) / 2,
});
const halfOhms: ParameterExpression = {
  params: ['capacity', 'soc', 'ageing', 'cca'],
  value: ([ah, soc, ageing, cca], inputs, part) => {
    // Which way the current goes is not known before the network is solved. Where something charges, a bank
    // either takes a charge or gives little: the taper then costs a few millivolts.
    const charging = isCharged(inputs);
    const { ohms, grows } = plates(chemistry(part), ah!, cca!, charging);
    const ohmic = ohms * (1 + grows * (1 - soc!) ** 2) * ageing!;
    return blocks(part) * 0.5 * (ohmic + (charging ? taperOhms(soc!, ah!, chemistry(part)) : 0));
  },
};

/** Enough to keep the network solvable, too much to matter. */
const BMS_OPEN_OHMS = 1e6;
/** Beside ten megohms of a meter nothing, and less than a milliampere past the plates. */
const TAP_OHMS = 3000;

/** Watts of a built-in heater per Ah of a 12 V bank, and the volts it is rated at: from memory. */
const HEATER_WATTS_PER_AH = 0.6;
const HEATED_AT_VOLTS = 13.6;

/** What a bank is off by in some states, of one sign as likely as of the other: spreads from memory. */
const strayVolts = (label: string, spread: number): ParameterSpec => ({
  unit: 'V',
  scale: 'offset',
  label,
  min: -1,
  max: 1,
  default: assumed(0, spread, 'from memory'),
});
/** From so long a rest on nothing of the last run is left but what is called surface charge. Common practice. */
const RESTED_SECONDS = 600;
/** A lithium bank is within some tens of millivolts of rest minutes later. From memory. */
const LITHIUM_KEEPS = 0.4;

export const batteryBank = definePart({
  id: 'battery-bank',
  label: 'Battery bank',
  role: 'battery',
  traits: { battery: true, charges: true },
  terminals: [
    { id: 'plus', label: '+', lead: 'post of the + terminal, not the clamp' },
    { id: 'minus', label: '–', lead: 'post of the – terminal, not the clamp' },
    { id: 'middle', label: 'midpoint', lead: 'link between the two blocks in series', optional: true },
  ],
  inner: ['upper-cell', 'lower-cell'],
  options: {
    chemistry: { label: 'Chemistry', choices: CHEMISTRIES.map(({ id, label }) => ({ id, label })), default: 'flooded' },
    layout: {
      label: 'Blocks',
      choices: [
        { id: 'single', label: 'one block' },
        { id: 'series', label: 'two in series' },
        { id: 'parallel', label: 'several in parallel' },
        { id: 'series-parallel', label: 'series pairs in parallel' },
      ],
      default: 'parallel',
    },
    heater: {
      label: 'Battery heater',
      choices: [
        { id: 'none', label: 'none' },
        { id: 'built-in', label: 'built in (lithium only), runs on a charger' },
      ],
      default: 'none',
    },
    nominal: {
      label: 'Nominal volts',
      choices: [
        { id: 'vehicle', label: 'as its vehicle' },
        { id: '12', label: '12 V' },
      ],
      default: 'vehicle',
    },
  },
  params: {
    capacity: { unit: 'Ah', scale: 'ratio', label: 'Capacity', min: 1, max: 5000, default: assumed(100, 0.1) },
    soc: { unit: '', scale: 'offset', label: 'State of charge', min: 0, max: 1, default: assumed(0.8, 0.12) },
    surface: {
      unit: 'V',
      scale: 'offset',
      label: 'Surface charge at rest, per 12 V',
      min: -1,
      max: 1,
      default: assumed(0.02, 0.04),
    },
    afterUse: strayVolts('Left at the posts by the minutes before, per 12 V', 0.1),
    whileCharged: strayVolts('Off the usual while it is charged, per 12 V', 0.1),
    apart: strayVolts('Halves apart, per 12 V', 0.03),
    ageing: {
      unit: '',
      scale: 'ratio',
      label: 'Resistance against new',
      min: 0.2,
      max: 20,
      default: assumed(1.2, 0.3),
    },
    cca: {
      unit: 'A',
      scale: 'ratio',
      label: 'Cold cranking amps, where it starts an engine (else 0)',
      min: 0,
      max: 10_000,
      default: assumed(0, 0),
    },
  },
  elements: [
    // Of a lithium bank, its BMS may have opened; it then leaks as little as an open cell.
    {
      kind: 'emf',
      id: 'emf',
      plus: 'plus',
      minus: 'upper-cell',
      volts: halfVolts(1),
      ohms: { by: 'bms', of: { closed: halfOhms, open: constant(BMS_OPEN_OHMS) } },
    },
    {
      kind: 'overvoltage',
      id: 'overvoltage',
      plus: 'upper-cell',
      minus: 'lower-cell',
      // A charging law that is off shows on what takes a charge alone: a bank left to itself stands where it stood.
      i0: {
        params: ['capacity', 'whileCharged'],
        value: ([ah, off], _, part) => {
          const { exchangePerAh, chargeOvervolts, bms: lithium } = chemistry(part);
          // From I0 up, η·asinh(I / I0) is moved by `off` where ln I0 is moved by −off / η.
          return exchangePerAh * ah! * (lithium ? 1 : Math.exp(-off! / chargeOvervolts));
        },
      },
      charging: {
        params: [],
        value: (_, inputs, part) =>
          blocks(part) * chemistry(part).chargeOvervolts * overvoltageShare(Math.max(5, inputs.dwell), chemistry(part)),
      },
      discharging: { params: [], value: (_, __, part) => blocks(part) * chemistry(part).dischargeOvervolts },
    },
    { kind: 'emf', id: 'lower', plus: 'lower-cell', minus: 'minus', volts: halfVolts(-1), ohms: halfOhms },
    // Half of the polarisation belongs to each half: the midpoint hangs between, at a resistance no meter feels.
    { kind: 'resistor', id: 'upper-half', a: 'upper-cell', b: 'middle', ohms: constant(TAP_OHMS) },
    { kind: 'resistor', id: 'lower-half', a: 'middle', b: 'lower-cell', ohms: constant(TAP_OHMS) },
    {
      kind: 'contact',
      id: 'heater',
      a: 'plus',
      b: 'minus',
      closedBy: { controller: 'heater' },
      ohms: {
        params: ['capacity'],
        value: ([ah], _, part) => (HEATED_AT_VOLTS * blocks(part)) ** 2 / (HEATER_WATTS_PER_AH * blocks(part) * ah!),
      },
    },
  ],
  controller: (part) => {
    const limits = chemistry(part).bms;
    if (!limits) return undefined;
    const n = blocks(part);
    return {
      kind: bms,
      senses: { volts: ['plus', 'minus'] },
      // The port's amps are what it pushes out.
      amps: { gives: 'overvoltage' },
      settings: ['capacity'],
      constants: {
        ...limits,
        highest: limits.highest * n,
        lowest: limits.lowest * n,
        rest: restVolts(0.1, chemistry(part)) * n,
        blocks: n,
        heater: Number(part.options['heater'] === 'built-in'),
      },
    };
  },
  faults: BATTERY_FAULTS,
  price: {
    dollars: (p) => [1.3 * (p.params['capacity']?.value ?? 100), 2.4 * (p.params['capacity']?.value ?? 100)],
    minutes: [45, 90],
  },
  owner: {
    works: [],
    care: [
      {
        option: { name: 'chemistry', is: ['flooded'] },
        says: 'Water level and a clean, dry tray twice a year; white or green corrosion on a terminal costs you voltage.',
      },
      {
        option: { name: 'heater', is: ['built-in'] },
        says:
          'In frost the lithium bank first warms itself on what a charger brings, and fills after that: give it an hour ' +
          'or two. It does not warm itself while nothing charges.',
      },
      {
        option: { name: 'chemistry', is: ['lfp'] },
        says: (_, units) =>
          `The lithium bank must not be charged below freezing (${Math.round(celsiusShown(0, units.temperature))} ` +
          `°${units.temperature}): warm it first. Its volts say little of how full it is.`,
      },
    ],
  },
  cautions: [],
  takes: { most: '4/0', how: 'stud, 3/8 in or M8: ring on top of the lug that is there' },
});
