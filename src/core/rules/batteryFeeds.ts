/**
 * Every conductor a battery feeds, followed from its post to the first fuse. The wire between is protected by nothing:
 * what a chafe there draws is set by the battery alone. A branch on a stud is followed like the run it hangs on.
 */
import type { RuleSet } from '../codes/ruleSet';
import { isFuseOrBreaker } from '../parts/fuses';
import { is, traitsOf } from '../parts/kinds';
import { drawRig } from '../rig/archetypes/families';
import { onwards, terminalKey } from '../rig/follow';
import type { Conductor, Endpoint, Part, Rig } from '../rig/schema';
import { partsWith } from '../rig/value';

export interface UnprotectedFeed {
  battery: Part;
  /** Where the fuse belongs: the first conductor that goes on beyond the distance, and its end nearer the battery. */
  conductor: Conductor;
  end: 'from' | 'to';
  /** The first fuse on the way, and m of cable to it; Infinity where there is none. */
  fuse?: Part;
  metres: number;
  /** What it feeds, where no fuse comes before. */
  feeds?: Part;
  /** The archetype drew it so, and nobody has followed it on the rig. */
  unlooked: boolean;
}

interface Step {
  conductor: Conductor;
  end: 'from' | 'to';
  to: Endpoint;
  /** m from the post to the far end of this conductor. */
  metres: number;
  before?: Step;
}

/** Leaves of the tree of conductors that lie before any fuse, seen from a battery's post. */
function leavesOf(rig: Rig, battery: Part): Step[] {
  const live = rig.conductors.filter((c) => c.use !== 'return');
  const seen = new Set<string>();
  const leaves: Step[] = [];
  const queue: { at: string; metres: number; before?: Step }[] = [{ at: `${battery.id}.plus`, metres: 0 }];
  while (queue.length > 0) {
    const here = queue.shift()!;
    for (const conductor of live) {
      if (seen.has(conductor.id)) continue;
      const end =
        terminalKey(conductor.from) === here.at ? 'from' : terminalKey(conductor.to) === here.at ? 'to' : undefined;
      if (!end) continue;
      seen.add(conductor.id);
      const to = conductor[end === 'from' ? 'to' : 'from'];
      const step: Step = {
        conductor,
        end,
        to,
        metres: here.metres + conductor.length,
        ...(here.before ? { before: here.before } : {}),
      };
      const part = rig.parts.find((p) => p.id === to.part);
      // Another battery's post is where its own feeds begin.
      if (is(part, 'battery')) {
        leaves.push(step);
        continue;
      }
      // Other wires on the stud it ends on, be it a fuse's own, are before the fuse too.
      const through = part && !isFuseOrBreaker(part) ? onwards(part, to.terminal) : [];
      const studs = [terminalKey(to), ...through.map((t) => `${to.part}.${t}`)];
      const goesOn = live.some((c) => !seen.has(c.id) && [c.from, c.to].some((e) => studs.includes(terminalKey(e))));
      // A line that ends on an open stud is live there all the same.
      if (!goesOn || isFuseOrBreaker(part)) leaves.push(step);
      for (const at of studs) queue.push({ at, metres: step.metres, before: step });
    }
  }
  return leaves;
}

const chain = (leaf: Step): Step[] => (leaf.before ? [...chain(leaf.before), leaf] : [leaf]);

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
      const part = rig.parts.find((p) => p.id === leaf.to.part);
      const fuse = part && isFuseOrBreaker(part) ? part : undefined;
      if (fuse && leaf.metres <= fuseWithin.guide) continue;
      const at = chain(leaf).find((s) => s.metres > fuseWithin.guide) ?? leaf;
      const metres = fuse ? leaf.metres : Infinity;
      const known = found.get(at.conductor.id);
      if (known && known.metres >= metres) continue;
      found.set(at.conductor.id, {
        battery,
        conductor: at.conductor,
        end: at.end,
        metres,
        ...(fuse ? { fuse } : part ? { feeds: part } : {}),
        unlooked: asDrawn(at.conductor),
      });
    }
    return [...found.values()];
  });
}
