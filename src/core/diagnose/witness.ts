/** What must have been read before a rig is said to do what the owner misses: a table, one row a complaint. Common practice. */
import type { Complaint } from '../parts/complaints';
import type { TraitName } from '../parts/traits';

/** A point that must have been read, as any of these: a bank's post, a clamp on what it takes or gives. */
export type Witness =
  /** `atRestWhereUneven`: at rest, only where a middle does not stand halfway elsewhere: on a charger it may do so in either way. */
  | { post: string; of: TraitName; side?: Side; atRestWhereUneven?: true }
  /** With the engine running, wherever the complaint shows: what is flat was emptied, or never filled. */
  | { post: string; of: TraitName; side?: Side; running: true }
  | { clampAt: TraitName; side?: Side }
  /** `whereUneven`: only where its middle does not stand halfway; `whereTakesLittle`: where it is low and takes few amps. */
  | { ask: readonly string[]; of: TraitName; side?: Side; whereUneven?: true; whereTakesLittle?: true }
  /** Directly across its studs: two banks near each other in volts are not told to be joined by their posts. */
  | { across: TraitName }
  /** The same where it is open and one bank is worked: equal volts at rest are no sign that two banks are apart. */
  | { apart: TraitName }
  /** Over each piece between the banks, where volts are lost on the way from one to the other. */
  | { pieces: true }
  /** A clamp round a wire that carries nothing at rest: what it shows is its own zero, and a small draw is told beside it. */
  | { zeroOf: TraitName; side: Side };

/** A witness with a place of its own, whatever was read before. */
export type Placed = Exclude<Witness, { apart: TraitName } | { pieces: true } | { zeroOf: TraitName }>;

export type Side = 'engine' | 'coach';

/** The operating state in which nothing runs. */
export const AT_REST = 'rested';

const BOTH_BANKS: readonly Witness[] = [
  { post: 'plus', of: 'battery', side: 'engine' },
  { post: 'plus', of: 'battery', side: 'coach' },
];

export const CHARGED: readonly Witness[] = [
  ...BOTH_BANKS,
  { post: 'minus', of: 'battery', side: 'coach' },
  { post: 'middle', of: 'battery', side: 'coach' },
  { clampAt: 'battery', side: 'coach' },
  { pieces: true },
  { ask: ['load-test'], of: 'battery', side: 'coach', whereUneven: true },
  { ask: ['load-test'], of: 'battery', side: 'coach', whereTakesLittle: true },
  { post: 'plus', of: 'battery', side: 'coach', atRestWhereUneven: true },
  { post: 'middle', of: 'battery', side: 'coach', atRestWhereUneven: true },
];

/** What shows that the rig does what the owner misses, in the complaint's state. Common practice. */
export const PROVES: Readonly<Record<Complaint, readonly Witness[]>> = {
  'coach-not-charging': CHARGED,
  'slow-charging': CHARGED,
  'link-cycles': CHARGED,
  'hot-link': CHARGED,
  'boost-dead': [...BOTH_BANKS, { across: 'solenoid' }],
  'coach-short-life': [
    { post: 'plus', of: 'battery', side: 'coach' },
    { post: 'middle', of: 'battery', side: 'coach' },
    { clampAt: 'battery', side: 'coach' },
    // Acid may be even and a plate dead: what it gives under load is the test.
    { ask: ['load-test'], of: 'battery', side: 'coach' },
  ],
  'house-dead': [
    { post: 'plus', of: 'battery', side: 'coach' },
    { post: 'minus', of: 'battery', side: 'coach' },
    { post: 'house', of: 'disconnect' },
  ],
  'chassis-flat': [
    { post: 'plus', of: 'battery', side: 'engine' },
    { post: 'plus', of: 'battery', side: 'engine', running: true },
    { post: 'minus', of: 'battery', side: 'engine', running: true },
    { clampAt: 'battery', side: 'engine' },
    { zeroOf: 'battery', side: 'engine' },
    { ask: ['load-test'], of: 'battery', side: 'engine' },
  ],
  'both-flat': [
    ...BOTH_BANKS,
    { clampAt: 'battery', side: 'engine' },
    { zeroOf: 'battery', side: 'engine' },
    { apart: 'solenoid' },
  ],
  'link-always-on': [...BOTH_BANKS, { apart: 'solenoid' }],
  'chassis-not-charging': [
    { post: 'plus', of: 'battery', side: 'engine' },
    { post: 'minus', of: 'battery', side: 'engine' },
    { clampAt: 'battery', side: 'engine' },
  ],
  'shore-not-charging': [
    { post: 'plus', of: 'battery', side: 'coach' },
    { post: 'minus', of: 'battery', side: 'coach' },
    { clampAt: 'battery', side: 'coach' },
  ],
  'chassis-not-on-shore': BOTH_BANKS,
  'fridge-stays-on': [{ post: 'plus', of: 'fridge' }],
  'fridge-warm': [{ post: 'plus', of: 'fridge' }],
};

/** What is still to be read. */
export interface Unproved {
  state: string;
  /** Points any one of which would do; or questions; or this very measurement. */
  points: string[];
  questions: string[];
  test?: string;
}
