/** What charges: alternator and shore charger, each a voltage behind a resistance with a current limit. */
import { assumed } from '../units/parameter';
import { just, type ElementSpec, type PartKind, type Rule } from './part';

export const alternator: PartKind = {
  id: 'alternator',
  label: 'Alternator',
  role: 'source',
  terminals: [
    { id: 'output', label: 'output stud', lead: 'output stud, on the nut', accessMinutes: 1 },
    { id: 'case', label: 'case', lead: 'bare metal of the case' },
  ],
  params: {
    setPoint: { unit: 'V', scale: 'offset', label: 'Set-point at the stud', min: 8, max: 64, default: assumed(14.15, 0.2) },
    droop: { unit: 'ohm', scale: 'ratio', label: 'Regulator droop', min: 1e-5, max: 1, default: assumed(0.004, 0.3) },
    idleLimit: { unit: 'A', scale: 'ratio', label: 'Most it gives at idle, hot', min: 0, max: 1000, default: assumed(80, 0.15) },
    fastLimit: { unit: 'A', scale: 'ratio', label: 'Most it gives at fast idle, hot', min: 0, max: 1000, default: assumed(120, 0.15) },
  },
  elements: [
    {
      kind: 'source',
      id: 'stator',
      plus: 'output',
      minus: 'case',
      volts: just('setPoint'),
      ohms: just('droop'),
      limit: {
        params: ['idleLimit', 'fastLimit'],
        value: ([idle, fast], inputs) => (inputs.engine === 'off' ? 0 : inputs.engine === 'idle' ? idle! : fast!),
      },
    },
  ],
};

/** What every charger on the coach side has: two terminals, a set-point behind a droop, and a limit of its own. */
const output = {
  terminals: [
    { id: 'plus', label: '+', lead: '+ output terminal' },
    { id: 'minus', label: '–', lead: '– output terminal' },
  ],
  params: {
    setPoint: { unit: 'V', scale: 'offset', label: 'Absorption volts', min: 8, max: 64, default: assumed(14.3, 0.12) },
    droop: { unit: 'ohm', scale: 'ratio', label: 'Output droop', min: 1e-5, max: 1, default: assumed(0.005, 0.3) },
  },
  element: (limit: Rule): ElementSpec => ({ kind: 'source', id: 'output', plus: 'plus', minus: 'minus', volts: just('setPoint'), ohms: just('droop'), limit }),
} as const;

/** Converter or inverter-charger: on the mains of a pitch or of the rig's own generator. */
export const shoreCharger: PartKind = {
  id: 'shore-charger',
  label: 'Shore charger',
  role: 'source',
  terminals: output.terminals,
  options: {
    build: {
      label: 'Kind',
      choices: [
        { id: 'converter', label: 'converter' },
        { id: 'charger', label: 'three-stage charger' },
        { id: 'inverter-charger', label: 'inverter-charger' },
      ],
      default: 'charger',
    },
  },
  params: {
    ...output.params,
    limit: { unit: 'A', scale: 'ratio', label: 'Rated output', min: 0, max: 500, default: assumed(45, 0.1) },
  },
  elements: [output.element({ params: ['limit'], value: ([limit], inputs) => (inputs.shore || inputs.generator ? limit! : 0) })],
};

/** Solar on the coach bank. Covered or pulled while the rig is rested: a charged bank tells nothing. */
export const solarCharger: PartKind = {
  id: 'solar-charger',
  label: 'Solar',
  role: 'source',
  terminals: output.terminals,
  params: {
    ...output.params,
    amps: { unit: 'A', scale: 'ratio', label: 'What the sun gives just now', min: 0, max: 500, default: assumed(4, 0.6) },
  },
  elements: [output.element({ params: ['amps'], value: ([amps], inputs) => (inputs.covered ? 0 : amps!) })],
};
