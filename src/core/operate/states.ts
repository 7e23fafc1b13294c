/**
 * What the rig is doing while one measures. A row is an operating state; its id is what command line,
 * screens, database and files store. Never call a rig's revision or a controller's mode a "state".
 */
import { is, isOneOf } from '../parts/kinds';
import type { TraitName } from '../parts/traits';
import type { OperatingInputs } from '../control/inputs';
import type { Rig } from '../rig/schema';

export interface OperatingState {
  id: string;
  label: string;
  /** Two short lines for a narrow column. */
  short: readonly [string, string?];
  /** What to do to get there, and that it is parked. */
  how: string;
  inputs: OperatingInputs;
  /** Kinds of part of which a rig must have one to know this state. */
  needs?: readonly TraitName[];
  /** Minutes to get into this state from key off. Assumed; shops edit theirs. */
  enterMinutes: number;
  /** Minutes to begin it anew for one more reading, where it does not last. Assumed. */
  againMinutes?: number;
  /** Short sentence that says it is settled, shown once the dwell has run. */
  cautions: readonly string[];
}

/** Parked, everything off; nothing comes or goes but what a state says. */
const PARKED: Omit<OperatingInputs, 'dwell'> = {
  key: false,
  engine: 'off',
  boost: false,
  shore: false,
  generator: false,
  disconnect: true,
  covered: false,
  coupled: true,
  lamps: false,
};

const RUNNING = [
  'Engine only in the open: exhaust kills. Brake on, wheels chocked.',
  'Hands, sleeves and leads clear of belt and fan.',
  'Stop the engine before opening any battery, fuse or disconnect.',
] as const;

const FROZEN = 'Never charge a frozen or bulging battery: warm it, or change it.';

export const OPERATING_STATES: readonly OperatingState[] = [
  {
    id: 'rested',
    label: 'Key off, rested',
    short: ['Key off,', 'rested'],
    how: 'key off, shore cord out, solar covered, nothing touched for 30 min',
    inputs: { ...PARKED, covered: true, dwell: 1800 },
    enterMinutes: 2,
    cautions: [
      'Rings and watch off, safety glasses on: a bank can give thousands of amps.',
      'Vent the bank before a lead touches a post: no sparks.',
      'Hands off orange cables. Battery under a seat: key off ten minutes first, for the airbags.',
      'LP gas off before working by its bay. Nobody goes under on air bags or jacks alone: stands.',
    ],
  },
  {
    id: 'key-on',
    label: 'Key on, engine off',
    short: ['Key on,', 'engine off'],
    how: 'key in run for a minute, engine off',
    inputs: { ...PARKED, key: true, dwell: 60 },
    enterMinutes: 1.5,
    cautions: ['Rings and watch off, safety glasses on: a bank can give thousands of amps.'],
  },
  {
    id: 'idle-before-delay',
    label: 'Engine idle, first 20 s',
    short: ['Idle, first', '20 s'],
    how: 'engine just started, before the delay has run out',
    inputs: { ...PARKED, key: true, engine: 'idle', dwell: 10 },
    needs: ['delays'],
    enterMinutes: 2,
    againMinutes: 2.5,
    cautions: RUNNING,
  },
  {
    id: 'idle',
    label: 'Engine idle',
    short: ['Engine', 'idle'],
    how: 'engine idling, parked, three minutes or more',
    inputs: { ...PARKED, key: true, engine: 'idle', dwell: 180 },
    enterMinutes: 3,
    cautions: RUNNING,
  },
  {
    id: 'fast-idle',
    label: 'Fast idle, 1,500 rpm',
    short: ['Fast idle,', 'parked'],
    how: 'parked and chocked, a helper holds about 1,500 rpm for three minutes',
    inputs: { ...PARKED, key: true, engine: 'fast-idle', dwell: 180 },
    enterMinutes: 4,
    cautions: RUNNING,
  },
  {
    id: 'lamps',
    label: 'Engine idle, marker lights on',
    short: ['Idle,', 'lights on'],
    how: 'engine idling for three minutes, marker lights on',
    inputs: { ...PARKED, key: true, engine: 'idle', lamps: true, dwell: 180 },
    needs: ['lampCircuit'],
    enterMinutes: 3,
    cautions: RUNNING,
  },
  {
    id: 'boost-engine-off',
    label: 'Boost held, engine off',
    short: ['Boost', 'held'],
    how: 'engine off, a helper holds the boost switch',
    inputs: { ...PARKED, boost: true, dwell: 5 },
    needs: ['boost', 'bypass'],
    enterMinutes: 2,
    againMinutes: 0.5,
    cautions: [
      'Rings and watch off. Boost joins two banks: hands off the studs before it is pressed. Vent both: a flat bank gasses.',
      'Never boost into a frozen or bulging battery.',
      'Key out, brake set. Hold it only while you read, ten minutes at most: the coil gets hot. Never wedge the switch.',
    ],
  },
  {
    id: 'boost-engine-on',
    label: 'Boost held, engine idle',
    short: ['Boost,', 'idle'],
    how: 'engine idling for two minutes, then a helper holds the boost switch',
    inputs: { ...PARKED, key: true, engine: 'idle', boost: true, dwell: 120 },
    needs: ['boost', 'bypass'],
    enterMinutes: 3,
    cautions: [
      ...RUNNING,
      FROZEN,
      'Hold it only while you read, ten minutes at most: the coil gets hot. Never wedge the switch.',
    ],
  },
  {
    id: 'shore',
    label: 'Shore charging',
    short: ['Shore', 'charging'],
    how: 'engine off, shore cord in, charger on for ten minutes',
    inputs: { ...PARKED, shore: true, dwell: 600 },
    needs: ['mainsCharger'],
    enterMinutes: 5,
    cautions: [
      'Rings and watch off. Charging makes hydrogen: ventilate the bank, no sparks.',
      FROZEN,
      'Shore power at the charger: covers stay on. Never back-feed an outlet with a male-to-male cord.',
    ],
  },
  {
    id: 'generator',
    label: 'Generator charging',
    short: ['Generator', 'charging'],
    how: 'engine off, shore cord out, generator running and the charger on for ten minutes',
    inputs: { ...PARKED, generator: true, dwell: 600 },
    needs: ['generator'],
    enterMinutes: 5,
    cautions: [
      'Generator only in the open, its exhaust clear of every window: carbon monoxide kills.',
      'Charging makes hydrogen: ventilate the bank, no sparks.',
      FROZEN,
      'Line voltage at the charger: covers stay on.',
    ],
  },
  {
    id: 'uncoupled',
    label: 'Uncoupled, engine off',
    short: ['Uncoupled,', 'key off'],
    how: 'engine off, shore cord out, tow connector pulled for ten minutes',
    inputs: { ...PARKED, coupled: false, covered: true, dwell: 600 },
    needs: ['towConnector'],
    enterMinutes: 3,
    cautions: [
      'Chock the trailer and set its brake before the connector is pulled.',
      'Never pull a high-current connector under load: stop the engine first.',
    ],
  },
  {
    id: 'disconnect-open',
    label: 'Disconnect off, engine off',
    short: ['Disconnect', 'off'],
    how: 'engine off, shore cord out, coach disconnect turned off',
    inputs: { ...PARKED, disconnect: false, covered: true, dwell: 60 },
    needs: ['disconnect'],
    enterMinutes: 2,
    cautions: [
      'Never open the disconnect while anything charges: stop the engine and pull the shore cord first.',
      'With it off the LP and CO detectors may be dead: nobody sleeps inside.',
    ],
  },
];

const BY_ID = new Map(OPERATING_STATES.map((s) => [s.id, s]));
export const STATE_IDS: readonly string[] = OPERATING_STATES.map((s) => s.id);

/** The operating states a rig can be put in, in their order: one with an engine running where something turns with it. */
export const statesOf = (rig: Rig): OperatingState[] =>
  OPERATING_STATES.filter(
    (s) =>
      (s.needs === undefined || rig.parts.some((p) => isOneOf(p, s.needs!))) &&
      (s.inputs.engine === 'off' || rig.parts.some((p) => is(p, 'alternator'))),
  );

/** The state in which the rig charges itself: its engine idling or, where nothing turns, its charger on. */
export const chargingStateOf = (rig: Rig): string =>
  ['idle', 'shore'].find((id) => statesOf(rig).some((s) => s.id === id)) ?? 'idle';

export const isStateId = (id: string): boolean => BY_ID.has(id);

/** The state with this id; throws on an id that no validated document can hold. */
export function operatingState(id: string): OperatingState {
  const state = BY_ID.get(id);
  if (!state) throw new Error(`unknown operating state ${id}`);
  return state;
}

/**
 * Minutes to change the rig from one operating state to another. Assumed, common practice. Never less than it takes to
 * begin the state anew: the first seconds of an idling engine are had by starting it, whatever it did before; and were a
 * state cheaper to come to than to stay in, one would be sent to and fro for ever.
 */
export function changeMinutes(from: string, to: string): number {
  const again = operatingState(to).againMinutes ?? 0;
  if (from === to) return again;
  const a = operatingState(from).inputs;
  const b = operatingState(to).inputs;
  let minutes = operatingState(to).enterMinutes;
  if (a.engine !== 'off' && b.engine === 'off') minutes += 1; // stop, let surface volts fall a little
  if ((a.shore && !b.shore) || (a.generator && !b.generator)) minutes += 1;
  if (a.engine !== 'off' && b.engine !== 'off') minutes -= 1; // already running: only the wait is left
  return Math.max(minutes, again);
}
