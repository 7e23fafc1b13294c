/** What joins two vehicles: the tow connector and a relay behind it. */
import { TOW_CONNECTOR_FAULTS, VOLTAGE_RELAY_FAULTS } from '../faults/line';
import { flat } from '../price';
import { UNTOLD } from '../ownerSentence';
import { voltageLink } from '../../control/voltageLink';
import { assumed } from '../../units/parameter';
import { constant, definePart, param } from '../part';

const pin = (label: string) =>
  ({ unit: 'ohm', scale: 'ratio', label, min: 1e-5, max: 100, default: assumed(0.004, 0.4, 'from memory') }) as const;

/** Charge pin and ground pin of a connector, or the two poles of a high-current one. */
export const towConnector = definePart({
  id: 'tow-connector',
  label: 'Tow connector',
  role: 'inline',
  traits: {
    towConnector: true,
    charges: true,
    line: ['front', 'rear'],
    passes: { element: 'pin', is: 'contact', toward: 1 },
  },
  terminals: [
    { id: 'front', label: 'charge, vehicle side', lead: 'charge terminal behind the vehicle’s socket' },
    { id: 'rear', label: 'charge, trailer side', lead: 'charge wire behind the trailer’s plug' },
    { id: 'front-ground', label: 'ground, vehicle side', lead: 'ground terminal behind the vehicle’s socket' },
    { id: 'rear-ground', label: 'ground, trailer side', lead: 'ground wire behind the trailer’s plug' },
  ],
  params: { pin: pin('Charge pin'), groundPin: pin('Ground pin') },
  elements: [
    { kind: 'contact', id: 'pin', a: 'front', b: 'rear', ohms: param('pin'), closedBy: { input: 'coupled' } },
    {
      kind: 'contact',
      id: 'ground-pin',
      a: 'rear-ground',
      b: 'front-ground',
      ohms: param('groundPin'),
      closedBy: { input: 'coupled' },
    },
  ],
  faults: TOW_CONNECTOR_FAULTS,
  price: { dollars: flat(25, 90), minutes: [40, 80] },
  owner: {
    works: [],
    care: [
      {
        says:
          'At every coupling: lights, brakes and the breakaway, before the road. ' +
          'If you leave the trailer plugged in overnight, the charge line can drain a battery.',
      },
    ],
  },
  cautions: ['After any work at the connector prove brakes, lights and breakaway.'],
  takes: null,
});

/** Relay that closes while its input is being charged: at the trailer end of an aux pin. */
export const voltageRelay = definePart({
  id: 'voltage-relay',
  label: 'Voltage relay',
  role: 'link',
  traits: {
    joinsBothWays: true,
    byVolts: { sense: 'chassis', closes: 'closeAt', opens: 'openAt' },
    line: ['input', 'output'],
    passes: { element: 'contact', is: 'contact', toward: 1 },
  },
  terminals: [
    { id: 'input', label: 'input', lead: 'input stud, from the vehicle' },
    { id: 'output', label: 'output', lead: 'output stud, to the bank' },
    { id: 'ground', label: 'ground', lead: 'ground wire of the relay' },
  ],
  params: {
    contact: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Contact resistance',
      min: 1e-5,
      max: 10,
      default: assumed(0.0015, 0.4),
    },
    closeAt: { unit: 'V', scale: 'offset', label: 'Closes above', min: 5, max: 64, default: assumed(13.1, 0.08) },
    openAt: { unit: 'V', scale: 'offset', label: 'Opens below', min: 5, max: 64, default: assumed(12.7, 0.08) },
    hold: { unit: 's', scale: 'ratio', label: 'For at least', min: 0.1, max: 3600, default: assumed(10, 0.3) },
  },
  elements: [
    {
      kind: 'contact',
      id: 'contact',
      a: 'input',
      b: 'output',
      ohms: param('contact'),
      closedBy: { controller: 'output' },
    },
    { kind: 'resistor', id: 'supply', a: 'input', b: 'ground', ohms: constant(1200) },
  ],
  controller: () => ({
    kind: voltageLink,
    senses: { chassis: ['input', 'ground'] },
    settings: ['closeAt', 'openAt', 'hold'],
  }),
  faults: VOLTAGE_RELAY_FAULTS,
  price: { dollars: flat(40, 110), minutes: [30, 60] },
  owner: UNTOLD,
  cautions: [],
  takes: { most: '2', how: 'studs, M8' },
});
