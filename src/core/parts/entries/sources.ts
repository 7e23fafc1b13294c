/** What charges: alternator and shore charger, each a voltage behind a resistance with a current limit. */
import { ALTERNATOR_FAULTS, SHORE_CHARGER_FAULTS, SOLAR_FAULTS } from '../faults/sources';
import { SMALL_PART } from '../price';
import { UNTOLD } from '../ownerSentence';
import { assumed, type ParameterSpec } from '../../units/parameter';
import { smartRegulator } from '../../control/smartRegulator';
import { chargeStages } from '../../control/chargeStages';
import { standbyCharger } from '../../control/standbyCharger';
import {
  constant,
  definePart,
  param,
  type ElementSpec,
  type PartContext,
  type ParameterExpression,
  type ElementValue,
} from '../part';

export const alternator = definePart({
  id: 'alternator',
  label: 'Alternator',
  role: 'source',
  traits: { alternator: true, carries: { output: 'fastLimit' } },
  terminals: [
    { id: 'output', label: 'output stud', lead: 'output stud, on the nut', accessMinutes: 1 },
    { id: 'case', label: 'case', lead: 'bare metal of the case' },
  ],
  params: {
    setPoint: {
      unit: 'V',
      scale: 'offset',
      label: 'Set-point at the stud',
      min: 8,
      max: 64,
      default: assumed(14.15, 0.2),
    },
    droop: { unit: 'ohm', scale: 'ratio', label: 'Regulator droop', min: 1e-5, max: 1, default: assumed(0.004, 0.3) },
    idleLimit: {
      unit: 'A',
      scale: 'ratio',
      label: 'Most it gives at idle, hot',
      min: 0,
      max: 1000,
      default: assumed(80, 0.15),
    },
    fastLimit: {
      unit: 'A',
      scale: 'ratio',
      label: 'Most it gives at fast idle and on the road, hot',
      min: 0,
      max: 1000,
      default: assumed(120, 0.15),
    },
  },
  options: {
    regulator: {
      label: 'Regulator',
      choices: [
        { id: 'ordinary', label: 'ordinary: one set-point' },
        { id: 'smart', label: 'smart: holds back when full' },
      ],
      default: 'ordinary',
    },
  },
  elements: [
    {
      kind: 'source',
      id: 'stator',
      plus: 'output',
      minus: 'case',
      // A smart one holds the system this low once the batteries seem full.
      volts: {
        by: 'stage',
        of: {
          charge: param('setPoint'),
          hold: {
            params: ['setPoint'],
            value: ([volts], _, part) => volts! - SMART_HOLDS_BACK_VOLTS * (part.nominal / 12),
          },
        },
      },
      ohms: param('droop'),
      limit: {
        params: ['idleLimit', 'fastLimit'],
        value: ([idle, fast], inputs) => (inputs.engine === 'off' ? 0 : inputs.engine === 'idle' ? idle! : fast!),
      },
    },
    // Nothing in a healthy one; what a shorted diode lets through, engine on or off.
    { kind: 'resistor', id: 'leak', a: 'output', b: 'case', ohms: constant(Infinity) },
  ],
  controller: (part) =>
    part.options['regulator'] === 'smart'
      ? {
          kind: smartRegulator,
          senses: { volts: ['output', 'case'] },
          amps: { amps: 'stator' },
          settings: [],
          constants: { tail: 25, sag: (12.4 * part.nominal) / 12 },
        }
      : undefined,
  faults: ALTERNATOR_FAULTS,
  price: SMALL_PART,
  owner: UNTOLD,
  cautions: [],
  takes: null,
});

/** V under its charging set-point: about 12.7 V in all, within the 12.2–15 V of common practice. */
const SMART_HOLDS_BACK_VOLTS = 1.4;

/** What every charger on the coach side has: two terminals, a set-point behind a droop, and a limit of its own. */
const output = {
  terminals: [
    { id: 'plus', label: '+', lead: '+ output terminal' },
    { id: 'minus', label: '–', lead: '– output terminal' },
  ],
  params: {
    setPoint: { unit: 'V', scale: 'offset', label: 'Absorption volts', min: 8, max: 64, default: assumed(14.3, 0.12) },
    droop: { unit: 'ohm', scale: 'ratio', label: 'Output droop', min: 1e-5, max: 1, default: assumed(0.005, 0.3) },
    float: { unit: 'V', scale: 'offset', label: 'Float volts', min: 8, max: 64, default: assumed(13.5, 0.08) },
    tail: { unit: 'A', scale: 'ratio', label: 'Floats under', min: 0.1, max: 200, default: assumed(8, 0.3) },
    absorbFor: {
      unit: 's',
      scale: 'ratio',
      label: 'Longest absorption',
      min: 60,
      max: 86_400,
      default: assumed(14_400, 0.1),
    },
  },
  element: (limit: ElementValue): ElementSpec => ({
    kind: 'source',
    id: 'output',
    plus: 'plus',
    minus: 'minus',
    volts: STAGE_VOLTS,
    ohms: param('droop'),
    limit,
  }),
} as const;

const STAGE_VOLTS: ElementValue = { by: 'stage', of: { absorb: param('setPoint'), float: param('float') } };

/** Volts under which a floating charger of a 12 V bank starts over: from memory. */
const REBULK_VOLTS = 12.8;

/** Volts of a 12 V bank under which the second of two chargers joins the first: from memory. */
const JOINS_BELOW_VOLTS = 13;

/** Three stages, or one where the unit has just one; the second of two stands by. */
const stages = (part: PartContext) => ({
  kind: part.options['duty'] === 'standby' ? standbyCharger : chargeStages,
  senses: { volts: ['plus', 'minus'] as const },
  amps: { amps: 'output' },
  settings: ['setPoint', 'float', 'tail', 'absorbFor', 'droop'],
  constants: { rebulk: (REBULK_VOLTS * part.nominal) / 12, joinBelow: (JOINS_BELOW_VOLTS * part.nominal) / 12 },
});

/** Converter or inverter-charger: on the mains of a pitch or of the rig's own generator. */
export const shoreCharger = definePart({
  id: 'shore-charger',
  label: 'Shore charger',
  role: 'source',
  traits: { mainsCharger: true, charges: true, carries: { plus: 'limit' } },
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
    duty: {
      label: 'Of two in parallel',
      choices: [
        { id: 'own', label: 'alone, or the first' },
        { id: 'standby', label: 'the second: stands by' },
      ],
      default: 'own',
    },
  },
  params: {
    ...output.params,
    limit: { unit: 'A', scale: 'ratio', label: 'Rated output', min: 0, max: 500, default: assumed(45, 0.1) },
  },
  elements: [
    output.element({
      by: 'power',
      of: {
        on: { params: ['limit'], value: ([limit], inputs) => (inputs.shore || inputs.generator ? limit! : 0) },
        standby: constant(0),
      },
    }),
  ],
  // A converter has one set-point.
  controller: (part) =>
    part.options['build'] === 'converter' && part.options['duty'] !== 'standby' ? undefined : stages(part),
  faults: SHORE_CHARGER_FAULTS,
  price: SMALL_PART,
  owner: UNTOLD,
  cautions: [],
  takes: { most: '4', how: 'clamp or stud' },
});

/** Share of its rating a panel gives on a roof in full sun, flat, warm and dusty, its controller's loss with it: from memory. */
const PANEL_YIELD_SHARE = 0.7;
const CHARGING_VOLTS = 13.5;

export const PANEL_PARAMS = {
  amps: { unit: 'A', scale: 'ratio', label: 'What the sun gives just now', min: 0, max: 500, default: assumed(4, 0.6) },
  panel: { unit: 'W', scale: 'ratio', label: 'Panels', min: 0, max: 10_000, default: assumed(200, 0.05) },
} satisfies Record<string, ParameterSpec>;

/** Amps of panels at the bank: as found while one measures, by the sun in a simulation. */
export const PANEL_AMPS: ParameterExpression = {
  params: ['amps', 'panel'],
  value: ([amps, panel], inputs, part) => {
    if (inputs.leg) return (panel! * PANEL_YIELD_SHARE * inputs.leg.sun) / (CHARGING_VOLTS * (part.nominal / 12));
    return inputs.covered ? 0 : amps!;
  },
};

/** A a roof’s controller is usually made for. Common practice. */
const USUAL_SOLAR_AMPS = 30;

/** Solar on the coach bank. Covered or pulled while the rig is rested: a charged bank tells nothing. */
export const solarCharger = definePart({
  id: 'solar-charger',
  label: 'Solar',
  role: 'source',
  traits: { panels: true, charges: true, carries: { plus: USUAL_SOLAR_AMPS } },
  terminals: output.terminals,
  params: { ...output.params, ...PANEL_PARAMS },
  elements: [output.element(PANEL_AMPS)],
  faults: SOLAR_FAULTS,
  price: SMALL_PART,
  owner: UNTOLD,
  cautions: [],
  takes: { most: '6', how: 'screw clamp: ferrule on the strands' },
});
