/**
 * Every conductor a battery feeds, followed from its post to the first fuse. The wire between is protected by nothing:
 * what a chafe there draws is set by the battery alone. A branch on a stud is followed like the run it hangs on.
 */
import type { RuleSet } from '../codes/ruleSet';
import { isFuseOrBreaker } from '../parts/fuses';
import { traitsOf } from '../parts/kinds';
import { drawRig } from '../rig/archetypes/families';
import { follow, terminalKey, type FeedStep } from '../rig/follow';
import type { Conductor, Part, Rig } from '../rig/schema';
import { partsWith } from '../rig/value';

export interface UnprotectedFeed {
  battery: Part;
  /** Where the fuse belongs: the first conductor that goes on beyond the distance, and its end nearer the battery. */
  conductor: Conductor;
  end: 'from' | 'to';
  /** The first fuse on the way, and m of cable to it; Infinity where there is none. */
  fuse?: Part;
  metres: number;
  /** The archetype drew it so, and nobody has followed it on the rig. */
  unlooked: boolean;
}

/** Where the feeds of a battery end, or come to their first fuse: on a stud, a line that is live there all the same. */
function leavesOf(rig: Rig, battery: Part): FeedStep[] {
  const steps = follow(rig, { part: battery.id, terminal: 'plus' }, (p) => !isFuseOrBreaker(p), ['feed', 'control']);
  const goesOn = new Set(steps.map((s) => s.before));
  return steps.filter((s) => !goesOn.has(s) || isFuseOrBreaker(s.part));
}

const chain = (leaf: FeedStep): FeedStep[] => (leaf.before ? [...chain(leaf.before), leaf] : [leaf]);

/** Cranking cables of a rig: no code asks them to be fused. */
export const crankingCables = (rig: Rig): Conductor[] =>
  rig.conductors.filter((c) =>
    [c.from, c.to].some((e) => {
      const part = rig.parts.find((p) => p.id === e.part);
      return part !== undefined && traitsOf(part).cranked?.terminal === e.terminal;
    }),
  );

/** Whether a conductor still stands as its archetype drew it, and nobody has followed it on the rig. */
export function unlookedIn(rig: Rig): (c: Conductor) => boolean {
  const drawn = rig.made && drawRig(rig.id, rig.name, rig.made);
  return (c) => {
    const d = c.looked ? undefined : drawn?.conductors.find((x) => x.id === c.id);
    return d !== undefined && terminalKey(d.from) === terminalKey(c.from) && terminalKey(d.to) === terminalKey(c.to);
  };
}

/** Every feed that is not fused within the guide's distance of a battery, each once a battery, the worst of its branches. */
export function unprotectedFeeds(rig: Rig, { fuseWithin }: Pick<RuleSet, 'fuseWithin'>): UnprotectedFeed[] {
  const asDrawn = unlookedIn(rig);
  const cranking = new Set(crankingCables(rig).map((c) => c.id));
  return partsWith(rig, 'battery').flatMap((battery) => {
    const found = new Map<string, UnprotectedFeed>();
    for (const leaf of leavesOf(rig, battery)) {
      if (cranking.has(leaf.conductor.id)) continue;
      const fuse = isFuseOrBreaker(leaf.part) ? leaf.part : undefined;
      if (fuse && leaf.metres <= fuseWithin.guide) continue;
      const at = chain(leaf).find((s) => s.metres > fuseWithin.guide) ?? leaf;
      const metres = fuse ? leaf.metres : Infinity;
      const known = found.get(at.conductor.id);
      if (known && known.metres >= metres) continue;
      found.set(at.conductor.id, {
        battery,
        conductor: at.conductor,
        end: terminalKey(at.to) === terminalKey(at.conductor.to) ? 'from' : 'to',
        metres,
        ...(fuse ? { fuse } : {}),
        unlooked: asDrawn(at.conductor),
      });
    }
    return [...found.values()];
  });
}
