/**
 * What a vehicle may give at a position of its tow socket, and what a trailer may hang on it. Lamp and brake
 * amps are usual ones, from memory; a newcomer adds a row.
 */

/** What a vehicle is doing, as far as its tow socket knows. */
export interface Driving {
  key: boolean;
  engine: boolean;
  lamps: boolean;
  braking: boolean;
}

export interface PinFeed {
  id: string;
  label: string;
  /** Ways to name it in a sentence: "the vehicle gives …". */
  says: string;
  /** Comes from a battery through a fuse, and can carry power. */
  power: boolean;
  live(d: Driving, combined: boolean): boolean;
}

export const PIN_FEEDS: readonly PinFeed[] = [
  { id: 'none', label: 'nothing', says: 'nothing', power: false, live: () => false },
  { id: 'ground', label: 'ground', says: 'ground', power: false, live: () => false },
  { id: 'constant', label: 'constant +', says: 'a constant feed', power: true, live: () => true },
  { id: 'ignition', label: 'ignition +', says: 'an ignition feed', power: true, live: (d) => d.key },
  { id: 'tail', label: 'tail lamps', says: 'tail lamps', power: false, live: (d) => d.lamps },
  { id: 'left', label: 'left turn', says: 'left turn', power: false, live: (d, combined) => combined && d.braking },
  { id: 'right', label: 'right turn', says: 'right turn', power: false, live: (d, combined) => combined && d.braking },
  { id: 'stop', label: 'stop lamps', says: 'stop lamps', power: false, live: (d) => d.braking },
  { id: 'brake', label: 'brake controller', says: 'the brake controller', power: true, live: (d) => d.braking },
  { id: 'reverse', label: 'reverse lamps', says: 'reverse lamps', power: false, live: () => false },
  { id: 'fog', label: 'rear fog', says: 'rear fog', power: false, live: () => false },
];
export type FeedId =
  'none' | 'ground' | 'constant' | 'ignition' | 'tail' | 'left' | 'right' | 'stop' | 'brake' | 'reverse' | 'fog';

export interface PinUseRow {
  id: string;
  label: string;
  says: string;
  /** Feeds that serve it, the best first. */
  served: readonly FeedId[];
  /** Asks for more than a lamp's current. */
  power: boolean;
  /** A it draws where it is a lamp or a coil. */
  amps?: number;
}

export const PIN_USES = [
  { id: 'ground', label: 'ground', says: 'ground', served: ['ground'], power: false },
  { id: 'tail', label: 'tail lamps', says: 'tail lamps', served: ['tail'], power: false, amps: 4 },
  { id: 'left', label: 'left lamps', says: 'left turn', served: ['left'], power: false, amps: 2.2 },
  { id: 'right', label: 'right lamps', says: 'right turn', served: ['right'], power: false, amps: 2.2 },
  { id: 'stop', label: 'stop lamps', says: 'stop lamps', served: ['stop'], power: false, amps: 4.2 },
  { id: 'reverse', label: 'reverse lamp', says: 'reverse lamp', served: ['reverse'], power: false, amps: 2.2 },
  { id: 'fog', label: 'fog lamp', says: 'rear fog', served: ['fog'], power: false, amps: 2.2 },
  { id: 'brakes', label: 'electric brakes', says: 'the brakes', served: ['brake'], power: true },
  { id: 'charger', label: 'DC-DC charger', says: 'the charger', served: ['constant', 'ignition'], power: true },
  {
    id: 'charger-enable',
    label: 'charger enable',
    says: 'the charger’s enable',
    served: ['ignition', 'tail'],
    power: false,
    amps: 0.05,
  },
  {
    id: 'bank',
    label: 'battery, direct',
    says: 'the trailer’s battery',
    served: ['ignition', 'constant'],
    power: true,
  },
  { id: 'fridge', label: 'fridge element', says: 'the fridge element', served: ['ignition', 'constant'], power: true },
  {
    id: 'fridge-trigger',
    label: 'fridge relay coil',
    says: 'the fridge relay’s coil',
    served: ['ignition'],
    power: false,
    amps: 0.15,
  },
  {
    id: 'breakaway',
    label: 'breakaway battery',
    says: 'the breakaway battery',
    served: ['constant', 'ignition'],
    power: true,
  },
] as const satisfies readonly PinUseRow[];
export type UseId = (typeof PIN_USES)[number]['id'];

const FEEDS = new Map(PIN_FEEDS.map((f) => [f.id, f]));
const USES = new Map<string, PinUseRow>(PIN_USES.map((u) => [u.id, u]));
export const FEED_IDS = PIN_FEEDS.map((f) => f.id) as FeedId[];
export const USE_IDS = PIN_USES.map((u) => u.id);
export const pinFeed = (id: FeedId): PinFeed => FEEDS.get(id)!;
export const pinUse = (id: UseId): PinUseRow => USES.get(id)!;

/** What the vehicle does while a position is measured. */
export const PIN_CONDITIONS = ['key-off', 'key-on', 'engine-on', 'lamps-on', 'brake-on'] as const;
export type PinCondition = (typeof PIN_CONDITIONS)[number];
