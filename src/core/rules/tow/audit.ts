/**
 * The audit of a tow interface: what goes wrong when it is coupled, and the smallest set of changes after which
 * every situation is good. The search tries every one change, then every two, and so on; among sets of one size
 * it takes the one with the fewest minutes. From the third change on a step answers the first trouble left only.
 */
import { RULE_SETS, USUAL_JURISDICTION } from '../../codes';
import type { RuleSet } from '../../codes/ruleSet';
import type { TowInterface } from '../../rig/tow';
import { connectorOf, positionShown } from '../../parts/connectors';
import { waysOf } from '../../compile/tow/ways';
import type { TowSolution } from '../../operate/tow/solveTow';
import { changesFor, type TowChange } from './changes';
import { readPin } from './pinReadings';
import {
  hoursToFlat,
  hoursToNoStart,
  breakawayMinutes,
  towTroubles,
  type TowContext,
  type TowTrouble,
} from './troubles';
import type { TowVehicle } from '../../compile/tow/vehicle';

/** Changes in a set beyond which the search gives up, and interfaces it looks at. */
const MAX_CHANGES = 6;
const MAX_LOOKED_AT = 450;
/** Sets up to this size are tried whole. */
const EXHAUSTIVE_UP_TO = 2;

export interface TowSummary {
  troubles: TowTrouble[];
  /** By situation, in the order of SITUATIONS. */
  solved: TowSolution[];
  /** Infinity where nothing drains the start battery. */
  hoursToNoStart: number;
  /** Of an accessory battery that feeds what is behind; absent where there is none, Infinity where it gives nothing. */
  hoursToFlat?: number;
  breakawayMinutes: number;
}
export interface TowAudit {
  before: TowSummary;
  /** Why readings at a position cannot all be true, or disagree with what is described. */
  contradictions: { at: string; says: string }[];
  /** In the order they answer the troubles; empty where nothing is wrong. */
  changes: Omit<TowChange, 'tow'>[];
  after?: TowSummary & { tow: TowInterface };
  /** Whether no smaller set would have done; false where there was too much wrong to try them all. */
  smallest: boolean;
  /** Troubles the search found no way out of; then `after` is the best it reached. */
  left: TowTrouble[];
}

function summary(tow: TowInterface, vehicle: TowVehicle, rules: RuleSet): TowSummary {
  const { troubles, solved } = towTroubles(tow, vehicle, rules);
  const flat = hoursToFlat({ vehicle, solved });
  return {
    troubles,
    solved,
    hoursToNoStart: hoursToNoStart({ vehicle, solved }),
    ...(flat === undefined ? {} : { hoursToFlat: flat }),
    breakawayMinutes: breakawayMinutes(tow),
  };
}

/** Audits an interface on a vehicle. @param rules of the place. */
export function auditTow(
  tow: TowInterface,
  vehicle: TowVehicle,
  rules: RuleSet = RULE_SETS[USUAL_JURISDICTION],
): TowAudit {
  const before = summary(tow, vehicle, rules);
  const contradictions = tow.plugs.flatMap((plug) =>
    plug.ways.flatMap((way) =>
      readPin(way).contradictions.map((says) => ({
        at: `${plug.id}.${way.pin}`,
        says: `Pin ${positionShown(way.pin)} of the ${connectorOf(plug.connector).label}. ${says}`,
      })),
    ),
  );
  if (before.troubles.length === 0) return { before, contradictions, changes: [], smallest: true, left: [] };
  const found = smallestChanges(tow, vehicle, rules);
  const after = summary(found.tow, vehicle, rules);
  return {
    before,
    contradictions,
    changes: found.changes.map(({ tow: _, ...rest }) => rest),
    ...(found.changes.length > 0 ? { after: { ...after, tow: found.tow } } : {}),
    smallest: found.smallest,
    left: after.troubles,
  };
}

interface Reached {
  tow: TowInterface;
  changes: TowChange[];
  minutes: number;
  /** Whether no smaller set of our changes would have done. */
  smallest: boolean;
}

/** The smallest set of changes that leaves no trouble; the set that leaves fewest where none does. */
export function smallestChanges(tow: TowInterface, vehicle: TowVehicle, rules: RuleSet): Reached {
  const known = new Map<string, ReturnType<typeof towTroubles>>();
  const look = (t: TowInterface) => {
    const key = JSON.stringify(t);
    let seen = known.get(key);
    if (!seen) known.set(key, (seen = towTroubles(t, vehicle, rules)));
    return seen;
  };
  const left = (t: TowInterface) => look(t).troubles.length;
  /** Every further change from here, against all its troubles or the first. */
  const steps = (r: Reached, all: boolean): Reached[] => {
    const { troubles, solved } = look(r.tow);
    const context: TowContext = { tow: r.tow, vehicle, ways: waysOf(r.tow), solved, rules };
    return (all ? troubles : troubles.slice(0, 1))
      .flatMap((t) => changesFor(context, t))
      .map((change) => ({
        tow: change.tow,
        changes: [...r.changes, change],
        minutes: r.minutes + change.minutes,
        smallest: true,
      }));
  };
  let best: Reached = { tow, changes: [], minutes: 0, smallest: true };
  let level: Reached[] = [best];
  const reachedAt = new Set<string>([JSON.stringify(tow)]);
  for (let size = 1; size <= MAX_CHANGES && level.length > 0 && known.size <= MAX_LOOKED_AT; size++) {
    const next = new Map<string, Reached>();
    let good: Reached | undefined;
    // The most promising first, should the search have to stop.
    for (const r of level.sort((a, b) => left(a.tow) - left(b.tow) || a.minutes - b.minutes)) {
      if (known.size > MAX_LOOKED_AT) break;
      for (const reached of steps(r, size <= EXHAUSTIVE_UP_TO)) {
        const key = JSON.stringify(reached.tow);
        const before = next.get(key);
        if (reachedAt.has(key) || (before && before.minutes <= reached.minutes)) continue;
        next.set(key, reached);
        const wrong = left(reached.tow);
        if (wrong === 0 && (!good || reached.minutes < good.minutes)) good = reached;
        if (wrong < left(best.tow)) best = reached;
      }
    }
    if (good) return { ...good, smallest: known.size <= MAX_LOOKED_AT };
    for (const key of next.keys()) reachedAt.add(key);
    level = [...next.values()];
  }
  // Too many things wrong to try every set: on from the best, each time by the change that leaves fewest.
  for (let k = 0; k < MAX_CHANGES && left(best.tow) > 0; k++) {
    const on = steps(best, true).sort((a, b) => left(a.tow) - left(b.tow) || a.minutes - b.minutes)[0];
    if (!on || left(on.tow) >= left(best.tow)) break;
    best = on;
  }
  return { ...best, smallest: false };
}
