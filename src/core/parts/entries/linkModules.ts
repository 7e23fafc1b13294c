/** What decides to close the link by volts: one-way, bidirectional and timed-window modules. */
import {
  BY_VOLTS_FAULTS,
  CHASSIS_SENSE_WIRE_FAULTS,
  COACH_SENSE_WIRE_FAULTS,
  COIL_FEED_WIRE_FAULTS,
  MODULE_FAULTS,
  weakOutput,
} from '../faults/modules';
import { flat } from '../price';
import { bidirectionalLink } from '../../control/bidirectionalLink';
import { timedWindow } from '../../control/timedWindow';
import { voltageLink } from '../../control/voltageLink';
import { assumed, type ParameterSpec } from '../../units/parameter';
import { driverLeak, leakOhms } from '../driverLeak';
import { constant, definePart, param } from '../part';

const volts = (label: string, value: number, spread = 0.08): ParameterSpec => ({
  unit: 'V',
  scale: 'offset',
  label,
  min: 5,
  max: 64,
  default: assumed(value, spread),
});
const seconds = (label: string, value: number, spread: number): ParameterSpec => ({
  unit: 's',
  scale: 'ratio',
  label,
  min: 0.1,
  max: 86_400,
  default: assumed(value, spread),
});
const driverOhms: ParameterSpec = {
  unit: 'ohm',
  scale: 'ratio',
  label: 'Output resistance',
  min: 1e-4,
  max: 10,
  default: assumed(0.25, 0.8, 'from memory'),
};
/** 10 mA at 12 V for its own electronics, day and night: from memory. */
const SUPPLY = constant(1200);

const CHASSIS_SENSE = {
  id: 'chassis-sense',
  label: 'chassis sense',
  lead: 'chassis sense wire at the module',
} as const;
const COACH_SENSE = { id: 'coach-sense', label: 'coach sense', lead: 'coach sense wire at the module' } as const;
const OUTPUT = { id: 'output', label: 'coil out', lead: 'coil wire at the module' } as const;
const GROUND = { id: 'ground', label: 'ground', lead: 'ground wire at the module' } as const;

export const voltageLinkModule = definePart({
  id: 'voltage-link-module',
  label: 'One-way voltage module',
  role: 'control',
  traits: { module: true, engineOnly: true, byVolts: { sense: 'chassis', closes: 'closeAt', opens: 'openAt' } },
  terminals: [CHASSIS_SENSE, OUTPUT, GROUND],
  params: {
    closeAt: volts('Closes above', 13),
    openAt: volts('Opens below', 12.85),
    hold: seconds('For at least', 10, 0.3),
    contact: driverOhms,
    leak: leakOhms,
  },
  elements: [
    {
      kind: 'contact',
      id: 'driver',
      a: 'chassis-sense',
      b: 'output',
      ohms: param('contact'),
      closedBy: { controller: 'output' },
    },
    driverLeak('leak', 'chassis-sense'),
    { kind: 'resistor', id: 'supply', a: 'chassis-sense', b: 'ground', ohms: SUPPLY },
  ],
  controller: () => ({
    kind: voltageLink,
    senses: { chassis: ['chassis-sense', 'ground'] },
    settings: ['closeAt', 'openAt', 'hold'],
  }),
  faults: [
    ...MODULE_FAULTS,
    weakOutput('chassis-sense', 'driver'),
    ...COIL_FEED_WIRE_FAULTS,
    ...CHASSIS_SENSE_WIRE_FAULTS,
    ...BY_VOLTS_FAULTS,
  ],
  price: { dollars: flat(50, 120), minutes: [30, 60] },
  owner: {
    works: [
      {
        says: (p) =>
          `The link closes by itself when the start battery is being charged, above ` +
          `${p.value('closeAt').toFixed(1)} V, and opens when it falls under ${p.value('openAt').toFixed(1)} V.`,
      },
    ],
    care: [],
  },
  cautions: [],
  takes: null,
});

export const bidirectionalModule = definePart({
  id: 'bidirectional-module',
  label: 'Bidirectional module',
  role: 'control',
  traits: { module: true, servesBothBanks: true, byVolts: { sense: 'chassis', closes: 'closeAt', opens: 'openAt' } },
  terminals: [CHASSIS_SENSE, COACH_SENSE, OUTPUT, GROUND],
  params: {
    closeAt: volts('Closes when either is above', 13),
    openAt: volts('Opens when both are below', 12.8),
    hold: seconds('For at least', 8, 0.3),
    contact: driverOhms,
    leak: leakOhms,
  },
  elements: [
    {
      kind: 'contact',
      id: 'driver-chassis',
      a: 'chassis-sense',
      b: 'output',
      ohms: param('contact'),
      closedBy: { controller: 'from-chassis' },
    },
    {
      kind: 'contact',
      id: 'driver-coach',
      a: 'coach-sense',
      b: 'output',
      ohms: param('contact'),
      closedBy: { controller: 'from-coach' },
    },
    driverLeak('leak-chassis', 'chassis-sense'),
    driverLeak('leak-coach', 'coach-sense'),
    { kind: 'resistor', id: 'supply', a: 'chassis-sense', b: 'ground', ohms: SUPPLY },
    { kind: 'resistor', id: 'coach-supply', a: 'coach-sense', b: 'ground', ohms: constant(2000) },
  ],
  controller: () => ({
    kind: bidirectionalLink,
    senses: { chassis: ['chassis-sense', 'ground'], coach: ['coach-sense', 'ground'] },
    settings: ['closeAt', 'openAt', 'hold'],
  }),
  faults: [
    ...MODULE_FAULTS,
    weakOutput('chassis-sense', 'driver-chassis', 'driver-coach'),
    ...COIL_FEED_WIRE_FAULTS,
    ...CHASSIS_SENSE_WIRE_FAULTS,
    ...COACH_SENSE_WIRE_FAULTS,
    ...BY_VOLTS_FAULTS,
  ],
  price: { dollars: flat(90, 190), minutes: [40, 75] },
  owner: {
    works: [
      {
        says: (p) =>
          `The link closes by itself when either bank is being charged, above ${p.value('closeAt').toFixed(1)} ` +
          `V: the engine fills the coach bank, shore power looks after the start battery.`,
      },
    ],
    care: [],
  },
  cautions: [],
  takes: null,
});

export const timedWindowModule = definePart({
  id: 'timed-window-module',
  label: 'Timed window module',
  role: 'control',
  traits: { module: true, timed: true, servesBothBanks: true },
  terminals: [
    { id: 'ignition', label: 'ignition in', lead: 'ignition wire at the module' },
    CHASSIS_SENSE,
    COACH_SENSE,
    OUTPUT,
    GROUND,
  ],
  params: {
    low: volts('Other bank low, below', 12.6, 0.05),
    chassisHigh: volts('Chassis charging, above', 13.2, 0.05),
    coachHigh: volts('Coach charging, above', 13, 0.05),
    run: seconds('Links for', 3600, 0.05),
    contact: driverOhms,
    leak: leakOhms,
  },
  elements: [
    {
      kind: 'contact',
      id: 'driver',
      a: 'chassis-sense',
      b: 'output',
      ohms: param('contact'),
      closedBy: { controller: 'output' },
    },
    driverLeak('leak', 'chassis-sense'),
    { kind: 'resistor', id: 'supply', a: 'chassis-sense', b: 'ground', ohms: SUPPLY },
    { kind: 'resistor', id: 'coach-supply', a: 'coach-sense', b: 'ground', ohms: constant(2000) },
    { kind: 'resistor', id: 'key-supply', a: 'ignition', b: 'ground', ohms: constant(2000) },
  ],
  controller: () => ({
    kind: timedWindow,
    senses: { chassis: ['chassis-sense', 'ground'], coach: ['coach-sense', 'ground'], key: ['ignition', 'ground'] },
    settings: ['low', 'chassisHigh', 'coachHigh', 'run'],
  }),
  faults: [
    ...MODULE_FAULTS,
    weakOutput('chassis-sense', 'driver'),
    ...COIL_FEED_WIRE_FAULTS,
    ...CHASSIS_SENSE_WIRE_FAULTS,
    ...COACH_SENSE_WIRE_FAULTS,
  ],
  price: { dollars: flat(90, 180), minutes: [40, 75] },
  owner: {
    works: [
      {
        says:
          'The link closes when one bank is low and the other is being charged, works for an ' +
          'hour, and waits again. On a long drive it comes and goes: that is how it is made.',
      },
    ],
    care: [],
  },
  cautions: [],
  takes: null,
});
