/**
 * DC-DC chargers: take from the start battery side, give the bank behind its own charge, never back; with one input, or
 * a second for panels.
 */
import { DCDC_FAULTS, PANEL_INPUT_FAULTS } from '../faults/chargers';
import { byAmps } from '../price';
import { dcdcCharger } from '../../control/dcdcCharger';
import type { OwnerSentences, Told } from '../ownerSentence';
import { assumed, type ParameterSpec } from '../../units/parameter';
import { dualCharger } from '../../control/dualCharger';
import { ENABLE_SCHOOLS } from '../enableSchools';
import {
  constant,
  definePart,
  param,
  type ControllerWiring,
  type ElementSpec,
  type PartContext,
  type ParameterExpression,
  type ElementValue,
} from '../part';
import { PANEL_AMPS, PANEL_PARAMS } from './sources';

const volts = (label: string, value: number, spread: number): ParameterSpec => ({
  unit: 'V',
  scale: 'offset',
  label,
  min: 5,
  max: 64,
  default: assumed(value, spread),
});
const byVolts = (part: PartContext) => ENABLE_SCHOOLS.find((s) => s.id === part.options['enable'])?.by === 'volts';

const STAGE_VOLTS: ElementValue = { by: 'stage', of: { absorb: param('absorb'), float: param('float') } };

/** Share of what it takes that it gives, at full output: 85–90 %, common practice. */
export const DCDC_EFFICIENCY = 0.88;
/** V at its input from which one that goes by volts takes the engine to run, and under which to stand. Common practice. */
export const ENGINE_ON_VOLTS = 13.8;
export const ENGINE_OFF_VOLTS = 13.2;
/** W it takes for itself while it runs: from memory. */
const IDLE_WATTS = 4;
/** 4 mA at 12 V while it is off, from memory; running it takes its idle watts. */
const SUPPLY = constant(3000);

/** What every DC-DC charger has, with one input or two. */
const dcdc = {
  traits: {
    charger: true,
    charges: true,
    oneWay: true,
    byVolts: { sense: 'input', closes: 'on', opens: 'off', when: { option: 'enable', is: 'volts' } },
    line: ['input', 'output'],
    carries: { input: 'inLimit', output: 'limit' },
    passes: { element: 'converter', is: 'converter', toward: 1 },
  },
  owner: {
    works: [
      {
        option: { name: 'enable', is: ['ignition'] },
        says: (p) =>
          `The charger (${p.name}) fills its bank at up to ${Math.round(p.value('limit'))} A while the key is on. It works one way only.`,
      },
      {
        option: { name: 'enable', is: ['volts'] },
        says: (p) =>
          `The charger (${p.name}) starts by itself some minutes after the engine, ` +
          `at up to ${Math.round(p.value('limit'))} A: about ${Math.round(p.value('delay'))} s after its input has come up to ` +
          `${p.value('on').toFixed(1)} V, until it falls under ${p.value('off').toFixed(1)} V. It works one way only.`,
      },
      ...(
        [
          ['manual', 'while the engine runs and its switch in the cab is on'],
          ['marker-lights', 'while the marker lights are on'],
          ['relay', 'while the line from the vehicle in front is being charged'],
          ['always', 'whenever its input has volts, with the engine off too'],
        ] as const
      ).map(([enable, when]) => ({
        option: { name: 'enable', is: [enable] },
        says: (p: Told) =>
          `The charger (${p.name}) fills its bank at up to ${Math.round(p.value('limit'))} A ${when}. It works one way only.`,
      })),
    ],
    care: [
      {
        option: { name: 'enable', is: ['always', 'marker-lights'] },
        says: (p) =>
          `Parked, unplug it or switch its lights off: it takes from the start battery down to ${p.value('lockout').toFixed(1)} V.`,
      },
      { says: 'The charger’s fins get hot on a low bank: keep things off them.' },
    ],
  } as OwnerSentences,
  cautions: ['Fuse the charger’s run at both batteries; air around its fins.'],
  takes: { most: '4', how: 'screw clamp: ferrule on the strands' },
  terminals: [
    { id: 'input', label: 'input', lead: 'input stud, from the start battery' },
    { id: 'output', label: 'output', lead: 'output stud, to the bank' },
    { id: 'ground', label: 'ground', lead: 'negative stud, both sides' },
    { id: 'enable', label: 'enable', lead: 'enable wire at the charger', optional: true },
  ],
  options: {
    enable: {
      label: 'Enabled by',
      choices: ENABLE_SCHOOLS.map(({ id, label }) => ({ id, label })),
      default: 'ignition',
    },
    mode: {
      label: 'Works as',
      choices: [
        { id: 'charger', label: 'charger, in stages' },
        { id: 'supply', label: 'fixed-voltage supply' },
      ],
      default: 'charger',
    },
    mounting: {
      label: 'Mounted',
      choices: [
        { id: 'open', label: 'in the open, fins free' },
        { id: 'stand-off', label: 'on a stand-off' },
        { id: 'boxed', label: 'boxed in' },
      ],
      default: 'stand-off',
    },
  },
  params: {
    limit: { unit: 'A', scale: 'ratio', label: 'Most it gives', min: 0.5, max: 300, default: assumed(40, 0.05) },
    inLimit: { unit: 'A', scale: 'ratio', label: 'Most it takes', min: 0.5, max: 500, default: assumed(60, 0.1) },
    efficiency: {
      unit: '',
      scale: 'offset',
      label: 'Efficiency at full output',
      min: 0.4,
      max: 0.99,
      default: assumed(DCDC_EFFICIENCY, 0.02),
    },
    absorb: volts('Absorption volts', 14.4, 0.06),
    float: volts('Float volts', 13.5, 0.06),
    tail: { unit: 'A', scale: 'ratio', label: 'Floats under', min: 0.1, max: 200, default: assumed(5, 0.2) },
    absorbFor: {
      unit: 's',
      scale: 'ratio',
      label: 'Longest absorption',
      min: 60,
      max: 86_400,
      default: assumed(14_400, 0.1),
    },
    rebulk: volts('Starts over under', 12.8, 0.1),
    on: volts('Engine on above', ENGINE_ON_VOLTS, 0.06),
    off: volts('Engine off below', ENGINE_OFF_VOLTS, 0.06),
    delay: { unit: 's', scale: 'ratio', label: 'Delay', min: 0.1, max: 3600, default: assumed(120, 0.1) },
    lockout: volts('Input lockout under', 12.2, 0.06),
    restart: volts('Restarts above', 12.7, 0.06),
    droop: { unit: 'ohm', scale: 'ratio', label: 'Output droop', min: 1e-5, max: 1, default: assumed(0.003, 0.3) },
  },
  elements: (limit: ParameterExpression): readonly ElementSpec[] => [
    {
      kind: 'converter',
      id: 'converter',
      inPlus: 'input',
      inMinus: 'ground',
      outPlus: 'output',
      outMinus: 'ground',
      volts: STAGE_VOLTS,
      ohms: param('droop'),
      limit: { by: 'power', of: { off: constant(0), on: limit } },
      inLimit: param('inLimit'),
      efficiency: param('efficiency'),
      idle: { by: 'power', of: { off: constant(0), on: constant(IDLE_WATTS) } },
    },
    { kind: 'resistor', id: 'supply', a: 'input', b: 'ground', ohms: SUPPLY },
    { kind: 'resistor', id: 'enable-input', a: 'enable', b: 'ground', ohms: constant(2000) },
  ],
  wiring: (part: PartContext): Omit<ControllerWiring, 'kind'> => ({
    senses: { input: ['input', 'ground'], enable: ['enable', 'ground'], output: ['output', 'ground'] },
    amps: { amps: 'converter' },
    settings: ['absorb', 'float', 'tail', 'absorbFor', 'rebulk', 'droop', 'on', 'off', 'delay', 'lockout', 'restart'],
    constants: { byVolts: Number(byVolts(part)), stages: Number(part.options['mode'] !== 'supply') },
  }),
} as const;

export const dcdcChargerPart = definePart({
  id: 'dcdc-charger',
  label: 'DC-DC charger',
  role: 'link',
  traits: dcdc.traits,
  terminals: dcdc.terminals,
  options: dcdc.options,
  params: dcdc.params,
  elements: dcdc.elements(param('limit')),
  controller: (part) => ({ kind: dcdcCharger, ...dcdc.wiring(part) }),
  faults: DCDC_FAULTS,
  price: { dollars: byAmps(90, 5), minutes: [75, 150] },
  owner: dcdc.owner,
  cautions: dcdc.cautions,
  takes: dcdc.takes,
});

/** Panels feed it directly: no controller of their own, and no terminal for a lead, being under its cover. */
export const dualChargerPart = definePart({
  id: 'dual-charger',
  label: 'Dual-input charger',
  role: 'link',
  traits: { ...dcdc.traits, panels: true, panelInput: true, maintainer: true },
  terminals: dcdc.terminals,
  options: {
    ...dcdc.options,
    panels: {
      label: 'Its panels',
      choices: [
        { id: 'parallel', label: 'in parallel' },
        { id: 'series', label: 'two in series' },
      ],
      default: 'parallel',
    },
  },
  params: {
    ...dcdc.params,
    ...PANEL_PARAMS,
    panelVolts: volts('One panel, open circuit', 22, 0.5),
    // 25 V on some: common practice.
    panelLimit: volts('Panel voltage limit', 25, 0),
    trickle: {
      unit: 'A',
      scale: 'ratio',
      label: 'Gives the start battery',
      min: 0.01,
      max: 20,
      default: assumed(1, 0.2),
    },
  },
  elements: [
    // The sun comes first, the vehicle tops it up to what it can give.
    ...dcdc.elements({
      params: ['limit', ...PANEL_AMPS.params],
      value: ([limit, ...panel], inputs, part) => Math.max(0.01, limit! - PANEL_AMPS.value(panel, inputs, part)),
    }),
    {
      kind: 'source',
      id: 'solar',
      plus: 'output',
      minus: 'ground',
      volts: STAGE_VOLTS,
      ohms: param('droop'),
      limit: { by: 'panels', of: { off: constant(0), on: PANEL_AMPS } },
    },
    {
      kind: 'converter',
      id: 'trickle',
      inPlus: 'output',
      inMinus: 'ground',
      outPlus: 'input',
      outMinus: 'ground',
      // As a usual maintainer floats a 12 V start battery: common practice.
      volts: { params: [], value: (_, __, part) => (13.4 * part.nominal) / 12 },
      ohms: constant(0.05),
      limit: { by: 'trickle', of: { off: constant(0), on: param('trickle') } },
      inLimit: { params: ['trickle'], value: ([amps]) => amps! * 1.5 },
      efficiency: constant(0.85),
      idle: constant(0),
    },
  ],
  controller: (part) => {
    const wiring = dcdc.wiring(part);
    return {
      kind: dualCharger,
      ...wiring,
      amps: { ...wiring.amps, solar: 'solar' },
      settings: [...wiring.settings, 'panelVolts', 'panelLimit'],
      constants: { ...wiring.constants, inSeries: part.options['panels'] === 'series' ? 2 : 1 },
    };
  },
  faults: [...DCDC_FAULTS, ...PANEL_INPUT_FAULTS],
  price: { dollars: byAmps(140, 6), minutes: [90, 170] },
  owner: dcdc.owner,
  cautions: dcdc.cautions,
  takes: dcdc.takes,
});
