/** What joins two vehicles: the tow connector and a relay behind it. */
import { voltageLink } from '../control/voltageLink';
import { assumed } from '../units/parameter';
import { fixed, just, type PartKind } from './part';

const pin = (label: string) =>
  ({ unit: 'ohm', scale: 'ratio', label, min: 1e-5, max: 100, default: assumed(0.004, 0.4, 'from memory') }) as const;

/** Charge pin and ground pin of a connector, or the two poles of a high-current one. */
export const towConnector: PartKind = {
  id: 'tow-connector',
  label: 'Tow connector',
  role: 'inline',
  terminals: [
    { id: 'front', label: 'charge, vehicle side', lead: 'charge terminal behind the vehicle’s socket' },
    { id: 'rear', label: 'charge, trailer side', lead: 'charge wire behind the trailer’s plug' },
    { id: 'front-ground', label: 'ground, vehicle side', lead: 'ground terminal behind the vehicle’s socket' },
    { id: 'rear-ground', label: 'ground, trailer side', lead: 'ground wire behind the trailer’s plug' },
  ],
  params: { pin: pin('Charge pin'), groundPin: pin('Ground pin') },
  elements: [
    { kind: 'contact', id: 'pin', a: 'front', b: 'rear', ohms: just('pin'), closedBy: { input: 'coupled' } },
    {
      kind: 'contact',
      id: 'ground-pin',
      a: 'rear-ground',
      b: 'front-ground',
      ohms: just('groundPin'),
      closedBy: { input: 'coupled' },
    },
  ],
};

/** Relay that closes while its input is being charged: at the trailer end of an aux pin. */
export const voltageRelay: PartKind = {
  id: 'voltage-relay',
  label: 'Voltage relay',
  role: 'link',
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
      ohms: just('contact'),
      closedBy: { controller: 'output' },
    },
    { kind: 'resistor', id: 'supply', a: 'input', b: 'ground', ohms: fixed(1200) },
  ],
  controller: () => ({
    kind: voltageLink,
    senses: { chassis: ['input', 'ground'] },
    settings: ['closeAt', 'openAt', 'hold'],
  }),
};
