/**
 * Checks of the finished rig that are more than one reading: watches, the parasitic check, brakes and lights.
 * Rows of common practice; a new check is a row. Limits come from the rig where it states them.
 */
import { is } from '../parts/kinds';
import type { Rig } from '../rig/schema';
import { has, partOption, partsWith, partValue, partWith } from '../rig/value';
import type { CheckValue, RigCheck } from './check';
import { isDecider } from './functions';

/** What is proved: the rig before and after, and what made it. */
export interface Proving {
  rig: Rig;
  from: Rig | undefined;
  made: 'repair' | 'build';
  /** Part the repair was at. */
  repaired?: string;
}

/** °C of an alternator's housing at which to stop where its maker states none: from memory. */
export const HOUSING_LIMIT_CELSIUS = 105;
/** A of sleep current over which a start battery's drain is looked for: 25 to 50 mA is usual (common practice, no source). */
export const SLEEP_LIMIT_AMPS = 0.05;

/** Whether work was done at the tow connector or on a wire that ends at it. */
function towTouched({ rig, from, repaired }: Proving): boolean {
  const connectors = new Set(partsWith(rig, 'towConnector').map((p) => p.id));
  if (
    repaired !== undefined &&
    (connectors.has(repaired) ||
      rig.conductors.some((c) => c.id === repaired && (connectors.has(c.from.part) || connectors.has(c.to.part))))
  )
    return true;
  if (!from) return false;
  const at = (doc: Rig) =>
    JSON.stringify([
      doc.tow,
      doc.parts.filter((p) => connectors.has(p.id)),
      doc.conductors.filter((c) => connectors.has(c.from.part) || connectors.has(c.to.part)),
    ]);
  return at(from) !== at(rig);
}

/** The link can let a bank take all an alternator gives: a solenoid, or a charger as large. */
const heavyCharging = (rig: Rig): boolean => rig.parts.some((p) => is(p, 'solenoid') || is(p, 'charger'));
const lithium = (rig: Rig): boolean => rig.parts.some((p) => is(p, 'battery') && partOption(p, 'chemistry') === 'lfp');

/** What one thing asks to be checked: nothing where the rig does not have it. A further one is a function in `CHECKS`. */
type CheckOf = (proving: Proving) => RigCheck[];

const huntingCheck: CheckOf = ({ rig, made, repaired }) => {
  if (!rig.parts.some(isDecider)) return [];
  const decider = rig.parts.find((p) => p.id === repaired);
  return [
    {
      id: 'hunting',
      name: 'Nothing hunts',
      how:
        'Engine idling, house loads and lights on. Listen to the link and watch ' +
        'its amps for five minutes; count how often it opens or drops out.',
      why: 'a link or charger that comes and goes wears out, and never charges',
      state: 'idle',
      minutes: 5,
      values: [{ id: 'drops', label: 'Opened or dropped out', unit: 'times', most: 0, source: 'common practice' }],
      watch: false,
      required: made === 'build' || (decider !== undefined && isDecider(decider)),
    },
  ];
};

const idleHourCheck: CheckOf = ({ rig, made }) => {
  const alternator = partWith(rig, 'alternator');
  if (!alternator || !heavyCharging(rig)) return [];
  return [
    {
      id: 'idle-hour',
      name: 'An hour at idle, bank low',
      how:
        'Bank as low as it is used, engine idling an hour with the hood as on the road. Every ten minutes ' +
        'write down the alternator’s amps and its housing’s temperature, on a taped or painted spot.',
      why: 'a low bank at idle is the worst case: most current, least cooling',
      state: 'idle',
      minutes: 60,
      values: [
        {
          id: 'amps',
          label: 'Alternator, highest',
          unit: 'A',
          most: partValue(alternator, 'idleLimit'),
          source: 'what this alternator gives at hot idle, as the rig describes it',
        },
        {
          id: 'celsius',
          label: 'Housing, highest',
          unit: '°C',
          most: HOUSING_LIMIT_CELSIUS,
          source: 'from memory; the maker’s limit comes first',
        },
        { id: 'ambient', label: 'Air beside it', unit: '°C' },
      ],
      watch: true,
      required: made === 'build',
      caution:
        'Engine only in the open, brake on, wheels chocked. Somebody stays with it, a fire extinguisher within reach.' +
        (lithium(rig)
          ? ' If the bank’s protection opens under charge, the alternator sees the load go: watch for it, do not provoke it.'
          : ''),
    },
  ];
};

const towChecks: CheckOf = (proving) => {
  if (!has(proving.rig, 'towConnector')) return [];
  const tow = {
    state: 'rested',
    values: [] as CheckValue[],
    watch: false,
    required: towTouched(proving),
    caution:
      'Brakes and breakaway are safety systems: chock the wheels, prove them after any work at the connector, and never ' +
      'let it leave with one disabled.',
  };
  return [
    {
      ...tow,
      id: 'lights',
      name: 'Lights',
      how: 'Coupled: tail, brake, both turn signals and reverse, each seen by somebody behind.',
      why: 'a wire in the wrong pin lights the wrong lamp',
      minutes: 4,
    },
    {
      ...tow,
      id: 'brakes',
      name: 'Service brakes',
      how:
        'Coupled: apply the brakes with the controller’s manual lever, then by the pedal; ' +
        'each wheel’s brake is heard or felt, and releases.',
      why: 'the same plug carries them',
      minutes: 5,
    },
    {
      ...tow,
      id: 'breakaway',
      name: 'Breakaway',
      how:
        'Uncoupled, wheels chocked: pull the pin; the brakes hold at once, and still after 15 minutes. Put the pin back. The ' +
        'magnets get hot, and the test empties its battery: charge it.',
      why: 'its battery is fed from the charge line; 15 minutes is the yardstick of 49 CFR 393.43',
      minutes: 18,
    },
  ];
};

const sleepCheck: CheckOf = ({ made }) => [
  {
    id: 'sleep',
    name: 'Current at rest',
    how:
      'Doors latched, key away, 20 to 60 minutes until everything sleeps. Clamp round the ' +
      'start battery’s negative, zeroed where you’ll clamp; the circuit is never broken for it.',
    why: 'what was added must not flatten the start battery',
    state: 'rested',
    minutes: 30,
    values: [
      {
        id: 'amps',
        label: 'Start battery, asleep',
        unit: 'A',
        most: SLEEP_LIMIT_AMPS,
        source:
          'common practice: 0.025 to 0.05 A is usual, 0.07 A with alarm and tracker wants naming, 0.25 A is a fault',
      },
    ],
    watch: false,
    required: made === 'build',
  },
];

const CHECKS: readonly CheckOf[] = [huntingCheck, idleHourCheck, towChecks, sleepCheck];

/** The checks of a rig, in the order to do them. */
export const rigChecks = (proving: Proving): RigCheck[] => CHECKS.flatMap((of) => of(proving));
