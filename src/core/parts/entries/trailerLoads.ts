/** Loads of what is towed: a three-way fridge's element, a towed car with its ignition in accessory. */
import { SMALL_PART } from '../price';
import { UNTOLD } from '../ownerSentence';
import { assumed } from '../../units/parameter';
import { definePart } from '../part';

const terminals = [
  { id: 'plus', label: '+', lead: '+ terminal, under its cover' },
  { id: 'minus', label: '–', lead: '– terminal, under its cover' },
] as const;

export const fridgeElement = definePart({
  id: 'fridge-element',
  label: 'Fridge element',
  role: 'load',
  traits: { fridge: true, carries: { plus: 25 } },
  terminals,
  options: {
    position: {
      label: 'Selector, as found',
      choices: [
        { id: 'gas', label: 'gas or off' },
        { id: 'battery', label: '12 V' },
      ],
      default: 'gas',
    },
  },
  params: {
    watts: {
      unit: 'W',
      scale: 'ratio',
      label: 'Element, at nominal volts',
      min: 1,
      max: 2000,
      default: assumed(290, 0.08),
    },
  },
  elements: [
    {
      kind: 'resistor',
      id: 'element',
      a: 'plus',
      b: 'minus',
      ohms: {
        params: ['watts'],
        // A leg says whether it is on 12 V; while one measures it is as found.
        value: ([watts], inputs, part) =>
          (inputs.leg ? inputs.leg.fridgeOnBattery : part.options['position'] === 'battery')
            ? part.nominal ** 2 / watts!
            : 1e6,
      },
    },
  ],
  faults: [],
  price: SMALL_PART,
  owner: {
    works: [],
    care: [
      {
        says: 'The fridge’s 12 V element empties a bank within hours once the engine stands: switch it over on arrival.',
      },
    ],
  },
  cautions: [],
  takes: null,
});

/** Volts at which a load's amps are stated, per 12 V. */
const STATED_AT_VOLTS = 12.5;

export const towedCarLoads = definePart({
  id: 'towed-car-loads',
  label: 'Towed car',
  role: 'load',
  traits: { towedCar: true, carries: { plus: 20 } },
  terminals,
  params: {
    off: { unit: 'A', scale: 'offset', label: 'Parked, asleep', min: 0, max: 50, default: assumed(0.03, 0.01) },
    accessory: {
      unit: 'A',
      scale: 'offset',
      label: 'Towed, ignition in accessory',
      min: 0,
      max: 50,
      default: assumed(2.2, 0.8),
    },
    brake: {
      unit: 'A',
      scale: 'offset',
      label: 'Supplemental brake, mean',
      min: 0,
      max: 50,
      default: assumed(0.8, 0.4),
    },
  },
  elements: [
    {
      kind: 'resistor',
      id: 'draw',
      a: 'plus',
      b: 'minus',
      ohms: {
        params: ['off', 'accessory', 'brake'],
        value: ([off, accessory, brake], inputs, part) =>
          (STATED_AT_VOLTS * (part.nominal / 12)) /
          Math.max(0.002, inputs.engine === 'road' ? accessory! + brake! : off!),
      },
    },
  ],
  faults: [],
  price: SMALL_PART,
  owner: UNTOLD,
  cautions: [],
  takes: null,
});
