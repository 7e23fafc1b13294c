/** What sits in a heavy cable: link fuse, coach disconnect. */
import { assumed } from '../units/parameter';
import { just, type PartKind } from './part';

export const linkFuse: PartKind = {
  id: 'link-fuse',
  label: 'Link fuse',
  role: 'inline',
  terminals: [
    { id: 'source', label: 'source stud', lead: 'stud on the battery side' },
    { id: 'load', label: 'load stud', lead: 'stud on the isolator side' },
  ],
  params: {
    element: { unit: 'ohm', scale: 'ratio', label: 'Fuse and its studs', min: 1e-5, max: 1, default: assumed(0.0007, 0.35) },
  },
  elements: [{ kind: 'resistor', id: 'element', a: 'source', b: 'load', ohms: just('element') }],
};

export const disconnect: PartKind = {
  id: 'disconnect',
  label: 'Disconnect',
  role: 'inline',
  terminals: [
    { id: 'battery', label: 'battery stud', lead: 'stud on the bank side' },
    { id: 'house', label: 'house stud', lead: 'stud on the house side' },
  ],
  options: {
    build: {
      label: 'Kind',
      choices: [
        { id: 'switch', label: 'hand switch' },
        { id: 'latching', label: 'latching solenoid' },
      ],
      default: 'switch',
    },
  },
  params: {
    contact: { unit: 'ohm', scale: 'ratio', label: 'Contact resistance', min: 1e-5, max: 1, default: assumed(0.0009, 0.4) },
  },
  elements: [{ kind: 'contact', id: 'contact', a: 'battery', b: 'house', ohms: just('contact'), closedBy: { input: 'disconnect' } }],
};
