/** What the rig takes for itself on either side, as a resistance. */
import { assumed } from '../units/parameter';
import { just, type PartKind } from './part';

const terminals = [
  { id: 'plus', label: '+', lead: '+ bus of the fuse panel' },
  { id: 'minus', label: '–', lead: '– bus of the fuse panel' },
] as const;

export const chassisLoads: PartKind = {
  id: 'chassis-loads',
  label: 'Chassis loads',
  role: 'load',
  terminals,
  params: {
    off: { unit: 'ohm', scale: 'ratio', label: 'Key off (sleep current)', min: 0.1, max: 1e6, default: assumed(300, 0.5) },
    keyOn: { unit: 'ohm', scale: 'ratio', label: 'Key on', min: 0.05, max: 1e5, default: assumed(1.7, 0.25) },
    running: { unit: 'ohm', scale: 'ratio', label: 'Engine running', min: 0.05, max: 1e5, default: assumed(0.8, 0.2) },
  },
  elements: [
    {
      kind: 'resistor',
      id: 'draw',
      a: 'plus',
      b: 'minus',
      ohms: {
        params: ['off', 'keyOn', 'running'],
        value: ([off, keyOn, running], inputs) => (inputs.engine !== 'off' ? running! : inputs.key ? keyOn! : off!),
      },
    },
  ],
};

export const houseLoads: PartKind = {
  id: 'house-loads',
  label: 'House loads',
  role: 'load',
  terminals,
  params: {
    draw: { unit: 'ohm', scale: 'ratio', label: 'As found', min: 0.05, max: 1e6, default: assumed(6, 0.5) },
  },
  elements: [{ kind: 'resistor', id: 'draw', a: 'plus', b: 'minus', ohms: just('draw') }],
};
