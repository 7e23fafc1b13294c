/** What is different between two versions of a rig: pieces gone, come and altered, by their permanent ids. */
import { gaugeName } from '../units/wire';
import { terminalsOf } from '../rig/check';
import type { Conductor, Endpoint, Part, Rig } from '../rig/schema';

export interface Difference {
  kind: 'removed' | 'added' | 'altered';
  what: 'part' | 'conductor' | 'ground' | 'bond';
  id: string;
  /** "DC-DC charger, 40 A: added in the link box". */
  says: string;
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
const noted = (p: Part) => (p.note ? `${p.name}, ${p.note}` : p.name);
const wire = (c: Conductor) => `${c.name}, ${gaugeName(c.gauge)}, ${c.length.toFixed(1)} m`;

const LISTS = ['parts', 'conductors', 'grounds', 'bonds'] as const;
const SINGULAR = { parts: 'part', conductors: 'conductor', grounds: 'ground', bonds: 'bond' } as const;

/** How `to` differs from `from`, parts before conductors, what goes before what comes. */
export function differences(from: Rig, to: Rig): Difference[] {
  return LISTS.flatMap((list): Difference[] => {
    const before = new Map((from[list] as { id: string; name: string }[]).map((x) => [x.id, x]));
    const after = new Map((to[list] as { id: string; name: string }[]).map((x) => [x.id, x]));
    const words = (x: unknown) =>
      list === 'parts' ? noted(x as Part) : list === 'conductors' ? wire(x as Conductor) : (x as { name: string }).name;
    const what = SINGULAR[list];
    const gone = [...before.values()]
      .filter((x) => !after.has(x.id))
      .map((x): Difference => ({ kind: 'removed', what, id: x.id, says: `${words(x)}: taken out` }));
    const come = [...after.values()]
      .filter((x) => !before.has(x.id))
      .map((x): Difference => ({
        kind: 'added',
        what,
        id: x.id,
        says: list === 'parts' ? `${words(x)}: fitted, ${(x as Part).place.toLowerCase()}` : `${words(x)}: run`,
      }));
    const altered = [...after.values()]
      .filter((x) => before.has(x.id) && !same(before.get(x.id), x))
      .map((x): Difference => ({
        kind: 'altered',
        what,
        id: x.id,
        says: `${words(before.get(x.id))}: becomes ${words(x)}`,
      }));
    return [...gone, ...altered, ...come];
  });
}

/**
 * Carries the step from one drawn rig to another over to a third that was drawn as the first and edited
 * since: what the step does not touch stays as it is there. Probes on what goes are retired, new ones labelled
 * on.
 */
export function carryOver(rig: Rig, from: Rig, to: Rig): Rig {
  const result: Rig = { ...rig };
  for (const list of LISTS) {
    const before = new Map((from[list] as { id: string }[]).map((x) => [x.id, x]));
    const after = new Map((to[list] as { id: string }[]).map((x) => [x.id, x]));
    const kept = (rig[list] as { id: string }[])
      .filter((x) => after.has(x.id) || !before.has(x.id))
      .map((x) =>
        after.has(x.id) && before.has(x.id) && !same(before.get(x.id), after.get(x.id)) ? after.get(x.id)! : x,
      );
    const have = new Set(kept.map((x) => x.id));
    const come = [...after.values()].filter((x) => !before.has(x.id) && !have.has(x.id));
    (result as Record<string, unknown>)[list] = [...kept, ...come];
  }
  const terminals = terminalsOf(result);
  // What somebody added and hung on a piece that goes now, goes with it.
  const ends = (e: Endpoint) => terminals.get(e.part)?.has(e.terminal) ?? false;
  result.conductors = result.conductors.filter((c) => ends(c.from) && ends(c.to));
  result.bonds = result.bonds.filter((b) => ends(b.from) && ends(b.to));
  const conductors = new Set(result.conductors.map((c) => c.id));
  const there = (key: string) => {
    const [owner, terminal] = key.split('.') as [string, string];
    return terminal === 'clamp' ? conductors.has(owner) : (terminals.get(owner)?.has(terminal) ?? false);
  };
  const probes = rig.probes.map((p) => (there(p.key) ? p : { ...p, retired: true }));
  let last = Math.max(0, ...probes.map((p) => Number(p.label.slice(1))));
  for (const p of to.probes) {
    if (probes.some((x) => x.key === p.key) || !there(p.key)) continue;
    probes.push({ ...p, label: `P${++last}` });
  }
  return { ...result, probes, ...(to.made ? { made: to.made } : {}) };
}
