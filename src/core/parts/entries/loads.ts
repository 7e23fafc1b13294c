/**
 * What the rig takes for itself on either side. Stated in amps, as a clamp would show them at rest volts, and
 * solved as a resistance; in amps because that is what one knows, and because currents add up linearly.
 */
import { CHASSIS_LOADS_FAULTS, HOUSE_LOADS_FAULTS } from '../faults/loads';
import { SMALL_PART } from '../price';
import { UNTOLD } from '../ownerSentence';
import { assumed, type ParameterSpec } from '../../units/parameter';
import { type PartContext, definePart } from '../part';

/** Volts at which a load's amps are stated, per 12 V. */
const STATED_AT_VOLTS = 12.5;
/** Nothing takes less: what a few idle electronics draw. Keeps the resistance finite. */
const MIN_AMPS = 0.002;

const terminals = [
  { id: 'plus', label: '+', lead: '+ bus of the fuse panel' },
  { id: 'minus', label: '–', lead: '– bus of the fuse panel' },
] as const;

const amps = (label: string, value: number, spread: number): ParameterSpec => ({
  unit: 'A',
  scale: 'offset',
  label,
  min: 0,
  max: 500,
  default: assumed(value, spread),
});
const ohms = (value: number, part: PartContext): number =>
  (STATED_AT_VOLTS * (part.nominal / 12)) / Math.max(MIN_AMPS, value);

export const chassisLoads = definePart({
  id: 'chassis-loads',
  label: 'Chassis loads',
  role: 'load',
  traits: { chassisLoads: true, carries: { plus: 60 } },
  terminals,
  params: {
    off: amps('Key off, asleep', 0.04, 0.015),
    keyOn: amps('Key on', 7.5, 2.5),
    running: amps('Engine running', 16, 5),
    starter: { unit: 'A', scale: 'ratio', label: 'Starter, cranking', min: 10, max: 5000, default: assumed(400, 0.2) },
  },
  elements: [
    {
      kind: 'resistor',
      id: 'draw',
      a: 'plus',
      b: 'minus',
      ohms: {
        params: ['off', 'keyOn', 'running'],
        value: ([off, keyOn, running], inputs, part) =>
          ohms(inputs.engine !== 'off' ? running! : inputs.key ? keyOn! : off!, part),
      },
    },
  ],
  faults: CHASSIS_LOADS_FAULTS,
  price: SMALL_PART,
  owner: UNTOLD,
  cautions: [],
  takes: null,
});

/** The generator's own electronics between starts; it feeds the charger by mains while it runs. */
export const generator = definePart({
  id: 'generator',
  label: 'Generator',
  role: 'load',
  traits: { generator: true, cranked: { terminal: 'plus' } },
  terminals: [
    { id: 'plus', label: 'start lead', lead: 'stud of the start lead at the generator' },
    { id: 'minus', label: 'frame', lead: 'bare metal of the generator frame' },
  ],
  params: {
    draw: amps('At rest', 0.03, 0.02),
    starter: {
      unit: 'A',
      scale: 'ratio',
      label: 'Its starter, cranking',
      min: 10,
      max: 2000,
      default: assumed(180, 0.3, 'from memory'),
    },
  },
  elements: [
    {
      kind: 'resistor',
      id: 'draw',
      a: 'plus',
      b: 'minus',
      ohms: { params: ['draw'], value: ([draw], _, part) => ohms(draw!, part) },
    },
  ],
  faults: [],
  price: SMALL_PART,
  owner: UNTOLD,
  cautions: [],
  takes: null,
});

export const houseLoads = definePart({
  id: 'house-loads',
  label: 'House loads',
  role: 'load',
  traits: { houseLoads: true, carries: { plus: 50 } },
  terminals,
  options: {
    onTow: {
      label: 'Coupled, towing engine running',
      choices: [
        { id: 'not-looked', label: 'nobody has looked' },
        { id: 'live', label: 'stay on' },
        { id: 'cut', label: 'a habitation relay cuts them' },
      ],
      default: 'not-looked',
    },
  },
  params: { draw: amps('As found', 3, 2) },
  elements: [
    {
      kind: 'resistor',
      id: 'draw',
      a: 'plus',
      b: 'minus',
      // As found while one measures; in a simulation what the leg uses.
      ohms: {
        params: ['draw'],
        value: ([draw], inputs, part) =>
          ohms(
            part.options['onTow'] === 'cut' && inputs.coupled && inputs.engine !== 'off'
              ? 0
              : inputs.leg
                ? inputs.leg.houseAmps
                : draw!,
            part,
          ),
      },
    },
  ],
  faults: HOUSE_LOADS_FAULTS,
  price: SMALL_PART,
  owner: UNTOLD,
  cautions: [],
  takes: null,
});
