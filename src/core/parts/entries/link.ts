/** The isolator solenoid (link relay): a heavy contact closed by a small coil. */
import { COACH_CABLE_FAULTS, SOLENOID_FAULTS } from '../faults/link';
import { flat } from '../price';
import { solenoid } from '../../control/solenoid';
import { assumed } from '../../units/parameter';
import { definePart, param } from '../part';

export const linkSolenoid = definePart({
  id: 'link-solenoid',
  label: 'Isolator',
  role: 'link',
  traits: {
    solenoid: true,
    joinsBothWays: true,
    line: ['chassis-stud', 'coach-stud'],
    passes: { element: 'contact', is: 'contact', toward: 1 },
  },
  terminals: [
    { id: 'chassis-stud', label: 'chassis stud', lead: 'engine-side heavy stud, on the nut' },
    { id: 'coach-stud', label: 'coach stud', lead: 'coach-side heavy stud, on the nut' },
    { id: 'coil-plus', label: 'coil +', lead: 'small coil terminal with the feed wires' },
    { id: 'coil-minus', label: 'coil –', lead: 'small coil terminal with the ground wire' },
  ],
  params: {
    // A good contact drops under 0.1–0.2 V at its working current: common practice.
    contact: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Contact resistance',
      min: 1e-5,
      max: 10,
      default: assumed(0.0008, 0.4),
    },
    coil: {
      unit: 'ohm',
      scale: 'ratio',
      label: 'Coil resistance',
      min: 0.5,
      max: 500,
      default: assumed(15, 0.1, 'from memory: continuous-duty coils 12–18 Ω'),
    },
    pullIn: {
      unit: 'V',
      scale: 'offset',
      label: 'Pull-in',
      min: 1,
      max: 60,
      default: assumed(8.2, 0.4, 'from memory: under 9 V'),
    },
    dropOut: {
      unit: 'V',
      scale: 'offset',
      label: 'Drop-out',
      min: 0.2,
      max: 40,
      default: assumed(4, 0.4, 'from memory: 3–5 V'),
    },
    rated: {
      unit: 'A',
      scale: 'ratio',
      label: 'Contact rating, continuous',
      min: 1,
      max: 2000,
      default: assumed(200, 0, 'from memory: the usual kind for 200 A; read its label'),
      ratingOnly: true,
    },
  },
  elements: [
    {
      kind: 'contact',
      id: 'contact',
      a: 'chassis-stud',
      b: 'coach-stud',
      ohms: param('contact'),
      closedBy: { controller: 'contact' },
    },
    { kind: 'resistor', id: 'coil', a: 'coil-plus', b: 'coil-minus', ohms: param('coil') },
  ],
  controller: () => ({
    kind: solenoid,
    senses: { coil: ['coil-plus', 'coil-minus'] },
    settings: ['pullIn', 'dropOut'],
  }),
  faults: [...SOLENOID_FAULTS, ...COACH_CABLE_FAULTS],
  price: { dollars: flat(45, 130), minutes: [30, 60] },
  owner: {
    works: [{ alone: true, says: 'With the key on the relay closes and the line charges; key off, it opens.' }],
    care: [
      {
        says: 'A hot stud, a hot smell or a discolored cable at the link: have its contact measured. Once a year in any case.',
      },
    ],
  },
  cautions: [],
  takes: { most: '4/0', how: 'studs, 5/16 in or M8' },
});
