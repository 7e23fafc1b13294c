/** DC-DC charger: takes from the start battery side, gives the bank behind its own charge, never back. */
import { dcdcCharger } from '../control/dcdcCharger';
import { assumed, type ParameterSpec } from '../units/parameter';
import { ENABLE_SCHOOLS } from './enableSchools';
import { fixed, just, type PartContext, type PartKind } from './part';

const volts = (label: string, value: number, spread: number): ParameterSpec => ({ unit: 'V', scale: 'offset', label, min: 5, max: 64, default: assumed(value, spread) });
const byVolts = (part: PartContext) => ENABLE_SCHOOLS.find((s) => s.id === part.options['enable'])?.by === 'volts';

/** W it takes for itself while it runs: from memory. */
const IDLE_WATTS = 4;
/** 4 mA at 12 V while it is off, from memory; running it takes its idle watts. */
const SUPPLY = fixed(3000);

export const dcdcChargerPart: PartKind = {
  id: 'dcdc-charger',
  label: 'DC-DC charger',
  role: 'link',
  terminals: [
    { id: 'input', label: 'input', lead: 'input stud, from the start battery' },
    { id: 'output', label: 'output', lead: 'output stud, to the bank' },
    { id: 'ground', label: 'ground', lead: 'negative stud, both sides' },
    { id: 'enable', label: 'enable', lead: 'enable wire at the charger', optional: true },
  ],
  options: {
    enable: { label: 'Enabled by', choices: ENABLE_SCHOOLS.map(({ id, label }) => ({ id, label })), default: 'ignition' },
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
    efficiency: { unit: '', scale: 'offset', label: 'Efficiency at full output', min: 0.4, max: 0.99, default: assumed(0.88, 0.02) },
    absorb: volts('Absorption volts', 14.4, 0.06),
    float: volts('Float volts', 13.5, 0.06),
    tail: { unit: 'A', scale: 'ratio', label: 'Floats under', min: 0.1, max: 200, default: assumed(5, 0.2) },
    absorbFor: { unit: 's', scale: 'ratio', label: 'Longest absorption', min: 60, max: 86_400, default: assumed(14_400, 0.1) },
    rebulk: volts('Starts over under', 12.8, 0.1),
    on: volts('Engine on above', 13.8, 0.06),
    off: volts('Engine off below', 13.2, 0.06),
    delay: { unit: 's', scale: 'ratio', label: 'Delay', min: 0.1, max: 3600, default: assumed(120, 0.1) },
    lockout: volts('Input lockout under', 12.2, 0.06),
    restart: volts('Restarts above', 12.7, 0.06),
    droop: { unit: 'ohm', scale: 'ratio', label: 'Output droop', min: 1e-5, max: 1, default: assumed(0.003, 0.3) },
  },
  elements: [
    {
      kind: 'converter', id: 'converter', inPlus: 'input', inMinus: 'ground', outPlus: 'output', outMinus: 'ground',
      volts: { by: 'stage', of: { absorb: just('absorb'), float: just('float') } },
      ohms: just('droop'),
      limit: { by: 'power', of: { off: fixed(0), on: just('limit') } },
      inLimit: just('inLimit'),
      efficiency: just('efficiency'),
      idle: { by: 'power', of: { off: fixed(0), on: fixed(IDLE_WATTS) } },
    },
    { kind: 'resistor', id: 'supply', a: 'input', b: 'ground', ohms: SUPPLY },
    { kind: 'resistor', id: 'enable-input', a: 'enable', b: 'ground', ohms: fixed(2000) },
  ],
  controller: (part) => ({
    kind: dcdcCharger,
    senses: { input: ['input', 'ground'], enable: ['enable', 'ground'], output: ['output', 'ground'] },
    amps: { amps: 'converter' },
    settings: ['absorb', 'float', 'tail', 'absorbFor', 'rebulk', 'on', 'off', 'delay', 'lockout', 'restart'],
    constants: { byVolts: Number(byVolts(part)), stages: Number(part.options['mode'] !== 'supply') },
  }),
};
