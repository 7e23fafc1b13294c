/** Diode isolator: from the alternator to both banks, one diode each. Nothing flows back; something is lost. */
import { COACH_CABLE_FAULTS, DIODE_ISOLATOR_FAULTS } from '../faults/link';
import { flat } from '../price';
import { assumed } from '../../units/parameter';
import { constant, definePart, param } from '../part';

/**
 * Shockley with n·Vt = 40 mV and Is = 0.5 µA: 0.65 V at 6 A, 0.75 V at 70 A, with 0.5 mΩ behind it the
 * 0.6–0.8 V of common practice.
 */
const saturation = constant(5e-7);
const emission = constant(0.04);

export const diodeIsolator = definePart({
  id: 'diode-isolator',
  label: 'Diode isolator',
  role: 'link',
  traits: {
    oneWay: true,
    diodes: true,
    engineOnly: true,
    line: ['chassis-stud', 'coach-stud'],
    passes: { element: 'coach-diode', is: 'diode', toward: 1 },
  },
  terminals: [
    { id: 'chassis-stud', label: 'chassis stud', lead: 'engine-battery stud, on the nut' },
    { id: 'coach-stud', label: 'coach stud', lead: 'coach-battery stud, on the nut' },
    { id: 'input', label: 'alternator stud', lead: 'middle stud from the alternator' },
  ],
  inner: ['chassis-anode', 'coach-anode'],
  params: {
    bulk: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Resistance of a diode',
      min: 1e-5,
      max: 1,
      default: assumed(0.0005, 0.4),
    },
  },
  elements: [
    { kind: 'resistor', id: 'chassis-bulk', a: 'input', b: 'chassis-anode', ohms: param('bulk') },
    { kind: 'diode', id: 'chassis-diode', anode: 'chassis-anode', cathode: 'chassis-stud', saturation, emission },
    { kind: 'resistor', id: 'coach-bulk', a: 'input', b: 'coach-anode', ohms: param('bulk') },
    // Nothing in a healthy one; what a shorted diode leaves in its place.
    { kind: 'resistor', id: 'coach-short', a: 'input', b: 'coach-stud', ohms: constant(Infinity) },
    { kind: 'diode', id: 'coach-diode', anode: 'coach-anode', cathode: 'coach-stud', saturation, emission },
  ],
  faults: [...DIODE_ISOLATOR_FAULTS, ...COACH_CABLE_FAULTS],
  price: { dollars: flat(60, 160), minutes: [45, 90] },
  owner: {
    works: [{ says: 'A diode isolator shares the alternator’s current; neither battery can flow into the other.' }],
    care: [],
  },
  cautions: [],
  takes: null,
});
