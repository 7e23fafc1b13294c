/** Loads of what is towed: a three-way fridge's element, a towed car with its ignition in accessory. */
import { SMALL_PART } from '../price';
import { UNTOLD } from '../ownerSentence';
import { assumed } from '../../units/parameter';
import { automaticFridge as chooses } from '../../control/automaticFridge';
import { AUTOMATIC_FRIDGE_FAULTS } from '../faults/trailerLoads';
import { constant, definePart } from '../part';

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

/** One that chooses by itself: its element is on while its trigger is live, and off on shore power. */
export const automaticFridge = definePart({
  id: 'automatic-fridge',
  label: 'Automatic fridge',
  role: 'load',
  traits: { fridge: true, choosesItself: true, carries: { plus: 25 } },
  terminals: [...terminals, { id: 'trigger', label: 'trigger', lead: 'trigger wire at the fridge’s terminal block' }],
  params: fridgeElement.params,
  elements: [
    // A relay's coil, or an input as thirsty: 0.1 A, from memory.
    { kind: 'resistor', id: 'coil', a: 'trigger', b: 'minus', ohms: constant(120) },
    {
      kind: 'contact',
      id: 'element',
      a: 'plus',
      b: 'minus',
      ohms: {
        params: ['watts'],
        value: ([watts], inputs, part) => (inputs.shore || inputs.generator ? 1e6 : part.nominal ** 2 / watts!),
      },
      closedBy: { controller: 'element' },
    },
  ],
  controller: () => ({ kind: chooses, senses: { trigger: ['trigger', 'minus'] }, settings: [] }),
  faults: AUTOMATIC_FRIDGE_FAULTS,
  price: SMALL_PART,
  owner: {
    works: [
      {
        says:
          'The fridge goes to 12 V by itself while the engine runs. After you stop it waits about a quarter of an ' +
          'hour before it lights gas: that is no fault, and a fuel stop needs no hand.',
      },
    ],
    care: [
      {
        says: 'If the fridge stays on 12 V with the engine off, switch it to gas by hand and have its trigger looked at.',
      },
    ],
  },
  cautions: ['Gas off at the bottle before a fridge’s feed is worked on: it may light by itself.'],
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
    // Coupled for the test as for the road: whether its key is in accessory, nobody has written down. From memory.
    asFound: {
      unit: 'A',
      scale: 'offset',
      label: 'Coupled, engine on, key as found',
      min: 0,
      max: 50,
      default: assumed(0.9, 0.9),
    },
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
        params: ['off', 'asFound', 'accessory', 'brake'],
        value: ([off, asFound, accessory, brake], inputs, part) => {
          const found = inputs.engine !== 'off' && !inputs.leg ? Math.max(off!, asFound!) : off!;
          const amps = inputs.engine === 'road' ? accessory! + brake! : found;
          return (STATED_AT_VOLTS * (part.nominal / 12)) / Math.max(0.002, amps);
        },
      },
    },
  ],
  faults: [],
  price: SMALL_PART,
  owner: UNTOLD,
  cautions: [],
  takes: null,
});
