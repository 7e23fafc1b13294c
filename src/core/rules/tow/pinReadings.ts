/**
 * What readings at a position say of it: what the vehicle gives there, how good its contact is, and whether
 * the readings can all be true. A meter of 10 MΩ shows 12 V through a green pin: only a load tells.
 */
import { LIVE_VOLTS } from '../../compile/tow/ways';
import { pinFeed, type FeedId, type PinCondition } from '../../parts/pinUses';
import type { PinSeen, TowWay } from '../../rig/tow';

/** V below which a position is dead; between that and live it is neither. */
const DEAD_BELOW_VOLTS = 1;
/** A fall of more than half a volt under a lamp is bad: common practice. */
export const BAD_FALL_VOLTS = 0.5;
/** V by which two readings of one thing may differ. */
const AGREES_WITHIN_VOLTS = 0.15;

/** Largest fall under load, V; undefined where none was loaded. */
export const loadedFall = (way: TowWay): number | undefined => {
  const falls = (way.seen ?? [])
    .filter((s) => s.loaded !== undefined && Math.abs(s.open) > LIVE_VOLTS)
    .map((s) => Math.abs(s.open) - Math.abs(s.loaded!));
  return falls.length > 0 ? Math.max(...falls) : undefined;
};

export interface PinVerdict {
  /** What the readings make it; undefined where they do not tell yet. */
  feed?: FeedId;
  reversed: boolean;
  /** Why the readings cannot all be true, or disagree with what is described. */
  contradictions: string[];
}

const CONDITION_WORDS: Readonly<Record<PinCondition, string>> = {
  'key-off': 'key off',
  'key-on': 'key on',
  'engine-on': 'engine on',
  'lamps-on': 'lamps on',
  'brake-on': 'brakes applied',
};

/** Live, dead, or undefined: not read, or neither. */
type Live = (when: PinCondition) => boolean | undefined;

const liveOf = (seen: readonly PinSeen[]): Live => {
  const by = new Map<PinCondition, PinSeen>(seen.map((s) => [s.when, s]));
  return (when) => {
    const s = by.get(when);
    return s && (Math.abs(s.open) >= LIVE_VOLTS ? true : Math.abs(s.open) <= DEAD_BELOW_VOLTS ? false : undefined);
  };
};

/** Why a position's readings cannot all be true. */
function contradictionsOf(seen: readonly PinSeen[], live: Live): string[] {
  const contradictions: string[] = [];
  for (const s of seen) {
    const words = CONDITION_WORDS[s.when];
    if (s.loaded !== undefined && Math.abs(s.loaded) > Math.abs(s.open) + AGREES_WITHIN_VOLTS)
      contradictions.push(
        `With ${words}, ${s.loaded} V under load is more than ${s.open} V without: the two are swapped, or something changed between them.`,
      );
    if (Math.abs(s.open) > DEAD_BELOW_VOLTS && Math.abs(s.open) < LIVE_VOLTS)
      contradictions.push(`With ${words}, ${s.open} V is neither live nor dead: load it with a lamp and read again.`);
  }
  if (seen.some((s) => s.open > DEAD_BELOW_VOLTS) && seen.some((s) => s.open < -DEAD_BELOW_VOLTS))
    contradictions.push('Both signs at one position: one of the readings had its leads swapped.');
  const [off, on, running] = [live('key-off'), live('key-on'), live('engine-on')];
  if (off === true && (on === false || running === false))
    contradictions.push('Live with the key off but dead with it on: read both again.');
  if (on === true && running === false)
    contradictions.push('Live with the key on but dead with the engine running: read both again.');
  return contradictions;
}

/** Feeds that are live while the brakes are on. @param described what the position is said to be */
const brakeFeed = (described: FeedId): FeedId =>
  described === 'stop' || described === 'left' || described === 'right' ? described : 'brake';

/** What feeds a position by when it is live; undefined where the readings do not tell yet. */
function feedOf(live: Live, described: FeedId): FeedId | undefined {
  const [off, on, running] = [live('key-off'), live('key-on'), live('engine-on')];
  if (off === true) return 'constant';
  if (off === undefined) return undefined;
  if (on === true || running === true) return 'ignition';
  const [brakes, lamps] = [live('brake-on'), live('lamps-on')];
  if (brakes === true) return brakeFeed(described);
  if (lamps === true) return 'tail';
  return [on, running, brakes, lamps].every((x) => x === false) ? 'none' : undefined;
}

/** Reads a position's readings. */
export function readPin(way: TowWay): PinVerdict {
  const seen = way.seen ?? [];
  const live = liveOf(seen);
  const contradictions = contradictionsOf(seen, live);
  const feed = feedOf(live, way.feed);
  if (feed !== undefined && feed !== way.feed && contradictions.length === 0)
    contradictions.push(`Described as ${pinFeed(way.feed).says}, measured as ${pinFeed(feed).says}.`);
  return { ...(feed !== undefined ? { feed } : {}), reversed: seen.some((s) => s.open < -LIVE_VOLTS), contradictions };
}
